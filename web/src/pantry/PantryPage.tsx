/** The pantry: every ingredient with its make-up, what household measures weigh, its price; the bakery's own beside them. */
import { useEffect, useState } from "react";
import { useSearchParams } from "react-router";
import type { Ingredient } from "../api/client";
import { useAddIngredient, useDeleteIngredient, useIngredients, useKitchen } from "../api/queries";
import { number } from "../drawing/units";
import { Fault, otherFault } from "../kit/Fault";
import { Unread } from "../kit/Unread";
import { Part, Row, Rows, StationHead, TicketBox, Work } from "../kit/Ticket";
import { useNarrow } from "../kit/narrow";
import { useFormat } from "../kit/settings";
import { OwnForm } from "./OwnForm";
import { Price } from "./Price";

const KINDS: [string, string][] = [
  ["flour", "Flours"],
  ["starch", "Starches"],
  ["fat", "Fats"],
  ["sugar", "Sugars"],
  ["syrup", "Syrups"],
  ["egg", "Eggs"],
  ["liquid", "Liquids"],
  ["leavener", "Leaveners"],
  ["salt", "Salt"],
  ["cocoa", "Cocoa"],
  ["meal", "Meals and powders"],
  ["chocolate", "Chocolate"],
  ["nut", "Nuts"],
  ["seed", "Seeds"],
  ["fruit", "Fruit"],
  ["flavour", "Flavorings"],
  ["spirit", "Liquor"],
  ["colour", "Food coloring"],
];

const PARTS = [
  { key: "fat", name: "fat", fill: "bg-butter", of: (i: Ingredient) => i.analysis.fat_g },
  { key: "sugar", name: "sugar", fill: "bg-raised", of: (i: Ingredient) => i.analysis.sugars_g },
  {
    key: "starch",
    name: "starch",
    fill: "bg-dough",
    of: (i: Ingredient) => i.analysis.carbohydrate_g - i.analysis.sugars_g,
  },
  { key: "protein", name: "protein", fill: "bg-slack", of: (i: Ingredient) => i.analysis.protein_g },
  {
    key: "water",
    name: "water",
    fill: "bg-cold-pale",
    of: (i: Ingredient) => i.analysis.water_g + (i.analysis.alcohol_g ?? 0),
  },
  {
    key: "rest",
    name: "fiber, ash",
    fill: "bg-stone-2",
    of: (i: Ingredient) => i.analysis.fibre_g + i.analysis.ash_g,
  },
] as const;

export function PantryPage() {
  const ingredients = useIngredients();
  const kitchen = useKitchen();
  const format = useFormat();
  const [search, setSearch] = useSearchParams();
  const [wanted, setWanted] = useState("");
  const narrow = useNarrow();
  useEffect(() => {
    document.title = "Pantry · Ready Slab";
  }, []);
  const all = ingredients.data;
  if (!all) {
    return (
      <main id="work" className="flex-1">
        <h1 className="visually-hidden">Pantry</h1>
        <Unread of={[ingredients]} />
      </main>
    );
  }
  const chosen =
    all.find((i) => i.key === search.get("item")) ?? all.find((i) => i.key === "flour-ap") ?? all[0];
  const words = wanted.toLowerCase().split(/\s+/).filter(Boolean);
  const shown = all.filter((i) =>
    words.every((w) => `${i.name} ${(i.aliases ?? []).join(" ")} ${i.kind}`.toLowerCase().includes(w)),
  );
  return (
    <main id="work" className="flex-1 overflow-hidden rounded-2xl bg-worktop">
      <h1 className="visually-hidden">Pantry</h1>
      <div className="grid min-h-full grid-cols-[minmax(0,1fr)] lg:grid-cols-[minmax(0,1fr)_24rem]">
        <Work dim={false}>
          <StationHead title="Pantry" sub={`${all.length} ingredients`}>
            <input
              className="field !w-56"
              type="search"
              aria-label="Find an ingredient"
              placeholder="find"
              value={wanted}
              onChange={(e) => setWanted(e.target.value)}
            />
          </StationHead>
          <p className="mb-3 flex flex-wrap gap-x-4 gap-y-1 text-fine text-soft" aria-hidden="true">
            {PARTS.map((p) => (
              <span key={p.key} className="flex items-center gap-1.5">
                <span className={`inline-block size-3.5 rounded-sm border border-edge ${p.fill}`} />
                {p.name}
              </span>
            ))}
          </p>
          {shown.length === 0 ? (
            <p className="text-soft">No match. Choose something close and make your own from it.</p>
          ) : null}
          {KINDS.map(([kind, title]) => {
            const own = shown.filter((i) => i.kind === kind);
            return own.length === 0 ? null : (
              <section key={kind} className="mb-5" aria-label={title}>
                <h3 className="h-part mb-1">{title}</h3>
                <ul>
                  {own.map((i) => (
                    <li
                      key={i.key}
                      className={`grid grid-cols-[minmax(0,1fr)_auto] items-center gap-x-4 border-t border-rule sm:grid-cols-[minmax(0,13rem)_minmax(0,1fr)_6.5rem] ${i.key === chosen?.key ? "bg-pale/60" : ""}`}
                    >
                      <button
                        type="button"
                        className="min-h-11 truncate text-left font-semibold"
                        aria-current={i.key === chosen?.key}
                        onClick={() => {
                          setSearch({ item: i.key }, { replace: true });
                          if (narrow) scrollTo({ top: 0 });
                        }}
                      >
                        {i.name}
                        {i.own ? <span className="ml-2 text-fine font-normal text-soft">yours</span> : null}
                      </button>
                      <span
                        className="hidden h-4 overflow-hidden rounded-sm border border-edge sm:flex"
                        aria-hidden="true"
                      >
                        {PARTS.map((p) => (
                          <span key={p.key} className={`h-full ${p.fill}`} style={{ width: `${p.of(i)}%` }} />
                        ))}
                      </span>
                      <span className="num text-right text-fine text-soft">{measure(i, format.mass)}</span>
                    </li>
                  ))}
                </ul>
              </section>
            );
          })}
        </Work>
        <div className="order-first border-rule lg:order-none lg:border-l">
          <div className="lg:sticky lg:top-2 [&>aside]:border-0">
            <TicketBox>
              {chosen && kitchen.data ? (
                <Detail
                  key={chosen.key}
                  chosen={chosen}
                  currency={kitchen.data.currency ?? "€"}
                  onGone={(key) => setSearch(key ? { item: key } : {}, { replace: true })}
                />
              ) : null}
            </TicketBox>
          </div>
        </div>
      </div>
    </main>
  );
}

