/** Levers on the formula: one change, what has to change with it, and both side by side before it is kept. */
import { useState } from "react";
import { useNavigate, useSearchParams } from "react-router";
import type { Ingredient, Lever, Pulled } from "../../api/client";
import { useChangeFormula, useIngredients, useKitchen, usePulled } from "../../api/queries";
import { useJobContext } from "../../app/JobFrame";
import { say, textOf, type Said } from "../../drawing/sentence";
import { number, type Format } from "../../drawing/units";
import { readTyped } from "../../kit/Amount";
import { Choice } from "../../kit/Choice";
import { Fault, faultOf, otherFault } from "../../kit/Fault";
import { Why } from "../../kit/Fold";
import { Part, StationHead, TicketBox, Work } from "../../kit/Ticket";
import { EGGS, eggWord } from "../../recipe/eggs";
import { useFormat } from "../../kit/settings";
import { KeptVersion, useJobFormula } from "./Dough";
import { DoughNav } from "./DoughNav";
import { spreadWords, TRAITS, traitName } from "./Traits";

type Kind = "fat" | "sugar" | "flour" | "egg" | "salted" | "rich" | "altitude" | "damp" | "bowl";

const LEVERS: { kind: Kind; name: string; says: string }[] = [
  {
    kind: "fat",
    name: "Swap the fat",
    says: "Other butter, shortening or margarine; fat and water stay the same.",
  },
  { kind: "salted", name: "Salted butter", says: "Cuts the added salt by what the butter brings." },
  {
    kind: "sugar",
    name: "Swap the sugar",
    says: "Powdered spreads less, syrup browns more; same sweetness.",
  },
  {
    kind: "flour",
    name: "Swap some flour",
    says: "Starch, cocoa, rye or nut meal for part of the flour.",
  },
  { kind: "egg", name: "One egg or two", says: "Butter and flour adjust, so the dough stays as firm." },
  { kind: "rich", name: "Leaner or richer", says: "Only the fat changes, and the dough with it." },
  { kind: "altitude", name: "High altitude", says: "Less leavener and sugar, more liquid and flour." },
  { kind: "damp", name: "Humid air", says: "Damp flour weighs more, so you weigh out more." },
  { kind: "bowl", name: "From your batches", says: "Builds in what earlier batches needed." },
];

export function Change() {
  const { job, dim } = useJobContext();
  const format = useFormat();
  const formula = useJobFormula();
  const navigate = useNavigate();
  const [search, setSearch] = useSearchParams();
  const kind = (search.get("lever") ?? "fat") as Kind;
  const [lever, setLever] = useState<Lever>();
  const pulled = usePulled(job.formula_id, lever);
  const change = useChangeFormula(job.formula_id);
  const p = lever ? pulled.data : undefined;
  const kept = job.formula_version && formula && job.formula_version !== formula.version;
  return (
    <>
      <Work dim={dim}>
        <StationHead
          title={`Change ${formula?.name ?? "the recipe"}`}
          sub="just trying: nothing is saved yet"
        />
        <DoughNav jobId={job.id} />
        <KeptVersion />
        <nav aria-label="Changes" className="no-print mb-4 grid grid-cols-2 gap-2 sm:grid-cols-3">
          {LEVERS.map((l) => (
            <button
              key={l.kind}
              type="button"
              aria-pressed={kind === l.kind}
              className={`flex flex-col justify-start rounded-xl border px-3 py-2 text-left ${kind === l.kind ? "border-ink bg-pale text-on-pale" : "border-rule bg-raised hover:border-ink"}`}
              onClick={() => {
                setLever(undefined);
                setSearch({ lever: l.kind }, { replace: true });
              }}
            >
              <span className="block font-semibold">{l.name}</span>
              <span className={`hidden text-fine sm:block ${kind === l.kind ? "" : "text-soft"}`}>
                {l.says}
              </span>
            </button>
          ))}
        </nav>
        {formula ? (
          <LeverForm key={kind} kind={kind} formula={formula} search={search} onPull={setLever} />
        ) : null}
        <Fault text={lever ? otherFault(pulled.error, []) : undefined} />
        {p ? <SideBySide pulled={p} /> : null}
      </Work>
      <TicketBox>
        <Part title="What changes">
          {p ? (
            <>
              <ul className="space-y-1">
                {p.differences.map((d) => (
                  <li key={textOf(d)}>{say(d, format)}</li>
                ))}
              </ul>
              <button
                type="button"
                className="btn btn-main mt-4 w-full"
                disabled={change.isPending || p.changes.length === 0 || Boolean(kept)}
                onClick={() =>
                  change.mutate(() => p.formula, { onSuccess: () => void navigate(`/jobs/${job.id}/dough`) })
                }
              >
                {p.changes.length === 0 ? "No change" : "Use this"}
              </button>
              {kept ? (
                <p className="mt-2 text-fine text-soft">
                  This job uses an older version. Switch it to the newest first.
                </p>
              ) : null}
              <Fault text={otherFault(change.error, [])} />
            </>
          ) : (
            <p className="text-soft">Choose a change and how much.</p>
          )}
        </Part>
        {p ? <Why name="change" part title="Why these weights?" items={p.reasons} /> : null}
        {p && p.after.warnings.length > 0 ? (
          <Part title="Watch for">
            {p.after.warnings.map((w) => (
              <p key={textOf(w)} className="caution mb-2">
                {say(w, format)}
              </p>
            ))}
          </Part>
        ) : null}
      </TicketBox>
    </>
  );
}

