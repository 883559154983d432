/** A new job: kitchen, dough, shape, each with its usual answer, and beside them the plan as it would be. */
import { useQueryClient } from "@tanstack/react-query";
import { useEffect, type ReactNode } from "react";
import { Link, useNavigate, useSearchParams } from "react-router";
import type { Cutter, Formula, Job, Kitchen, Plan } from "../api/client";
import { beginQuery, useBegin, useBeginPlan, useStarters, type NewJobBody, type Starter } from "../api/begin";
import { useCutterForms, useCutters, useFormulas, useJobs, useEquip, useKitchen } from "../api/queries";
import { pieceWord } from "../app/pieceWord";
import { SeeDemo } from "../app/SeeDemo";
import { clock, dayClock, duration, sameDay } from "../drawing/time";
import { number } from "../drawing/units";
import { Amount } from "../kit/Amount";
import { Fault, otherFault } from "../kit/Fault";
import { useKept } from "../kit/kept";
import { Live } from "../kit/Live";
import { ReadyBy } from "../kit/ReadyBy";
import { Cautions, Row, Rows } from "../kit/Ticket";
import { Unread } from "../kit/Unread";
import { useFormat, useSettings } from "../kit/settings";
import { AddCutter } from "../stations/order/AddCutter";
import { sizeNames } from "../stations/order/typedSize";
import { DoughStep } from "./DoughStep";
import { KitchenStep, OvenFan } from "./KitchenStep";
import { RecipeSays, type SaysWord } from "./RecipeSays";
import { ShapeStep, type Form } from "./ShapeStep";

/** What somebody chose; what nobody did is left to the server, which answers with what is usual. */
interface Chosen {
  dough?: NewJobBody["dough"] | undefined;
  shape?: string | undefined;
  across_mm?: number | undefined;
  along_mm?: number | undefined;
  mass_g?: number | undefined;
  letter?: string | undefined;
  pieces?: number | undefined;
  thickness_mm?: number | undefined;
  ready_by?: string | undefined;
  like?: number | undefined;
  refuse?: SaysWord[] | undefined;
}

/** A letter, until somebody says which. */
const FIRST_LETTER = "A";

interface Known {
  recipes: readonly Formula[];
  cutters: readonly Cutter[];
  forms: readonly Form[];
  starters: readonly Starter[];
}

/** The shape as it is shown: what was chosen, else what the dough is usually made to, else the first cutter there is. */
function shapeOf(chosen: Chosen, dough: NewJobBody["dough"], { starters, cutters }: Known): string {
  if (chosen.shape) return chosen.shape;
  const suits =
    dough.kind === "starter" ? starters.find((s) => s.starter === dough.starter)?.suits : "cutter";
  if (suits === "log" || suits === "balls") return suits;
  return cutters[0] ? `cutter:${cutters[0].id}` : "form:heart";
}

function bodyOf(
  chosen: Chosen,
  dough: NewJobBody["dough"],
  shape: string,
  form: Form | undefined,
): NewJobBody {
  const { pieces, thickness_mm, ready_by, like } = chosen;
  const asked = {
    dough,
    pieces: pieces ?? null,
    thickness_mm: thickness_mm ?? null,
    ready_by: ready_by ?? null,
    like: like ?? null,
    refuse: chosen.refuse ?? [],
  };
  if (shape === "log") return { ...asked, shape: { kind: "log", across_mm: chosen.across_mm ?? null } };
  if (shape === "balls") return { ...asked, shape: { kind: "balls", mass_g: chosen.mass_g ?? null } };
  if (!form) return { ...asked, shape: { kind: "cutter", cutter_id: Number(shape.slice("cutter:".length)) } };
  return {
    ...asked,
    shape: {
      kind: "builtin",
      form: form.form,
      width_mm: chosen.across_mm ?? form.usual_mm,
      height_mm: form.usual_second_mm == null ? null : (chosen.along_mm ?? form.usual_second_mm),
      letter: form.form === "letter" ? (chosen.letter ?? FIRST_LETTER) : null,
    },
  };
}

