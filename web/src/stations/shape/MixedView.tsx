/** Several lots of one dough cut from the same sheets: laid out sheet by sheet until all that is wanted lies there. */
import { at as onServer } from "../../api/base";
import { useEffect, useRef, useState } from "react";
import { Link } from "react-router";
import type { Cutter, Job } from "../../api/client";
import { measureNest, searchNest, type Cut } from "../../api/nest";
import { useChangeJob, useCutters } from "../../api/queries";
import { useJobContext } from "../../app/JobFrame";
import { cutWith, leadOf, useFamily } from "../../app/lots";
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
import { ShapeNav } from "./ShapeNav";
import { cutOf, faults, heldOf, latest, moved, restOf, type Board } from "./board";
import { counted, fromKept, missing, sheetOf, toKeep, type Sheet } from "./mixed";

const SECONDS = ["2", "10", "30"] as const;
/** As many as a job keeps. */
const MOST_SHEETS = 40;

export function MixedView() {
  const { job } = useJobContext();
  const family = useFamily(job);
  const cutters = useCutters();
  const lots = cutWith(job, family);
  const shelf = lots
    .map((l) => cutters.data?.find((c) => c.id === l.cutter_id))
    .filter((c) => c !== undefined);
  const [first, ...others] = shelf;
  const lead = family.find((j) => j.id === leadOf(job));
  if (lots.length < 2 || !lead || !first || shelf.length < lots.length) return <Alone />;
  return (
    <Mixed
      key={lots.map((l) => `${l.id} ${l.cutter_id}`).join(",")}
      lots={lots}
      lead={lead}
      cutters={[first, ...others]}
    />
  );
}

function Alone() {
  const { job, dim } = useJobContext();
  return (
    <Work dim={dim}>
      <StationHead title="Shared sheets" />
      <ShapeNav jobId={job.id} />
      <p className="max-w-xl text-lg">
        Items of the same dough and thickness can share a sheet.{" "}
        <Link to={`/jobs/${job.id}/order`}>Add another item at Order</Link>.
      </p>
    </Work>
  );
}

