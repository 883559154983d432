/** The dough: one from the shelf, a basic one of each school, or a recipe to be read. */
import { ToggleGroup } from "radix-ui";
import { useState } from "react";
import { Link } from "react-router";
import type { Formula } from "../api/client";
import type { NewJobBody, Starter } from "../api/begin";
import { number } from "../drawing/units";
import { say } from "../drawing/sentence";
import { useFormat } from "../kit/settings";

type Dough = NewJobBody["dough"];
export const keyOf = (dough: Dough): string =>
  dough.kind === "starter" ? `starter:${dough.starter}` : `recipe:${dough.formula_id}`;

export function doughOf(key: string): Dough {
  const [kind, of = ""] = key.split(":");
  return kind === "recipe" ? { kind: "recipe", formula_id: Number(of) } : { kind: "starter", starter: of };
}

/** Fat, sugar, flour and the rest as the parts of a bar. */
function Bar({ parts }: { parts: readonly number[] }) {
  const whole = parts.reduce((a, b) => a + b, 0);
  const fills = ["bg-butter", "bg-raised", "bg-pale", "bg-cold-pale"];
  return (
    <span
      className="my-1.5 flex h-4 w-full overflow-hidden rounded-md border border-cut-line"
      aria-hidden="true"
    >
      {parts.map((part, i) => (
        <span
          key={fills[i]}
          className={`${fills[i] ?? ""} ${i > 0 ? "border-l border-cut-line" : ""}`}
          style={{ width: `${(100 * part) / whole}%` }}
        />
      ))}
    </span>
  );
}

const ratio = (sugar: number, flour: number): string =>
  `1 : ${number(sugar, 1)} : ${number(flour, 1)} by weight`;

export function DoughStep({
  value,
  recipes,
  starters,
  onChange,
}: {
  value: Dough;
  recipes: readonly Formula[];
  starters: readonly Starter[];
  onChange(dough: Dough): void;
}) {
  const format = useFormat();
  const [basic, setBasic] = useState(recipes.length === 0 || value.kind === "starter");
  return (
    <div className="grid grid-cols-2 gap-2 sm:grid-cols-4">
      <ToggleGroup.Root
        type="single"
        aria-label="Dough"
        className="contents"
        value={keyOf(value)}
        onValueChange={(next) => {
          if (next) onChange(doughOf(next));
        }}
      >
        {recipes.map((r) => (
          <ToggleGroup.Item key={r.id} value={`recipe:${r.id}`} className="pick" aria-label={r.name}>
            <span className="font-semibold leading-tight">{r.name}</span>
            <Bar parts={[1, r.ratio_sugar, r.ratio_flour]} />
            <span className="text-fine text-soft">{ratio(r.ratio_sugar, r.ratio_flour)}</span>
          </ToggleGroup.Item>
        ))}
        {basic
          ? starters.map((s) => (
              <ToggleGroup.Item
                key={s.starter}
                value={`starter:${s.starter}`}
                className="pick"
                aria-label={s.name}
              >
                <span className="font-semibold leading-tight">{s.name}</span>
                <Bar
                  parts={[
                    s.fat_percent,
                    s.sugar_percent,
                    s.flour_percent,
                    100 - s.fat_percent - s.sugar_percent - s.flour_percent,
                  ]}
                />
                <span className="text-fine text-soft">
                  {ratio(s.ratio_sugar, s.ratio_flour)}
                  {`. ${say(s.gives, format)}`}
                </span>
              </ToggleGroup.Item>
            ))
          : null}
      </ToggleGroup.Root>
      {basic ? null : (
        <button type="button" className="pick" onClick={() => setBasic(true)}>
          <span className="font-semibold leading-tight">Basic doughs</span>
          <span className="text-fine text-soft">Classics to begin from.</span>
        </button>
      )}
      <Link to="/read" className="pick no-underline">
        <span className="font-semibold leading-tight">Paste a recipe</span>
        <span className="text-fine text-soft">From a web page or a note. Cups become grams.</span>
      </Link>
    </div>
  );
}
