/** The dough: what it is made of, drawn to scale, and what goes on the scale. */
import { useRef, useState, type RefObject } from "react";
import type { Formula, FormulaBody, Plan } from "../../api/client";
import { useAddFormula, useChangeFormula, useChangeJob, useChangeKitchen, useFormulas, useIngredients, useKitchen } from "../../api/queries";
import { useJobContext } from "../../app/JobFrame";
import { number } from "../../drawing/units";
import { Amount } from "../../kit/Amount";
import { Choice } from "../../kit/Choice";
import { Fault, otherFault } from "../../kit/Fault";
import { Live } from "../../kit/Live";
import { SaveSvg } from "../../kit/SaveSvg";
import { Part, Reasons, Row, Rows, StationHead, TicketBox, Work } from "../../kit/Ticket";
import { TextField } from "../../kit/TextField";
import { usePictureWidth } from "../../kit/narrow";
import { useFormat } from "../../kit/settings";

export function Dough() {
  const { job, plan, dim } = useJobContext();
  const format = useFormat();
  const { mutateAsync: keep } = useChangeJob(job.id);
  const change = useChangeJob(job.id);
  const { mutateAsync: keepKitchen } = useChangeKitchen();
  const kitchen = useKitchen();
  const formulas = useFormulas();
  const formula = formulas.data?.find((f) => f.id === job.formula_id);
  const picture = useRef<SVGSVGElement>(null);
  const { dough } = plan;
  return (
    <>
      <Work dim={dim}>
        <StationHead title={formula?.name ?? "Dough"} sub={`1 : ${number(dough.ratio_sugar, 1, 1)} : ${number(dough.ratio_flour, 1, 1)} butter, sugar, flour`}>
          <SaveSvg picture={picture} name={`${formula?.name ?? "dough"} make-up`} />
          <button type="button" className="btn btn-small" onClick={() => print()}>
            Print the weights
          </button>
        </StationHead>
        <MakeUp picture={picture} dough={dough} />
        {formula ? <Weights formula={formula} dough={dough} /> : null}
      </Work>
      <TicketBox>
        <Part title={dough.mixes === 1 ? "One mix" : `${dough.mixes} equal mixes`}>
          <p className="answer">
            <Live value={dough.mixes === 1 ? format.bigMass(dough.dough_g) : format.mass(dough.mix_g)} />
          </p>
          <p className="mb-3 mt-1 text-soft">{dough.mixes === 1 ? "of dough in all" : `each, ${format.bigMass(dough.dough_g)} in all`}</p>
          <p className="say">
            Out of the mixer at <strong>{format.temperature(dough.dough_c)}</strong>. Stop when it clears the bowl and a squeezed handful holds with nothing crumbling off.
          </p>
        </Part>
        <Part title="Mixing">
          <div className="space-y-3">
            <Choice
              label="Mixing method"
              value={job.method}
              options={[
                { value: "just_combined", label: "Just combined" },
                { value: "light_and_fluffy", label: "Light and fluffy" },
                { value: "rubbed_in", label: "Rubbed in" },
              ]}
              onChange={(method) => change.mutate({ method })}
            />
            <p className="text-fine text-soft">
              {job.method === "rubbed_in"
                ? `Butter at about ${format.temperature(dough.butter_c, 0)}, rubbed to crumbs: short, little spread, a colder dough.`
                : job.method === "just_combined"
                  ? `Butter at about ${format.temperature(dough.butter_c, 0)}, 30 to 60 seconds: little air, holds edges and stamped detail.`
                  : `Butter at about ${format.temperature(dough.butter_c, 0)}, 2 to 5 minutes: more air, more lift, more spread.`}
            </p>
            <Amount
              label="Dough as you measured it"
              kind="temperature"
              value={dough.dough_c}
              unset={!dough.dough_measured}
              placeholder={`${format.temperature(dough.dough_c)} expected`}
              field="dough_c"
              step={0.5}
              onSave={(dough_c) => keep({ dough_c })}
            />
            {dough.dough_measured ? (
              <button type="button" className="btn btn-small" onClick={() => change.mutate({ dough_c: null })}>
                Back to the expected temperature
              </button>
            ) : null}
            {kitchen.data ? (
              <Amount
                label="Most dough the mixer takes"
                kind="mass"
                value={kitchen.data.mixer_limit_g}
                field="mixer_limit_g"
                step={50}
                onSave={(mixer_limit_g) => keepKitchen({ mixer_limit_g })}
              />
            ) : null}
          </div>
        </Part>
        <Part title="What it rests on">
          <Rows>
            <Row name="Butter : sugar : flour">
              <Live value={`1 : ${number(dough.ratio_sugar, 2, 2)} : ${number(dough.ratio_flour, 2, 2)}`} />
            </Row>
            <Row name="Density, with its air">
              <Live value={`${number(dough.density_kg_m3 / 1000, 3, 3)} g/cm³`} />
            </Row>
            <Row name="Allergens">{dough.allergens.join(", ") || "none known"}</Row>
          </Rows>
          <div className="mt-3">
            <Reasons items={[`${dough.school.charAt(0).toUpperCase()}${dough.school.slice(1)}.`, ...dough.reasons]} />
          </div>
          <p className="caution mt-3">
            Raw flour and raw egg are not ready to eat: no tasting. Add flour slowly, its dust harms the lungs. The allergen list is a
            draft; local rules decide what a label says.
          </p>
        </Part>
      </TicketBox>
    </>
  );
}