function Mixed({ lots, lead, cutters }: { lots: Job[]; lead: Job; cutters: readonly [Cutter, ...Cutter[]] }) {
  const { job, plan, dim } = useJobContext();
  const format = useFormat();
  const change = useChangeJob(lead.id);
  const picture = useRef<SVGSVGElement>(null);
  const [sheets, setSheets] = useState<Sheet[]>(() => fromKept(lead.mixed ?? [], lots));
  const [at, setAt] = useState(0);
  const [chosen, setChosen] = useState<number>();
  const [seconds, setSeconds] = useState<(typeof SECONDS)[number]>("2");
  const [stop, setStop] = useState<AbortController>();
  const [said, setSaid] = useState("");
  const holed = cutters.some((c) => (c.holes_mm ?? []).length > 0);
  const [inHoles, setInHoles] = useState(true);
  const [trouble, setTrouble] = useState<unknown>();
  const [unkept, setUnkept] = useState(false);
  const [width_mm = 0, longest_mm = 0] = plan.shape.largest_mm;
  const [first, ...others] = lots;
  useEffect(() => () => stop?.abort(), [stop]);
  const sheet = sheets[at];
  const wanted = (counts: number[]) => ({
    pieces: counts[0] ?? 0,
    lots: others.map((l, i) => ({ job_id: l.id, pieces: counts[i + 1] ?? 0 })),
  });
  const put = (index: number, next: Sheet) => setSheets((all) => all.map((s, i) => (i === index ? next : s)));

  const [ask] = useState(() =>
    latest(({ of, length_mm, index }: { of: Board; length_mm: number; index: number }) =>
      measureNest(first?.id ?? 0, {
        width_mm,
        length_mm,
        lots: others.map((l) => ({ job_id: l.id, pieces: 0 })),
        pieces: of.pieces.map(cutOf),
      })
        .then((gaps) =>
          setSheets((all) =>
            all.map((s, i) =>
              i === index && s.board.pieces === of.pieces ? { ...s, board: { ...s.board, gaps } } : s,
            ),
          ),
        )
        .catch(setTrouble),
    ),
  );
  const drag = (index: number, to: Partial<Cut>) => {
    if (!sheet || stop) return;
    const next = {
      ...moved(sheet.board, index, to),
      ...(sheet.board.gaps ? { gaps: sheet.board.gaps } : {}),
    };
    put(at, { ...sheet, board: next });
    setUnkept(true);
    ask({ of: next, length_mm: sheet.length_mm, index: at });
  };

  /** One sheet searched to its end; what was found last. */
  const search = async (
    signal: AbortSignal,
    index: number,
    counts: number[],
    from?: Board,
  ): Promise<Sheet | undefined> => {
    let best: Sheet | undefined;
    await searchNest(
      first?.id ?? 0,
      {
        width_mm,
        length_mm: longest_mm,
        ...wanted(counts),
        in_holes: inHoles,
        held: from ? heldOf(from) : [],
        start: from ? restOf(from) : [],
        seconds: Number(seconds),
        seed: 0,
      },
      {
        layout: (found) => {
          best = sheetOf(found, longest_mm, from?.pieces.filter((p) => p.held) ?? []);
          const shown = best;
          setSheets((all) =>
            index < all.length ? all.map((s, i) => (i === index ? shown : s)) : [...all, shown],
          );
        },
        beat: () => undefined,
        done: () => undefined,
      },
      signal,
    );
    return best;
  };
  const during = async (work: (signal: AbortSignal) => Promise<string>) => {
    const control = new AbortController();
    setStop(control);
    setTrouble(undefined);
    setChosen(undefined);
    setSaid("");
    try {
      setSaid(await work(control.signal));
    } catch (error) {
      if (control.signal.aborted) setSaid("Stopped. This is the best so far.");
      else setTrouble(error);
    }
    setUnkept(true);
    setStop(undefined);
  };
  const layAll = () =>
    during(async (signal) => {
      setSheets([]);
      const done: Sheet[] = [];
      while (missing(lots, done).some((n) => n > 0) && done.length < MOST_SHEETS) {
        setAt(done.length);
        const found = await search(signal, done.length, missing(lots, done));
        if (!found || found.board.pieces.length === 0) return "No more cookies fit on a sheet.";
        done.push(found);
      }
      const left = missing(lots, done).reduce((a, b) => a + b, 0);
      return left > 0
        ? `${left} cookies don’t fit on ${MOST_SHEETS} sheets.`
        : done.length === 1
          ? "They all fit on one sheet."
          : `They all fit on ${done.length} sheets. The last is as short as we could make it.`;
    });
  const improve = () =>
    sheet
      ? during(async (signal) => {
          const there = counted([sheet], lots.length);
          const before = sheet.length_mm;
          const found = await search(signal, at, there, sheet.board);
          return found && found.length_mm < before - 0.05
            ? `${format.length(Math.round(before - found.length_mm))} shorter.`
            : "No shorter sheet found.";
        })
      : Promise.resolve();

  const all = counted(sheets, lots.length);
  const left = missing(lots, sheets).reduce((a, b) => a + b, 0);
  const bad = sheets.flatMap((s) => faults(s.board)).length;
  const kept = (lead.mixed ?? []).length > 0;
  return (
    <>
      <AskToLeave when={unkept && stop === undefined} what="You have unsaved changes to these sheets." />
      <Work dim={dim && !stop}>
        <StationHead
          title="Items sharing a sheet"
          sub={
            sheet
              ? `sheet ${at + 1} of ${sheets.length}, ${format.length(Math.round(width_mm))} × ${format.length(Math.round(sheet.length_mm))}`
              : `${lots.length} items, ${format.length(plan.shape.thickness_mm)} thick`
          }
        >
          {sheets.length > 1 ? (
            <Choice
              label="Which sheet"
              value={String(at)}
              options={sheets.map((_, i) => ({ value: String(i), label: String(i + 1) }))}
              onChange={(v) => {
                setAt(Number(v));
                setChosen(undefined);
              }}
            />
          ) : null}
          <SaveMenu>
            <SaveSvg picture={picture} name={`${lead.name} sheet ${at + 1}`} />
          </SaveMenu>
        </StationHead>
        <ShapeNav jobId={job.id} />
        {sheet ? (
          <>
            <NestDrawing
              picture={picture}
              cutters={cutters}
              board={sheet.board}
              width_mm={width_mm}
              length_mm={sheet.length_mm}
              chosen={stop ? undefined : chosen}
              turnable={job.turning !== "fixed"}
              onChoose={setChosen}
              onDrag={drag}
              onDrop={() => undefined}
            />
            <p className="mt-2 text-fine text-soft">
              Cut by number, row by row. Drag a cookie to move and lock it.
            </p>
          </>
        ) : (
          <p className="my-8 max-w-xl text-lg">
            Small cookies fill the space between large ones. Fewer sheets, fewer scraps.
          </p>
        )}
      </Work>
      <TicketBox>
        <Part title={sheets.length === 1 ? "Sheet" : "Sheets"}>
          <p className="answer" aria-live="polite">
            <Live value={String(sheets.length)} />
          </p>
          <ol className="mt-2">
            {lots.map((lot, i) => (
              <li key={lot.id} className="row">
                <span>{lot.name}</span>
                <span className="num">{`${all[i] ?? 0}/${lot.pieces - (lot.freeze_pieces ?? 0)}`}</span>
              </li>
            ))}
          </ol>
          {sheet?.cut_percent === undefined ? null : (
            <Rows>
              <Row name="Sheet used for cookies">{`${number(sheet.cut_percent, 1)}%`}</Row>
            </Rows>
          )}
          {bad > 0 ? (
            <p className="mt-2 font-semibold text-warm" role="alert">
              {bad === 1 ? "1 cookie is" : `${bad} cookies are`} too close to another or the edge.
            </p>
          ) : null}
        </Part>
        <Part title="Search">
          <div className="space-y-3">
            <Choice
              label="For how long, each sheet"
              value={seconds}
              options={SECONDS.map((s) => ({ value: s, label: `${s}\u00a0s` }))}
              onChange={(s) => setSeconds(s)}
            />
            {holed ? (
              <Choice
                label="Holes"
                value={inHoles ? "used" : "empty"}
                options={[
                  { value: "used", label: "Small ones in holes" },
                  { value: "empty", label: "Holes left empty" },
                ]}
                onChange={(v) => setInHoles(v === "used")}
              />
            ) : null}
            {stop ? (
              <button type="button" className="btn btn-main w-full" onClick={() => stop.abort()}>
                Stop
              </button>
            ) : (
              <div className="flex flex-wrap gap-2">
                <button type="button" className="btn btn-main grow" onClick={() => void layAll()}>
                  {sheets.length > 0 ? "Start over" : "Lay them out"}
                </button>
                {sheet ? (
                  <button type="button" className="btn" onClick={() => void improve()}>
                    Improve this sheet
                  </button>
                ) : null}
              </div>
            )}
            <p className="text-soft" role="status">
              {said}
            </p>
            <Fault text={otherFault(trouble, [])} />
          </div>
        </Part>
        <Part title="Save">
          <div className="flex flex-wrap gap-2">
            <button
              type="button"
              className="btn btn-main"
              disabled={
                !unkept ||
                left > 0 ||
                bad > 0 ||
                sheets.length === 0 ||
                stop !== undefined ||
                change.isPending
              }
              onClick={() =>
                change.mutate(
                  { mixed: toKeep(sheets, lots) },
                  {
                    onSuccess: () => {
                      setUnkept(false);
                      setSaid("Saved. Each item’s dough is its share of these sheets.");
                    },
                  },
                )
              }
            >
              Save these sheets
            </button>
            {kept ? (
              <button
                type="button"
                className="btn"
                onClick={() =>
                  change.mutate(
                    { mixed: [] },
                    {
                      onSuccess: () => {
                        setSheets([]);
                        setAt(0);
                        setSaid("Each item has its own sheets again.");
                      },
                    },
                  )
                }
              >
                Use separate sheets
              </button>
            ) : null}
          </div>
          <Fault text={otherFault(change.error, [])} />
          {kept && !unkept ? (
            <p className="mt-3 text-fine text-soft">
              Print at true size: sheet {at + 1} on{" "}
              <a
                className="underline"
                href={onServer(`/api/jobs/${lead.id}/template.pdf?paper=a4&mixed=${at}`)}
              >
                A4
              </a>
              ,{" "}
              <a
                className="underline"
                href={onServer(`/api/jobs/${lead.id}/template.pdf?paper=letter&mixed=${at}`)}
              >
                Letter
              </a>
              , or one{" "}
              <a className="underline" href={onServer(`/api/jobs/${lead.id}/template.svg?mixed=${at}`)}>
                SVG
              </a>
              .
            </p>
          ) : null}
          <p className="mt-3 text-fine text-soft">Scraps of shared sheets aren’t re-rolled in the plan.</p>
        </Part>
      </TicketBox>
    </>
  );
}
