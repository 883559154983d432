/**
 * A recipe becomes a formula: paste it, drop it, or type it line by line; it is read as you go. What is not clear asks, and
 * nothing is counted before it is settled. The text stays here until it is kept.
 */
import type { Answer, ReadLine, ReadRequest, Reading } from "../api/client";
import { number, type Format } from "../drawing/units";
import { Choice, type Option } from "../kit/Choice";
import { FileButton } from "../kit/FileButton";
import { Fault } from "../kit/Fault";
import { Live } from "../kit/Live";
import { Part, Row, Rows, StationHead, TicketBox, Work } from "../kit/Ticket";
import { useFormat } from "../kit/settings";
import { METHODS } from "../begin/RecipeSays";
import { duration } from "../drawing/time";
import { eggWord } from "./eggs";
import { Line } from "./Line";
import { useRecipeText, type RecipeText, type Settled } from "./reading";

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
  const recipe = useRecipeText();
  const { text, asked, answers, read: r, field, write, take, answer, again, keep } = recipe;
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
              <Fault text={recipe.fault} />
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
          <Known read={r} />
          <Filled recipe={recipe} />
          <SaveIt recipe={recipe} />
        </TicketBox>
      </div>
    </main>
  );
}

/** What is counted of it, and what still asks. */
function Known({ read: r }: { read: Reading | undefined }) {
  const format = useFormat();
  return (
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
  );
}

/** How cups are meant, where the recipe has cups. */
function Filled({ recipe }: { recipe: RecipeText }) {
  const format = useFormat();
  const { cups, eggs, reading, setCups, setWay, way } = recipe;
  return (
    <Part title="How the cups are filled">
      <div className="space-y-3">
        <Choice label="Flour into the cup" value={way} options={WAYS} onChange={(w) => setWay(w)} />
        <p className="text-fine text-soft">
          Spooned in and leveled, scooped from the bag, or sifted.
          {cupOfFlour(reading.data?.cup_of_flour_g ?? [], format)}
        </p>
        <Choice label="Cups" value={cups} options={CUPS} onChange={(c) => setCups(c)} />
        {eggs ? <p className="text-fine text-soft">Eggs: {eggWord(eggs)}, as in Kitchen.</p> : null}
      </div>
    </Part>
  );
}

/** Its name, what the recipe says besides, and the button that keeps it. */
function SaveIt({ recipe }: { recipe: RecipeText }) {
  const format = useFormat();
  const { job, keep, keeping, name, read: r, refused, setName } = recipe;
  return (
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
        disabled={!r?.formula || keeping}
        onClick={() => void keep()}
      >
        {job ? `Use this for ${job.name}` : "Save recipe"}
      </button>
      <Fault text={refused} />
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
