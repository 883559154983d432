/** Pieces of the job that lie in the cold now: each with its run, its readings and what they say. */
import { useRef } from "react";
import { useSearchParams } from "react-router";
import type { LivePiece } from "../../api/client";
import { useChills, useForgetPiece, usePieceAct } from "../../api/cold";
import { useKitchen } from "../../api/queries";
import { useJobContext } from "../../app/JobFrame";
import { useLive } from "../../app/live";
import { clock, duration, localTime } from "../../drawing/time";
import { say, sentence, textOf } from "../../drawing/sentence";
import { Fault, otherFault } from "../../kit/Fault";
import { SaveMenu } from "../../kit/SaveMenu";
import { SaveSvg } from "../../kit/SaveSvg";
import { Part, StationHead, TicketBox, Work } from "../../kit/Ticket";
import { useFormat } from "../../kit/settings";
import { ColdNav } from "./ColdNav";
import { LiveCurve } from "./LiveCurve";
import { Moves } from "./Moves";
import { PutIn } from "./PutIn";
import { Readings } from "./Readings";
import { StandIn } from "./StandIn";
import { clockOf, formWords, leftWords, placeWords, stateLook, stateWords } from "./words";

export function InTheCold() {
  const { job, dim } = useJobContext();
  const format = useFormat();
  const picture = useRef<SVGSVGElement>(null);
  const [search, setSearch] = useSearchParams();
  const live = useLive();
  const all = useChills(job.id);
  const followed = live.pieces?.filter((p) => p.job_id === job.id) ?? [];
  const ended = (all.data ?? [])
    .filter((p) => p.ended_at && !followed.some((f) => f.id === p.id))
    .toReversed();
  const look = (id: number) =>
    setSearch(
      (s) => {
        s.set("piece", String(id));
        return s;
      },
      { replace: true },
    );
  const wanted = Number(search.get("piece"));
  const piece = [...followed, ...ended].find((p) => p.id === wanted) ?? followed[0];
  return (
    <>
      <Work dim={dim}>
        <StationHead
          title="Chilling now"
          sub={
            piece
              ? `${piece.name}: ${formWords(piece.piece, format)}, ${piece.ended_at ? "taken out" : placeWords(piece)}`
              : undefined
          }
        >
          {piece ? (
            <SaveMenu>
              <SaveSvg picture={picture} name={`${piece.name} run`} />
            </SaveMenu>
          ) : null}
        </StationHead>
        <ColdNav jobId={job.id} />
        {live.connected ? null : <Lost />}
        {followed.length > 1 || (followed.length > 0 && piece?.ended_at) ? (
          <ul className="mb-4 grid gap-2 sm:grid-cols-2 xl:grid-cols-3" aria-label="Chilling now">
            {followed.map((p) => (
              <li key={p.id}>
                <button
                  type="button"
                  aria-pressed={p.id === piece?.id}
                  onClick={() => look(p.id)}
                  className={`w-full rounded-xl border-2 p-3 text-left ${p.id === piece?.id ? "border-ink" : "border-rule"}`}
                >
                  <span className="block font-semibold">{p.name}</span>
                  <span className={`mr-2 inline-block rounded-md px-2 text-fine ${stateLook(p.now.side)}`}>
                    {stateWords(p)}
                  </span>
                  <span className="num text-fine text-soft">{leftWords(p)}</span>
                </button>
              </li>
            ))}
          </ul>
        ) : null}
        {piece ? <LiveCurve picture={picture} piece={piece} /> : <Nothing />}
        {piece ? <Said piece={piece} /> : null}
        {ended.length > 0 ? <Ended pieces={ended} onLook={look} /> : null}
      </Work>
      <TicketBox>
        {piece ? <PieceTicket key={piece.id} piece={piece} /> : null}
        <Part title={piece ? "Chill something else" : "Start chilling"}>
          <PutIn taken={(all.data ?? []).map((p) => p.name)} onDone={look} />
        </Part>
      </TicketBox>
    </>
  );
}

function Lost() {
  return (
    <p role="status" className="mb-3 rounded-xl bg-warm-pale px-4 py-2 font-semibold text-warm">
      No connection. Trying again. These are the last figures; the dough keeps cooling.
    </p>
  );
}

function Nothing() {
  return (
    <div className="rounded-xl bg-stone p-6">
      <p className="font-head text-lg font-bold">Nothing from this job is chilling.</p>
      <p className="mt-1 max-w-[38rem] text-soft">
        Tap “Put it in now” when dough goes into the fridge. You’ll see when it’s ready. Add a thermometer
        reading now and then for a closer time. No thermometer? Try the simulated one.
      </p>
    </div>
  );
}

function Said({ piece }: { piece: LivePiece }) {
  const format = useFormat();
  return (
    <ul className="mt-3 space-y-1" aria-label="What the readings show">
      {piece.said.map((text) => (
        <li key={textOf(text)}>{say(text, format)}</li>
      ))}
      {piece.clock_speed > 1 ? <li className="text-soft">Simulation at {piece.clock_speed}× speed</li> : null}
    </ul>
  );
}

