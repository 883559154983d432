/**
 * A recipe becomes a formula: paste it, drop it, or type it line by line; it is read as you go. What is not clear asks, and
 * nothing is counted before it is settled. The text stays here until it is kept.
 */
import { BASE } from "../api/base";
import { type Said } from "../drawing/sentence";
import { useEffect, useRef, useState } from "react";
import { useNavigate, useSearchParams } from "react-router";
import { api, settled, type Answer, type ReadLine, type ReadRequest, type Reading } from "../api/client";
import { keys, useAddFormula, useJob, useKitchen, readingQuery, useReading } from "../api/queries";
import { useQueryClient } from "@tanstack/react-query";
import { number, type Format } from "../drawing/units";
import { Choice, type Option } from "../kit/Choice";
import { FileButton } from "../kit/FileButton";
import { Fault, otherFault } from "../kit/Fault";
import { Live } from "../kit/Live";
import { Part, Row, Rows, StationHead, TicketBox, Work } from "../kit/Ticket";
import { useFormat } from "../kit/settings";
import { METHODS } from "../begin/RecipeSays";
import { duration } from "../drawing/time";
import { eggWord } from "./eggs";
import { Line } from "./Line";

const DRAFT = "recipe-draft";
/** The server reads no more; a longer text is not taken, and what stood in the field stays. */
const MOST_CHARACTERS = 200_000;
const READ_AFTER_MS = 140;

const EXAMPLE = `Harbor shortbread
Makes about 3 dozen

Ingredients
2 1/4 cups (280 g) all-purpose flour, plus more for dusting
\u00be cup superfine sugar
1 cup (2 sticks) cold butter, cut into cubes
1 large egg, room temperature
1 1/2 tsp vanilla
a handful of walnuts, chopped
\u00bd tsp fine salt

For the icing:
2 cups powdered sugar

Directions
1. Cream the butter and sugar just until combined.
2. Chill 1 hour. Roll 1/4 inch thick.
3. Bake at 350°F for 8 to 10 minutes.`;

const WAYS: Option<ReadRequest["way"]>[] = [
  { value: "spooned", label: "Spooned" },
  { value: "scooped", label: "Scooped" },
  { value: "sifted", label: "Sifted" },
];
const CUPS: Option<ReadRequest["cups"]>[] = [
  { value: "us", label: "US" },
  { value: "metric", label: "Metric" },
  { value: "australian", label: "Australian" },
];

interface Settled {
  text: string;
  answer: Answer;
}

/** What a cup of flour is then, by the cups that are meant. */
function cupOfFlour(grams: readonly number[], format: Format): string {
  const [spooned, scooped, sifted] = grams.map((g) =>
    number(format.shown("mass", g), format.units.weight === "oz" ? 1 : 0),
  );
  return sifted === undefined
    ? ""
    : ` 1 cup of flour: ${spooned}, ${scooped} or ${sifted} ${format.symbol("mass")}.`;
}