const PARTS = [
  { key: "fat", name: "fat", fill: "fill-butter" },
  { key: "sugars", name: "sugar", fill: "fill-raised" },
  { key: "starch", name: "starch", fill: "fill-dough" },
  { key: "protein", name: "protein", fill: "fill-slack" },
  { key: "water", name: "water", fill: "fill-cold-pale" },
  { key: "rest", name: "fibre, ash", fill: "fill-stone-2" },
] as const;

/** A slab of the dough, its parts as wide as their share of the mass. */
function MakeUp({ picture, dough }: { picture: RefObject<SVGSVGElement | null>; dough: Plan["dough"] }) {
  const whole = usePictureWidth();
  const width = whole - 20;
  const shares = PARTS.map((p) => Math.max(0, dough.make_up[p.key]));
  const before = (i: number) => shares.slice(0, i).reduce((sum, share) => sum + share, 0);
  const parts = PARTS.map((p, i) => ({ ...p, share: shares[i] ?? 0, x: 10 + before(i) * width, w: (shares[i] ?? 0) * width }));
  return (
    <svg ref={picture} viewBox={`0 0 ${whole} 138`} className="mb-3 w-full" role="img" aria-labelledby="makeup-title makeup-desc">
      <title id="makeup-title">What the dough is made of</title>
      <desc id="makeup-desc">{parts.map((p) => `${p.name} ${Math.round(p.share * 100)} per cent`).join(", ")}</desc>
      {parts.map((p) => (
        <g key={p.key}>
          <rect x={p.x} y="8" width={p.w} height="66" className={`${p.fill} stroke-cut-line`} strokeWidth="1.2" />
          {p.w > 44 ? (
            <text x={p.x + p.w / 2} y="48" textAnchor="middle" fontSize="17" fontWeight="600" className="num">
              {`${Math.round(p.share * 100)} %`}
            </text>
          ) : null}
          <text x={p.key === "rest" ? whole - 10 : p.x + p.w / 2} y={p.key === "rest" ? 116 : p.w > 44 ? 96 : 134} textAnchor={p.key === "rest" ? "end" : "middle"} fontSize="15.5" className="soft">
            {p.w > 44 ? p.name : `${p.name} ${Math.round(p.share * 100)} %`}
          </text>
        </g>
      ))}
      <rect x="10" y="8" width={width} height="66" rx="3" fill="none" className="stroke-cut-line" strokeWidth="2" />
    </svg>
  );
}

type LineBody = FormulaBody["lines"][number];