const FOR_FLOUR = new Set(["flour", "starch", "cocoa", "meal"]);

interface FormProps {
  kind: Kind;
  formula: { lines: { ingredient: string; grams: number }[] };
  search: URLSearchParams;
  onPull(lever: Lever | undefined): void;
}

function LeverForm({ kind, formula, search, onPull }: FormProps) {
  const format = useFormat();
  const ingredients = useIngredients();
  const kitchen = useKitchen();
  const [fault, setFault] = useState<Said>();
  const all = ingredients.data ?? [];
  const of = (key: string) => all.find((i) => i.key === key);
  const lines = formula.lines
    .map((l) => ({ ...l, of: of(l.ingredient) }))
    .filter((l): l is typeof l & { of: Ingredient } => l.of !== undefined);
  const from = (test: (i: Ingredient) => boolean) =>
    lines.filter((l) => test(l.of)).toSorted((a, b) => b.grams - a.grams);
  const read = async (make: () => Promise<Lever>) => {
    setFault(undefined);
    try {
      onPull(await make());
    } catch (error) {
      onPull(undefined);
      setFault(faultOf(error, "text") ?? otherFault(error, []) ?? "Can’t read that amount.");
    }
  };
  if (all.length === 0) return null;
  const swap = (outs: typeof lines, ins: Ingredient[], share: string) => (
    <Swap
      key={kind}
      outs={outs.map((l) => l.of)}
      ins={ins}
      share={share}
      onPull={(f, t, s) =>
        void read(async () => ({
          kind: "swap",
          from: f,
          to: t,
          share_percent: await readTyped(format, "percent", s),
        }))
      }
    />
  );
  let form = null;
  switch (kind) {
    case "fat":
      form = swap(
        from((i) => i.role === "fat"),
        all.filter((i) => i.role === "fat"),
        "100%",
      );
      break;
    case "salted": {
      const butter = from((i) => i.role === "fat" && i.key !== "butter-salted");
      form = swap(
        butter,
        all.filter((i) => i.key === "butter-salted"),
        "100%",
      );
      break;
    }
    case "sugar":
      form = swap(
        from((i) => i.role === "sugar"),
        all.filter((i) => i.role === "sugar"),
        "100%",
      );
      break;
    case "flour":
      form = swap(
        from((i) => FOR_FLOUR.has(i.kind)),
        all.filter((i) => FOR_FLOUR.has(i.kind)),
        "10%",
      );
      break;
    case "egg": {
      const eggs = from((i) => i.role === "egg");
      const grams = eggs.reduce((sum, l) => sum + l.grams, 0);
      form =
        eggs.length === 0 ? (
          <p className="text-soft">No egg in this recipe. Add one under Recipe first.</p>
        ) : (
          <EggCount
            grams={grams}
            kitchen={kitchen.data?.egg_class ?? "us_large"}
            onWeight={(text) =>
              void read(async () => ({ kind: "eggs", grams: await readTyped(format, "mass", text) }))
            }
            onCount={(count, egg_class) =>
              void read(async () => ({
                kind: "egg_count",
                count: Number(count.replace(",", ".")) || 0,
                egg_class,
              }))
            }
          />
        );
      break;
    }
    case "rich":
      form = (
        <One
          label="Fat, compared with now"
          start="110%"
          onPull={(text) =>
            void read(async () => ({
              kind: "rich",
              factor: (await readTyped(format, "percent", text)) / 100,
            }))
          }
        />
      );
      break;
    case "altitude":
      form = (
        <One
          label="Altitude"
          start="1600"
          onPull={(text) =>
            void read(async () => ({
              kind: "altitude",
              metres: await readTyped(format, "count", text.replace(/\s*m$/i, "")),
            }))
          }
        />
      );
      break;
    case "damp":
      form = (
        <One
          label="Humidity where you keep flour"
          start="70%"
          onPull={(text) =>
            void read(async () => ({
              kind: "damp_air",
              humidity_percent: await readTyped(format, "percent", text),
            }))
          }
        />
      );
      break;
    case "bowl": {
      const [flour, water] = [Number(search.get("flour") ?? 0), Number(search.get("water") ?? 0)];
      form = (
        <div className="flex flex-wrap items-end gap-3">
          <p>
            {number(flour, 1)}% more flour and {number(water, 1)}% more water (of the flour), as your batches
            needed.
          </p>
          <button
            type="button"
            className="btn"
            onClick={() => onPull({ kind: "from_the_bowl", flour_percent: flour, water_percent: water })}
          >
            Show it
          </button>
        </div>
      );
      break;
    }
  }
  return (
    <div className="no-print mb-4">
      {form}
      <Fault text={fault} />
    </div>
  );
}

