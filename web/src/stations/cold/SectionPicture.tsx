/** The inside of a piece at a movable time: every cell of its cross-section, to scale, in the colour of its band. */
import type { RefObject } from "react";
import type { LivePiece, Section } from "../../api/client";
import { useFormat } from "../../kit/settings";
import { usePictureWidth } from "../../kit/narrow";
import { bandsOf } from "./Ground";

const TOP = 34;
const TALL = 210;
/** Inside a band, so many shades. */
const SHADES = 4;

export function SectionPicture({
  picture,
  section,
  frame,
  purpose,
}: {
  picture: RefObject<SVGSVGElement | null>;
  section: Section;
  frame: number;
  purpose: LivePiece["purpose"];
}) {
  const format = useFormat();
  const width = usePictureWidth();
  const shown = section.frames[Math.min(frame, section.frames.length - 1)];
  if (!shown) return null;
  const bands = bandsOf(section.window, purpose);
  // A sheet has no width of its own: so much of it is drawn.
  const across = section.width_mm ?? section.height_mm * 12;
  const scale = Math.min((width - 130) / across, TALL / section.height_mm);
  const [w, h] = [across * scale, section.height_mm * scale];
  const [x0, y0] = [(width - 110 - w) / 2, TOP];
  const height = TOP + h + 12;
  const fill = (c: number) => {
    const band = bands.find((b) => c > b.from) ?? bands[bands.length - 1];
    if (!band) return { className: "", shade: 1 };
    const [low, high] = [Math.max(band.from, -20), Math.min(band.to, 30)];
    const part = Math.min(1, Math.max(0, (c - low) / Math.max(0.1, high - low)));
    return {
      className: FILL[band.fill] ?? band.fill,
      shade: 0.55 + (0.45 * Math.round(part * SHADES)) / SHADES,
    };
  };
  const layers = shown.layers_c;
  const warmest = Math.max(...layers.flat());
  const coldest = Math.min(...layers.flat());
  return (
    <svg
      ref={picture}
      viewBox={`0 0 ${width} ${height}`}
      className="w-full"
      role="img"
      aria-labelledby="inside-title"
    >
      <title id="inside-title">
        {`Inside after ${Math.round(shown.after_min)} minutes: from ${format.temperature(coldest)} to ${format.temperature(warmest)}`}
      </title>
      {section.kind === "rings" ? (
        <Rings layer={layers[0] ?? []} radius={h / 2} cx={x0 + w / 2} cy={y0 + h / 2} fill={fill} />
      ) : (
        layers.map((layer, j) => {
          const cells = section.kind === "halved" ? [...layer.toReversed(), ...layer] : layer;
          const [cw, ch] = [w / cells.length, h / layers.length];
          return cells.map((c, i) => {
            const look = fill(c);
            // Layers come from below.
            return (
              <rect
                key={`${j}-${i}`}
                x={x0 + i * cw}
                y={y0 + h - (j + 1) * ch}
                width={cw + 0.4}
                height={ch + 0.4}
                className={look.className}
                fillOpacity={look.shade}
              />
            );
          });
        })
      )}
      {section.kind === "rings" ? (
        <circle
          cx={x0 + w / 2}
          cy={y0 + h / 2}
          r={h / 2}
          fill="none"
          className="stroke-ink"
          strokeWidth="1.6"
        />
      ) : (
        <rect
          x={x0}
          y={y0}
          width={w}
          height={h}
          rx="3"
          fill="none"
          className="stroke-ink"
          strokeWidth="1.6"
        />
      )}
      <text
        x={x0 + w / 2}
        y={y0 + h / 2 + 6}
        textAnchor="middle"
        fontSize="18"
        fontWeight="700"
        className="num halo"
      >
        {format.temperature(middle(section, layers))}
      </text>
      <text x={x0 + w + 10} y={y0 + h / 2 + 5} fontSize="16" className="num">
        {format.temperature(rim(section, layers))}
      </text>
      <text x={x0 + w + 10} y={y0 + h / 2 + 24} fontSize="14" className="soft">
        edge
      </text>
      <path d={`M${x0} ${y0 - 10}h${w}m0 -4v8M${x0} ${y0 - 14}v8`} fill="none" className="stroke-edge" />
      <text x={x0 + w / 2} y={y0 - 16} textAnchor="middle" fontSize="14.5" className="num soft">
        {section.width_mm == null
          ? `part of a ${format.length(section.height_mm)} sheet`
          : format.length(section.width_mm)}
      </text>
      {section.width_mm == null ? null : (
        <text x={x0 - 8} y={y0 + h / 2 + 5} textAnchor="end" fontSize="14.5" className="num soft">
          {h > 24 && x0 > 50 ? format.length(section.height_mm) : ""}
        </text>
      )}
    </svg>
  );
}

/** What the colours stand for. */
export function SectionKey({ section, purpose }: { section: Section; purpose: LivePiece["purpose"] }) {
  return (
    <p className="mt-1 flex flex-wrap gap-x-5 text-fine text-soft">
      {bandsOf(section.window, purpose).map((b) => (
        <span key={b.word}>
          <svg width="16" height="14" aria-hidden="true" className="mr-1.5 inline-block">
            <rect
              x="0.5"
              y="0.5"
              width="15"
              height="13"
              className={`${FILL[b.fill] ?? b.fill} stroke-edge`}
              strokeWidth="0.8"
            />
          </svg>
          {b.word}
        </span>
      ))}
    </p>
  );
}

/** Stronger than behind a curve: here the colour is the picture. */
const FILL: Record<string, string> = {
  "fill-pale": "fill-butter",
  "fill-cold-pale": "fill-ice",
  "fill-warm-pale": "fill-blush",
};

function Rings({
  layer,
  radius,
  cx,
  cy,
  fill,
}: {
  layer: readonly number[];
  radius: number;
  cx: number;
  cy: number;
  fill: (c: number) => { className: string; shade: number };
}) {
  return layer
    .map((c, i) => ({ c, r: (radius * (i + 1)) / layer.length }))
    .toReversed()
    .map(({ c, r }) => {
      const look = fill(c);
      return (
        <g key={r}>
          <circle cx={cx} cy={cy} r={r} className="fill-worktop" />
          <circle cx={cx} cy={cy} r={r} className={look.className} fillOpacity={look.shade} />
        </g>
      );
    });
}

function middle(section: Section, layers: readonly (readonly number[])[]): number {
  const layer = layers[Math.floor(layers.length / 2)] ?? [];
  return section.kind === "slab" ? (layer[Math.floor(layer.length / 2)] ?? 0) : (layer[0] ?? 0);
}

function rim(section: Section, layers: readonly (readonly number[])[]): number {
  if (section.kind === "slab") {
    const top = layers[layers.length - 1] ?? [];
    return top[0] ?? 0;
  }
  const layer = layers[Math.floor(layers.length / 2)] ?? [];
  return layer[layer.length - 1] ?? 0;
}
