/** Two decisions, free of each other: how the dough chills before it is shaped, and how the shaped pieces do. */
import type { Job, JobBody, Plan } from "../../api/client";
import { useChangeJob } from "../../api/queries";
import { Amount } from "../../kit/Amount";
import { Choice, type Option } from "../../kit/Choice";
import { Fault, otherFault } from "../../kit/Fault";
import { Live } from "../../kit/Live";
import { Part } from "../../kit/Ticket";
import { say, textOf } from "../../drawing/sentence";
import { duration } from "../../drawing/time";
import { useFormat } from "../../kit/settings";

type ChillFor = Plan["cold"]["dough_for"];

const HOW_LONG: readonly Option<ChillFor>[] = [
  { value: "no", label: "Not at all" },
  { value: "ready", label: "Until ready" },
  { value: "best", label: "Until best" },
  { value: "at_least", label: "At least" },
  { value: "exactly", label: "Exactly" },
  { value: "overnight", label: "Overnight" },
];

const PLACES = [
  { value: "fridge", label: "Fridge" },
  { value: "freezer", label: "Freezer" },
] as const;

const FORMS: readonly Option<Job["dough_form"]>[] = [
  { value: "lump", label: "In the bowl" },
  { value: "disc", label: "Discs" },
  { value: "sheets", label: "Rolled first" },
];

const FROM: readonly Option<NonNullable<Job["thaws"]> | "fresh">[] = [
  { value: "fresh", label: "Fresh" },
  { value: "fridge", label: "Frozen: thaw overnight in the fridge" },
  { value: "bench", label: "Frozen: thaw on the bench" },
];

const FIELDS = [
  "disc_mm",
  "sheet_stack",
  "dough_for_min",
  "pieces_for_min",
  "bulk_for_min",
  "flour_rest_min",
] as const;
const WHAT = { dough: "the dough chills", pieces: "the cookies chill", bulk: "the lump chills" } as const;

export function Chilling({ job, plan }: { job: Job; plan: Plan }) {
  const change = useChangeJob(job.id);
  const { mutateAsync: keep } = change;
  const { cold } = plan;
  const format = useFormat();
  const made = plan.making.kind;
  const thawed = cold.thaw != null;
  const chills = cold.dough_for !== "no" && !thawed;
  const from = cold.portions_first ? null : (
    <Choice
      label="Fresh or frozen dough"
      value={cold.thaw?.way ?? "fresh"}
      options={FROM}
      onChange={(way) => change.mutate({ thaws: way === "fresh" ? null : way })}
    />
  );
  return (
    <>
      {made === "sliced" && !thawed ? (
        <Part title="Chill before shaping logs">
          <div className="space-y-3">
            <HowLong
              of="bulk"
              value={job.bulk_for ?? "no"}
              minutes={job.bulk_for_min}
              step={5}
              exactly="Time, ready or not"
              onChange={keep}
            />
            {cold.bulk ? (
              <p>
                {cold.bulk.told ? (
                  <>
                    The lump is firm in{" "}
                    <strong>
                      <Live value={duration(cold.bulk.told.ready_min)} />
                    </strong>
                    .{" "}
                  </>
                ) : null}
                {`Take it out at ${format.temperature(cold.bulk.out_c)}.${cold.bulk.rest_min > 0 ? ` Rest it ${duration(cold.bulk.rest_min)} on the bench.` : ""} Shape logs at ${format.temperature(cold.bulk.formed_c)}.`}
              </p>
            ) : (
              <p className="text-fine text-soft">
                Shaped right away, while soft. Chill the lump first and logs hold their shape better.
              </p>
            )}
            {from}
          </div>
        </Part>
      ) : null}
      <Part title={made === "sliced" ? "Chill the logs" : "Chill the dough"}>
        <div className="space-y-3">
          {thawed ? null : (
            <HowLong
              of="dough"
              value={cold.dough_for}
              minutes={job.dough_for_min}
              step={5}
              exactly="Time, ready or not"
              onChange={keep}
            />
          )}
          {thawed && made === "cut" ? (
            <Choice
              label="Shape for chilling"
              value={job.dough_form}
              options={FORMS}
              onChange={(dough_form) => change.mutate({ dough_form })}
            />
          ) : null}
          {chills ? (
            <>
              {made === "cut" ? (
                <Choice
                  label="Shape for chilling"
                  value={job.dough_form}
                  options={FORMS}
                  onChange={(dough_form) => change.mutate({ dough_form })}
                />
              ) : null}
              <Choice
                label="Where to chill"
                value={job.chill_place}
                options={PLACES}
                onChange={(chill_place) => change.mutate({ chill_place })}
              />
              {made === "cut" && job.dough_form === "disc" ? (
                <Amount
                  label="Disc thickness"
                  kind="length"
                  value={job.disc_mm}
                  field="disc_mm"
                  step={1}
                  onSave={(disc_mm) => keep({ disc_mm })}
                />
              ) : null}
              {made === "cut" && job.dough_form === "sheets" ? (
                <Amount
                  label="Sheets in a stack"
                  kind="count"
                  value={job.sheet_stack ?? 1}
                  field="sheet_stack"
                  step={1}
                  onSave={(sheet_stack) => keep({ sheet_stack })}
                />
              ) : null}
              <Amount
                label={job.flour_rest_min == null ? "Minimum flour rest (usual)" : "Minimum flour rest"}
                kind="duration"
                value={cold.flour_rest_min}
                field="flour_rest_min"
                step={5}
                onSave={(flour_rest_min) => keep({ flour_rest_min })}
              />
            </>
          ) : null}
          <Means items={cold.dough_means} />
          {made === "sliced" && !thawed ? null : from}
        </div>
      </Part>
      <Part
        title={
          made === "sliced"
            ? "Chill the slices"
            : made === "cut"
              ? "Chill the cut cookies"
              : "Chill the shaped cookies"
        }
      >
        <div className="space-y-3">
          <HowLong
            of="pieces"
            value={cold.pieces_for}
            minutes={job.pieces_for_min}
            step={1}
            exactly="Time, firm or not"
            onChange={keep}
          />
          {cold.pieces_for === "no" ? null : (
            <Choice
              label="Where to chill the tray"
              value={job.tray_chill_place}
              options={PLACES}
              onChange={(tray_chill_place) => change.mutate({ tray_chill_place })}
            />
          )}
          <TrayWords cold={cold} />
          <Means items={cold.pieces_mean} />
        </div>
      </Part>
      <Fault text={otherFault(change.error, FIELDS)} />
    </>
  );
}

