/** Nesting a sheet: the search shown live, pieces moved by hand, and what is kept of it. */
import { at } from "../../api/base";
import { useEffect, useRef, useState } from "react";
import { measureNest, searchNest, type Cut, type Nested } from "../../api/nest";
import { useChangeJob } from "../../api/queries";
import { Navigate } from "react-router";
import { useJobContext } from "../../app/JobFrame";
import { number } from "../../drawing/units";
import { Choice } from "../../kit/Choice";
import { Fault, otherFault } from "../../kit/Fault";
import { Live } from "../../kit/Live";
import { SaveMenu } from "../../kit/SaveMenu";
import { SaveSvg } from "../../kit/SaveSvg";
import { Part, Row, Rows, StationHead, TicketBox, Work } from "../../kit/Ticket";
import { AskToLeave } from "../../kit/AskToLeave";
import { useFormat } from "../../kit/settings";
import { NestDrawing } from "./NestDrawing";
import { rollName } from "./rolls";
import { ShapeNav } from "./ShapeNav";
import {
  cutOf,
  faults,
  fromCuts,
  heldOf,
  holding,
  latest,
  moved,
  placeOf,
  restOf,
  without,
  type Board,
} from "./board";

type Goal = "most" | "short";
interface Search {
  stop: AbortController;
  seconds: number;
  after_s: number;
}

const SECONDS = ["2", "10", "30"] as const;
const TURNINGS = [
  { value: "free", label: "Any way" },
  { value: "half_turn", label: "Half turn" },
  { value: "fixed", label: "No turning" },
] as const;

/** What is laid out: the first roll's sheet, or a tray. */
interface Ground {
  kind: "sheet" | "tray";
  form: "oblong" | "round" | "oval";
  width_mm: number;
  length_mm: number;
  cuts: readonly Cut[];
  /** Whether the plan's own layout is one that was kept. */
  kept: boolean;
  tray?: { gap_mm: number; edge_mm: number };
}

export function NestView() {
  const { plan } = useJobContext();
  const [roll] = plan.shape.rolls;
  if (!roll) return null;
  const { form, width_mm, length_mm, cuts, nested } = roll;
  // Another sheet or another cutter is another board.
  return (
    <LayingBoard
      key={`${plan.cutter.id} ${form} ${Math.round(width_mm)}`}
      ground={{ kind: "sheet", form, width_mm, length_mm, cuts, kept: nested }}
    />
  );
}

export function TrayView() {
  const { job, plan } = useJobContext();
  // Each sheet is its tray: there is nothing to lay.
  if (plan.cut_in_place) return <Navigate to={`/jobs/${job.id}/shape`} replace />;
  const { width_mm, length_mm, cuts, gap_mm, edge_mm, nested } = plan.shape.trays;
  return (
    <LayingBoard
      key={`${plan.cutter.id} ${Math.round(width_mm)} ${Math.round(gap_mm)}`}
      ground={{
        kind: "tray",
        form: "oblong",
        width_mm,
        length_mm,
        cuts,
        kept: nested,
        tray: { gap_mm, edge_mm },
      }}
    />
  );
}