export function NewJobPage() {
  const kitchen = useKitchen();
  const formulas = useFormulas();
  const cutters = useCutters();
  const jobs = useJobs();
  const forms = useCutterForms();
  const starters = useStarters();
  useEffect(() => {
    document.title = "New job \u00b7 Ready Slab";
  }, []);
  // The first job of a bakery: its guides and trays come in the units it is told in.
  const { units } = useSettings();
  const { mutate: equip } = useEquip();
  const isFirst = jobs.data?.length === 0;
  useEffect(() => {
    if (isFirst) equip(units.length);
  }, [isFirst, units.length, equip]);
  if (!kitchen.data || !formulas.data || !cutters.data || !jobs.data || !forms.data || !starters.data) {
    return (
      <main id="work" className="flex-1">
        <h1 className="visually-hidden">New job</h1>
        <Unread of={[kitchen, formulas, cutters, jobs, forms, starters]} />
      </main>
    );
  }
  return (
    <Steps
      kitchen={kitchen.data}
      jobs={jobs.data}
      known={{ recipes: formulas.data, cutters: cutters.data, forms: forms.data, starters: starters.data }}
    />
  );
}

/** What was read with the recipe that the address names: what goes on. */
function readOf(search: URLSearchParams): { finishes: NonNullable<NewJobBody["finishes"]> } {
  let finishes: NonNullable<NewJobBody["finishes"]> = [];
  try {
    const parsed: unknown = JSON.parse(search.get("finish") ?? "[]");
    if (Array.isArray(parsed)) finishes = parsed as typeof finishes;
  } catch {
    // An address that was typed over says nothing.
  }
  return { finishes };
}

