/** A reading typed by hand, and those that were taken, to be struck out where one was wrong. */
import { at } from "../../api/base";
import { type Said } from "../../drawing/sentence";
import { useState } from "react";
import type { LivePiece, ReadingBody } from "../../api/client";
import { useAddReading, useDeleteReading } from "../../api/cold";
import { daysLater, nextAfter, now, timeOfDay, utcOf } from "../../drawing/time";
import { readTyped } from "../../kit/Amount";
import { Choice } from "../../kit/Choice";
import { TYPE_A_TIME } from "../../kit/TimeField";
import { Fault, faultOf, otherFault } from "../../kit/Fault";
import { didFact } from "../../kit/said";
import { unlessChanged } from "../../kit/sent";
import { useFormat } from "../../kit/settings";
import { clockOf } from "./words";

const SPOTS = [
  { value: "core", label: "In the middle" },
  { value: "surface", label: "On the surface" },
] as const;

/** The last time at which the kitchen's clock showed that, as a moment. */
function lastTime(time: string): string {
  const next = nextAfter(now(), time);
  return utcOf(daysLater(next, -1));
}

export function Readings({ piece }: { piece: LivePiece }) {
  const format = useFormat();
  const add = useAddReading(piece.id);
  const remove = useDeleteReading();
  const [typed, setTyped] = useState("");
  const [spot, setSpot] = useState<ReadingBody["spot"]>("core");
  const [time, setTime] = useState("");
  const [fault, setFault] = useState<Said>();
  const keep = async () => {
    setFault(undefined);
    const at = time.trim() === "" ? null : timeOfDay(time);
    if (at === undefined) {
      setFault(TYPE_A_TIME);
      return;
    }
    try {
      const shows_c = await readTyped(format, "temperature", typed);
      await add.mutateAsync({
        shows_c,
        spot,
        read_at: at === null ? null : lastTime(at),
        typed_at: new Date().toISOString(),
      });
      setTyped(unlessChanged(typed, ""));
      setTime(unlessChanged(time, ""));
    } catch (error) {
      setFault(faultOf(error, "text") ?? faultOf(error, "readings") ?? otherFault(error, []));
    }
  };
  const strike = (r: LivePiece["readings"][number]) =>
    remove.mutate(r.id, {
      // A reading of a stand-in does not come back as one that a hand took.
      onSuccess: () => {
        const back = () =>
          add.mutateAsync({ shows_c: r.shows_c, spot: r.spot, read_at: r.read_at, typed_at: r.read_at });
        if (!r.simulated) didFact(`Reading of ${format.temperature(r.shows_c)} removed`, back);
      },
    });
  const newest = piece.readings.slice(-6).toReversed();
  return (
    <div className="space-y-2">
      <form
        className="flex items-end gap-2"
        onSubmit={(e) => {
          e.preventDefault();
          void keep();
        }}
      >
        <label className="min-w-0 flex-1">
          <span className="mb-1 block text-fine text-soft">Reading</span>
          <input
            className="field num"
            inputMode="text"
            autoComplete="off"
            placeholder={format.units.temperature === "c" ? "16.4" : "61.5"}
            value={typed}
            aria-invalid={fault ? true : undefined}
            onChange={(e) => setTyped(e.target.value)}
          />
        </label>
        <label className="w-24">
          <span className="mb-1 block text-fine text-soft">Time</span>
          <input
            className="field num"
            autoComplete="off"
            placeholder="now"
            value={time}
            onChange={(e) => setTime(e.target.value)}
          />
        </label>
        <button type="submit" className="btn" disabled={typed.trim() === "" || add.isPending}>
          Save
        </button>
      </form>
      <Choice
        label="Where you measured"
        value={spot}
        options={SPOTS}
        onChange={(s: ReadingBody["spot"]) => setSpot(s)}
      />
      <Fault text={fault} />
      {newest.length > 0 ? (
        <ul aria-label="Latest readings">
          {newest.map((r) => (
            <li key={r.id} className="flex items-center gap-3 border-t border-rule">
              <span className="num w-14 text-soft">
                {piece.clock_speed === 1
                  ? clockOf(piece, r.after_min)
                  : `${Math.round(r.after_min)}\u00a0min`}
              </span>
              <span className="num w-14 font-semibold">{format.temperature(r.shows_c)}</span>
              <span className={`flex-1 text-fine ${r.set_aside ? "text-warm" : "text-soft"}`}>
                {r.set_aside ? "not counted" : r.spot === "surface" ? "on the surface" : ""}
              </span>
              <button
                type="button"
                className="btn btn-quiet btn-small"
                aria-label={`Remove ${format.temperature(r.shows_c)}`}
                onClick={() => strike(r)}
              >
                Remove
              </button>
            </li>
          ))}
        </ul>
      ) : null}
      <p className="text-fine text-soft">
        {piece.readings_taken == null || piece.readings_taken === piece.readings_total
          ? `${piece.readings_total} ${piece.readings_total === 1 ? "reading" : "readings"}`
          : `${piece.readings_total} of ${piece.readings_taken} readings saved`}{" "}
        {piece.readings_total > 0 ? (
          <a className="underline" href={at(`/api/chills/${piece.id}/readings.csv`)} download>
            Export CSV
          </a>
        ) : null}
      </p>
    </div>
  );
}
