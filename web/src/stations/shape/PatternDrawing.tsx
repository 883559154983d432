/** The section of a patterned bar, to scale. The two doughs differ in shade and by a hatch. */
import type { RefObject } from "react";
import type { Schemas } from "../../api/client";
import { useFormat } from "../../kit/settings";

const SIDE = 300;
const FIRST = "fill-butter";
const SECOND = "fill-cut-line";

/**
 * The middle of the inner of two sheets rolled up: an Archimedean spiral that rises by both thicknesses a turn, from the heart to
 * the rim. A roll's own rim rises by a turn; rolled true it is round, half way between.
 */
export function spiral(heart: number, outer: number, inner: number, across: number): string {
  const points: string[] = [];
  const pitch = outer + inner;
  const turns = Math.max(0, (across - heart) / 2 / pitch - 0.5);
  const steps = Math.max(1, Math.ceil(turns * 60));
  for (let i = 0; i <= steps; i += 1) {
    const turn = (turns * i) / steps;
    const r = heart / 2 + inner / 2 + pitch * turn;
    const angle = turn * 2 * Math.PI;
    points.push(`${(r * Math.cos(angle)).toFixed(2)} ${(r * Math.sin(angle)).toFixed(2)}`);
  }
  return `M${points.join("L")}`;
}

export function PatternDrawing({
  picture,
  bar,
}: {
  picture: RefObject<SVGSVGElement | null>;
  bar: Schemas["PatternView"];
}) {
  const format = useFormat();
  const scale = (SIDE - 40) / Math.max(bar.width_mm, bar.height_mm);
  const [w, h] = [bar.width_mm * scale, bar.height_mm * scale];
  // While another pattern is being asked for, the old bar stays and is drawn as what it is.
  const { sizes, pattern } = bar;
  const of = (name: keyof typeof sizes) => (sizes[name] ?? 0) * scale;
  return (
    <figure>
      <svg
        ref={picture}
        viewBox={`-10 -10 ${SIDE + 20} ${h + 50}`}
        className="w-full"
        role="img"
        aria-label={`Section of the ${pattern}, ${format.length(Math.round(bar.width_mm))} by ${format.length(Math.round(bar.height_mm))}`}
      >
        <defs>
          <pattern
            id="second-dough"
            width="6"
            height="6"
            patternUnits="userSpaceOnUse"
            patternTransform="rotate(45)"
          >
            <rect width="6" height="6" className={SECOND} />
            <path d="M0 0V6" className="stroke-butter" strokeWidth="0.8" />
          </pattern>
        </defs>
        {pattern === "checkerboard"
          ? Array.from({ length: (sizes.strips ?? 0) ** 2 }, (_, i) => {
              const n = sizes.strips ?? 1;
              const [col, row] = [i % n, Math.floor(i / n)];
              return (
                <rect
                  key={i}
                  x={col * of("strip_mm")}
                  y={row * of("strip_mm")}
                  width={of("strip_mm")}
                  height={of("strip_mm")}
                  className={`stroke-ink ${(col + row) % 2 === 0 ? FIRST : ""}`}
                  fill={(col + row) % 2 === 0 ? undefined : "url(#second-dough)"}
                  strokeWidth="0.8"
                />
              );
            })
          : null}
        {pattern === "stripes"
          ? Array.from({ length: sizes.layers ?? 0 }, (_, i) => (
              <rect
                key={i}
                x="0"
                y={h - (i + 1) * of("layer_mm")}
                width={w}
                height={of("layer_mm")}
                className={`stroke-ink ${i % 2 === 0 ? FIRST : ""}`}
                fill={i % 2 === 0 ? undefined : "url(#second-dough)"}
                strokeWidth="0.8"
              />
            ))
          : null}
        {pattern === "bullseye" ? (
          <>
            <circle
              cx={w / 2}
              cy={h / 2}
              r={w / 2}
              fill="url(#second-dough)"
              className="stroke-ink"
              strokeWidth="1.4"
            />
            <circle
              cx={w / 2}
              cy={h / 2}
              r={of("core_mm") / 2}
              className={`${FIRST} stroke-ink`}
              strokeWidth="1"
            />
          </>
        ) : null}
        {pattern === "pinwheel" ? (
          <g transform={`translate(${w / 2} ${h / 2})`}>
            <clipPath id="wheel">
              <circle r={w / 2} />
            </clipPath>
            <circle r={w / 2} className={`${FIRST} stroke-ink`} strokeWidth="1.4" />
            <path
              d={spiral(of("heart_mm"), of("outer_mm"), of("inner_mm"), w)}
              fill="none"
              stroke="var(--c-cut-line)"
              strokeWidth={of("inner_mm")}
              clipPath="url(#wheel)"
            />
            <circle r={w / 2} fill="none" className="stroke-ink" strokeWidth="1.4" />
          </g>
        ) : null}
        <path d={`M0 ${h + 12}h${w}m0 -4v8M0 ${h + 8}v8`} fill="none" className="stroke-edge" />
        <text x={w / 2} y={h + 32} textAnchor="middle" fontSize="14.5" className="num soft">
          {format.length(Math.round(bar.width_mm * 10) / 10)}
        </text>
      </svg>
      <figcaption className="flex gap-x-5 text-fine text-soft">
        <span>
          <svg width="16" height="12" aria-hidden="true" className="mr-1.5 inline-block">
            <rect width="16" height="12" className={FIRST} />
          </svg>
          first dough
        </span>
        <span>
          <svg width="16" height="12" aria-hidden="true" className="mr-1.5 inline-block">
            <rect width="16" height="12" className={SECOND} />
          </svg>
          second dough
        </span>
      </figcaption>
    </figure>
  );
}
