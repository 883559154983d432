/** A recipe while it is read: the text, what was answered to its lines, what was read of it, and keeping it. */
import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { useNavigate, useSearchParams } from "react-router";
import { BASE } from "../api/base";
import { api, settled, type Answer, type ReadLine, type ReadRequest } from "../api/client";
import { keys, readingQuery, useAddFormula, useJob, useKitchen, useReading } from "../api/queries";
import type { Said } from "../drawing/sentence";
import { number } from "../drawing/units";
import { otherFault } from "../kit/Fault";

const DRAFT = "recipe-draft";
/** The server reads no more; a longer text is not taken, and what stood in the field stays. */
const MOST_CHARACTERS = 200_000;
const READ_AFTER_MS = 140;

export interface Settled {
  text: string;
  answer: Answer;
}

export function useRecipeText() {
  const navigate = useNavigate();
  const client = useQueryClient();
  const [search] = useSearchParams();
  const jobId = Number(search.get("job") ?? 0);
  const job = useJob(jobId > 0 ? jobId : -1);
  const kitchen = useKitchen();
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
    // A character takes four bytes at most.
    if (chosen.size > 4 * MOST_CHARACTERS) {
      setFault(
        `${chosen.name} is too big: ${number(chosen.size / 1e6, 1)} MB. Nothing changed. Paste just the ingredients.`,
      );
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
  return {
    text,
    asked,
    answers,
    reading,
    read: r,
    field,
    write,
    take,
    answer,
    again,
    way,
    setWay,
    cups,
    setCups,
    name,
    setName,
    keep,
    keeping: add.isPending,
    fault: fault ?? (asked.trim() ? otherFault(reading.error, []) : undefined),
    refused: otherFault(add.error, []),
    job: job.data,
    eggs: kitchen.data ? (kitchen.data.egg_class ?? "us_large") : undefined,
  } as const;
}

export type RecipeText = ReturnType<typeof useRecipeText>;
