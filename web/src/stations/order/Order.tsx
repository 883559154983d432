/** What is wanted: how many of which, how thick, for when. */
import { at } from "../../api/base";
import { useRef, type RefObject } from "react";
import { useNavigate } from "react-router";
import type { Cutter, Plan } from "../../api/client";
import { useChangeJob, useCutters, useFormulas, useKitchen } from "../../api/queries";
import { useJobContext } from "../../app/JobFrame";
import { NextStep } from "../../app/NextStep";
import { cutterPath } from "../../drawing/path";
import { clock, dayClock, duration, longDay } from "../../drawing/time";
import { say } from "../../drawing/sentence";
import { Amount } from "../../kit/Amount";
import { Choice, type Option } from "../../kit/Choice";
import { CutterPicture } from "../../kit/CutterPicture";
import { Fault, otherFault } from "../../kit/Fault";
import { Live } from "../../kit/Live";
import { SaveMenu } from "../../kit/SaveMenu";
import { SaveSvg } from "../../kit/SaveSvg";
import { Part, Row, Rows, StationHead, TicketBox, Work } from "../../kit/Ticket";
import { ReadyBy } from "../../kit/ReadyBy";
import { TextField } from "../../kit/TextField";
import { usePictureWidth } from "../../kit/narrow";
import { useFormat } from "../../kit/settings";
import { AddCutter } from "./AddCutter";
import { Lots } from "./Lots";
import { MadeHow, wayOf } from "./MadeHow";
import { Thickness } from "./Thickness";

const MEANS: readonly Option<Plan["ready_means"]>[] = [
  { value: "out", label: "Out of the oven" },
  { value: "cool", label: "Cooled" },
  { value: "touch_dry", label: "Dry to the touch" },
  { value: "finished", label: "Finished and dry" },
  { value: "packed", label: "Packed" },
];
const LAST: Record<Plan["ready_means"], string> = {
  out: "tray out of the oven",
  cool: "cooled tray",
  touch_dry: "cookie dry to the touch",
  finished: "cookie finished and dry",
  packed: "cookie packed",
};

export function Order() {
  const { job, plan, day, dim } = useJobContext();
  const format = useFormat();
  const { mutateAsync: keep } = useChangeJob(job.id);
  const change = useChangeJob(job.id);
  const formulas = useFormulas();
  const cutters = useCutters();
  const kitchen = useKitchen();
  const picture = useRef<SVGSVGElement>(null);
  const { cutter } = plan;
  return (
    <>
      <Work dim={dim}>
        <StationHead
          title={`${job.pieces} × ${cutter.name}`}
          sub={`${format.length(Math.round(cutter.width_mm * 10) / 10)} wide, ${format.length(Math.round(plan.oven.thickness_mm * 10) / 10)} thick`}
        >
          <SaveMenu>
            <SaveSvg picture={picture} name={`${cutter.name} ${job.pieces}`} />
          </SaveMenu>
        </StationHead>
        <Pieces picture={picture} cutter={cutter} count={job.pieces} thickness={plan.oven.thickness_mm} />
        {wayOf(job.making) === "cut" ? (
          <CutterShelf
            cutters={cutters.data ?? []}
            chosen={job.cutter_id}
            onChoose={(cutter_id) => change.mutate({ cutter_id })}
          />
        ) : null}
        {cutter.warning ? <p className="caution mt-4">{say(cutter.warning, format)}</p> : null}
      </Work>
      <TicketBox>
        <Part title="Ready by">
          <p className="answer">
            <Live value={clock(plan.ready_by)} />
          </p>
          <p className="mb-3 mt-1 text-soft">{longDay(plan.ready_by)}</p>
          <p className="say">
            <strong>Start {dayClock(day.start_at)}.</strong> {duration(day.total_min)} to the last{" "}
            {LAST[plan.ready_means]}, {duration(day.hands_min)} hands-on.
          </p>
        </Part>
        <Part title="This job">
          <div className="space-y-3">
            <TextField label="Job name" value={job.name} onSave={(name) => keep({ name })} field="name" />
            <ReadyBy value={job.ready_by} onSave={(ready_by) => keep({ ready_by })} />
            <Choice
              label="Ready means"
              value={plan.ready_means}
              options={MEANS.filter(
                (m) =>
                  m.value !== "touch_dry" ||
                  plan.ready_means === "touch_dry" ||
                  plan.finish.coats.some((c) => c.touch_min < c.dry_min),
              )}
              onChange={(ready_means) => change.mutate({ ready_means })}
            />
            <Amount
              label="Cookies"
              kind="count"
              value={job.pieces}
              step={1}
              field="pieces"
              onSave={(pieces) => keep({ pieces })}
            />
            <MadeHow job={job} />
            {wayOf(job.making) === "portioned" ? null : (
              <Thickness
                value={job.thickness_mm}
                rods={kitchen.data?.rods_mm ?? []}
                onSave={(thickness_mm) => keep({ thickness_mm })}
              />
            )}
            <div>
              <label htmlFor="formula" className="mb-1 block text-fine text-soft">
                Recipe
              </label>
              <select
                id="formula"
                className="field"
                value={job.formula_id}
                onChange={(e) => change.mutate({ formula_id: Number(e.target.value) })}
              >
                {formulas.data?.map((f) => (
                  <option key={f.id} value={f.id}>
                    {f.name}
                  </option>
                ))}
              </select>
            </div>
            <Fault text={otherFault(change.error, ["name", "pieces", "thickness_mm", "ready_by"])} />
          </div>
        </Part>
        <Lots job={job} />
        <Part title="Dough and trays">
          <Rows>
            <Row name="Each cookie">
              <Live value={format.mass(plan.dough.piece_g)} />
            </Row>
            <Row name="Dough to mix">
              <Live value={format.bigMass(plan.dough.dough_g)} />
            </Row>
            <Row name="Trays">
              <Live value={String(plan.shape.trays.fill.length)} />
            </Row>
          </Rows>
          <div className="mt-3 flex flex-wrap gap-2">
            <a
              className="btn btn-small"
              href={at(`/api/jobs/${job.id}/export`)}
              download={`${job.name}.json`}
            >
              Save job file
            </a>
          </div>
        </Part>
        <NextStep station="order" />
      </TicketBox>
    </>
  );
}