/** The measure people know it by. */
function measure(i: Ingredient, mass: (g: number) => string): string {
  const h = i.household;
  if (!h) return "";
  if (i.kind === "egg" && h.each_g) return `${mass(h.each_g)} each`;
  if (h.cup_packed_g) return `cup ${mass(h.cup_packed_g)}`;
  if (h.cup_g) return `cup ${mass(h.cup_g)}`;
  return h.tsp_g ? `tsp ${mass(h.tsp_g)}` : "";
}

function Detail({
  chosen,
  currency,
  onGone,
}: {
  chosen: Ingredient;
  currency: string;
  onGone(key?: string): void;
}) {
  const format = useFormat();
  const add = useAddIngredient();
  const remove = useDeleteIngredient();
  const a = chosen.analysis;
  const h = chosen.household;
  const rows: [string, number | null | undefined][] = [
    ["1 cup, spooned and leveled", h?.cup_g],
    ["scooped from the bag", h?.cup_scooped_g],
    ["sifted", h?.cup_sifted_g],
    ["packed", h?.cup_packed_g],
    ["1 teaspoon", h?.tsp_g],
    ["Each", h?.each_g],
    ["1 stick", h?.stick_g],
  ];
  const parts: [string, number][] = [
    ["Water", a.water_g],
    ["Alcohol", a.alcohol_g ?? 0],
    ["Fat", a.fat_g],
    ["Protein", a.protein_g],
    ["Sugars", a.sugars_g],
    ["of which browns early", a.reducing_g ?? 0],
    ["Starch", a.carbohydrate_g - a.sugars_g],
    ["Fiber", a.fibre_g],
    ["Ash", a.ash_g],
    ["of which salt", a.salt_g ?? 0],
  ];
  const copy = () => {
    const { key: _key, role: _role, own: _own, price_per_kg: _price, ...body } = chosen;
    add.mutate(
      { ...body, name: `My ${chosen.name.toLowerCase()}`, aliases: [], source: "" },
      { onSuccess: (made) => onGone(made.key) },
    );
  };
  return (
    <>
      <Part title={chosen.name}>
        {chosen.own ? (
          <OwnForm own={chosen} />
        ) : (
          <>
            <p className="mb-2 text-fine text-soft">
              in 100 g; {chosen.fat_kind === "liquid" || a.fat_g < 1 ? "" : `fat as ${chosen.fat_kind}; `}
              source: {chosen.source}
            </p>
            <Rows>
              {parts
                .filter((p) => p[1] > 0.04)
                .map(([name, g]) => (
                  <Row key={name} name={name}>
                    {number(g, 1, 1)}&nbsp;g
                  </Row>
                ))}
            </Rows>
          </>
        )}
      </Part>
      {chosen.own ? null : (
        <Part title="What measures weigh">
          <Rows>
            {rows
              .filter((r) => r[1])
              .map(([name, g]) => (
                <Row key={name} name={name}>
                  {format.mass(g ?? 0)}
                </Row>
              ))}
          </Rows>
        </Part>
      )}
      <Part title={format.units.weight === "oz" ? "Price per lb" : "Price per kg"}>
        <Price
          ingredient={chosen.key}
          name={chosen.name}
          price={chosen.price_per_kg ?? null}
          currency={currency}
        />
      </Part>
      {chosen.own ? null : (
        <Part title="Allergens">
          <p>{(chosen.allergens ?? []).join(", ") || "None listed. Check the package."}</p>
          {(chosen.aliases ?? []).length > 0 ? (
            <p className="mt-2 text-fine text-soft">Also called {(chosen.aliases ?? []).join(", ")}.</p>
          ) : null}
        </Part>
      )}
      <div className="flex flex-wrap gap-2 border-t border-rule pt-4">
        <button type="button" className="btn" disabled={add.isPending} onClick={copy}>
          Make your own version
        </button>
        {chosen.own ? (
          <button
            type="button"
            className="btn btn-quiet"
            onClick={() => remove.mutate(chosen.key, { onSuccess: () => onGone() })}
          >
            Remove
          </button>
        ) : null}
      </div>
      <Fault
        text={
          otherFault(add.error, []) ??
          otherFault(remove.error, []) ??
          (add.error ? add.error.message : undefined)
        }
      />
    </>
  );
}
