/** The dough as a slab beside its neighbour's, both to the same mass, their parts as wide as their share of it. */
import type { RefObject } from "react";
import type { Character } from "../../api/client";
import { number } from "../../drawing/units";
import { usePictureWidth } from "../../kit/narrow";

const PARTS = [
  { key: "fat", name: "fat", fill: "fill-butter" },
  { key: "sugar", name: "sugar", fill: "fill-raised" },
  { key: "starch", name: "starch", fill: "fill-dough" },
  { key: "protein", name: "protein", fill: "fill-slack" },
  { key: "water", name: "water", fill: "fill-cold-pale" },
  { key: "rest", name: "fiber, ash", fill: "fill-stone-2" },
] as const;

/** Room for words beside a part this wide, page units. */
const WIDE_ENOUGH = 46;

function slab(c: Character, width: number) {
  const shares = PARTS.map((p) => Math.max(0, c.balance[p.key]));
  return PARTS.map((p, i) => ({
    ...p,
    share: shares[i] ?? 0,
    x: 10 + shares.slice(0, i).reduce((sum, s) => sum + s, 0) * width,
    w: (shares[i] ?? 0) * width,
  }));
}

export function MakeUp({
  picture,
  own,
  neighbour,
}: {
  picture: RefObject<SVGSVGElement | null>;
  own: Character;
  neighbour: Character;
}) {
  const whole = usePictureWidth();
  const width = whole - 20;
  const [top, low] = [slab(own, width), slab(neighbour, width)];
  const [y1, h1, y2, h2] = [26, 64, 132, 40];
  const words = (parts: ReturnType<typeof slab>) =>
    parts.map((p) => `${p.name} ${Math.round(p.share * 100)} percent`).join(", ");
  return (
    <svg
      ref={picture}
      viewBox={`0 0 ${whole} 204`}
      className="w-full"
      role="img"
      aria-labelledby="makeup-title makeup-desc"
    >
      <title id="makeup-title">{`What ${own.name} is made of, next to ${neighbour.name}`}</title>
      <desc id="makeup-desc">{`${own.name}: ${words(top)}. ${neighbour.name}: ${words(low)}.`}</desc>
      <text x="10" y="17" fontSize="15.5" fontWeight="600">
        {own.name}
      </text>
      {top.map((p, i) => {
        const other = low[i];
        if (!other) return null;
        const right = p.x + p.w;
        return (
          <g key={p.key}>
            <path
              d={`M${p.x} ${y1 + h1} H${right} L${other.x + other.w} ${y2} H${other.x} Z`}
              className={p.fill}
              opacity="0.45"
            />
            <rect
              x={p.x}
              y={y1}
              width={p.w}
              height={h1}
              className={`${p.fill} stroke-cut-line`}
              strokeWidth="1.2"
            />
            <rect
              x={other.x}
              y={y2}
              width={other.w}
              height={h2}
              className={`${p.fill} stroke-cut-line`}
              strokeWidth="1.2"
            />
            {p.w > WIDE_ENOUGH ? (
              <>
                <text
                  x={p.x + p.w / 2}
                  y={y1 + 28}
                  textAnchor="middle"
                  fontSize="17"
                  fontWeight="600"
                  className={p.key === "fat" ? "num on-butter" : "num"}
                >
                  {`${number(p.share * 100, 0)}%`}
                </text>
                <text
                  x={p.x + p.w / 2}
                  y={y1 + 50}
                  textAnchor="middle"
                  fontSize="15"
                  className={p.key === "fat" ? "on-butter" : "soft"}
                >
                  {p.name}
                </text>
              </>
            ) : null}
            {other.w > WIDE_ENOUGH ? (
              <text
                x={other.x + other.w / 2}
                y={y2 + 26}
                textAnchor="middle"
                fontSize="15.5"
                className={p.key === "fat" ? "num on-butter" : "num"}
              >
                {`${number(other.share * 100, 0)}%`}
              </text>
            ) : null}
          </g>
        );
      })}
      <rect
        x="10"
        y={y1}
        width={width}
        height={h1}
        rx="3"
        fill="none"
        className="stroke-cut-line"
        strokeWidth="2"
      />
      <rect
        x="10"
        y={y2}
        width={width}
        height={h2}
        rx="3"
        fill="none"
        className="stroke-cut-line"
        strokeWidth="2"
      />
      <text x="10" y={y2 + h2 + 20} fontSize="15.5" fontWeight="600">
        {neighbour.name}
      </text>
      <text x={whole - 10} y={y2 + h2 + 20} textAnchor="end" fontSize="15" className="soft">
        {top
          .filter((p) => p.w <= WIDE_ENOUGH)
          .map((p) => `${p.name} ${number(p.share * 100, 0)}%`)
          .join(", ")}
      </text>
    </svg>
  );
}
