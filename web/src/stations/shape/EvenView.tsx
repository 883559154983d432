/** How even a rolled sheet is: readings filled in at the bench, the map between them, and what it does to the bake. */
import { useRef } from "react";
import { useSearchParams } from "react-router";
import type { Job } from "../../api/client";
import { useEvenness } from "../../api/logs";
import { useChangeJob } from "../../api/queries";
import { useJobContext } from "../../app/JobFrame";
import { number } from "../../drawing/units";
import { Amount } from "../../kit/Amount";
import { Choice } from "../../kit/Choice";
import { Fault, otherFault } from "../../kit/Fault";
import { Live } from "../../kit/Live";
import { SaveMenu } from "../../kit/SaveMenu";
import { SaveSvg } from "../../kit/SaveSvg";
import { Why } from "../../kit/Fold";
import { Part, Reasons, Row, Rows, StationHead, TicketBox, Work } from "../../kit/Ticket";
import { useFormat } from "../../kit/settings";
import { EvenDrawing } from "./EvenDrawing";
import { ShapeNav } from "./ShapeNav";

type Readings = NonNullable<Job["measured"]>[number];

const GRIDS = ["2 × 3", "3 × 4", "4 × 6"] as const;
const SIZE: Record<(typeof GRIDS)[number], [number, number]> = {
  "2 × 3": [2, 3],
  "3 × 4": [3, 4],
  "4 × 6": [4, 6],
};
const MOST_SHEETS = 24;

const empty = (columns: number, rows: number): Readings => ({
  columns,
  rows,
  read_mm: Array.from({ length: columns * rows }, () => null),
});

export function EvenView() {
  const { job, plan, dim } = useJobContext();
  const format = useFormat();
  const [search, setSearch] = useSearchParams();
  const picture = useRef<SVGSVGElement>(null);
  const change = useChangeJob(job.id);
  const sheets = Math.min(
    MOST_SHEETS,
    plan.shape.rolls.reduce((n, r) => n + r.sheets, 0),
  );
  const sheet = Math.min(Math.max(0, Number(search.get("sheet") ?? 1) - 1), sheets - 1);
  const all = job.measured ?? [];
  const readings = all[sheet] ?? empty(3, 4);
  const asked = useEvenness(job.id, sheet, readings);
  const even = asked.data ?? undefined;
  const save = (to: (readings: Readings) => Readings) =>
    change.mutateAsync((now) => {
      const before = now.measured ?? [];
      return {
        measured: Array.from({ length: Math.max(before.length, sheet + 1) }, (_, i) =>
          i === sheet ? to(before[i] ?? empty(3, 4)) : (before[i] ?? empty(3, 4)),
        ),
      };
    });
  const grid = GRIDS.find((g) => SIZE[g][0] === readings.columns && SIZE[g][1] === readings.rows) ?? "3 × 4";
  const read = readings.read_mm.filter((r) => r != null).length;
  const least = roll(plan.shape.rolls, sheet);
  return (
    <>
      <Work dim={dim || asked.isPlaceholderData}>
        <StationHead
          title="How even the sheet is"
          sub={`sheet ${sheet + 1} of ${sheets}, target ${format.length(job.thickness_mm)}`}
        >
          <SaveMenu>
            <SaveSvg picture={picture} name={`${job.name} sheet ${sheet + 1} evenness`} />
          </SaveMenu>
        </StationHead>
        <ShapeNav jobId={job.id} />
        <EvenDrawing
          picture={picture}
          even={read > 0 ? even : undefined}
          readings={readings}
          width_mm={least.width_mm}
          length_mm={least.length_mm}
        />
        <h3 className="h-part mb-1 mt-4">Your readings</h3>
        <p className="mb-3 text-soft">
          At each spot, push a skewer or depth gauge to the board. Type what it reads.
        </p>
        <div
          className="grid gap-2"
          style={{ gridTemplateColumns: `repeat(${readings.rows}, minmax(0, 1fr))` }}
        >
          {Array.from({ length: readings.columns }, (_, across) =>
            Array.from({ length: readings.rows }, (__, along) => {
              // The sheet's length lies across the page, its first column at the foot.
              const column = readings.columns - 1 - across;
              const index = along * readings.columns + column;
              const value = readings.read_mm[index];
              return (
                <Amount
                  key={index}
                  label={`Thickness, ${along + 1} along, ${across + 1} down`}
                  hideLabel
                  className="[&_.field]:px-2 [&_.field]:text-[0.9375rem]"
                  kind="length"
                  step={0.1}
                  unset={value == null}
                  placeholder={format.length(job.thickness_mm)}
                  value={value ?? job.thickness_mm}
                  field="measured"
                  onSave={(mm) =>
                    save((now) => ({ ...now, read_mm: now.read_mm.map((r, i) => (i === index ? mm : r)) }))
                  }
                />
              );
            }),
          )}
        </div>
        <Fault text={otherFault(change.error, ["measured"])} />
      </Work>
      <TicketBox>
        <Part title="On this sheet">
          <p className="answer text-4xl">
            <Live
              value={
                even && read > 0
                  ? `${number(format.shown("length", even.least_mm), 2)}–${number(format.shown("length", even.most_mm), 2)}`
                  : "–"
              }
            />
          </p>
          <p className="mt-1 text-soft">
            {even && read > 0
              ? `${format.symbol("length")} from thinnest to thickest, ${number(format.shown("length", even.mean_mm), 2)} average`
              : "No readings yet. Three or four are enough."}
          </p>
          {even && read > 0 ? (
            <div className="mt-3">
              <Reasons items={even.advice.slice(0, 1)} />
              <Why name="even" items={even.advice.slice(1)} />
            </div>
          ) : null}
        </Part>
        {sheets > 1 ? (
          <Part title="Sheet">
            <Choice
              label="Which sheet"
              value={String(sheet + 1)}
              options={Array.from({ length: sheets }, (_, i) => ({
                value: String(i + 1),
                label: String(i + 1),
              }))}
              onChange={(s) => setSearch({ sheet: s }, { replace: true })}
            />
          </Part>
        ) : null}
        {even && read > 0 ? (
          <Part title="How it changes the bake">
            <Rows>
              <Row name="Thinnest cookies">{`${number(even.thin_min, 1)}\u00a0min`}</Row>
              <Row name="Thickest cookies">{`${number(even.thick_min, 1)}\u00a0min`}</Row>
              <Row name="On one tray">{even.one_tray ? "yes" : "better apart"}</Row>
            </Rows>
            <Why name="even-bake" items={["Times come from the forecast, or from usual bakes."]} />
          </Part>
        ) : null}
        <Part title="Grid">
          <Choice
            label="Grid, across by along"
            value={grid}
            options={GRIDS.map((g) => ({ value: g, label: g }))}
            onChange={(g) => void save(() => empty(...SIZE[g])).catch(() => undefined)}
          />
          <p className="mt-2 text-fine text-soft">Changing the grid clears it. Undo brings it back.</p>
          {read > 0 ? (
            <button
              type="button"
              className="btn mt-3"
              onClick={() => void save((now) => empty(now.columns, now.rows)).catch(() => undefined)}
            >
              Clear this sheet
            </button>
          ) : null}
        </Part>
      </TicketBox>
    </>
  );
}

/** The roll a sheet belongs to. */
export function roll<R extends { sheets: number }>(rolls: readonly R[], sheet: number): R {
  let left = sheet;
  for (const r of rolls) {
    if (left < r.sheets) return r;
    left -= r.sheets;
  }
  return rolls.at(-1) as R;
}