/** How long the dough or the pieces chill, with the minutes where they are the baker's own. */
function HowLong({
  of,
  value,
  minutes,
  step,
  exactly,
  onChange,
}: {
  of: keyof typeof WHAT;
  value: ChillFor;
  minutes: number | undefined;
  step: number;
  exactly: string;
  onChange(change: Partial<JobBody>): Promise<unknown>;
}) {
  return (
    <>
      <Choice
        label={`How long ${WHAT[of]}`}
        value={value}
        options={HOW_LONG}
        onChange={(next) => void onChange({ [`${of}_for`]: next }).catch(() => undefined)}
      />
      {value === "at_least" || value === "exactly" ? (
        <Amount
          label={value === "exactly" ? exactly : "Minimum time"}
          kind="duration"
          value={minutes ?? 0}
          field={`${of}_for_min`}
          step={step}
          onSave={(min) => onChange({ [`${of}_for_min`]: min })}
        />
      ) : null}
    </>
  );
}

/** What a choice means, where it is made. */
function Means({ items }: { items: Plan["cold"]["dough_means"] }) {
  const format = useFormat();
  return items.map((item) => (
    <p key={textOf(item)} className="text-fine text-soft">
      {say(item, format)}
    </p>
  ));
}

/** What becomes of the pieces on their tray. */
function TrayWords({ cold }: { cold: Plan["cold"] }) {
  const format = useFormat();
  const tray = cold.tray_chill;
  if (!tray) return null;
  const firm = tray.told
    ? tray.told.earliest_min === tray.told.latest_min
      ? duration(tray.told.ready_min)
      : `${tray.told.earliest_min}–${tray.told.latest_min}\u00a0min`
    : undefined;
  return (
    <p>
      {firm ? (
        <>
          Firm after{" "}
          <strong>
            <Live value={firm} />
          </strong>
          , from {format.temperature(tray.start_c)} down to {format.temperature(cold.window.oven_ready_c)}.
        </>
      ) : (
        "They won’t get firm there."
      )}
      {tray.stays === "at_least" ? ` Out at ${format.temperature(tray.out_c)}.` : ""}
    </p>
  );
}
