/** What the recipe says of its method, taken over into the new job: each is shown, and each can be refused. */
import type { Schemas } from "../api/client";
import type { NewJobBody } from "../api/begin";
import type { Format } from "../drawing/units";
import { useFormat } from "../kit/settings";

type Says = Schemas["RecipeSaysBody"];
export type SaysWord = NonNullable<NewJobBody["refuse"]>[number];

export const METHODS: Record<NonNullable<Says["method"]>, string> = {
  just_combined: "Creamed just to combined",
  light_and_fluffy: "Creamed light and fluffy",
  rubbed_in: "Rubbed in",
  pulsed: "Pulsed in a food processor",
};

/** What of it a new job takes over, in words. */
export function taken(says: Says, format: Format): { word: SaysWord; text: string }[] {
  const found: { word: SaysWord; text: string }[] = [];
  if (says.method) found.push({ word: "method", text: METHODS[says.method] });
  if (says.thickness_mm != null)
    found.push({ word: "thickness_mm", text: `${format.length(says.thickness_mm)} thick` });
  if (says.oven_c != null) found.push({ word: "oven_c", text: `Oven at ${format.oven(says.oven_c)}` });
  if (says.pieces != null) found.push({ word: "pieces", text: `${says.pieces} cookies` });
  return found;
}

export function RecipeSays({
  says,
  refused,
  onRefuse,
}: {
  says: Says;
  refused: readonly SaysWord[];
  onRefuse(refused: SaysWord[]): void;
}) {
  const format = useFormat();
  const all = taken(says, format);
  if (all.length === 0) return null;
  return (
    <div className="mt-3" role="group" aria-label="As the recipe says">
      <p className="mb-1 text-fine text-soft">As the recipe says. Press one to leave it out.</p>
      <div className="flex flex-wrap gap-2">
        {all.map(({ word, text }) => {
          const out = refused.includes(word);
          return (
            <button
              key={word}
              type="button"
              aria-pressed={!out}
              className={`btn btn-small ${out ? "text-soft line-through" : "border-ink bg-pale text-on-pale"}`}
              onClick={() => onRefuse(out ? refused.filter((w) => w !== word) : [...refused, word])}
            >
              {text}
            </button>
          );
        })}
      </div>
    </div>
  );
}