function Steps({ kitchen, jobs, known }: { kitchen: Kitchen; jobs: readonly Job[]; known: Known }) {
  const [search, setSearch] = useSearchParams();
  const [chosen, setChosen] = useKept<Chosen>("new job", {});
  const choose = (some: Chosen) => setChosen((now) => ({ ...now, ...some }));
  const asked = Number(search.get("recipe"));
  const recipe = (id: number | undefined) => known.recipes.find((r) => r.id === id);
  const doughChosen =
    chosen.dough?.kind === "recipe" && !recipe(chosen.dough.formula_id) ? undefined : chosen.dough;
  const firstRecipe = recipe(asked) ?? known.recipes[0];
  const dough: NewJobBody["dough"] =
    (recipe(asked) ? undefined : doughChosen) ??
    (firstRecipe
      ? { kind: "recipe", formula_id: firstRecipe.id }
      : { kind: "starter", starter: known.starters[0]?.starter ?? "" });
  const gone =
    chosen.shape?.startsWith("cutter:") && !known.cutters.some((c) => `cutter:${c.id}` === chosen.shape);
  const kept: Chosen = gone ? { ...chosen, shape: undefined } : chosen;
  const shape = shapeOf(kept, dough, known);
  const form = known.forms.find((f) => `form:${f.form}` === shape);
  const read = readOf(search);
  const bodyFor = (of: Chosen): NewJobBody => ({
    ...bodyOf(of, dough, shape, form),
    pieces: of.pieces ?? null,
    ...(read.finishes.length > 0 ? { finishes: read.finishes } : {}),
  });
  const body = bodyFor(kept);
  const found = useBeginPlan(body);
  const begin = useBegin();
  const navigate = useNavigate();
  const client = useQueryClient();
  const first = jobs.length === 0;
  /** What is refused stays in its field, and the plan as it was. */
  const tried = async (some: Chosen): Promise<void> => {
    const next = { ...kept, ...some };
    await client.fetchQuery(beginQuery(bodyFor(next)));
    choose(some);
  };
  const plan = found.data;
  const says = dough.kind === "recipe" ? recipe(dough.formula_id)?.says : undefined;
  const leads = jobs.filter((j) => j.lot_of == null);
  let step = 0;
  return (
    <main id="work" className="grid flex-1 rounded-2xl bg-worktop lg:grid-cols-[minmax(0,1fr)_21rem]">
      <div className="p-5 sm:p-7">
        <div className="flex flex-wrap items-baseline justify-between gap-2">
          <h1 className="font-head text-[1.75rem] font-bold tracking-tight">
            {first ? "Your first job" : "New job"}
          </h1>
          {first ? <SeeDemo>See the demo instead</SeeDemo> : null}
        </div>
        <p className="mb-4 text-soft">
          {first
            ? "Three choices, filled in with usual values. Change anything later."
            : "Which dough, which shape, how many and for when."}
        </p>
        {first ? (
          <Step number={(step += 1)} title="Your kitchen" beside={<OvenFan kitchen={kitchen} />}>
            <KitchenStep kitchen={kitchen} />
          </Step>
        ) : null}
        <Step number={(step += 1)} title="Your dough">
          <DoughStep
            value={dough}
            recipes={known.recipes}
            starters={known.starters}
            onChange={(next) => {
              setSearch({}, { replace: true });
              choose({ dough: next, thickness_mm: undefined, refuse: undefined });
            }}
          />
          {says ? (
            <RecipeSays says={says} refused={kept.refuse ?? []} onRefuse={(refuse) => choose({ refuse })} />
          ) : null}
          {plan && plan.finish.coats.length > 0 && read.finishes.length > 0 ? (
            <p className="mt-2">
              {`Finish from the recipe: ${plan.finish.coats.map((c) => c.name.toLowerCase()).join(", ")}. `}
              <button
                type="button"
                className="underline"
                onClick={() =>
                  setSearch(
                    (now) => {
                      now.delete("finish");
                      return now;
                    },
                    { replace: true },
                  )
                }
              >
                Leave them plain
              </button>
            </p>
          ) : null}
          <Fault text={otherFault(found.error, ["pieces", "thickness_mm", "ready_by", "shape", "making"])} />
        </Step>
        <Step number={(step += 1)} title="Your shape">
          <ShapeStep
            value={shape}
            cutters={known.cutters}
            forms={known.forms}
            onChange={(next) =>
              choose({ shape: next, across_mm: undefined, along_mm: undefined, thickness_mm: undefined })
            }
          />
          <div className="mt-3 grid grid-cols-2 items-end gap-3 sm:grid-cols-4">
            <Amount
              label="Cookies"
              kind="count"
              value={kept.pieces ?? piecesOf(plan)}
              field="pieces"
              onSave={(pieces) => tried({ pieces })}
            />
            {form ? (
              <Amount
                label={sizeNames(form.form).first}
                kind="length"
                step={5}
                value={kept.across_mm ?? form.usual_mm}
                field="shape.width_mm"
                onSave={(across_mm) => tried({ across_mm })}
              />
            ) : null}
            {form?.usual_second_mm != null ? (
              <Amount
                label={sizeNames(form.form).second}
                kind="length"
                step={5}
                value={kept.along_mm ?? form.usual_second_mm}
                field="shape.height_mm"
                onSave={(along_mm) => tried({ along_mm })}
              />
            ) : null}
            {form?.form === "letter" ? (
              <LetterField value={kept.letter ?? FIRST_LETTER} onChange={(letter) => choose({ letter })} />
            ) : null}
            {shape === "log" && plan?.making.kind === "sliced" ? (
              <Amount
                label="Log width"
                kind="length"
                value={kept.across_mm ?? plan.making.width_mm ?? 0}
                field="making.width_mm"
                onSave={(across_mm) => tried({ across_mm })}
              />
            ) : null}
            {shape === "balls" && plan?.making.kind === "ball" ? (
              <Amount
                label="Weight each"
                kind="mass"
                value={kept.mass_g ?? plan.making.mass_g ?? 0}
                field="making.mass_g"
                onSave={(mass_g) => tried({ mass_g })}
              />
            ) : null}
            {shape === "balls" || !plan ? null : (
              <Amount
                label={shape === "log" ? "Slice thickness" : "Thickness"}
                kind="length"
                step={0.5}
                value={kept.thickness_mm ?? plan.shape.thickness_mm}
                field="thickness_mm"
                onSave={(thickness_mm) => tried({ thickness_mm })}
              />
            )}
          </div>
          <div className="mt-3 grid items-end gap-3 sm:grid-cols-2">
            {plan ? (
              <ReadyBy value={kept.ready_by ?? plan.ready_by} onSave={(ready_by) => tried({ ready_by })} />
            ) : null}
            {leads.length > 0 ? (
              <Like jobs={leads} value={kept.like} onChange={(like) => choose({ like })} />
            ) : null}
          </div>
          <div className="mt-3">
            <AddCutter
              label="Add a cutter: SVG or photo"
              onAdded={(cutter) => choose({ shape: `cutter:${cutter.id}` })}
            />
          </div>
        </Step>
      </div>
      <aside
        className="border-t border-rule p-5 sm:p-6 lg:border-l lg:border-t-0"
        aria-label="Your plan so far"
      >
        <h2 className="h-part mb-2 text-soft">Your plan so far</h2>
        {plan ? <SoFar plan={plan} dim={found.isPlaceholderData} /> : <Unread of={[found]} />}
        <button
          type="button"
          className="btn btn-main mt-4 w-full"
          disabled={begin.isPending || !plan}
          onClick={() =>
            begin.mutate(body, {
              onSuccess: (job) => {
                setChosen({});
                void navigate(`/jobs/${job.id}/order`);
              },
            })
          }
        >
          Make the plan
        </button>
        <Fault text={otherFault(begin.error, [])} />
        {first && kitchen.usual.includes("fridge_c") ? (
          <p className="mt-3 text-fine text-soft">
            These are usual values. Check your fridge and oven with a thermometer for better times.
          </p>
        ) : null}
        {first ? null : (
          <p className="mt-3 text-fine text-soft">
            In {kitchen.name}: <Link to="/kitchen">its cold, trays and oven</Link>.
          </p>
        )}
      </aside>
    </main>
  );
}