function PieceTicket({ piece }: { piece: LivePiece }) {
  const format = useFormat();
  const act = usePieceAct();
  const real = piece.clock_speed === 1;
  const ready = piece.ready_after_min;
  const made_up = useKitchen().data?.made_up ?? false;
  // What a stand-in showed says nothing of a real fridge; in the demo bakery it may, to try it out.
  const read =
    piece.stays.some((s) => s.place !== "bench" && s.readings > 0) &&
    (made_up || piece.readings.every((r) => !r.simulated));
  return (
    <>
      <Part title={piece.name}>
        <p
          className={`mb-2 inline-block rounded-lg px-3 py-1 font-head text-xl font-bold ${stateLook(piece.now.side)}`}
        >
          {stateWords(piece)}
        </p>
        <p className="answer">{piece.ended_at ? format.temperature(piece.now.core_c) : leftWords(piece)}</p>
        <p className="mt-2 text-soft">
          <span className="num font-semibold text-ink">{format.temperature(piece.now.core_c)}</span> inside,{" "}
          {format.temperature(piece.now.mean_c)} on average
          {piece.now.word ? `: ${piece.now.word}` : ""}.
        </p>
        {piece.never && piece.now.side !== "ready" ? (
          <p className="say mt-3">{say(sentence(piece.never), format)}</p>
        ) : null}
        {ready != null && !piece.ended_at ? <p className="say mt-3">{readySentence(piece, real)}</p> : null}
        {piece.now.too_long ? (
          <p className="caution mt-3 font-semibold">{say(piece.now.too_long, format)}</p>
        ) : null}
        {piece.now.out_of_cold_min >= 1 ? (
          <p className="caution mt-3">
            {duration(piece.now.out_of_cold_min)} out of the cold so far. {say(piece.now.cold_rule, format)}
          </p>
        ) : null}
      </Part>
      {piece.ended_at ? (
        <Part title="Taken out">
          <p className="mb-2 text-soft">at {clock(localTime(piece.ended_at))}</p>
          <button type="button" className="btn" onClick={() => act.mutate({ id: piece.id, act: "reopen" })}>
            Undo
          </button>
        </Part>
      ) : (
        <>
          <Part title="Add a reading">
            <Readings piece={piece} />
          </Part>
          <Part title="Where it is">
            <Moves piece={piece} />
          </Part>
          <Part title="Simulated thermometer">
            <StandIn piece={piece} />
          </Part>
        </>
      )}
      {read ? (
        <Part title="Use these readings">
          {piece.taught ? (
            <>
              <p className="mb-2 text-soft">In use. See “What we’ve learned.”</p>
              <button
                type="button"
                className="btn"
                disabled={act.isPending}
                onClick={() => act.mutate({ id: piece.id, act: "unteach" })}
              >
                Leave them out
              </button>
            </>
          ) : piece.ended_at ? (
            <>
              <p className="mb-2 text-soft">
                {piece.left_out
                  ? "Left out: your plans don’t use these readings."
                  : "Your plans don’t use these readings yet."}
              </p>
              <button
                type="button"
                className="btn"
                disabled={act.isPending}
                onClick={() => act.mutate({ id: piece.id, act: "teach" })}
              >
                {piece.left_out ? "Put them back" : "Use them"}
              </button>
            </>
          ) : (
            <p className="text-soft">Your plans learn from them when you take the dough out.</p>
          )}
        </Part>
      ) : null}
      <Fault text={otherFault(act.error, [])} />
    </>
  );
}

function readySentence(piece: LivePiece, real: boolean): string {
  const at = (after: number) => (real ? clockOf(piece, after) : `${Math.round(after)}\u00a0min`);
  const ready = piece.ready_after_min ?? 0;
  const since = piece.now.elapsed_min >= ready;
  const range =
    piece.ready_earliest_min != null && piece.ready_latest_min != null
      ? `Likely ${at(piece.ready_earliest_min)} to ${at(piece.ready_latest_min)}. `
      : "";
  const until =
    piece.past_after_min == null
      ? "Stays ready as long as it’s in there."
      : `${since ? "In the window until" : "It stays in the window until"} ${at(piece.past_after_min)}.`;
  return `${since ? "Ready since" : "Ready at"} ${at(ready)}. ${since ? "" : range}${until}`;
}

function Ended({ pieces, onLook }: { pieces: readonly LivePiece[]; onLook(id: number): void }) {
  const forget = useForgetPiece();
  const format = useFormat();
  return (
    <section className="mt-6" aria-labelledby="ended-head">
      <h3 id="ended-head" className="h-part mb-1">
        Taken out
      </h3>
      <ul>
        {pieces.map((p) => (
          <li key={p.id} className="flex flex-wrap items-center gap-x-4 gap-y-1 border-t border-rule py-2">
            <button
              type="button"
              className="min-h-11 min-w-32 text-left font-semibold underline"
              onClick={() => onLook(p.id)}
            >
              {p.name}
            </button>
            <span className="flex-1 text-soft">
              {formWords(p.piece, format)}; {duration(p.now.elapsed_min)},{" "}
              {p.readings_taken ?? p.readings_total} readings, {format.temperature(p.now.core_c)} at the end
              {p.taught ? "; your plans use it" : p.left_out ? "; left out" : ""}
            </span>
            <button
              type="button"
              className="btn btn-small"
              aria-label={`Delete ${p.name}`}
              onClick={() => {
                if (confirm(`Delete ${p.name} and its ${p.readings_total} readings?`)) forget.mutate(p.id);
              }}
            >
              Delete
            </button>
          </li>
        ))}
      </ul>
      <Fault text={otherFault(forget.error, [])} />
    </section>
  );
}
