/**
 * A value edited in place, with its unit typed freely. The server reads what was typed; a value that does not read or is
 * refused stays in the field with its fault beside it, and the plan stays as it was. Arrows nudge, Escape takes back.
 */
import { useId, useRef, useState } from "react";
import { api, settled } from "../api/client";
import type { Quantity } from "../drawing/units";
import { Fault, faultOf, otherFault } from "./Fault";
import { useFormat } from "./settings";

type Kind = Quantity | "count" | "percent";

interface Props {
  label: string;
  kind: Kind;
  /** In the base unit. */
  value: number;
  /** Shown when the value is absent. */
  placeholder?: string;
  hideLabel?: boolean;
  /** One nudge of an arrow, in the shown unit. */
  step?: number;
  /** Saves; throws the refusal. */
  onSave(base: number): Promise<unknown>;
  /** Field name in the refusal. */
  field: string;
  className?: string;
  unset?: boolean;
}

export function Amount({ label, kind, value, hideLabel = false, step = 1, onSave, field, className = "", unset = false, placeholder }: Props) {
  const format = useFormat();
  const id = useId();
  const text = unset ? "" : inWords(format, kind, value);
  // A draft belongs to the value it was begun on: when another edit or an undo changes that value, a draft without fault
  // gives way.
  const [begun, setBegun] = useState<{ on: string; typed: string } | null>(null);
  const [fault, setFault] = useState<string>();
  const busy = useRef(false);
  // What was typed while the one before was still being saved: it is saved next, and not lost.
  const next = useRef<string>(null);
  const draft = begun && (begun.on === text || fault) ? begun.typed : null;
  const setDraft = (typed: string | null) => setBegun(typed === null ? null : { on: text, typed });

  const save = async (typed: string): Promise<void> => {
    if (busy.current) {
      next.current = typed;
      return;
    }
    busy.current = true;
    try {
      const base = await readTyped(format, kind, typed);
      if (base !== value || unset) await onSave(base);
      setFault(undefined);
      if (next.current === null) setDraft(null);
    } catch (error) {
      setFault(faultOf(error, "text") ?? faultOf(error, field) ?? otherFault(error, []) ?? "That was refused.");
    } finally {
      busy.current = false;
      const waiting = next.current;
      next.current = null;
      if (waiting !== null) void save(waiting);
    }
  };

  const nudge = (direction: number) => {
    const shown = kind === "count" || kind === "percent" ? value : format.shown(kind, value);
    const next = Math.round((shown + direction * step) * 1000) / 1000;
    const base = kind === "count" || kind === "percent" ? next : format.base(kind, next);
    setDraft(inWords(format, kind, base));
    void save(inWords(format, kind, base));
  };

  return (
    <div className={className}>
      <label htmlFor={id} className={hideLabel ? "visually-hidden" : "mb-1 block text-fine text-soft"}>
        {label}
      </label>
      <input
        id={id}
        className="field num"
        inputMode={kind === "count" ? "numeric" : "text"}
        autoComplete="off"
        spellCheck={false}
        placeholder={placeholder}
        value={draft ?? text}
        aria-invalid={fault ? true : undefined}
        aria-describedby={fault ? `${id}-fault` : undefined}
        onFocus={(e) => e.target.select()}
        onChange={(e) => setDraft(e.target.value)}
        onBlur={() => {
          if (draft !== null && draft !== text) void save(draft);
          else if (!fault) setDraft(null);
        }}
        onKeyDown={(e) => {
          if (e.key === "Enter" && draft !== null) void save(draft);
          if (e.key === "Escape") {
            setDraft(null);
            setFault(undefined);
          }
          if (e.key === "ArrowUp" || e.key === "ArrowDown") {
            e.preventDefault();
            nudge(e.key === "ArrowUp" ? 1 : -1);
          }
        }}
      />
      <Fault id={`${id}-fault`} text={fault} />
    </div>
  );
}

function inWords(format: ReturnType<typeof useFormat>, kind: Kind, value: number): string {
  switch (kind) {
    case "length":
      return format.length(value);
    case "mass":
      return format.mass(value).replaceAll(",", "");
    case "temperature":
      return format.temperature(value);
    case "duration":
      return value > 0 && value < 1 ? `${Math.round(value * 60)} s` : `${Math.round(value * 10) / 10} min`;
    case "volume":
      return `${value} mL`;
    case "percent":
      return `${value} %`;
    case "count":
      return String(value);
  }
}

/** The base value of what was typed, as the server reads it; throws its refusal. */
export async function readTyped(format: ReturnType<typeof useFormat>, kind: Kind, typed: string): Promise<number> {
  const default_symbol = kind === "count" || kind === "percent" ? "" : format.symbol(kind);
  const answer = await settled(api.POST("/api/units/parse", { body: { quantity: kind, text: typed, default_symbol } }));
  return answer.value;
}
