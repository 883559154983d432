/** The cooling curve over the working temperatures, on the clock. */
import type { RefObject } from "react";
import type { Plan } from "../../api/client";
import { linePath } from "../../drawing/line";
import { CLOCK_STEPS, stepFor, stepped } from "../../drawing/scale";
import { clock, minutesPast, shifted } from "../../drawing/time";
import { usePictureWidth } from "../../kit/narrow";
import { useFormat } from "../../kit/settings";
import { firmness, readyTo, worksBetween } from "./words";
import { bandsOf, BOTTOM, CurveKey, Ground, LEFT, TOP, useDegrees } from "./Ground";

export function CoolingCurve({
  picture,
  cold,
}: {
  picture: RefObject<SVGSVGElement | null>;
  cold: Plan["cold"];
}) {
  const format = useFormat();
  const width = usePictureWidth();
  const RIGHT = width - 30;
  const { curve, window } = cold;
  // Room on the right for the words of the bands.
  const end = (curve[curve.length - 1]?.after_min ?? 60) * (width > 500 ? 1.3 : 1.36);
  const start = curve[0]?.warmest_c ?? 20;
  const low = Math.min(
    cold.air_c < 0 ? (cold.works_from_c ?? cold.works_to_c) - 6 : cold.air_c,
    ...curve.map((p) => p.mean_c),
  );
  const { y, at: height } = useDegrees(Math.max(low, -6), Math.max(start, cold.works_to_c + 2));
  // The axis counts minutes of the day, so that its ticks are whole on the clock.
  const went = minutesPast(cold.in_at);
  const x = stepped(went, went + end, [LEFT, RIGHT], stepFor(end, width > 500 ? 7 : 4, CLOCK_STEPS));
  const x0 = (after: number) => x(went + after);
  const at = (
    p: Plan["cold"]["curve"][number],
    key: "warmest_c" | "mean_c" | "softest_c" | "felt_c",
  ): [number, number] => [x0(p.after_min), height(p[key])];
  const ready = cold.ready_after_min ?? 0;
  const past = cold.past_after_min;
  return (
    <div>
      <svg
        ref={picture}
        viewBox={`0 0 ${width} 330`}
        className="w-full"
        role="img"
        aria-labelledby="cool-title cool-desc"
      >
        <title id="cool-title">Dough temperature in the {cold.place}</title>
        <desc id="cool-desc">
          {`Middle ${format.temperature(start)} at ${clock(cold.in_at)}; ${cold.told ? `${readyTo(cold.purpose).toLowerCase()} at ${clock(cold.ready_at)}` : "never ready there"}${cold.past_at ? `; too cold from ${clock(cold.past_at)}` : ""}. It ${cold.works_as} ${worksBetween(cold, format)}.`}
        </desc>
        <Ground bands={bandsOf(window, cold.purpose)} y={y} at={height} right={RIGHT} />
        {x.ticks.map((t) => (
          <g key={t}>
            <path d={`M${x(t)} ${BOTTOM}v6`} className="stroke-edge" />
            <text x={x(t)} y={BOTTOM + 23} textAnchor="middle" fontSize="14.5" className="num soft">
              {clock(shifted(cold.in_at, t - went))}
            </text>
          </g>
        ))}
        {cold.told == null ? null : (
          <path
            d={`M${x0(ready)} ${TOP}V${BOTTOM}`}
            className="stroke-spruce"
            strokeWidth="1.4"
            strokeDasharray="5 4"
          />
        )}
        {past == null ? null : (
          <path
            d={`M${x0(past)} ${TOP}V${BOTTOM}`}
            className="stroke-cold"
            strokeWidth="1.4"
            strokeDasharray="5 4"
          />
        )}
        <path
          d={linePath(curve.map((p) => at(p, "warmest_c")))}
          fill="none"
          className="stroke-ink"
          strokeWidth="3.2"
          strokeLinejoin="round"
        />
        <path
          d={linePath(curve.map((p) => at(p, "mean_c")))}
          fill="none"
          className="stroke-ink"
          strokeWidth="2.2"
          strokeDasharray="1.5 6"
          strokeLinecap="round"
        />
        <path
          d={linePath(curve.map((p) => at(p, firmness(cold.purpose))))}
          fill="none"
          className="stroke-spruce"
          strokeWidth="2.2"
          strokeDasharray="9 4"
        />
        {cold.told == null ? null : (
          <>
            <circle
              cx={x0(ready)}
              cy={height(cold.works_to_c)}
              r="6.5"
              className="fill-butter stroke-ink"
              strokeWidth="2"
            />
            <text x={x0(ready) + 12} y={height(cold.works_to_c) - 10} fontSize="16" fontWeight="700">
              {`ready ${clock(cold.ready_at)}`}
            </text>
          </>
        )}
        {past == null ? null : (
          <text
            x={x0(past) - 8}
            y={BOTTOM - 10}
            textAnchor="end"
            fontSize="15"
            fontWeight="600"
            className="fill-cold"
          >
            {`too cold from ${clock(cold.past_at ?? cold.ready_at)}`}
          </text>
        )}
      </svg>
      <CurveKey />
    </div>
  );
}