export function ReadPage() {
  const navigate = useNavigate();
  const client = useQueryClient();
  const [search] = useSearchParams();
  const jobId = Number(search.get("job") ?? 0);
  const job = useJob(jobId > 0 ? jobId : -1);
  const kitchen = useKitchen();
  const format = useFormat();
  const add = useAddFormula();
  const [text, setText] = useState(() => sessionStorage.getItem(BASE + DRAFT) ?? "");
  const [asked, setAsked] = useState(text);
  const [answers, setAnswers] = useState<Settled[]>([]);
  const [way, setWay] = useState<ReadRequest["way"]>("spooned");
  const [cups, setCups] = useState<ReadRequest["cups"]>("us");
  const [name, setName] = useState("");
  const [fault, setFault] = useState<Said>();
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  const field = useRef<HTMLTextAreaElement>(null);
  useEffect(() => {
    field.current?.focus();
    document.title = "Read a recipe \u00b7 Ready Slab";
    return () => clearTimeout(timer.current);
  }, []);
  const request: ReadRequest = {
    text: asked,
    way,
    cups,
    eggs: kitchen.data?.egg_class ?? "us_large",
    answers: answers.map((a) => a.answer),
    name: name.trim() || null,
  };
  const reading = useReading(request);
  const r = asked.trim() ? reading.data : undefined;

  const write = (next: string) => {
    if (next.length > MOST_CHARACTERS) {
      setFault(
        `Too long: ${number(next.length / 1000, 0)} characters, limit 200,000. Nothing changed. Paste just the ingredients.`,
      );
      return;
    }
    setText(next);
    setFault(undefined);
    sessionStorage.setItem(BASE + DRAFT, next);
    // An answer goes with its line when lines move, and is forgotten when the line is written anew.
    const lines = next.split(/\r?\n/).map((l) => l.trim());
    setAnswers((all) =>
      all.flatMap((a) => {
        const at = lines[a.answer.line - 1] === a.text ? a.answer.line - 1 : lines.indexOf(a.text);
        return at >= 0
          ? [{ ...a, answer: { ...a.answer, line: at + 1 } }]
          : /^\s*[[{<]/.test(next)
            ? [a]
            : [];
      }),
    );
    clearTimeout(timer.current);
    timer.current = setTimeout(() => setAsked(next), READ_AFTER_MS);
  };
  const answer = (line: ReadLine, given: Answer) =>
    setAnswers((all) => {
      const before = all.find((a) => a.answer.line === line.number)?.answer;
      const merged: Answer = { leave_out: false, as_read: false, ...before, ...given, line: line.number };
      return [
        ...all.filter((a) => a.answer.line !== line.number),
        { text: line.text.trim(), answer: merged },
      ];
    });
  const again = (line: ReadLine) => setAnswers((all) => all.filter((a) => a.answer.line !== line.number));
  const take = async (chosen: File | undefined) => {
    if (!chosen) return;
    if (chosen.size > 2_000_000) {
      setFault(`${chosen.name} is ${number(chosen.size / 1e6, 1)} MB, limit 200 kB. Nothing changed.`);
      return;
    }
    write(await chosen.text());
  };
  // What stands there now is kept, not what was last read of it: whoever types and keeps at once would lose the last lines.
  const keep = async () => {
    if (add.isPending || !text.trim()) return;
    clearTimeout(timer.current);
    setAsked(text);
    const now = await client.fetchQuery(readingQuery({ ...request, text })).catch(() => undefined);
    if (!now?.formula) return;
    add.mutate(now.formula, {
      onSuccess: async (formula) => {
        sessionStorage.removeItem(BASE + DRAFT);
        if (job.data) {
          try {
            await settled(
              api.PATCH("/api/jobs/{id}", {
                params: { path: { id: job.data.id } },
                body: {
                  formula_id: formula.id,
                  formula_version: null,
                  dough_with: null,
                  ...((job.data.finishes ?? []).length === 0 && now.finishes.length > 0
                    ? { finishes: now.finishes }
                    : {}),
                } as unknown as Record<string, never>,
              }),
            );
            await client.invalidateQueries({ queryKey: keys.job(job.data.id) });
            await client.invalidateQueries();
            void navigate(`/jobs/${job.data.id}/dough/mix`);
          } catch (error) {
            setFault(otherFault(error, []) ?? "Recipe saved, but the job couldn’t use it.");
          }
          return;
        }
        const more = new URLSearchParams({ recipe: String(formula.id) });
        if (now.finishes.length > 0) more.set("finish", JSON.stringify(now.finishes));
        void navigate(`/new?${more}`);
      },
    });
  };
  return (
    <main id="work" className="flex-1 overflow-hidden rounded-2xl bg-worktop">
      <div className="grid min-h-full grid-cols-[minmax(0,1fr)] lg:grid-cols-[minmax(0,1fr)_22.5rem]">
        <Work dim={false}>
          <StationHead
            title="Add a recipe"
            sub={r && asked === text ? `read as ${r.format}` : "paste it, drop a file or type it"}
          >
            <FileButton
              label="Recipe file"
              accept=".txt,.json,.jsonld,.csv,.tsv,.html,.htm,text/*,application/json"
              className="btn btn-small"
              onFile={(f) => void take(f)}
            >
              Open a file
            </FileButton>
          </StationHead>
          <div className="grid grid-cols-[minmax(0,1fr)] gap-5 xl:grid-cols-[minmax(0,5fr)_minmax(0,7fr)]">
            <div>
              <label htmlFor="recipe-text" className="visually-hidden">
                Recipe
              </label>
              <textarea
                id="recipe-text"
                className="field num !min-h-56 resize-y whitespace-pre-wrap !p-3 leading-7 xl:!min-h-[34rem]"
                spellCheck={false}
                ref={field}
                placeholder={"430 g flour\n225 butter\n2 1/4 cups sugar\n1 large egg\n1/2 tsp salt"}
                value={text}
                onChange={(e) => write(e.target.value)}
                onDragOver={(e) => e.preventDefault()}
                onDrop={(e) => {
                  if (e.dataTransfer.files.length === 0) return;
                  e.preventDefault();
                  void take(e.dataTransfer.files[0]);
                }}
                onKeyDown={(e) => {
                  if (e.key === "Enter" && (e.ctrlKey || e.metaKey)) {
                    e.preventDefault();
                    void keep();
                  }
                }}
              />
              <p className="mt-1 text-fine text-soft">
                Text, a web page, a table or a recipe file. Ctrl Enter saves.
              </p>
              <Fault text={fault ?? (asked.trim() ? otherFault(reading.error, []) : undefined)} />
            </div>
            <div>
              {r ? (
                <Lines r={r} answers={answers} onAnswer={answer} onAgain={again} />
              ) : (
                <Empty onTry={() => write(EXAMPLE)} />
              )}
            </div>
          </div>
        </Work>
        <TicketBox>
          <Part title={r?.formula ? "A recipe" : "Read so far"}>
            <p className="answer">
              <Live value={r ? format.bigMass(r.known_g) : "0 g"} />
            </p>
            <p className="mb-3 mt-1 text-soft">
              {r?.ratio_sugar !== null && r?.ratio_sugar !== undefined && r.ratio_flour
                ? `1 : ${number(r.ratio_sugar, 1, 1)} : ${number(r.ratio_flour, 1, 1)} butter, sugar, flour by weight`
                : "of known ingredients"}
            </p>
            {r && r.open > 0 ? (
              <p className="say">
                {r.open === 1
                  ? "1 line needs an answer before it counts."
                  : `${r.open} lines need an answer before they count.`}
              </p>
            ) : r?.missing ? (
              <p className="say">{r.missing.charAt(0).toUpperCase() + r.missing.slice(1)}.</p>
            ) : null}
            {r?.faults.map((f) => (
              <p key={f} className="wrong mt-2">
                {f}
              </p>
            ))}
          </Part>
          <Part title="How the cups are filled">
            <div className="space-y-3">
              <Choice label="Flour into the cup" value={way} options={WAYS} onChange={(w) => setWay(w)} />
              <p className="text-fine text-soft">
                Spooned in and leveled, scooped from the bag, or sifted.
                {cupOfFlour(reading.data?.cup_of_flour_g ?? [], format)}
              </p>
              <Choice label="Cups" value={cups} options={CUPS} onChange={(c) => setCups(c)} />
              {kitchen.data ? (
                <p className="text-fine text-soft">
                  Eggs: {eggWord(kitchen.data.egg_class ?? "us_large")}, as in Kitchen.
                </p>
              ) : null}
            </div>
          </Part>
          <Part title="Save it">
            <label className="block">
              <span className="mb-1 block text-fine text-soft">Recipe name</span>
              <input
                className="field"
                value={name}
                placeholder={r?.title ?? "New recipe"}
                maxLength={80}
                onChange={(e) => setName(e.target.value)}
              />
            </label>
            <button
              type="button"
              className="btn btn-main mt-3 w-full"
              disabled={!r?.formula || add.isPending}
              onClick={() => void keep()}
            >
              {job.data ? `Use this for ${job.data.name}` : "Save recipe"}
            </button>
            <Fault text={otherFault(add.error, [])} />
            {r?.yields || (r && (r.finish_names.length > 0 || saysRows(r, format).length > 0)) ? (
              <Rows>
                {r.yields ? <Row name="It makes">{r.yields}</Row> : null}
                {saysRows(r, format).map((s) => (
                  <Row key={s.name} name={s.name}>
                    <span title={s.from}>{s.text}</span>
                  </Row>
                ))}
                {r.finish_names.length > 0 ? (
                  <Row name="For the finish">{r.finish_names.join(", ").toLowerCase()}</Row>
                ) : null}
              </Rows>
            ) : null}
            {r && r.steps.length > 0 ? (
              <details className="mt-3 text-fine text-soft">
                <summary className="min-h-11 cursor-pointer py-2.5">Its steps ({r.steps.length})</summary>
                <ol className="mt-1 list-decimal space-y-1 pl-5">
                  {r.steps.map((s) => (
                    <li key={s}>{s.replace(/^\d+[.)]\s*/, "")}</li>
                  ))}
                </ol>
              </details>
            ) : null}
          </Part>
        </TicketBox>
      </div>
    </main>
  );
}

/** A time, or a range of times, as a recipe says it. */
const range = ([low = 0, high = low]: readonly number[]): string =>
  low === high ? duration(low) : `${duration(low)} to ${duration(high)}`;

/** What the recipe says of its method: each with the words it was read from. */
function saysRows({ says, heard }: Reading, format: Format): { name: string; text: string; from: string }[] {
  const from = (of: string) => heard.find((h) => h.of === of)?.words ?? "";
  const rows: { name: string; text: string; from: string }[] = [];
  if (says.method) rows.push({ name: "Mixing", text: METHODS[says.method], from: from("method") });
  if (says.chill_min) rows.push({ name: "Chill", text: range(says.chill_min), from: from("chill_min") });
  if (says.thickness_mm != null)
    rows.push({ name: "Thickness", text: format.length(says.thickness_mm), from: from("thickness_mm") });
  if (says.oven_c != null) rows.push({ name: "Oven", text: format.oven(says.oven_c), from: from("oven_c") });
  if (says.bake_min) rows.push({ name: "Bake", text: range(says.bake_min), from: from("bake_min") });
  return rows;
}

function Empty({ onTry }: { onTry(): void }) {
  return (
    <div className="max-w-md text-soft">
      <p className="mb-3 text-lg">
        Cups, sticks and spoons become grams, line by line. For a knob or a handful, you’ll be asked.
      </p>
      <button type="button" className="btn" onClick={onTry}>
        See a messy example
      </button>
    </div>
  );
}

function Lines({
  r,
  answers,
  onAnswer,
  onAgain,
}: {
  r: Reading;
  answers: readonly Settled[];
  onAnswer(line: ReadLine, answer: Answer): void;
  onAgain(line: ReadLine): void;
}) {
  return (
    <ol aria-label="Lines as read" className="space-y-1">
      {r.lines.map((l) => (
        <Line
          key={`${l.number}-${l.text}`}
          line={l}
          answered={answers.some((a) => a.answer.line === l.number)}
          onAnswer={(a) => onAnswer(l, a)}
          onAgain={() => onAgain(l)}
        />
      ))}
    </ol>
  );
}