function Swap({
  outs,
  ins,
  share: first,
  onPull,
}: {
  outs: Ingredient[];
  ins: Ingredient[];
  share: string;
  onPull(from: string, to: string, share: string): void;
}) {
  const [from, setFrom] = useState(outs[0]?.key ?? "");
  const others = ins.filter((i) => i.key !== from);
  const [to, setTo] = useState("");
  const [share, setShare] = useState(first);
  const chosen = others.some((i) => i.key === to) ? to : "";
  if (outs.length === 0 || others.length === 0)
    return <p className="text-soft">Nothing in this recipe to swap this way.</p>;
  return (
    <form
      className="flex flex-wrap items-end gap-3"
      onSubmit={(e) => {
        e.preventDefault();
        if (chosen) onPull(from, chosen, share);
      }}
    >
      <label className="w-28">
        <span className="mb-1 block text-fine text-soft">Swap</span>
        <input
          className="field num"
          value={share}
          onChange={(e) => setShare(e.target.value)}
          onBlur={() => chosen && onPull(from, chosen, share)}
        />
      </label>
      <label className="w-52">
        <span className="mb-1 block text-fine text-soft">of the</span>
        <select
          className="field"
          value={from}
          onChange={(e) => {
            setFrom(e.target.value);
            if (chosen && chosen !== e.target.value) onPull(e.target.value, chosen, share);
          }}
        >
          {outs.map((i) => (
            <option key={i.key} value={i.key}>
              {i.name}
            </option>
          ))}
        </select>
      </label>
      <label className="w-56">
        <span className="mb-1 block text-fine text-soft">for</span>
        <select
          className="field"
          value={chosen}
          onChange={(e) => {
            setTo(e.target.value);
            if (e.target.value) onPull(from, e.target.value, share);
          }}
        >
          <option value="">Choose one</option>
          {others.map((i) => (
            <option key={i.key} value={i.key}>
              {i.name}
            </option>
          ))}
        </select>
      </label>
      <button type="submit" className="btn" disabled={!chosen}>
        Show it
      </button>
    </form>
  );
}

type EggClass = (typeof EGGS)[number];

function EggCount({
  grams,
  kitchen,
  onWeight,
  onCount,
}: {
  grams: number;
  kitchen: EggClass;
  onWeight(text: string): void;
  onCount(count: string, egg: EggClass): void;
}) {
  const format = useFormat();
  const [count, setCount] = useState("");
  const [egg, setEgg] = useState<EggClass>(kitchen);
  return (
    <div className="flex flex-wrap items-end gap-x-8 gap-y-3">
      <Choice
        label="Whole eggs"
        value={count}
        options={[
          { value: "1", label: "1 egg" },
          { value: "2", label: "2 eggs" },
          { value: "3", label: "3 eggs" },
        ]}
        onChange={(whole) => {
          setCount(whole);
          onCount(whole, egg);
        }}
      />
      <form
        className="flex flex-wrap items-end gap-3"
        onSubmit={(e) => {
          e.preventDefault();
          onCount(count, egg);
        }}
      >
        <label className="w-24">
          <span className="mb-1 block text-fine text-soft">or so many</span>
          <input
            className="field num"
            inputMode="decimal"
            value={count}
            onChange={(e) => setCount(e.target.value)}
          />
        </label>
        <label className="w-40">
          <span className="mb-1 block text-fine text-soft">Egg size</span>
          <select className="field" value={egg} onChange={(e) => setEgg(e.target.value as EggClass)}>
            {EGGS.map((e) => (
              <option key={e} value={e}>
                {eggWord(e)}
              </option>
            ))}
          </select>
        </label>
        <button type="submit" className="btn">
          Show it
        </button>
      </form>
      <One label={`Or by weight (now ${format.mass(grams)})`} start={format.mass(grams)} onPull={onWeight} />
    </div>
  );
}

