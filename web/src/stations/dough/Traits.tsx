/** How the dough will handle, spread, brown and bite: each a scale with this dough and its neighbour on it, and why. */
import { Why } from "../../kit/Fold";
import type { Beside, Judgement } from "../../api/client";
import { number, type Format } from "../../drawing/units";
import { useFormat } from "../../kit/settings";

/** What is judged of a dough, named; its spread of the round it is told for. */
export const traitName = (key: (typeof TRAITS)[number]["key"], of: Beside["own"], format: Format): string => {
  const names = {
    handling: "Handling",
    spread: `Spread of a ${format.length(of.spread_round_mm)} round`,
    browning: "Browning",
    tenderness: "Bite",
  };
  return names[key];
};

export const TRAITS = [
  { key: "handling", low: "firm", high: "pipeable" },
  { key: "spread", low: "none", high: "a lot" },
  { key: "browning", low: "slow", high: "fast" },
  { key: "tenderness", low: "firm", high: "tender" },
] as const;

export function Traits({ beside }: { beside: Beside }) {
  const format = useFormat();
  const { own, neighbour } = beside;
  return (
    <ul className="space-y-3">
      {TRAITS.map((t) => (
        <li key={t.key}>
          <div className="flex items-baseline justify-between gap-3">
            <span className="text-fine text-soft">{traitName(t.key, own, format)}</span>
            <span className="text-right font-semibold">
              {own[t.key].word}
              {t.key === "spread" ? `, ${spreadWords(own)}` : ""}
            </span>
          </div>
          <Scale
            trait={t}
            name={traitName(t.key, own, format)}
            own={own[t.key]}
            other={neighbour[t.key]}
            neighbour={neighbour.name}
          />
          <Why name={`trait-${t.key}`} items={own[t.key].reasons} />
        </li>
      ))}
    </ul>
  );
}

/** Of the round that is told with it. */
export const spreadWords = (of: Beside["own"]): string =>
  `${number(of.spread_least_percent, 1)}–${number(of.spread_most_percent, 1)}%`;

/** Across the scale, page units. */
const at = (level: number) => 10 + level * 300;

function Scale({
  trait,
  name,
  own,
  other,
  neighbour,
}: {
  trait: (typeof TRAITS)[number];
  name: string;
  own: Judgement;
  other: Judgement;
  neighbour: string;
}) {
  return (
    <svg
      viewBox="0 0 320 34"
      className="w-full"
      role="img"
      aria-label={`${name}: ${own.word}; ${neighbour}: ${other.word}`}
    >
      <line x1="10" x2="310" y1="11" y2="11" className="stroke-rule" strokeWidth="5" strokeLinecap="round" />
      <circle cx={at(other.level)} cy="11" r="6" className="fill-raised stroke-cut-line" strokeWidth="2" />
      <circle cx={at(own.level)} cy="11" r="8" className="fill-butter stroke-cut-line" strokeWidth="2.5" />
      <text x="10" y="31" fontSize="12.5" className="soft">
        {trait.low}
      </text>
      <text x="310" y="31" textAnchor="end" fontSize="12.5" className="soft">
        {trait.high}
      </text>
    </svg>
  );
}
