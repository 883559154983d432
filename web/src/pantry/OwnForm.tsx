/** An ingredient of the bakery's own: its figures are kept together, since only together they must add up. */
import { useState } from "react";
import { Refusal, type Ingredient, type IngredientBody } from "../api/client";
import { useSaveIngredient } from "../api/queries";
import { number } from "../drawing/units";
import { Fault, faultOf, otherFault } from "../kit/Fault";
import { unlessChanged } from "../kit/sent";

const KINDS = [
  "flour",
  "starch",
  "fat",
  "sugar",
  "syrup",
  "egg",
  "liquid",
  "leavener",
  "salt",
  "cocoa",
  "meal",
  "chocolate",
  "nut",
  "seed",
  "fruit",
  "flavour",
  "spirit",
  "colour",
] as const;
const FATS = ["butter", "shortening", "margarine", "lard", "coconut", "liquid"] as const;
const PARTS: [keyof IngredientBody["analysis"], string][] = [
  ["water_g", "Water"],
  ["alcohol_g", "Alcohol"],
  ["fat_g", "Fat"],
  ["protein_g", "Protein"],
  ["carbohydrate_g", "Carbohydrate"],
  ["sugars_g", "of which sugars"],
  ["reducing_g", "of which browns early"],
  ["fibre_g", "Fiber"],
  ["ash_g", "Ash"],
  ["salt_g", "of which salt"],
];
const MEASURES: [keyof NonNullable<IngredientBody["household"]>, string][] = [
  ["cup_g", "Cup"],
  ["cup_scooped_g", "Cup, scooped"],
  ["cup_sifted_g", "Cup, sifted"],
  ["cup_packed_g", "Cup, packed"],
  ["tsp_g", "Teaspoon"],
  ["each_g", "Each"],
  ["stick_g", "Stick"],
];
const WHOLE = new Set(["water_g", "alcohol_g", "fat_g", "protein_g", "carbohydrate_g", "fibre_g", "ash_g"]);

const list = (text: string) =>
  text
    .split(",")
    .map((w) => w.trim())
    .filter(Boolean);

export function OwnForm({ own }: { own: Ingredient }) {
  const save = useSaveIngredient();
  const [typed, setTyped] = useState<Record<string, string>>({});
  const text = (key: string, value: number | null | undefined) =>
    typed[key] ?? (value === null || value === undefined ? "" : number(value, 2));
  const words = (key: string, value: string) => typed[key] ?? value;
  const set = (key: string, value: string) => setTyped((t) => ({ ...t, [key]: value }));
  const figure = (key: string, value: number | null | undefined): number | null => {
    const t = text(key, value).replace(",", ".").trim();
    return t === "" ? null : Number(t);
  };
  const body = (): IngredientBody => {
    const analysis = { ...own.analysis };
    for (const [key] of PARTS) analysis[key] = figure(key, own.analysis[key]) ?? 0;
    const measured = (key: (typeof MEASURES)[number][0]) => figure(key, own.household?.[key]);
    const household = {
      cup_g: measured("cup_g"),
      cup_scooped_g: measured("cup_scooped_g"),
      cup_sifted_g: measured("cup_sifted_g"),
      cup_packed_g: measured("cup_packed_g"),
      tsp_g: measured("tsp_g"),
      each_g: measured("each_g"),
      stick_g: measured("stick_g"),
    };
    return {
      name: words("name", own.name),
      kind: words("kind", own.kind) as IngredientBody["kind"],
      fat_kind: words("fat_kind", own.fat_kind) as IngredientBody["fat_kind"],
      source: words("source", own.source ?? ""),
      allergens: list(words("allergens", (own.allergens ?? []).join(", "))),
      aliases: list(words("aliases", (own.aliases ?? []).join(", "))),
      analysis,
      household,
    };
  };
  const total = PARTS.filter(([key]) => WHOLE.has(key)).reduce(
    (sum, [key]) => sum + (figure(key, own.analysis[key]) ?? 0),
    0,
  );
  const error = save.error;
  const named = (field: string) =>
    faultOf(error, field) ?? faultOf(error, `analysis.${field}`) ?? faultOf(error, `household.${field}`);
  const fields = [
    "name",
    "total_g",
    "allergens",
    "aliases",
    "source",
    ...PARTS.map((p) => p[0]),
    ...MEASURES.map((m) => m[0]),
  ];
  const one = (key: string, label: string, value: number | null | undefined) => (
    <label key={key} className="block">
      <span className="block truncate text-fine text-soft">{label}</span>
      <input
        className="field num"
        inputMode="decimal"
        value={text(key, value)}
        aria-invalid={named(key) ? true : undefined}
        onChange={(e) => set(key, e.target.value)}
      />
      <Fault text={named(key)} />
    </label>
  );
  return (
    <form
      className="space-y-3"
      onSubmit={(e) => {
        e.preventDefault();
        save.mutate({ key: own.key, body: body() }, { onSuccess: () => setTyped(unlessChanged(typed, {})) });
      }}
    >
      <label className="block">
        <span className="block text-fine text-soft">Name, as recipes write it</span>
        <input
          className="field"
          value={words("name", own.name)}
          onChange={(e) => set("name", e.target.value)}
        />
        <Fault text={named("name")} />
      </label>
      <div className="grid grid-cols-2 gap-2">
        <label className="block">
          <span className="block text-fine text-soft">Kind</span>
          <select
            className="field"
            value={words("kind", own.kind)}
            onChange={(e) => set("kind", e.target.value)}
          >
            {KINDS.map((k) => (
              <option key={k}>{k}</option>
            ))}
          </select>
        </label>
        <label className="block">
          <span className="block text-fine text-soft">Fat acts like</span>
          <select
            className="field"
            value={words("fat_kind", own.fat_kind)}
            onChange={(e) => set("fat_kind", e.target.value)}
          >
            {FATS.map((k) => (
              <option key={k} value={k}>
                {k === "liquid" ? "oil" : k}
              </option>
            ))}
          </select>
        </label>
      </div>
      <fieldset>
        <legend className="mb-1 text-fine font-semibold">Grams in 100 g, together {number(total, 1)}</legend>
        <div className="grid grid-cols-3 gap-2">
          {PARTS.map(([key, label]) => one(key, label, own.analysis[key]))}
        </div>
        <Fault text={faultOf(error, "total_g")} />
      </fieldset>
      <fieldset>
        <legend className="mb-1 text-fine font-semibold">Grams per measure, if you use it</legend>
        <div className="grid grid-cols-3 gap-2">
          {MEASURES.map(([key, label]) => one(key, label, own.household?.[key]))}
        </div>
      </fieldset>
      <label className="block">
        <span className="block text-fine text-soft">Allergens, separated by commas</span>
        <input
          className="field"
          value={words("allergens", (own.allergens ?? []).join(", "))}
          onChange={(e) => set("allergens", e.target.value)}
        />
      </label>
      <label className="block">
        <span className="block text-fine text-soft">Other names, separated by commas</span>
        <input
          className="field"
          value={words("aliases", (own.aliases ?? []).join(", "))}
          onChange={(e) => set("aliases", e.target.value)}
        />
      </label>
      <label className="block">
        <span className="block text-fine text-soft">Source of the figures</span>
        <input
          className="field"
          value={words("source", own.source ?? "")}
          onChange={(e) => set("source", e.target.value)}
        />
      </label>
      <button
        type="submit"
        className="btn btn-main"
        disabled={Object.keys(typed).length === 0 || save.isPending}
      >
        Save
      </button>
      <Fault text={error instanceof Refusal ? otherFault(error, fields) : undefined} />
    </form>
  );
}
