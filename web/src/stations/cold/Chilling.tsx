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
  { value: "lump", label: "In its bowl" },
  { value: "disc", label: "Discs" },
  { value: "sheets", label: "Rolled first" },
];

const FROM: readonly Option<NonNullable<Job["thaws"]> | "fresh">[] = [
  { value: "fresh", label: "Mixed fresh" },
  { value: "fridge", label: "Frozen: a night in the fridge" },
  { value: "bench", label: "Frozen: on the bench" },
];

const FIELDS = [
  "disc_mm",
  "sheet_stack",
  "dough_for_min",
  "pieces_for_min",
  "bulk_for_min",
  "flour_rest_min",
] as const;
const WHAT = { dough: "the dough chills", pieces: "the pieces chill", bulk: "the lump chills" } as const;

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
      label="Where the dough comes from"
      value={cold.thaw?.way ?? "fresh"}
      options={FROM}
      onChange={(way) => change.mutate({ thaws: way === "fresh" ? null : way })}
    />
  );
  return (
    <>
      {made === "sliced" && !thawed ? (
        <Part title="The dough, before logs are formed">
          <div className="space-y-3">
            <HowLong
              of="bulk"
              value={job.bulk_for ?? "no"}
              minutes={job.bulk_for_min}
              step={5}
              exactly="So long, ready or not"
              onChange={keep}
            />
            {cold.bulk ? (
              <p>
                {cold.bulk.told ? (
                  <>
                    As a lump it is firm after{" "}
                    <strong>
                      <Live value={duration(cold.bulk.told.ready_min)} />
                    </strong>
                    .{" "}
                  </>
                ) : null}
                {`Out at ${format.temperature(cold.bulk.out_c)}${cold.bulk.rest_min > 0 ? `, ${duration(cold.bulk.rest_min)} on the bench` : ""}; the logs are formed at ${format.temperature(cold.bulk.formed_c)}.`}
              </p>
            ) : (
              <p className="text-fine text-soft">
                Formed at once, soft. Of dough that chilled as a lump they keep their section better.
              </p>
            )}
            {from}
          </div>
        </Part>
      ) : null}
      <Part title={made === "sliced" ? "The log" : "The dough, before it is shaped"}>
        <div className="space-y-3">
          {thawed ? null : (
            <HowLong
              of="dough"
              value={cold.dough_for}
              minutes={job.dough_for_min}
              step={5}
              exactly="So long, ready or not"
              onChange={keep}
            />
          )}
          {thawed && made === "cut" ? (
            <Choice
              label="Form for the cold"
              value={job.dough_form}
              options={FORMS}
              onChange={(dough_form) => change.mutate({ dough_form })}
            />
          ) : null}
          {chills ? (
            <>
              {made === "cut" ? (
                <Choice
                  label="Form for the cold"
                  value={job.dough_form}
                  options={FORMS}
                  onChange={(dough_form) => change.mutate({ dough_form })}
                />
              ) : null}
              <Choice
                label="Place to chill"
                value={job.chill_place}
                options={PLACES}
                onChange={(chill_place) => change.mutate({ chill_place })}
              />
              {made === "cut" && job.dough_form === "disc" ? (
                <Amount
                  label="Discs pressed to"
                  kind="length"
                  value={job.disc_mm}
                  field="disc_mm"
                  step={1}
                  onSave={(disc_mm) => keep({ disc_mm })}
                />
              ) : null}
              {made === "cut" && job.dough_form === "sheets" ? (
                <Amount
                  label="Sheets on each other"
                  kind="count"
                  value={job.sheet_stack ?? 1}
                  field="sheet_stack"
                  step={1}
                  onSave={(sheet_stack) => keep({ sheet_stack })}
                />
              ) : null}
              <Amount
                label={
                  job.flour_rest_min == null
                    ? "Rests for its flour at least, as usual"
                    : "Rests for its flour at least"
                }
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
            ? "The slices, before the oven"
            : made === "cut"
              ? "The cut pieces, before the oven"
              : "The shaped pieces, before the oven"
        }
      >
        <div className="space-y-3">
          <HowLong
            of="pieces"
            value={cold.pieces_for}
            minutes={job.pieces_for_min}
            step={1}
            exactly="So long, firm or not"
            onChange={keep}
          />
          {cold.pieces_for === "no" ? null : (
            <Choice
              label="Place for the tray chill"
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
          label={value === "exactly" ? exactly : "At least so long"}
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
        "They never get firm there."
      )}
      {tray.stays === "at_least" ? ` They come out at ${format.temperature(tray.out_c)}.` : ""}
    </p>
  );
}
