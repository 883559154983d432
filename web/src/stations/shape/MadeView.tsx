/** A lot that is not cut: its logs or portions as the plan has them, drawn to scale, their sizes changed here. */
import { at } from "../../api/base";
import { useRef } from "react";
import type { Job, JobBody } from "../../api/client";
import { useLog, usePortion, type LogQuery, type PortionQuery } from "../../api/logs";
import { useChangeJob } from "../../api/queries";
import { useJobContext } from "../../app/JobFrame";
import { NextStep } from "../../app/NextStep";
import type { Making } from "../../app/lots";
import { duration } from "../../drawing/time";
import { Amount } from "../../kit/Amount";
import { Choice } from "../../kit/Choice";
import { Fault, otherFault } from "../../kit/Fault";
import { Live } from "../../kit/Live";
import { SaveMenu } from "../../kit/SaveMenu";
import { SaveSvg } from "../../kit/SaveSvg";
import { Why } from "../../kit/Fold";
import { Cautions, Part, Row, Rows, StationHead, TicketBox, Work } from "../../kit/Ticket";
import { useFormat } from "../../kit/settings";
import { LogDrawing } from "./LogDrawing";
import { FORMS } from "./LogView";
import { Parts } from "./Parts";
import { PortionDrawing } from "./PortionDrawing";
import { BENT, FIELDS, KINDS, labelOf, SPOONS, spoonOf, WORD, withWeight, type Size } from "./PortionView";
import { Pricked } from "./Pricked";
import { ShapeNav } from "./ShapeNav";

type Sliced = Extract<Making, { kind: "sliced" }>;
export type Portioned = Exclude<Making, { kind: "cut" } | { kind: "sliced" }>;

/** The way of making with some sizes changed, whatever else was changed meanwhile. */
const remade =
  (sizes: Record<string, unknown>) =>
  (now: Job): Partial<JobBody> => ({ making: { ...now.making, ...sizes } as Making });

export function MadeView() {
  const { job } = useJobContext();
  const { making } = job;
  if (!making || making.kind === "cut") return null;
  return making.kind === "sliced" ? <Slices making={making} /> : <Portions making={making} />;
}

function Slices({ making }: { making: Sliced }) {
  const { job, plan, dim } = useJobContext();
  const format = useFormat();
  const { mutateAsync: keep } = useChangeJob(job.id);
  const change = useChangeJob(job.id);
  const picture = useRef<SVGSVGElement>(null);
  const [roll] = plan.shape.rolls;
  const tall = making.form === "oblong" || making.form === "wedge";
  const query: LogQuery = {
    form: making.form,
    ...(tall ? { height_to_width: making.height_to_width ?? 1 } : {}),
    mass_g: roll?.mass_g ?? 0,
    width_mm: making.width_mm,
    slice_mm: job.thickness_mm,
    ends_kept: making.ends_kept ?? false,
    ...(making.longest_mm == null ? {} : { longest_mm: making.longest_mm }),
  };
  const found = useLog(job.id, query);
  const log = found.error ? undefined : found.data;
  if (!roll) return null;
  const strip = new URLSearchParams(Object.entries(query).map(([k, v]) => [k, String(v)]));
  return (
    <>
      <Work dim={dim || found.isPlaceholderData}>
        <StationHead
          title={roll.sheets === 1 ? "One log" : `${roll.sheets} logs alike`}
          sub={`${format.mass(roll.mass_g)} each, ${format.length(roll.length_mm)} long`}
        >
          <SaveMenu>
            <SaveSvg picture={picture} name={`${job.name} log`} />
            <a
              className="btn btn-small"
              href={at(
                `/api/jobs/${job.id}/log/strip.pdf?${strip}&paper=${format.ruler === "us" ? "letter" : "a4"}`,
              )}
            >
              Ruler strip PDF
            </a>
          </SaveMenu>
        </StationHead>
        <ShapeNav jobId={job.id} />
        <Fault text={otherFault(found.error, [])} />
        {log ? <LogDrawing picture={picture} log={log} form={making.form} /> : null}
      </Work>
      <TicketBox>
        <Part title="Slices">
          <p className="answer">
            <Live value={String(job.pieces)} />
          </p>
          {log ? (
            <p className="mt-1 text-soft">{`${log.slices} per log, ${format.mass(log.slice_mass_g)} each`}</p>
          ) : null}
        </Part>
        <Part title="Log size">
          <Choice
            label="Section"
            value={making.form}
            options={FORMS}
            onChange={(form) => change.mutate(remade({ form }))}
          />
          <div className="mt-3 grid grid-cols-2 gap-3">
            <Amount
              label="Width"
              kind="length"
              step={1}
              value={making.width_mm ?? 0}
              field="making.width_mm"
              onSave={(width_mm) => keep(remade({ width_mm }))}
            />
            <Amount
              label="Slice thickness"
              kind="length"
              step={0.5}
              value={job.thickness_mm}
              field="thickness_mm"
              onSave={(thickness_mm) => keep({ thickness_mm })}
            />
            {tall && log ? (
              <Amount
                label="Height"
                kind="length"
                step={1}
                value={Math.round(log.height_mm * 10) / 10}
                field="making.height_mm"
                onSave={(high) => keep(remade({ height_to_width: high / log.width_mm }))}
              />
            ) : null}
            <Amount
              label="Maximum log length"
              kind="length"
              step={10}
              value={making.longest_mm ?? log?.longest_mm ?? 0}
              field="making.longest_mm"
              onSave={(longest_mm) => keep(remade({ longest_mm }))}
            />
            <Amount
              label="Spare dough"
              kind="percent"
              value={job.reserve_percent}
              field="reserve_percent"
              step={1}
              onSave={(reserve_percent) => keep({ reserve_percent })}
            />
          </div>
          <div className="mt-3">
            <Choice
              label="The ends"
              value={making.ends_kept ? "kept" : "trimmed"}
              options={[
                { value: "trimmed", label: "Ends trimmed" },
                { value: "kept", label: "Ends baked too" },
              ]}
              onChange={(ends) => change.mutate(remade({ ends_kept: ends === "kept" }))}
            />
          </div>
          <Fault text={otherFault(change.error, [])} />
        </Part>
        <Part title="At the bench">
          <Rows>
            <Row name="Total dough">{format.bigMass(plan.dough.dough_g)}</Row>
            <Row name="Ends and spare slices">{format.mass(plan.shape.left_g)}</Row>
            {log?.turn_every_min ? (
              <Row name="Turn it until firm">{`every ${duration(log.turn_every_min)}`}</Row>
            ) : null}
          </Rows>
          <Cautions items={plan.shape.warnings} />
          <Why name="shape" items={plan.shape.reasons} />
        </Part>
        <NextStep station="shape" />
      </TicketBox>
    </>
  );
}

