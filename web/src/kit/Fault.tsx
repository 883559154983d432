/** What is wrong with a field, by the field, with what would be accepted. */
import { Refusal } from "../api/client";
import { inUnits } from "../drawing/units";
import { useFormat } from "./settings";

export function faultOf(error: unknown, field: string): string | undefined {
  if (!(error instanceof Refusal)) return undefined;
  const fault = error.of(field);
  if (!fault) return undefined;
  return sentence(fault.message);
}

/** Faults that belong to no field on this screen. */
export function otherFault(error: unknown, fields: readonly string[]): string | undefined {
  if (error instanceof Refusal) {
    const stray = error.problem.errors.find((e) => !fields.some((f) => e.field === f || e.field.startsWith(`${f}[`)));
    if (stray) return sentence(stray.message);
    return error.problem.errors.length === 0 ? sentence(error.problem.detail) : undefined;
  }
  return error ? "Something went wrong; nothing was lost." : undefined;
}

export function sentence(text: string): string {
  const upper = text.charAt(0).toUpperCase() + text.slice(1);
  return /[.?]$/.test(upper) ? upper : `${upper}.`;
}

export function Fault({ id, text }: { id?: string; text: string | undefined }) {
  const format = useFormat();
  if (!text) return null;
  return (
    <p id={id} role="alert" className="wrong mt-1">
      {inUnits(text, format)}
    </p>
  );
}
