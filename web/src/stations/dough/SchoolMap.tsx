/** Where the dough sits among the schools: sugar and flour to one of butter, with lines of equal dryness. */
import type { RefObject } from "react";
import type { Beside } from "../../api/client";
import { stepped } from "../../drawing/scale";
import { number } from "../../drawing/units";

const W = 400;
const H = 300;
const LEAST_FLOUR = 0.5;

const upTo = (least: number, a: number, b: number): number =>
  Math.max(a, b) <= least ? least : Math.ceil(Math.max(a, b) * 2 + 0.2) / 2;

interface Name {
  text: string;
  at: readonly [number, number];
  bold?: boolean;
  soft?: boolean;
}

const HIGH = 17;
const A_LETTER = 6.2;
const CLEAR = 12;

/** Where each name stands: right of its mark, else left, above or below, wherever it covers neither a mark nor a name before it. */
function placed(names: readonly Name[]): (Name & { x: number; y: number })[] {
  const taken = names.map(({ at: [x, y] }) => ({ left: x - 8, right: x + 8, top: y - 8, bottom: y + 8 }));
  return names.map((name, i) => {
    const [x, y] = name.at;
    const wide = name.text.length * (name.bold ? A_LETTER + 1.8 : A_LETTER);
    const places: [number, number][] = [
      [x + CLEAR, y + 5],
      [x - CLEAR - wide, y + 5],
    ];
    for (const off of [22, 39, 56])
      places.push(
        [x - wide / 2, y - off + 8],
        [x - wide / 2, y + off],
        [x + CLEAR, y - off + 8],
        [x + CLEAR, y + off],
      );
    const box = ([left, base]: [number, number]) => ({
      left,
      right: left + wide,
      top: base - HIGH + 4,
      bottom: base + 4,
    });
    const free = (place: [number, number]) => {
      const own = box(place);
      const inside = own.left > 62 && own.right < W - 4 && own.top > 4 && own.bottom < H - 44;
      return (
        inside &&
        taken.every(
          (t, j) =>
            (j === i && place[1] === y + 5) ||
            own.right < t.left ||
            own.left > t.right ||
            own.bottom < t.top ||
            own.top > t.bottom,
        )
      );
    };
    const place = places.find(free) ?? places[0] ?? [x, y];
    if (name.text) taken.push(box(place));
    return { ...name, x: place[0], y: place[1] };
  });
}

export function SchoolMap({ picture, beside }: { picture: RefObject<SVGSVGElement | null>; beside: Beside }) {
  const { own, neighbour, schools, dryness_lines } = beside;
  // From here on a dough is a firm cut-out.
  const holds = dryness_lines[1] ?? 0;
  // Over the doughs people make: flour 0.8 to 2.6 and sugar 0.1 to 2.1 to 1 of butter by weight; wider only for one beyond.
  const mostSugar = upTo(2.5, own.ratio_sugar, neighbour.ratio_sugar);
  const mostFlour = upTo(3, own.placed_flour, neighbour.placed_flour);
  const x = stepped(0, mostSugar, [62, W - 14], 0.5);
  const leastFlour = Math.min(LEAST_FLOUR, own.placed_flour, neighbour.placed_flour);
  const y = stepped(leastFlour, mostFlour, [H - 44, 14], 0.5);
  const at = (dryness: number) => ({
    x1: x(0),
    y1: y(dryness),
    x2: x(mostSugar),
    y2: y(dryness * (1 + mostSugar)),
  });
  const close =
    Math.abs(x(own.ratio_sugar) - x(neighbour.ratio_sugar)) < 90 &&
    Math.abs(y(own.placed_flour) - y(neighbour.placed_flour)) < 22;
  const names = placed([
    { text: own.name, bold: true, at: [x(own.ratio_sugar), y(own.placed_flour)] as const },
    // Too near to be named by itself, its mark still keeps its place.
    { text: close ? "" : neighbour.name, at: [x(neighbour.ratio_sugar), y(neighbour.placed_flour)] as const },
    ...schools.map((s) => ({ text: s.name, soft: true, at: [x(s.sugar), y(s.flour)] as const })),
  ]);
  return (
    <svg
      ref={picture}
      viewBox={`0 0 ${W} ${H}`}
      className="w-full"
      role="img"
      aria-labelledby="schools-title schools-desc"
    >
      <title id="schools-title">Where it sits among the basic doughs</title>
      <desc id="schools-desc">
        {`${own.name} has ${number(own.ratio_sugar, 2)} of sugar and ${number(own.placed_flour, 2)} of flour to 1 of butter by weight; ${neighbour.name} ${number(neighbour.ratio_sugar, 2)} and ${number(neighbour.placed_flour, 2)}.`}
      </desc>
      <clipPath id="schools-plot">
        <rect x={x(0)} y="14" width={W - 14 - x(0)} height={H - 58} />
      </clipPath>
      <g clipPath="url(#schools-plot)">
        <rect x={x(0)} y="14" width={W - 14 - x(0)} height={H - 58} className="fill-raised" />
        <path
          d={`M${x(0)} ${y(holds)} L${x(mostSugar)} ${y(holds * (1 + mostSugar))} V-200 H${x(0)} Z`}
          className="fill-dough"
        />
        {dryness_lines.map((d) => (
          <line key={d} {...at(d)} className="stroke-rule" strokeWidth="1.4" strokeDasharray="5 4" />
        ))}
      </g>
      {x.ticks.map((v) => (
        <text key={v} x={x(v)} y={H - 26} textAnchor="middle" fontSize="14" className="num soft">
          {number(v, 1)}
        </text>
      ))}
      {y.ticks.map((v) => (
        <text key={v} x={x(0) - 8} y={y(v) + 5} textAnchor="end" fontSize="14" className="num soft">
          {number(v, 1)}
        </text>
      ))}
      <text x={(x(0) + W) / 2} y={H - 6} textAnchor="middle" fontSize="14.5" className="soft">
        sugar to 1 butter, by weight
      </text>
      <text
        transform={`translate(15 ${H / 2 - 14}) rotate(-90)`}
        textAnchor="middle"
        fontSize="14.5"
        className="soft"
      >
        flour to 1 butter
      </text>
      {schools.map((s) => (
        <path
          key={s.name}
          d={`M${x(s.sugar)} ${y(s.flour) - 6} l6 6 l-6 6 l-6 -6 Z`}
          className="fill-stone-2 stroke-edge"
          strokeWidth="1.5"
        />
      ))}
      <circle
        cx={x(neighbour.ratio_sugar)}
        cy={y(neighbour.placed_flour)}
        r="7"
        className="fill-raised stroke-cut-line"
        strokeWidth="2.5"
      />
      <circle
        cx={x(own.ratio_sugar)}
        cy={y(own.placed_flour)}
        r="8.5"
        className="fill-butter stroke-cut-line"
        strokeWidth="2.5"
      />
      {names
        .filter((n) => n.text)
        .map((n) => (
          <text
            key={n.text}
            x={n.x}
            y={n.y}
            fontSize={n.bold ? 15.5 : 14}
            fontWeight={n.bold ? 700 : 400}
            className={n.bold ? "halo" : n.soft ? "soft" : ""}
          >
            {n.text}
          </text>
        ))}
    </svg>
  );
}