function Pieces({
  picture,
  cutter,
  count,
  thickness,
}: {
  picture: RefObject<SVGSVGElement | null>;
  cutter: Cutter;
  count: number;
  thickness: number;
}) {
  const format = useFormat();
  const width = usePictureWidth();
  const { width_mm: w, height_mm: h } = cutter;
  const path = cutterPath(cutter);
  // One piece large with its measures, the whole order small beside it.
  const big = 310;
  const scale = Math.min(big / w, 190 / h);
  const shown = Math.min(count, 240);
  const columns = Math.ceil(Math.sqrt((shown * 366 * (h + 6)) / (270 * (w + 6))));
  const rows = Math.ceil(shown / columns);
  const small = Math.min(366 / (columns * (w + 6)), 270 / (rows * (h + 6)));
  const side = thickness * scale;
  const [cx, cy] = [14 + big / 2, 110];
  return (
    <svg
      ref={picture}
      viewBox={`0 0 ${width} 300`}
      className="w-full"
      role="img"
      aria-labelledby="order-title order-desc"
    >
      <title id="order-title">{`${count} × ${cutter.name}`}</title>
      <desc id="order-desc">{`One cookie is ${format.length(w)} wide, ${format.length(h)} high and ${format.length(thickness)} thick.`}</desc>
      <path
        d={path}
        transform={`translate(${cx} ${cy}) scale(${scale})`}
        className="slides fill-cut stroke-cut-line"
        strokeWidth={1.6 / scale}
        strokeLinejoin="round"
      />
      <g className="stroke-edge" strokeWidth="1.2">
        <path
          d={`M${cx - (w * scale) / 2} ${cy + (h * scale) / 2 + 16}h${w * scale}m0 -6v12m${-w * scale} -12v12`}
          fill="none"
        />
        <path
          d={`M${cx + (w * scale) / 2 + 16} ${cy - (h * scale) / 2}v${h * scale}m-6 0h12m-12 ${-h * scale}h12`}
          fill="none"
        />
      </g>
      <text x={cx} y={cy + (h * scale) / 2 + 36} textAnchor="middle" fontSize="16" className="num">
        {format.length(w)}
      </text>
      <text x={cx + (w * scale) / 2 + 28} y={cy + 5} fontSize="16" className="num">
        {format.length(h)}
      </text>
      <rect
        x={cx - (w * scale) / 2}
        y={288 - side}
        width={w * scale}
        height={side}
        rx={Math.min(3, side / 3)}
        className="slides fill-cut stroke-cut-line"
        strokeWidth="1.2"
      />
      <text x={cx + (w * scale) / 2 + 12} y={288 - side / 2 + 5} fontSize="16" className="num">
        {format.length(thickness)}
      </text>
      <g transform="translate(450 10)" visibility={width > 500 ? undefined : "hidden"}>
        {Array.from({ length: shown }, (_, i) => (
          <path
            key={i}
            d={path}
            transform={`translate(${((i % columns) + 0.5) * (w + 6) * small} ${(Math.floor(i / columns) + 0.5) * (h + 6) * small}) scale(${small})`}
            className="fill-cut stroke-cut-line"
            strokeWidth={0.8 / small}
          />
        ))}
        {count > shown ? (
          <text x="0" y="278" fontSize="15" className="soft">
            {`first ${shown} of ${count}`}
          </text>
        ) : null}
      </g>
    </svg>
  );
}

function CutterShelf({
  cutters,
  chosen,
  onChoose,
}: {
  cutters: Cutter[];
  chosen: number;
  onChoose(id: number): void;
}) {
  const format = useFormat();
  const navigate = useNavigate();
  return (
    <section className="no-print mt-5" aria-labelledby="shelf-head">
      <div className="mb-2 flex flex-wrap items-center justify-between gap-2">
        <h3 id="shelf-head" className="h-part">
          Cutter
        </h3>
        <AddCutter
          onAdded={(cutter) => {
            onChoose(cutter.id);
            void navigate(".");
          }}
        />
      </div>
      <div
        role="radiogroup"
        aria-labelledby="shelf-head"
        className="grid grid-cols-[repeat(auto-fill,minmax(6.4rem,1fr))] gap-2"
      >
        {cutters.map((c) => (
          <label
            key={c.id}
            className="flex cursor-pointer flex-col items-center rounded-xl border-[1.5px] border-rule bg-raised p-2 has-[:checked]:border-ink has-[:checked]:shadow-[inset_0_0_0_1px_var(--c-ink)] has-[:focus-visible]:outline-3 has-[:focus-visible]:outline-cold"
          >
            <input
              type="radio"
              name="cutter"
              className="visually-hidden"
              checked={c.id === chosen}
              onChange={() => onChoose(c.id)}
            />
            <span className="grid h-16 place-items-center">
              <CutterPicture cutter={c} size={60} />
            </span>
            <span className="max-w-full text-balance text-center font-semibold leading-tight [overflow-wrap:anywhere]">
              {c.name}
            </span>
            <span className="num text-[0.875rem] text-soft">{format.length(c.width_mm)}</span>
          </label>
        ))}
      </div>
    </section>
  );
}
