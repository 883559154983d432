/** One piece as cut and as baked: from above, from the side, and the colours it takes. */
import { useId, type RefObject } from "react";
import type { Plan, Schemas } from "../../api/client";
import { cutterPath } from "../../drawing/path";
import { usePictureWidth } from "../../kit/narrow";
import { useFormat } from "../../kit/settings";

type Forecast = Schemas["BakeView"];
type Part = Schemas["PartsAheadView"];

/** `parts` are points and necks that bake ahead: each kind has its number, which stands beside its sentence, too. */
export function PieceDrawing({
  picture,
  plan,
  forecast,
  parts,
}: {
  picture: RefObject<SVGSVGElement | null>;
  plan: Plan;
  forecast: Forecast;
  parts: readonly Part[];
}) {
  const format = useFormat();
  const id = useId();
  const width = usePictureWidth();
  const { cutter, oven } = plan;
  const narrow = width < 500;
  const grown = Math.max(0, forecast.growth_mm);
  const span = cutter.width_mm + 2 * grown;
  const margin = parts.length > 0 ? 44 : 18;
  // To either side there is room for the number of a point.
  const beside = parts.length > 0 ? 26 : 10;
  const scale = Math.min(
    ((narrow ? width : width * 0.52) - Math.max(30, 2 * beside)) / span,
    230 / (cutter.height_mm + 2 * grown),
    4,
  );
  const path = cutterPath(cutter);
  const top = (cutter.height_mm + 2 * grown) * scale + margin;
  const cx = (span * scale) / 2 + beside;
  const tall = Math.max(oven.thickness_mm, forecast.thickness_mm) * scale;
  const side = top + 34;
  const half = (w: number, h: number) => domed(w * scale, h * scale, forecast.profile);
  const colours = [
    ["edge", forecast.rim_screen, forecast.rim_word],
    ["middle", forecast.middle_screen, forecast.middle_word],
    ["bottom", forecast.under_screen, forecast.under_word],
  ] as const;
  const x = narrow ? 10 : width * 0.58;
  const y = narrow ? side + tall + 44 : 22;
  const height = narrow ? y + 200 : Math.max(side + tall + 44, 250);
  return (
    <svg
      ref={picture}
      viewBox={`0 0 ${width} ${height}`}
      className="w-full"
      role="img"
      aria-labelledby={`${id}-title ${id}-desc`}
    >
      <title id={`${id}-title`}>{`${cutter.name.toLowerCase()}, cut and baked`}</title>
      <desc
        id={`${id}-desc`}
      >{`Grows ${format.length(Math.round(grown * 10) / 10)} all around; ${format.length(Math.round(oven.thickness_mm * 10) / 10)} thick when cut, ${format.length(Math.round(forecast.thickness_mm * 10) / 10)} baked. ${colours.map(([where, , word]) => `${where}: ${word}`).join(", ")}.`}</desc>
      <g transform={`translate(${cx} ${top / 2 + 4}) scale(${scale})`} strokeLinejoin="round">
        <path
          d={path}
          fill={forecast.rim_screen}
          stroke={forecast.rim_screen}
          strokeWidth={2 * grown}
          className="slides"
        />
        <clipPath id={`${id}-within`}>
          <path d={path} />
        </clipPath>
        <path d={path} fill={forecast.middle_screen} />
        <path
          d={path}
          fill="none"
          stroke={forecast.rim_screen}
          strokeWidth="7"
          opacity="0.55"
          clipPath={`url(#${id}-within)`}
        />
        {parts.map((p) =>
          p.at_mm.map(([px = 0, py = 0]) => (
            <circle
              key={`${px} ${py}`}
              cx={px}
              cy={py}
              r={Math.max(4, p.width_mm * 0.75)}
              fill={p.screen}
              opacity="0.75"
              clipPath={`url(#${id}-within)`}
            />
          )),
        )}
        <path
          d={path}
          fill="none"
          className="stroke-ink"
          strokeWidth={1.3 / scale}
          strokeDasharray={`${5 / scale} ${4 / scale}`}
        />
      </g>
      {parts.map((p, i) =>
        p.at_mm.map(([px = 0, py = 0]) => {
          // A number stands outside the piece, on the ray from its middle.
          const far = Math.hypot(px, py) || 1;
          const off = p.kind === "point" ? grown * scale + 13 : 0;
          const [mx, my] = [cx + px * scale + (px / far) * off, top / 2 + 4 + py * scale + (py / far) * off];
          return (
            <g key={`${px} ${py}`}>
              <circle cx={mx} cy={my} r="9.5" className="fill-worktop stroke-ink" strokeWidth="1.2" />
              <text x={mx} y={my + 4.6} textAnchor="middle" fontSize="13" fontWeight="600" className="num">
                {i + 1}
              </text>
            </g>
          );
        }),
      )}
      <text x={cx} y={top + 16} textAnchor="middle" fontSize="14" className="soft">
        {`dashed: cut size, ${format.length(Math.round(cutter.width_mm * 10) / 10)} wide`}
      </text>
      <g transform={`translate(${cx} ${side + tall})`}>
        <path d={half(span, forecast.thickness_mm)} fill={forecast.rim_screen} className="slides" />
        <rect
          x={(-cutter.width_mm * scale) / 2}
          y={-oven.thickness_mm * scale}
          width={cutter.width_mm * scale}
          height={oven.thickness_mm * scale}
          fill="none"
          className="stroke-ink"
          strokeDasharray="5 4"
        />
        <path
          d={`M${(-span * scale) / 2 - 6} 0.8H${(span * scale) / 2 + 6}`}
          className="stroke-edge"
          strokeWidth="1.6"
        />
      </g>
      <text x={cx} y={side + tall + 22} textAnchor="middle" fontSize="14" className="soft">
        {`${format.length(Math.round(oven.thickness_mm * 10) / 10)} cut, ${format.length(Math.round(forecast.thickness_mm * 10) / 10)} baked, ${forecast.profile}`}
      </text>
      <g transform={`translate(${x} ${y})`}>
        {colours.map(([where, c, word], i) => (
          <g key={where} transform={`translate(0 ${i * 58})`}>
            <rect width="54" height="44" rx="9" fill={c} className="stroke-edge" strokeWidth="1" />
            <text x="68" y="19" fontSize="16" fontWeight="600">
              {where}
            </text>
            <text x="68" y="38" fontSize="15" className="soft">
              {word}
            </text>
          </g>
        ))}
      </g>
    </svg>
  );
}

/** A piece from the side, standing on nothing, its middle about the origin. */
function domed(w: number, h: number, profile: Forecast["profile"]): string {
  const [rim, middle] =
    profile === "domed"
      ? [h * 0.7, h * 1.25]
      : profile === "sunken"
        ? [h * 1.1, h * 0.85]
        : [h * 0.96, h * 1.02];
  const r = Math.min(h * 0.45, w / 6);
  return `M${-w / 2} 0V${-rim + r}Q${-w / 2} ${-rim} ${-w / 2 + r} ${-rim}Q0 ${-2 * middle + rim} ${w / 2 - r} ${-rim}Q${w / 2} ${-rim} ${w / 2} ${-rim + r}V0Z`;
}