/** What the portion is asked with. */
export function portionQuery(making: Portioned): PortionQuery {
  const { kind, ...sizes } = making;
  const { parts_g, ...rest } = sizes as { parts_g?: number[] };
  return { kind, ...rest, ...(parts_g ? { parts: parts_g.join(",") } : {}) } as PortionQuery;
}

function Portions({ making }: { making: Portioned }) {
  const { job, plan, dim } = useJobContext();
  const format = useFormat();
  const { mutateAsync: keep } = useChangeJob(job.id);
  const change = useChangeJob(job.id);
  const picture = useRef<SVGSVGElement>(null);
  const asked = usePortion(job.id, { ...portionQuery(making), batch_g: Math.round(plan.dough.dough_g) });
  const found = asked.error ? undefined : asked.data;
  const sizes = Object.entries(withWeight(making.kind, making, plan.dough.piece_g)).filter(
    (e): e is [Size, number] => e[0] in FIELDS && typeof e[1] === "number",
  );
  return (
    <>
      <Work dim={dim || asked.isPlaceholderData}>
        <StationHead
          title={`${job.pieces} ${WORD[making.kind]}`}
          sub={`${format.mass(plan.dough.piece_g)} each`}
        >
          <SaveMenu>
            <SaveSvg picture={picture} name={`${job.name} portion`} />
          </SaveMenu>
        </StationHead>
        <ShapeNav jobId={job.id} />
        <Fault text={otherFault(asked.error, [])} />
        {found ? <PortionDrawing picture={picture} kind={making.kind} found={found} /> : null}
      </Work>
      <TicketBox>
        <Part title="How many">
          <p className="answer">
            <Live value={String(job.pieces)} />
          </p>
          <p className="mt-1 text-soft">{`${KINDS.find((k) => k.value === making.kind)?.label ?? ""}, ${format.bigMass(plan.dough.dough_g)} of dough total`}</p>
        </Part>
        <Part title="Each one">
          <div className="grid grid-cols-2 gap-3">
            {sizes.map(([name, value]) => {
              const f = FIELDS[name];
              return f ? (
                <Amount
                  key={name}
                  label={labelOf(making.kind, name, f.label)}
                  kind={f.kind}
                  step={f.step}
                  value={Math.round(value * 10) / 10}
                  field={`making.${name}`}
                  onSave={(v) => keep(remade({ [name]: v, ...(name === "scoop" ? { mass_g: null } : {}) }))}
                />
              ) : null;
            })}
            <Amount
              label="Spare dough"
              kind="percent"
              value={job.reserve_percent}
              field="reserve_percent"
              step={1}
              onSave={(reserve_percent) => keep({ reserve_percent })}
            />
          </div>
          {making.kind === "figure" ? (
            <Parts
              parts_g={making.parts_g}
              field="making.parts"
              onSave={(parts_g) => keep({ making: { kind: "figure", parts_g } })}
            />
          ) : null}
          {making.kind === "spoon" ? (
            <div className="mt-3">
              <Choice
                label="Which spoon"
                value={spoonOf(making.spoon, making.heaped)}
                options={SPOONS}
                onChange={(v) => {
                  const s = SPOONS.find((o) => o.value === v);
                  if (s)
                    change.mutate({
                      making: { kind: "spoon", spoon: s.spoon, heaped: s.heaped, mass_g: null },
                    });
                }}
              />
              <Fault text={otherFault(change.error, [])} />
            </div>
          ) : null}
          {making.kind === "tray_bar" ? <Pricked /> : null}
          {making.kind === "rope" ? (
            <div className="mt-3">
              <Choice
                label="Bent to"
                value={making.bent ?? "straight"}
                options={BENT}
                onChange={(bent) => change.mutate(remade({ bent }))}
              />
              <Fault text={otherFault(change.error, [])} />
            </div>
          ) : null}
          <p className="mt-2 text-fine text-soft">Change the kind under Portions.</p>
        </Part>
        <Cautions items={plan.shape.warnings} />
        <Why name="shape" part items={plan.shape.reasons} />
        <NextStep station="shape" />
      </TicketBox>
    </>
  );
}
