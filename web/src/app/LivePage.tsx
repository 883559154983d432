/** Everything that lies in the cold, to be read at arm's length: state, temperature, time left. */
import { Says } from "../kit/Says";
import { useEffect, useState } from "react";
import { Link } from "react-router";
import type { LivePiece } from "../api/client";
import { duration } from "../drawing/time";
import { say } from "../drawing/sentence";
import { Choice } from "../kit/Choice";
import { useFormat } from "../kit/settings";
import { Moves } from "../stations/cold/Moves";
import { clockOf, leftWords, placeWords, stateLook, stateWords } from "../stations/cold/words";
import { setSound, setTitle, SOUNDS, useSound } from "./alerts";
import { useLive } from "./live";

export function LivePage() {
  const { pieces, connected } = useLive();
  useEffect(() => {
    setTitle("Chilling now · Ready Slab");
    return () => setTitle("Ready Slab");
  }, []);
  return (
    <main id="work" className="flex-1 rounded-2xl bg-worktop p-5 sm:p-6">
      <div className="mb-5 flex flex-wrap items-end justify-between gap-4">
        <div>
          <h1 className="h-station">Chilling now</h1>
          <p role="status" className={connected ? "text-soft" : "font-semibold text-warm"}>
            {connected ? "" : "No answer from the server. Trying again; these are the last figures."}
          </p>
        </div>
        <Telling />
      </div>
      {pieces?.length === 0 ? (
        <div className="rounded-xl bg-stone p-6 text-lg">
          <p className="font-head text-xl font-bold">Nothing is chilling.</p>
          <p className="mt-1 max-w-[40rem] text-soft">
            Open a{" "}
            <Link className="underline" to="/">
              job
            </Link>
            , go to Cold, and put your dough in. You’ll see it here.
          </p>
        </div>
      ) : null}
      <ul className="grid gap-4 lg:grid-cols-2">
        {pieces?.map((p) => (
          <Card key={p.id} piece={p} />
        ))}
      </ul>
    </main>
  );
}

function Card({ piece }: { piece: LivePiece }) {
  const format = useFormat();
  const ready = piece.ready_after_min;
  const real = piece.clock_speed === 1;
  return (
    <li className="overflow-hidden rounded-2xl border-2 border-rule" aria-label={piece.name}>
      <div
        className={`flex flex-wrap items-baseline justify-between gap-x-4 px-5 py-3 ${stateLook(piece.now.side)}`}
      >
        <p className="font-head text-3xl font-bold tracking-tight">{stateWords(piece)}</p>
        <p className="font-head text-2xl font-semibold">{piece.name}</p>
      </div>
      <div className="p-5">
        <div className="flex flex-wrap items-end justify-between gap-x-6 gap-y-2">
          <p className="font-head text-[4rem] font-bold leading-none tracking-tight tabular-nums">
            {leftWords(piece)}
          </p>
          <p>
            <span className="font-head text-[3rem] font-bold leading-none tracking-tight tabular-nums">
              {format.temperature(piece.now.core_c)}
            </span>
            {piece.now.word ? <span className="ml-2 text-lg text-soft">{piece.now.word}</span> : null}
          </p>
        </div>
        <Track piece={piece} />
        <p className="mt-3 text-lg">
          <Link className="font-semibold underline" to={`/jobs/${piece.job_id}/cold/now?piece=${piece.id}`}>
            {piece.job_name}
          </Link>
          <span className="text-soft">
            , {placeWords(piece)}.{" "}
            {ready == null
              ? say(piece.never ?? "", format)
              : real
                ? `${piece.now.elapsed_min >= ready ? "Ready since" : "Ready at"} ${clockOf(piece, ready)}${piece.past_after_min == null ? "" : `, until ${clockOf(piece, piece.past_after_min)}`}.`
                : `In ${duration(piece.now.elapsed_min)} (simulated, ${piece.clock_speed} × speed).`}
          </span>
        </p>
        {piece.now.too_long ? (
          <p className="mt-2 text-lg font-semibold text-warm">
            <Says of={piece.now.too_long} />
          </p>
        ) : null}
        {piece.now.out_of_cold_min >= 60 ? (
          <p className="mt-2 text-lg font-semibold text-warm">
            {duration(piece.now.out_of_cold_min)} out of the fridge so far. {say(piece.now.cold_rule, format)}
          </p>
        ) : null}
        <div className="mt-4">
          <Moves piece={piece} large />
        </div>
      </div>
    </li>
  );
}

/** Where it stands between going in, ready and past: the bands in order, and a mark for now. */
function Track({ piece }: { piece: LivePiece }) {
  const ready = piece.ready_after_min;
  if (ready == null) return null;
  const past = piece.past_after_min;
  const end = Math.max(piece.drawn_to_min ?? ready, 1);
  const share = (m: number) => `${Math.min(100, Math.max(0, (100 * m) / end))}%`;
  const width = (a: number, b: number) => `${Math.max(0, (100 * (Math.min(b, end) - a)) / end)}%`;
  return (
    <div className="relative mt-4 h-7 overflow-hidden rounded-lg bg-cold-pale" aria-hidden="true">
      <span className="absolute inset-y-0 left-0 bg-warm-pale" style={{ width: share(ready) }} />
      <span
        className="absolute inset-y-0 bg-butter"
        style={{ left: share(ready), width: width(ready, past ?? end) }}
      />
      <span
        className="absolute inset-y-0 w-1.5 bg-ink"
        style={{ left: `calc(${share(piece.now.elapsed_min)} - 3px)` }}
      />
    </div>
  );
}

function Telling() {
  const sound = useSound();
  const [allowed, setAllowed] = useState(() =>
    typeof Notification === "undefined" ? "denied" : Notification.permission,
  );
  return (
    <div className="flex flex-wrap items-end gap-3">
      <div>
        <p className="mb-1 text-fine text-soft">Alert when ready, and when no longer ready</p>
        <Choice label="Sound" value={sound} options={SOUNDS} onChange={setSound} />
      </div>
      {allowed === "default" ? (
        <button
          type="button"
          className="btn"
          onClick={() => void Notification.requestPermission().then(setAllowed)}
        >
          Notify me outside this tab too
        </button>
      ) : (
        <p className="pb-2.5 text-fine text-soft">
          {allowed === "granted"
            ? "Notifications also show outside this tab."
            : "Notifications show in this tab only."}
        </p>
      )}
    </div>
  );
}
