/** The run of a followed piece as its readings tell it, from when it went in to when it is past, with the readings on it. */
import type { RefObject } from "react";
import type { LivePiece } from "../../api/client";
import { linePath } from "../../drawing/line";
import { CLOCK_STEPS, stepFor, stepped } from "../../drawing/scale";
import { clock, duration, localTime, shifted } from "../../drawing/time";
import { usePictureWidth } from "../../kit/narrow";
import { useFormat } from "../../kit/settings";
import { bandsOf, BOTTOM, CurveKey, Ground, LEFT, TOP, useDegrees } from "./Ground";
import { clockOf, firmness, stateWords } from "./words";

export function LiveCurve({
  picture,
  piece,
}: {
  picture: RefObject<SVGSVGElement | null>;
  piece: LivePiece;
}) {
  const format = useFormat();
  const width = usePictureWidth();
  const right = width - 24;
  const { curve, window, readings, now } = piece;
  const counted = readings.filter((r) => !r.set_aside);
  const temperatures = [...curve.flatMap((p) => [p.warmest_c, p.mean_c]), ...counted.map((r) => r.shows_c)];
  const { y, at } = useDegrees(
    Math.max(Math.min(...temperatures), -20),
    Math.max(...temperatures.map((t) => t + 0.8), window ? window.rolls_to_c + 2 : -40),
  );
  // Room on the right for the words of the bands.
  const end = Math.max(curve[curve.length - 1]?.after_min ?? 60, now.elapsed_min) * 1.2;
  // A piece by our own clock stands on the clock, another on its own minutes.
  const real = piece.clock_speed === 1;
  const inAt = localTime(piece.put_in_at);
  const went = real ? Number(inAt.slice(11, 13)) * 60 + Number(inAt.slice(14, 16)) : 0;
  const x = stepped(went, went + end, [LEFT, right], stepFor(end, width > 500 ? 8 : 4, CLOCK_STEPS));
  const x0 = (after: number) => x(went + after);
  const path = (key: "warmest_c" | "mean_c" | "softest_c" | "felt_c") =>
    linePath(curve.map((p): [number, number] => [x0(p.after_min), at(p[key])]));
  const clip = (c: number) => Math.min(BOTTOM, Math.max(TOP, at(c)));
  const ready = piece.ready_after_min;
  const level = BOTTOM - 16;
  const nowX = x0(now.elapsed_min);
  return (
    <div>
      <svg
        ref={picture}
        viewBox={`0 0 ${width} 330`}
        className="w-full"
        role="img"
        aria-labelledby={`run-${piece.id}`}
      >
        <title id={`run-${piece.id}`}>
          {`${piece.name}: ${stateWords(piece)}, ${format.temperature(now.core_c)} in the middle after ${duration(now.elapsed_min)}; ${readings.length} ${readings.length === 1 ? "reading" : "readings"}`}
        </title>
        <Ground bands={window ? bandsOf(window, piece.purpose) : []} y={y} at={at} right={right} />
        {x.ticks.map((t) => (
          <g key={t}>
            <path d={`M${x(t)} ${BOTTOM}v6`} className="stroke-edge" />
            <text x={x(t)} y={BOTTOM + 23} textAnchor="middle" fontSize="14.5" className="num soft">
              {real ? clock(shifted(inAt, t - went)) : `${t}\u00a0min`}
            </text>
          </g>
        ))}
        {piece.stays.slice(1).map((s) => (
          <g key={s.from_min}>
            <path d={`M${x0(s.from_min)} ${TOP}V${BOTTOM}`} className="stroke-edge" strokeWidth="1.2" />
            <text x={x0(s.from_min) + 5} y={TOP + 16} fontSize="14" className="soft">
              {s.place}
            </text>
          </g>
        ))}
        {ready != null && piece.ready_earliest_min != null && piece.ready_latest_min != null ? (
          <rect
            x={x0(piece.ready_earliest_min)}
            y={level - 6}
            width={Math.max(2, x0(piece.ready_latest_min) - x0(piece.ready_earliest_min))}
            height="12"
            rx="6"
            className="fill-spruce slides"
            fillOpacity="0.85"
          />
        ) : null}
        {ready == null ? null : (
          <>
            <path
              d={`M${x0(ready)} ${TOP}V${BOTTOM}`}
              className="stroke-spruce"
              strokeWidth="1.4"
              strokeDasharray="5 4"
            />
            <text
              x={x0(Math.max(ready, piece.ready_latest_min ?? ready)) + 9}
              y={level + 5}
              fontSize="15"
              fontWeight="700"
              className="halo"
            >
              {`ready ${real ? clockOf(piece, ready) : `after ${duration(ready)}`}`}
            </text>
          </>
        )}
        {piece.past_after_min == null ? null : (
          <path
            d={`M${x0(piece.past_after_min)} ${TOP}V${BOTTOM}`}
            className="stroke-cold"
            strokeWidth="1.4"
            strokeDasharray="5 4"
          />
        )}
        <path
          d={path(firmness(piece.purpose))}
          fill="none"
          className="stroke-spruce"
          strokeWidth="2.2"
          strokeDasharray="9 4"
        />
        <path
          d={path("warmest_c")}
          fill="none"
          className="stroke-ink"
          strokeWidth="3.2"
          strokeLinejoin="round"
        />
        <path
          d={path("mean_c")}
          fill="none"
          className="stroke-ink"
          strokeWidth="2.2"
          strokeDasharray="1.5 6"
          strokeLinecap="round"
        />
        {readings.map((r) =>
          r.set_aside ? (
            <path
              key={r.id}
              d={`M${x0(r.after_min) - 4.5} ${clip(r.shows_c) - 4.5}l9 9m0 -9l-9 9`}
              className="stroke-warm"
              strokeWidth="2.2"
            />
          ) : (
            <circle
              key={r.id}
              cx={x0(r.after_min)}
              cy={clip(r.shows_c)}
              r={readings.length > 60 ? 2.6 : 4.2}
              className="fill-raised stroke-spruce"
              strokeWidth="1.8"
            />
          ),
        )}
        <path d={`M${nowX} ${TOP}V${BOTTOM + 6}`} className="stroke-ink" strokeWidth="2" />
        <circle cx={nowX} cy={clip(now.core_c)} r="7" className="fill-butter stroke-ink" strokeWidth="2" />
        <text
          x={nowX + (nowX > right - 90 ? -11 : 11)}
          y={clip(now.core_c) - 10}
          textAnchor={nowX > right - 90 ? "end" : "start"}
          fontSize="16"
          fontWeight="700"
          className="halo"
        >
          {`now ${format.temperature(now.core_c)}`}
        </text>
      </svg>
      <CurveKey readings={readings.length > 0} />
    </div>
  );
}