function Weights({ formula, dough }: { formula: Formula; dough: Plan["dough"] }) {
  const format = useFormat();
  const change = useChangeFormula(formula.id);
  const add = useAddFormula();
  const ingredients = useIngredients();
  const [fresh, setFresh] = useState("");
  const changeJob = useChangeJob(useJobContext().job.id);
  const lines = formula.lines;
  const most = Math.max(...dough.weights.map((w) => w.bakers_percent), 1);
  const put = (next: (lines: LineBody[]) => LineBody[]) => change.mutateAsync((f) => ({ ...f, lines: next(f.lines) }));
  const free = (ingredients.data ?? []).filter((i) => !lines.some((l) => l.ingredient === i.key));
  return (
    <section aria-labelledby="weights-head">
      <h3 id="weights-head" className="h-part mb-1">
        On the scale{dough.mixes > 1 ? `, for each of ${dough.mixes} mixes` : ""}
      </h3>
      <div className="relative overflow-x-auto">
        <table className="w-full border-collapse sm:min-w-[34rem]">
          <thead>
            <tr className="text-left text-fine text-soft">
              <th scope="col" className="py-1 font-normal">Ingredient</th>
              <th scope="col" className="py-1 pr-4 text-right font-normal">One mix</th>
              <th scope="col" className="hidden py-1 font-normal sm:table-cell print:table-cell" colSpan={2}>Of the flour</th>
              <th scope="col" className="no-print w-28 py-1 font-normal sm:w-32">Formula</th>
              <th scope="col" className="no-print w-10"><span className="visually-hidden">Remove</span></th>
            </tr>
          </thead>
          <tbody>
            {dough.weights.map((w, i) => {
              const line = lines[i];
              return (
                <tr key={w.ingredient} className="border-t border-rule">
                  <th scope="row" className="py-0.5 pr-3 text-left font-semibold">{w.name}</th>
                  <td className="num whitespace-nowrap pr-4 text-right text-lg font-semibold">
                    <Live value={format.mass(w.mass_g)} />
                  </td>
                  <td className="num hidden w-20 whitespace-nowrap pr-3 text-right text-soft sm:table-cell print:table-cell">{number(w.bakers_percent, 1, 1)} %</td>
                  <td className="hidden w-[22%] sm:table-cell" aria-hidden="true">
                    <div className="h-2.5 rounded-full bg-stone">
                      <div className="h-2.5 rounded-full bg-butter-deep" style={{ width: `${(100 * w.bakers_percent) / most}%` }} />
                    </div>
                  </td>
                  <td className="no-print py-1 pl-3">
                    {line && line.ingredient === w.ingredient ? (
                      <Amount
                        label={`${w.name} in the formula`}
                        hideLabel
                        kind="mass"
                        value={line.grams}
                        field={`lines[${i}].grams`}
                        onSave={(grams) => put((all) => all.map((l) => (l.ingredient === w.ingredient ? { ...l, grams } : l)))}
                      />
                    ) : null}
                  </td>
                  <td className="no-print">
                    <button
                      type="button"
                      className="min-h-11 min-w-11 text-soft"
                      aria-label={`Take ${w.name} out of the formula`}
                      onClick={() => void put((all) => all.filter((l) => l.ingredient !== w.ingredient)).catch(() => undefined)}
                    >
                      ×
                    </button>
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      </div>
      <div className="no-print mt-2 flex flex-wrap items-end gap-3">
        <div className="w-60">
          <label htmlFor="fresh" className="mb-1 block text-fine text-soft">Add an ingredient</label>
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
            <option value="">choose, then set its grams</option>
            {free.map((i) => (
              <option key={i.key} value={i.key}>{i.name}</option>
            ))}
          </select>
        </div>
        <div className="w-52">
          <TextField label="Name of the formula" value={formula.name} field="name" onSave={(name) => change.mutateAsync((f) => ({ ...f, name }))} />
        </div>
        <button
          type="button"
          className="btn"
          onClick={() => add.mutate({ name: `${formula.name}, copy`, lines }, { onSuccess: (f) => changeJob.mutate({ formula_id: f.id }) })}
        >
          Work on a copy
        </button>
      </div>
      <Fault text={otherFault(change.error, ["name", ...lines.map((_, i) => `lines[${i}].grams`)])} />
    </section>
  );
}