function LayingBoard({ ground }: { ground: Ground }) {
  const { job, plan, dim } = useJobContext();
  const format = useFormat();
  const change = useChangeJob(job.id);
  const picture = useRef<SVGSVGElement>(null);
  const [board, setBoard] = useState<Board>(() => fromCuts(ground.cuts));
  const [past, setPast] = useState<Board[]>([]);
  const [found, setFound] = useState<Nested>();
  const [touched, setTouched] = useState(false);
  // Whether something was laid since it was kept last.
  const [dirty, setDirty] = useState(false);
  const [chosen, setChosen] = useState<number>();
  const [goal, setGoal] = useState<Goal>("most");
  const [seconds, setSeconds] = useState<(typeof SECONDS)[number]>("2");
  const [seed, setSeed] = useState(0);
  const [search, setSearch] = useState<Search>();
  const [trouble, setTrouble] = useState<unknown>();
  const [said, setSaid] = useState("");
  const [baked, setBaked] = useState(true);
  // The sheet stays as it was when work on the board began: keeping a layout makes the plan's own sheet another.
  const [sheet] = useState({
    width_mm: ground.width_mm,
    length_mm: ground.length_mm,
    rows: ground.kept ? undefined : ground.cuts.length,
  });
  const shown = touched || found ? board : fromCuts(ground.cuts);
  const length_mm = touched || found ? sheet.length_mm : ground.length_mm;
  const onTray = ground.kind === "tray";
  const room = { form: ground.form, ...(ground.tray ? { tray: ground.tray } : {}) };
  const field = onTray ? "tray_layout" : "layout";
  const { width_mm } = sheet;

  const [ask] = useState(() =>
    latest(({ of, size }: { of: Board; size: { width_mm: number; length_mm: number } }) =>
      measureNest(job.id, { ...size, ...room, pieces: of.pieces.map(cutOf) })
        .then((gaps) => setBoard((now) => (now.pieces === of.pieces ? { ...now, gaps } : now)))
        .catch(setTrouble),
    ),
  );
  const measure = (of: Board) => ask({ of, size: { width_mm, length_mm } });

  const put = (next: Board, from: Board = shown) => {
    setTouched(true);
    setDirty(true);
    setPast((p) => [...p.slice(-49), from]);
    setBoard(next);
    measure(next);
  };
  const before = useRef<Board | undefined>(undefined);
  const drag = (index: number, to: Partial<Cut>) => {
    before.current ??= shown;
    const next = { ...moved(shown, index, to), ...(board.gaps ? { gaps: board.gaps } : {}) };
    setTouched(true);
    setBoard(next);
    measure(next);
  };
  const drop = () => {
    const from = before.current;
    before.current = undefined;
    if (!from) return;
    setDirty(true);
    setPast((p) => [...p.slice(-49), from]);
  };
  const nudge = (by: Partial<Record<keyof Cut, number>>) => {
    const piece = chosen === undefined ? undefined : shown.pieces[chosen];
    if (chosen === undefined || !piece) return;
    put(
      moved(shown, chosen, {
        x_mm: piece.x_mm + (by.x_mm ?? 0),
        y_mm: piece.y_mm + (by.y_mm ?? 0),
        turn_deg: piece.turn_deg + (by.turn_deg ?? 0),
      }),
    );
  };

  const begin = async (way: number) => {
    const stop = new AbortController();
    const held = heldOf(shown);
    const heldPieces = shown.pieces.filter((p) => p.held);
    const from = shown;
    setPast((p) => [...p.slice(-49), from]);
    setTrouble(undefined);
    setChosen(undefined);
    setSaid("");
    setSearch({ stop, seconds: Number(seconds), after_s: 0 });
    try {
      await searchNest(
        job.id,
        {
          width_mm,
          length_mm,
          ...room,
          ...(goal === "short" ? { pieces: shown.pieces.length } : {}),
          held,
          // Another way starts afresh; else it goes on from what lies there.
          start: way === seed ? restOf(shown) : [],
          seconds: Number(seconds),
          seed: way,
        },
        {
          layout: (nested) => {
            setFound(nested);
            setDirty(true);
            // What the search finds is measured already.
            setTouched(false);
            setBoard(fromCuts(nested.cuts, heldPieces));
          },
          beat: (after_s) => setSearch((s) => (s ? { ...s, after_s } : s)),
          done: (_, exhausted) =>
            setSaid(exhausted ? "This is as tight as it gets." : "Time’s up. A longer search may find more."),
        },
        stop.signal,
      );
    } catch (error) {
      if (!stop.signal.aborted) setTrouble(error);
      else setSaid("Stopped. This is the best so far.");
    }
    setSeed(way);
    setSearch(undefined);
  };
  useEffect(() => () => search?.stop.abort(), [search?.stop]);

  const bad = faults(shown);
  const measured = shown.gaps !== undefined || !touched;
  const held = shown.pieces.filter((p) => p.held).length;
  const unkept = (touched || found !== undefined) && !search;
  const keep = () =>
    change.mutate(
      { [field]: shown.pieces.map(placeOf) },
      {
        onSuccess: () => {
          setDirty(false);
          setSaid(
            onTray
              ? "Saved. Every tray is filled like this."
              : "Saved. The plan uses it if it needs less dough.",
          );
        },
      },
    );
  const back = () => {
    const last = past.at(-1);
    if (!last) return;
    setPast(past.slice(0, -1));
    setBoard(last);
    setFound(undefined);
    setTouched(true);
    measure(last);
  };
  const piece = chosen === undefined ? undefined : shown.pieces[chosen];
  const gaps = chosen === undefined ? undefined : shown.gaps?.[chosen];
  const choose = (step: number) =>
    setChosen((c) => ((c ?? (step > 0 ? -1 : 0)) + step + shown.pieces.length) % shown.pieces.length);
  const more = sheet.rows === undefined ? 0 : shown.pieces.length - sheet.rows;
  return (
    <>
      <AskToLeave
        when={dirty}
        what={
          onTray
            ? "You moved cookies on this tray and haven’t saved."
            : "You moved cookies on this sheet and haven’t saved."
        }
      />
      <Work dim={dim && !search}>
        <StationHead
          title={onTray ? "Tray layout" : "Tighter layout"}
          sub={`${format.length(width_mm)} × ${format.length(length_mm)}${onTray ? ", usable" : ` at ${format.length(plan.shape.thickness_mm)}`}`}
        >
          <button
            type="button"
            className="btn btn-small"
            disabled={past.length === 0 || search !== undefined}
            onClick={back}
          >
            Undo last move
          </button>
          <SaveMenu>
            <SaveSvg picture={picture} name={`${job.name} ${onTray ? "tray" : "nested sheet"}`} />
          </SaveMenu>
        </StationHead>
        <ShapeNav jobId={job.id} />
        <NestDrawing
          picture={picture}
          cutters={[plan.cutter]}
          form={ground.form}
          board={shown}
          width_mm={width_mm}
          length_mm={length_mm}
          used_mm={touched ? undefined : found?.used_mm}
          chosen={search ? undefined : chosen}
          tray={onTray}
          after={onTray && baked ? plan.oven.baked_outline_mm : undefined}
          turnable={job.turning !== "fixed"}
          onChoose={setChosen}
          onDrag={search ? () => undefined : drag}
          onDrop={drop}
        />
        <p className="mt-2 text-fine text-soft">
          {onTray ? `${format.length(ground.tray?.gap_mm ?? 0)} gap. ` : "Cut by number, row by row. "}
          Drag a cookie to move and lock it (dot).
          {job.turning === "fixed" ? "" : " Drag the ring to turn it."}
        </p>
        <section className="mt-4 flex flex-wrap items-center gap-2" aria-label="The selected cookie">
          <button
            type="button"
            className="btn btn-small"
            aria-label="Previous cookie"
            onClick={() => choose(-1)}
          >
            ‹
          </button>
          <span className="num min-w-32 text-center">
            {chosen === undefined ? "No cookie selected" : `Cookie ${chosen + 1} of ${shown.pieces.length}`}
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
              {job.turning === "fixed" ? null : (
                <button
                  type="button"
                  className="btn btn-small"
                  onClick={() => nudge({ turn_deg: job.turning === "half_turn" ? 180 : 5 })}
                >
                  {job.turning === "half_turn" ? "Half turn" : "Turn 5°"}
                </button>
              )}
              <button
                type="button"
                className="btn btn-small"
                aria-pressed={piece.held}
                onClick={() => put(holding(shown, chosen, !piece.held))}
              >
                {piece.held ? "Unlock" : "Lock"}
              </button>
              <button
                type="button"
                className="btn btn-small"
                onClick={() => {
                  setChosen(undefined);
                  put(without(shown, chosen));
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
      </Work>
      <TicketBox>
        <Part title={onTray ? "On a full tray" : "On this sheet"}>
          <p className="answer" aria-live="polite">
            <Live value={String(shown.pieces.length)} />
          </p>
          <p className="mt-1 text-soft">
            {sheet.rows === undefined
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
        {onTray ? (
          <Part title="Trays">
            <Choice
              label="Drawn"
              value={baked ? "after" : "before"}
              options={[
                { value: "before", label: "As cut" },
                { value: "after", label: "As baked" },
              ]}
              onChange={(v) => setBaked(v === "after")}
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
              Parchment: {format.length(width_mm)} × {format.length(length_mm)} All are of one size and one
              dough, so they bake in one time.
            </p>
          </Part>
        ) : null}
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
            <Choice
              label="For how long"
              value={seconds}
              options={SECONDS.map((s) => ({ value: s, label: `${s} s` }))}
              onChange={(s) => setSeconds(s)}
            />
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
                <button type="button" className="btn btn-main grow" onClick={() => void begin(seed)}>
                  {held > 0 ? "Improve the rest" : "Find a tighter layout"}
                </button>
                <button type="button" className="btn" onClick={() => void begin(seed + 1)}>
                  Find another layout
                </button>
              </div>
            )}
            <p className="text-soft" role="status">
              {said}
            </p>
            <Fault text={otherFault(trouble, [])} />
          </div>
        </Part>
        <Part title="Turning allowed">
          <Choice
            label="Turning"
            value={job.turning ?? "free"}
            options={TURNINGS}
            onChange={(turning) => change.mutate({ turning, layout: [], tray_layout: [] })}
          />
          <p className="mt-2 text-fine text-soft">
            Never flipped: the floured or textured side would end up underneath.
          </p>
        </Part>
        {found && !touched ? (
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
        ) : null}
        <Part title="Save">
          <div className="flex flex-wrap gap-2">
            <button
              type="button"
              className="btn btn-main"
              disabled={!unkept || bad.length > 0 || !measured || change.isPending}
              onClick={keep}
            >
              Save layout
            </button>
            {(job[field] ?? []).length > 0 ? (
              <button
                type="button"
                className="btn"
                onClick={() =>
                  change.mutate(
                    { [field]: [] },
                    {
                      onSuccess: () => {
                        setTouched(false);
                        setFound(undefined);
                        setDirty(false);
                        setSaid("Back to rows.");
                      },
                    },
                  )
                }
              >
                Back to rows
              </button>
            ) : null}
          </div>
          <Fault text={otherFault(change.error, [])} />
          {onTray ? null : (
            <p className="mt-3 text-fine text-soft">
              Print the plan’s sheet at true size:{" "}
              <a className="underline" href={at(`/api/jobs/${job.id}/template.pdf?paper=a4`)}>
                A4
              </a>
              ,{" "}
              <a className="underline" href={at(`/api/jobs/${job.id}/template.pdf?paper=letter`)}>
                Letter
              </a>
              , or one{" "}
              <a className="underline" href={at(`/api/jobs/${job.id}/template.svg`)}>
                SVG
              </a>
              .
            </p>
          )}
        </Part>
      </TicketBox>
    </>
  );
}
