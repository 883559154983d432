/** A log from the side with its cuts and from the end, to one scale; and the strip that is laid along it, at its true size. */
import type { RefObject } from "react";
import type { Schemas } from "../../api/client";
import type { LogQuery } from "../../api/logs";
import { Ruler } from "../../drawing/Ruler";
import { usePictureWidth } from "../../kit/narrow";
import { useFormat } from "../../kit/settings";

type LogShown = Schemas["LogView"];

/** The outline of a section, its lower left corner at the origin, y upward from there. */
export function sectionPath(form: LogQuery["form"], w: number, h: number): string {
  switch (form) {
    case "round":
      return `M0 ${-h / 2}a${w / 2} ${w / 2} 0 1 1 ${w} 0a${w / 2} ${w / 2} 0 1 1 ${-w} 0z`;
    case "half_round":
      return `M0 0a${w / 2} ${w / 2} 0 0 1 ${w} 0z`;
    case "wedge":
      return `M0 0h${w}L${w / 2} ${-h}z`;
    case "square":
    case "oblong":
      return `M0 0h${w}v${-h}h${-w}z`;
  }
}

export function LogDrawing({
  picture,
  log,
  form,
}: {
  picture: RefObject<SVGSVGElement | null>;
  log: LogShown;
  form: LogQuery["form"];
}) {
  const format = useFormat();
  const { ruler } = useFormat();
  const width = usePictureWidth();
  // Side view and section side by side with room for words.
  const scale = Math.min(
    (width - 150) / (log.length_mm + log.width_mm),
    3.2,
    240 / Math.max(log.height_mm, log.width_mm),
  );
  const [l, h, w] = [log.length_mm * scale, log.height_mm * scale, log.width_mm * scale];
  const top = 44;
  const height = top + h + 56;
  const first = log.cuts_mm[0] ?? 0;
  const last = log.cuts_mm[log.cuts_mm.length - 1] ?? log.length_mm;
  const apart = (log.cuts_mm[1] ?? last) - first;
  return (
    <svg
      ref={picture}
      viewBox={`0 0 ${width} ${height}`}
      className="w-full"
      role="img"
      aria-labelledby="log-title"
    >
      <title id="log-title">{`A log ${format.length(log.length_mm)} long and ${format.length(log.width_mm)} across, cut into ${log.slices} slices of ${format.length(log.slice_mm)}`}</title>
      <g transform={`translate(44 ${top})`}>
        <Ruler width_mm={log.length_mm} height_mm={0} scale={scale} system={ruler} left={false} />
        <rect
          width={l}
          height={h}
          rx={form === "round" ? 8 : 2}
          className="fill-dough stroke-cut-line"
          strokeWidth="1.4"
        />
        <rect x={first * scale} width={(last - first) * scale} height={h} className="fill-butter" />
        {log.cuts_mm.map((c, i) => (
          <path
            key={c}
            d={`M${c * scale} ${-3}V${h + (i % 10 === 0 ? 12 : 5)}`}
            className="stroke-ink"
            strokeWidth={i % 10 === 0 ? 1.6 : 0.9}
          />
        ))}
        {log.cuts_mm.map((c, i) =>
          i % 10 === 0 && apart > 0 ? (
            <text key={c} x={c * scale} y={h + 27} textAnchor="middle" fontSize="14" className="num soft">
              {i}
            </text>
          ) : null,
        )}
        <text x={l / 2} y={h + 46} textAnchor="middle" fontSize="14" className="soft">
          {`cuts from the left; ${format.length(log.trim_mm)} ends are pale`}
        </text>
      </g>
      <g transform={`translate(${44 + l + 46} ${top + h})`}>
        <path d={sectionPath(form, w, h)} className="fill-butter stroke-cut-line" strokeWidth="1.6" />
        <text x={w / 2} y="20" textAnchor="middle" fontSize="14.5" className="num">
          {format.length(Math.round(log.width_mm * 10) / 10)}
        </text>
        {form === "round" || form === "square" ? null : (
          <text x={w + 6} y={-h / 2 + 5} fontSize="14.5" className="num">
            {format.length(Math.round(log.height_mm * 10) / 10)}
          </text>
        )}
      </g>
    </svg>
  );
}

/** One page unit is a millimetre, and the file says so. */
export function RulerStrip({
  picture,
  log,
  name,
}: {
  picture: RefObject<SVGSVGElement | null>;
  log: LogShown;
  name: string;
}) {
  const format = useFormat();
  const [w, h] = [Math.ceil(log.length_mm) + 4, 22];
  return (
    <svg
      ref={picture}
      width={`${w}mm`}
      height={`${h}mm`}
      viewBox={`-2 0 ${w} ${h}`}
      className="h-auto max-w-full"
      role="img"
      aria-label={`Ruler strip of ${log.slices} slices`}
    >
      <rect
        x="0"
        y="0.3"
        width={log.length_mm}
        height={h - 0.6}
        className="fill-raised stroke-ink"
        strokeWidth="0.3"
      />
      {log.cuts_mm.map((c, i) => (
        <g key={c}>
          <path d={`M${c} 0.3v${i % 5 === 0 ? 9 : 6}`} className="stroke-ink" strokeWidth="0.35" />
          {i % 5 === 0 ? (
            <text x={c} y="13" textAnchor="middle" fontSize="3.6">
              {i}
            </text>
          ) : null}
        </g>
      ))}
      <text x="5" y="19" fontSize="3.8">
        {`${name}: ${log.slices} slices of ${format.length(log.slice_mm)}, ${format.length(Math.round(log.length_mm * 10) / 10)} total`}
      </text>
    </svg>
  );
}
