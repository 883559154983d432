/** What is wrong with a field, by the field, with what would be accepted. */
import { Refusal, type FieldProblem } from "../api/client";
import { say, sentence, type Said, type Sentence } from "../drawing/sentence";
import { useFormat } from "./settings";

/** What a fault of a field says. */
export const told = ({ message, parts }: FieldProblem): Sentence => sentence({ text: message, parts });

/** What could not be read in the browser already; it says what can. */
export class Misread extends Error {}

export function faultOf(error: unknown, field: string): Said | undefined {
  if (!(error instanceof Refusal)) return undefined;
  const fault = error.of(field);
  if (!fault) return undefined;
  return told(fault);
}

/** Faults that belong to no field on this screen. */
export function otherFault(error: unknown, fields: readonly string[]): Said | undefined {
  if (error instanceof Refusal) {
    const stray = error.problem.errors.find(
      (e) => !fields.some((f) => e.field === f || e.field.startsWith(`${f}[`)),
    );
    if (stray) return told(stray);
    return error.problem.errors.length === 0 ? sentence(error.problem.detail) : undefined;
  }
  if (error instanceof Misread) return sentence(error.message);
  return error ? "Something went wrong. Nothing is lost." : undefined;
}

export function Fault({ id, text }: { id?: string; text: Said | undefined }) {
  const format = useFormat();
  if (!text) return null;
  return (
    <p id={id} role="alert" className="wrong mt-1">
      {say(text, format)}
    </p>
  );
}
