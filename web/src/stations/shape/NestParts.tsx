/** The parts of the view in which a sheet or a tray is laid. */
import type { Job, Plan } from "../../api/client";
import type { useChangeJob } from "../../api/queries";
import { number } from "../../drawing/units";
import { Choice } from "../../kit/Choice";
import { Fault, otherFault } from "../../kit/Fault";
import { Live } from "../../kit/Live";
import { Part, Row, Rows } from "../../kit/Ticket";
import { useFormat } from "../../kit/settings";
import { holding, without } from "./board";
import type { Laying } from "./laying";
import { rollName } from "./rolls";
import { CameOut, ForHowLong, PrintTrueSize } from "./Searching";

/** The cookie that was picked: where it lies, moved a step, turned, locked. */
export function ChosenCookie({ laying, turning }: { laying: Laying; turning: Job["turning"] }) {
  const format = useFormat();
  const { board, chosen, choose, piece, gaps, nudge, put, search, select } = laying;
  return (
    <section className="mt-4 flex flex-wrap items-center gap-2" aria-label="The selected cookie">
      <button type="button" className="btn btn-small" aria-label="Previous cookie" onClick={() => choose(-1)}>
        ‹
      </button>
      <span className="num min-w-32 text-center">
        {chosen === undefined ? "No cookie selected" : `Cookie ${chosen + 1} of ${board.pieces.length}`}
      </span>
      <button type="button" className="btn btn-small" aria-label="Next cookie" onClick={() => choose(1)}>
        ›
      </button>
      {piece && chosen !== undefined && !search ? (
        <>
          <button
            type="button"
            className="btn btn-small"
            aria-label="Left 1 mm"
            onClick={() => nudge({ y_mm: -1 })}
          >
            ←
          </button>
          <button
            type="button"
            className="btn btn-small"
            aria-label="Right 1 mm"
            onClick={() => nudge({ y_mm: 1 })}
          >
            →
          </button>
          <button
            type="button"
            className="btn btn-small"
            aria-label="Up 1 mm"
            onClick={() => nudge({ x_mm: 1 })}
          >
            ↑
          </button>
          <button
            type="button"
            className="btn btn-small"
            aria-label="Down 1 mm"
            onClick={() => nudge({ x_mm: -1 })}
          >
            ↓
          </button>
          {turning === "fixed" ? null : (
            <button
              type="button"
              className="btn btn-small"
              onClick={() => nudge({ turn_deg: turning === "half_turn" ? 180 : 5 })}
            >
              {turning === "half_turn" ? "Half turn" : "Turn 5°"}
            </button>
          )}
          <button
            type="button"
            className="btn btn-small"
            aria-pressed={piece.held}
            onClick={() => put(holding(board, chosen, !piece.held))}
          >
            {piece.held ? "Unlock" : "Lock"}
          </button>
          <button
            type="button"
            className="btn btn-small"
            onClick={() => {
              select(undefined);
              put(without(board, chosen));
            }}
          >
            Remove
          </button>
          <span className="text-fine text-soft">
            {gaps
              ? `${gaps.nearest_mm == null ? "nothing near" : `${format.length(Math.round(gaps.nearest_mm * 10) / 10)} to the next`}, ${format.length(Math.round(gaps.rim_mm * 10) / 10)} to the edge`
              : ""}
          </span>
        </>
      ) : null}
    </section>
  );
}

/** How many lie there, and what is wrong with it. */
export function Laid({ laying }: { laying: Laying }) {
  const { bad, board, found, more, onTray, rows } = laying;
  return (
    <Part title={onTray ? "On a full tray" : "On this sheet"}>
      <p className="answer" aria-live="polite">
        <Live value={String(board.pieces.length)} />
      </p>
      <p className="mt-1 text-soft">
        {rows === undefined
          ? "Your saved layout."
          : more > 0
            ? `${more} more than in rows.`
            : more < 0
              ? `${-more} fewer than in rows.`
              : found
                ? "Same as in rows."
                : "In rows."}
        {found ? ` No layout could hold more than ${found.bound}.` : ""}
      </p>
      {bad.length > 0 ? (
        <p className="mt-2 font-semibold text-warm" role="alert">
          {bad.length === 1 ? `Cookie ${(bad[0] ?? 0) + 1} is` : `${bad.length} cookies are`} too close to
          another or the edge. Move {bad.length === 1 ? "it" : "them"}, or improve the rest.
        </p>
      ) : null}
    </Part>
  );
}

