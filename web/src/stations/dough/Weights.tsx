/** What goes on the scale for one mix, and the formula it comes from, edited in place. */
import { useState } from "react";
import type { Formula, FormulaBody, Plan } from "../../api/client";
import { useAddFormula, useChangeFormula, useChangeJob, useIngredients } from "../../api/queries";
import { useJobContext } from "../../app/JobFrame";
import { say } from "../../drawing/sentence";
import { number } from "../../drawing/units";
import { Amount } from "../../kit/Amount";
import { Fault, otherFault } from "../../kit/Fault";
import { Live } from "../../kit/Live";
import { TextField } from "../../kit/TextField";
import { useFormat } from "../../kit/settings";

type LineBody = FormulaBody["lines"][number];

export function Weights({ formula, dough }: { formula: Formula; dough: Plan["dough"] }) {
  const format = useFormat();
  const { job } = useJobContext();
  const change = useChangeFormula(formula.id);
  const add = useAddFormula();
  const ingredients = useIngredients();
  const [fresh, setFresh] = useState("");
  const changeJob = useChangeJob(job.id);
  const lines = formula.lines;
  // While the job keeps an older version, the weights are that version's and the formula is not edited from here.
  const kept =
    job.formula_version !== null &&
    job.formula_version !== undefined &&
    job.formula_version !== formula.version;
  const most = Math.max(...dough.weights.map((w) => w.bakers_percent), 1);
  const put = (next: (lines: LineBody[]) => LineBody[]) =>
    change.mutateAsync((f) => ({ ...f, lines: next(f.lines) }));
  // After one is taken out the next moves under the finger: the second tap of a double one takes no further.
  const take = (ingredient: string, tap: number) => {
    if (tap > 1) return;
    void put((all) => all.filter((l) => l.ingredient !== ingredient)).catch(() => undefined);
  };
  return (
    <section aria-labelledby="weights-head">
      <h3 id="weights-head" className="h-part mb-1">
        What to weigh{dough.mixes > 1 ? `, for each of ${dough.mixes} batches` : ""}
      </h3>
      <div className="relative overflow-x-auto">
        <table className="w-full border-collapse sm:min-w-[34rem]">
          <thead>
            <tr className="text-left text-fine text-soft">
              <th scope="col" className="py-1 font-normal">
                Ingredient
              </th>
              <th scope="col" className="py-1 pr-4 text-right font-normal">
                One batch
              </th>
              <th scope="col" className="hidden py-1 font-normal sm:table-cell print:table-cell" colSpan={2}>
                Baker’s %
              </th>
              {kept ? null : (
                <th scope="col" className="no-print w-28 py-1 pl-3 font-normal sm:w-32">
                  Recipe
                </th>
              )}
              {kept ? null : (
                <th scope="col" className="no-print w-10">
                  <span className="visually-hidden">Remove</span>
                </th>
              )}
            </tr>
          </thead>
          <tbody>
            {dough.weights.map((w, i) => {
              const line = lines[i];
              const own = line && line.ingredient === w.ingredient ? line : undefined;
              return (
                <tr key={`${w.ingredient}-${i}`} className="border-t border-rule align-baseline">
                  <th scope="row" className="py-1.5 pr-3 text-left font-semibold">
                    {w.name}
                    {w.note ? <span className="font-normal text-soft">, {w.note}</span> : null}
                    {w.held_back_g > 0 ? (
                      <span className="block text-fine font-normal text-soft">
                        hold back {format.mass(w.held_back_g)}
                      </span>
                    ) : null}
                    {w.warning ? (
                      <span className="block text-fine font-normal text-warm">{say(w.warning, format)}</span>
                    ) : null}
                  </th>
                  <td className="num whitespace-nowrap py-1.5 pr-4 text-right text-lg font-semibold">
                    <Live value={format.mass(w.mass_g)} />
                    {besideOf(w, format.units.weight === "cups") ? (
                      <span className="block font-sans text-fine font-normal tracking-normal [word-spacing:normal] text-soft">
                        {besideOf(w, format.units.weight === "cups")}
                      </span>
                    ) : null}
                  </td>
                  <td className="num hidden w-20 whitespace-nowrap pr-3 text-right text-soft sm:table-cell print:table-cell">
                    {number(w.bakers_percent, 1, 1)}%
                  </td>
                  <td className="hidden w-[20%] sm:table-cell" aria-hidden="true">
                    <div className="h-2.5 rounded-full bg-stone">
                      <div
                        className="h-2.5 rounded-full bg-butter-deep"
                        style={{ width: `${(100 * w.bakers_percent) / most}%` }}
                      />
                    </div>
                  </td>
                  {kept ? null : (
                    <td className="no-print py-1 pl-3">
                      {own ? (
                        <Amount
                          label={`${w.name} in the recipe`}
                          hideLabel
                          kind="mass"
                          value={own.grams}
                          field={`lines[${i}].grams`}
                          onSave={(grams) =>
                            put((all) => all.map((l, at) => (at === i ? { ...l, grams } : l)))
                          }
                        />
                      ) : null}
                    </td>
                  )}
                  {kept ? null : (
                    <td className="no-print">
                      <button
                        type="button"
                        className="min-h-11 min-w-11 text-soft"
                        aria-label={`Remove ${w.name}`}
                        disabled={!own}
                        onClick={(e) => own && take(own.ingredient, e.detail)}
                      >
                        ×
                      </button>
                    </td>
                  )}
                </tr>
              );
            })}
          </tbody>
        </table>
      </div>
      {kept ? null : (
        <div className="no-print mt-2 flex flex-wrap items-end gap-3">
          <div className="w-60">
            <label htmlFor="fresh" className="mb-1 block text-fine text-soft">
              Add an ingredient
            </label>
            <select
              id="fresh"
              className="field"
              value={fresh}
              onChange={(e) => {
                const key = e.target.value;
                setFresh("");
                if (key) void put((all) => [...all, { ingredient: key, grams: 10 }]).catch(() => undefined);
              }}
            >
              <option value="">Choose, then set its weight</option>
              {(ingredients.data ?? [])
                .filter((i) => !lines.some((l) => l.ingredient === i.key))
                .map((i) => (
                  <option key={i.key} value={i.key}>
                    {i.name}
                  </option>
                ))}
            </select>
          </div>
          <div className="w-52">
            <TextField
              label="Recipe name"
              value={formula.name}
              field="name"
              onSave={(name) => change.mutateAsync((f) => ({ ...f, name }))}
            />
          </div>
          <button
            type="button"
            className="btn"
            onClick={() =>
              add.mutate(
                { name: `${formula.name} copy`, lines },
                { onSuccess: (f) => changeJob.mutate({ formula_id: f.id, formula_version: null }) },
              )
            }
          >
            Make a copy
          </button>
        </div>
      )}
      <Fault text={otherFault(change.error, ["name", ...lines.map((_, i) => `lines[${i}].grams`)])} />
    </section>
  );
}

/** What stands under a weight: cups and spoons where somebody asked for them, else spoons where a scale hardly reads it. */
const besideOf = (w: Plan["dough"]["weights"][number], cups: boolean): string | null | undefined =>
  cups ? w.beside : w.mass_g < 20 ? w.measure : null;
