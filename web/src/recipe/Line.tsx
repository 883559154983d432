/** One line as read: what it is, what it weighs, how sure that is, why; or what it asks. */
import { useState } from "react";
import type { Answer, ReadLine } from "../api/client";
import { useIngredients } from "../api/queries";
import { say, textOf, type Said } from "../drawing/sentence";
import { number } from "../drawing/units";
import { readTyped } from "../kit/Amount";
import { Fault, faultOf } from "../kit/Fault";
import { Live } from "../kit/Live";
import { useFormat } from "../kit/settings";

interface Props {
  line: ReadLine;
  answered: boolean;
  onAnswer(answer: Answer): void;
  onAgain(): void;
}

const MARKS: Record<string, { mark: string; word: string }> = {
  sure: { mark: "●", word: "sure" },
  fair: { mark: "◐", word: "likely" },
  asks: { mark: "?", word: "needs an answer" },
  left_out: { mark: "–", word: "left out" },
};

/** What only leads on to the next food of what was told. */
const JOINT = /[\s,.;]*(?:\b(?:and|then|with|plus|so)\b)?[\s,.;]*$/i;

export function Line({ line, answered, onAnswer, onAgain }: Props) {
  const format = useFormat();
  if (line.state === "heading")
    return <li className="pt-3 font-head text-lg font-bold">{line.text.replace(/:$/, "")}</li>;
  if (line.state === "note") return <li className="truncate px-3 text-fine text-soft">{line.text}</li>;
  const mark = MARKS[line.state] ?? { mark: "", word: line.state };
  const asks = line.state === "asks";
  const out = line.state === "left_out";
  return (
    <li
      className={`rounded-xl border px-3 py-2 ${asks ? "border-warm bg-warm-pale" : "border-rule bg-raised"} ${out ? "opacity-70" : ""}`}
    >
      <div className="flex items-baseline gap-3">
        <span
          className={`w-5 shrink-0 text-center font-bold ${asks ? "text-warm" : "text-soft"}`}
          role="img"
          aria-label={mark.word}
        >
          {mark.mark}
        </span>
        <span className="min-w-0 flex-1">
          {line.name && !asks ? (
            <span className={`font-semibold ${out ? "line-through" : ""}`}>{line.name}</span>
          ) : (
            <span className="font-semibold">{line.text}</span>
          )}
          {line.note && !asks ? <span className="text-soft">, {line.note}</span> : null}
        </span>
        {line.grams !== null && line.grams !== undefined && !asks ? (
          <span className="num whitespace-nowrap text-lg font-semibold">
            <Live value={format.mass(line.grams)} />
          </span>
        ) : null}
        {line.bakers_percent !== null && line.bakers_percent !== undefined ? (
          <span className="num hidden w-16 whitespace-nowrap text-right text-fine text-soft sm:inline">
            {number(line.bakers_percent, 1, 1)}%
          </span>
        ) : null}
      </div>
      {asks ? (
        <Question line={line} onAnswer={onAnswer} />
      ) : (
        <details className="pl-8 text-fine text-soft">
          <summary className="min-h-11 cursor-pointer truncate py-2.5">
            {line.text.replace(JOINT, "")}
            {line.state === "fair" ? `, ${number(100 * line.confidence, 0)}% sure` : ""}
          </summary>
          <ul className="py-1">
            {line.why.map((w) => (
              <li key={textOf(w)}>{say(w, format)}</li>
            ))}
          </ul>
          <span className="flex flex-wrap gap-2 pb-1">
            {answered ? (
              <button type="button" className="btn btn-small" onClick={onAgain}>
                Ask again
              </button>
            ) : out ? (
              <span />
            ) : (
              <button
                type="button"
                className="btn btn-small"
                onClick={() => onAnswer({ line: line.number, leave_out: true, as_read: false })}
              >
                Leave it out
              </button>
            )}
          </span>
        </details>
      )}
    </li>
  );
}

function Question({ line, onAnswer }: { line: ReadLine; onAnswer(answer: Answer): void }) {
  const format = useFormat();
  const ingredients = useIngredients();
  const [grams, setGrams] = useState("");
  const [fault, setFault] = useState<Said>();
  const named = ["unknown_ingredient", "strange_word", "two_things"].includes(line.doubt);
  const weighed = line.doubt !== "unlikely";
  const give = async () => {
    try {
      onAnswer({
        line: line.number,
        grams: await readTyped(format, "mass", grams),
        leave_out: false,
        as_read: false,
      });
      setFault(undefined);
    } catch (error) {
      setFault(faultOf(error, "text") ?? "Can’t read that weight.");
    }
  };
  return (
    <div className="mt-1 space-y-2 pl-8">
      <p>{line.ask ? say(line.ask, format) : null}</p>
      <div className="flex flex-wrap items-center gap-2">
        {line.options.map((o) => (
          <button
            key={textOf(o.label)}
            type="button"
            className="btn btn-small"
            onClick={() => onAnswer(o.answer)}
          >
            {say(o.label, format)}
          </button>
        ))}
        {named ? (
          <select
            className="field !w-52"
            aria-label={`Ingredient meant by ${line.text}`}
            value=""
            onChange={(e) => {
              if (e.target.value)
                onAnswer({ line: line.number, ingredient: e.target.value, leave_out: false, as_read: false });
            }}
          >
            <option value="">Another ingredient</option>
            {(ingredients.data ?? []).map((i) => (
              <option key={i.key} value={i.key}>
                {i.name}
              </option>
            ))}
          </select>
        ) : null}
        {weighed ? (
          <form
            className="flex items-center gap-2"
            onSubmit={(e) => {
              e.preventDefault();
              void give();
            }}
          >
            <input
              className="field num !w-28"
              aria-label={`Weight of ${line.text}`}
              placeholder={format.mass(30)}
              value={grams}
              onChange={(e) => setGrams(e.target.value)}
            />
            <button type="submit" className="btn btn-small" disabled={!grams.trim()}>
              Use this
            </button>
          </form>
        ) : null}
        <button
          type="button"
          className="btn btn-small btn-quiet"
          onClick={() => onAnswer({ line: line.number, leave_out: true, as_read: false })}
        >
          Leave it out
        </button>
      </div>
      <Fault text={fault} />
    </div>
  );
}