/** How the trays are filled, drawn as cut or as baked. */
export function Trays({
  plan,
  laying,
  baked,
  onBaked,
}: {
  plan: Plan;
  laying: Laying;
  baked: boolean;
  onBaked(baked: boolean): void;
}) {
  const format = useFormat();
  const { length_mm, width_mm } = laying;
  return (
    <Part title="Trays">
      <Choice
        label="Drawn"
        value={baked ? "after" : "before"}
        options={[
          { value: "before", label: "As cut" },
          { value: "after", label: "As baked" },
        ]}
        onChange={(v) => onBaked(v === "after")}
      />
      <ol className="mt-3">
        {plan.shape.trays.fill.map((n, i) => (
          <li key={i} className="row">
            <span className="text-soft">{`Tray ${i + 1}: ${(plan.shape.trays.sources[i] ?? []).map((f) => `${f.pieces} of the ${rollName(f.roll).toLowerCase()}`).join(", ")}`}</span>
            <span className="num">{n}</span>
          </li>
        ))}
      </ol>
      <p className="mt-2 text-fine text-soft">
        {plan.shape.trays.rounds > 1 ? `Each tray is used ${plan.shape.trays.rounds} times. ` : ""}
        Parchment: {format.length(width_mm)} × {format.length(length_mm)}
      </p>
    </Part>
  );
}

export function SearchPart({ laying }: { laying: Laying }) {
  const { goal, held, onTray, said, search, seconds, setGoal, setSeconds, trouble } = laying;
  return (
    <Part title="Search">
      <div className="space-y-3">
        {onTray ? null : (
          <Choice
            label="What for"
            value={goal}
            options={[
              { value: "most", label: "Most cookies" },
              { value: "short", label: "Less dough" },
            ]}
            onChange={(g) => setGoal(g)}
          />
        )}
        <ForHowLong label="For how long" value={seconds} onChange={setSeconds} />
        {search ? (
          <>
            <button type="button" className="btn btn-main w-full" onClick={() => search.stop.abort()}>
              Stop
            </button>
            <div
              className="h-2 overflow-hidden rounded-full bg-stone-2"
              role="progressbar"
              aria-label="Search"
              aria-valuenow={Math.round((100 * search.after_s) / search.seconds)}
              aria-valuemin={0}
              aria-valuemax={100}
            >
              <div
                className="h-2 bg-spruce"
                style={{ width: `${Math.min(100, (100 * search.after_s) / search.seconds)}%` }}
              />
            </div>
          </>
        ) : (
          <div className="flex flex-wrap gap-2">
            <button type="button" className="btn btn-main grow" onClick={() => void laying.again()}>
              {held > 0 ? "Improve the rest" : "Find a tighter layout"}
            </button>
            <button type="button" className="btn" onClick={() => void laying.other()}>
              Find another layout
            </button>
          </div>
        )}
        <CameOut said={said} fault={otherFault(trouble, [])} />
      </div>
    </Part>
  );
}

/** What the search found, in figures. */
export function ThisLayout({ laying }: { laying: Laying }) {
  const format = useFormat();
  const { found, length_mm, onTray, touched } = laying;
  if (!found || touched) return null;
  return (
    <Part title="This layout">
      <Rows>
        <Row name="Smallest gap">
          {found.least_gap_mm == null ? "–" : format.length(Math.round(found.least_gap_mm * 100) / 100)}
        </Row>
        <Row name="Smallest margin">{format.length(Math.round(found.least_rim_mm * 100) / 100)}</Row>
        <Row name="Used for cookies">{`${number(found.cut_percent, 1)}%`}</Row>
        <Row
          name={onTray ? "Tray used" : "Sheet used"}
        >{`${format.length(Math.round(found.used_mm))} of ${format.length(Math.round(length_mm))}`}</Row>
        <Row name="Rows to cut">{String(found.rows.length)}</Row>
      </Rows>
    </Part>
  );
}

export function Save({
  job,
  laying,
  change,
}: {
  job: Job;
  laying: Laying;
  change: ReturnType<typeof useChangeJob>;
}) {
  return (
    <Part title="Save">
      <div className="flex flex-wrap gap-2">
        <button
          type="button"
          className="btn btn-main"
          disabled={!laying.canKeep || change.isPending}
          onClick={laying.keep}
        >
          Save layout
        </button>
        {(job[laying.field] ?? []).length > 0 ? (
          <button type="button" className="btn" onClick={laying.backToRows}>
            Back to rows
          </button>
        ) : null}
      </div>
      <Fault text={otherFault(change.error, [])} />
      {laying.onTray ? null : <PrintTrueSize job={job.id} what="the plan’s sheet" />}
    </Part>
  );
}