function One({ label, start, onPull }: { label: string; start: string; onPull(text: string): void }) {
  const [text, setText] = useState(start);
  return (
    <form
      className="flex flex-wrap items-end gap-3"
      onSubmit={(e) => {
        e.preventDefault();
        onPull(text);
      }}
    >
      <label className="w-60">
        <span className="mb-1 block text-fine text-soft">{label}</span>
        <input className="field num" value={text} onChange={(e) => setText(e.target.value)} />
      </label>
      <button type="submit" className="btn">
        Show it
      </button>
    </form>
  );
}

const PARTS = ["fat", "sugar", "starch", "water"] as const;

/** How far a line's grams move. */
function moved(before: number, after: number, format: Format): string {
  if (before === 0) return "new";
  if (after === 0) return "removed";
  return `${after >= before ? "+" : "\u2212"}${format.mass(Math.abs(after - before))}`;
}

function SideBySide({ pulled }: { pulled: Pulled }) {
  const format = useFormat();
  const { before, after, changes } = pulled;
  return (
    <div className="grid gap-5 md:grid-cols-2" aria-live="polite">
      <table className="w-full self-start border-collapse">
        <caption className="h-part mb-1 text-left">Recipe weights</caption>
        <thead>
          <tr className="text-fine text-soft">
            <th scope="col" className="py-1 text-left font-normal">
              Ingredient
            </th>
            <th scope="col" className="py-1 text-right font-normal">
              Now
            </th>
            <th scope="col" className="py-1 text-right font-normal">
              Then
            </th>
            <th scope="col" className="py-1 text-right font-normal">
              Change
            </th>
          </tr>
        </thead>
        <tbody>
          {changes.map((c) => (
            <tr key={c.ingredient} className="border-t border-rule">
              <th scope="row" className="py-1.5 pr-2 text-left font-semibold">
                {c.name}
              </th>
              <td className="num py-1.5 text-right">{c.before_g > 0 ? format.mass(c.before_g) : "–"}</td>
              <td className="num py-1.5 text-right font-semibold">
                {c.after_g > 0 ? format.mass(c.after_g) : "–"}
              </td>
              <td className="num py-1.5 pl-3 text-right text-soft">{moved(c.before_g, c.after_g, format)}</td>
            </tr>
          ))}
          {changes.length === 0 ? (
            <tr>
              <td colSpan={4} className="py-2 text-soft">
                No change.
              </td>
            </tr>
          ) : null}
        </tbody>
      </table>
      <table className="w-full self-start border-collapse">
        <caption className="h-part mb-1 text-left">How it behaves</caption>
        <thead>
          <tr className="text-fine text-soft">
            <th scope="col" className="py-1 text-left font-normal">
              <span className="visually-hidden">What</span>
            </th>
            <th scope="col" className="py-1 text-left font-normal">
              Now
            </th>
            <th scope="col" className="py-1 text-left font-normal">
              Then
            </th>
          </tr>
        </thead>
        <tbody>
          {TRAITS.map((t) => (
            <tr key={t.key} className="border-t border-rule">
              <th scope="row" className="py-1.5 pr-2 text-left font-normal text-soft">
                {traitName(t.key, after, format)}
              </th>
              <td className="py-1.5 pr-2">
                {before[t.key].word}
                {t.key === "spread" ? <span className="num block">{spreadWords(before)}</span> : null}
              </td>
              <td className="py-1.5 font-semibold">
                {after[t.key].word}
                {t.key === "spread" ? <span className="num block">{spreadWords(after)}</span> : null}
              </td>
            </tr>
          ))}
          {PARTS.map((part) => (
            <tr key={part} className="border-t border-rule">
              <th scope="row" className="py-1.5 pr-2 text-left font-normal text-soft">
                {part.charAt(0).toUpperCase() + part.slice(1)}
              </th>
              <td className="num py-1.5">{number(100 * before.balance[part], 1, 1)}%</td>
              <td className="num py-1.5 font-semibold">{number(100 * after.balance[part], 1, 1)}%</td>
            </tr>
          ))}
          <tr className="border-t border-rule">
            <th scope="row" className="py-1.5 pr-2 text-left font-normal text-soft">
              Butter : sugar : flour
            </th>
            <td className="num py-1.5">
              1 : {number(before.ratio_sugar, 2)} : {number(before.ratio_flour, 2)}
            </td>
            <td className="num py-1.5 font-semibold">
              1 : {number(after.ratio_sugar, 2)} : {number(after.ratio_flour, 2)}
            </td>
          </tr>
        </tbody>
      </table>
    </div>
  );
}