const piecesOf = (plan: Plan | undefined): number =>
  plan?.dough.parts.reduce((sum, p) => sum + p.pieces, 0) ?? 24;

function Step({
  number: n,
  title,
  beside,
  children,
}: {
  number: number;
  title: string;
  beside?: ReactNode;
  children: ReactNode;
}) {
  return (
    <section
      className="grid grid-cols-1 gap-x-4 gap-y-2 border-t border-rule py-4 sm:grid-cols-[2.5rem_minmax(0,1fr)]"
      aria-label={title}
    >
      <span
        className="hidden size-9 place-items-center rounded-full bg-spruce font-head font-bold text-on-spruce sm:grid"
        aria-hidden="true"
      >
        {n}
      </span>
      <div className="min-w-0">
        <div className="mb-2 flex flex-wrap items-center justify-between gap-2">
          <h2 className="h-part leading-9">{title}</h2>
          {beside}
        </div>
        {children}
      </div>
    </section>
  );
}

function LetterField({ value, onChange }: { value: string; onChange(letter: string): void }) {
  return (
    <div>
      <label htmlFor="letter" className="mb-1 block text-fine text-soft">
        Letter or number
      </label>
      <input
        id="letter"
        className="field"
        value={value}
        maxLength={1}
        autoComplete="off"
        onFocus={(e) => e.target.select()}
        onChange={(e) => {
          if (/^[a-z0-9]$/i.test(e.target.value)) onChange(e.target.value);
        }}
      />
    </div>
  );
}

function Like({
  jobs,
  value,
  onChange,
}: {
  jobs: readonly Job[];
  value: number | undefined;
  onChange(like: number | undefined): void;
}) {
  return (
    <div>
      <label htmlFor="like" className="mb-1 block text-fine text-soft">
        Copy settings from
      </label>
      <select
        id="like"
        className="field"
        value={value ?? ""}
        onChange={(e) => onChange(e.target.value === "" ? undefined : Number(e.target.value))}
      >
        <option value="">Usual settings</option>
        {jobs.map((j) => (
          <option key={j.id} value={j.id}>
            {j.name}
          </option>
        ))}
      </select>
    </div>
  );
}

function SoFar({ plan, dim }: { plan: Plan; dim: boolean }) {
  const format = useFormat();
  const { cold, oven, shape } = plan;
  const sheets = shape.rolls.filter((r) => r.number === 0).reduce((sum, r) => sum + r.sheets, 0);
  const rerolls = new Set(shape.rolls.map((r) => r.number)).size - 1;
  return (
    <div aria-live="polite" aria-busy={dim} className={dim ? "opacity-60" : ""}>
      <p className="answer">
        <Live
          value={`Start ${sameDay(plan.clock.start_at, plan.ready_by) ? clock(plan.clock.start_at) : dayClock(plan.clock.start_at)}`}
        />
      </p>
      <p className="mb-3 mt-1 text-soft">
        ready by {dayClock(plan.ready_by)}, {duration(plan.clock.hands_min)} hands-on
      </p>
      <Rows>
        <Row name="Dough">
          <Live value={format.bigMass(plan.dough.dough_g)} />
        </Row>
        <Row name={cold.stays === "no" ? "Chilling" : `In the ${cold.place}, ${pieceWord(plan, format)}`}>
          <Live
            value={
              cold.stays === "no"
                ? "none"
                : cold.told
                  ? duration(cold.told.ready_min)
                  : "won’t get firm enough"
            }
          />
        </Row>
        {plan.making.kind === "cut" ? (
          <Row name="Sheets">
            <Live
              value={
                rerolls > 0 ? `${sheets} and ${rerolls} re-roll${rerolls > 1 ? "s" : ""}` : String(sheets)
              }
            />
          </Row>
        ) : null}
        <Row name="Trays">
          <Live value={String(shape.trays.fill.length)} />
        </Row>
        <Row name={`Bake at ${format.oven(oven.oven_c)}`}>
          <Live value={`about ${number(oven.bake_about_min, 0)}\u00a0min`} />
        </Row>
        <Row name="Spread, all around">
          <Live
            value={format.lengths(
              Math.round(oven.growth_least_mm * 10) / 10,
              Math.round(oven.growth_most_mm * 10) / 10,
            )}
          />
        </Row>
      </Rows>
      <Cautions items={oven.warnings.slice(0, 1)} />
    </div>
  );
}
