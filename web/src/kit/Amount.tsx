/**
 * A value edited in place, with its unit typed freely. The server reads what was typed; a value that does not read or is
 * refused stays in the field with its fault beside it, and the plan stays as it was. Arrows nudge, Escape takes back.
 */
import { type Said } from "../drawing/sentence";
import { useEffect, useId, useRef, useState } from "react";
import { api, settled } from "../api/client";
import { number, type Format, type Quantity } from "../drawing/units";
import { Fault, faultOf, otherFault } from "./Fault";
import { useFormat } from "./settings";
import { taking } from "./taking";
import { useTyped } from "./typed";

type Kind = Quantity | "count" | "percent" | "ratio" | "oven";

/** Kinds without a unit. */
const bare = (kind: Kind): kind is "count" | "percent" | "ratio" =>
  kind === "count" || kind === "percent" || kind === "ratio";

interface Props {
  label: string;
  kind: Kind;
  /** In the base unit. */
  value: number;
  /** Shown when the value is absent. */
  placeholder?: string;
  hideLabel?: boolean;
  /** One nudge of an arrow, in the metric unit; in US units the usual step nearest to it is taken. */
  step?: number;
  /** Saves; throws the refusal. */
  onSave(base: number): Promise<unknown>;
  /** Field name in the refusal. */
  field: string;
  className?: string;
  unset?: boolean;
}

export function Amount({
  label,
  kind,
  value,
  hideLabel = false,
  step = 1,
  onSave,
  field,
  className = "",
  unset = false,
  placeholder,
}: Props) {
  const format = useFormat();
  const id = useId();
  const text = unset ? "" : inWords(format, kind, value);
  const typing = useTyped(text);
  const [fault, setFault] = useState<Said>();
  const busy = useRef(false);
  const under = useRef("");
  const [saving, setSaving] = useState(false);
  // What was typed while the one before was still being saved: it is saved next, and not lost.
  const next = useRef<string>(null);
  // What is being read of it, which an arrow waits for.
  const reading = useRef<Promise<number>>(null);
  // What is kept as far as this field knows, and what nudges have come to: the page's own value follows a moment later.
  const kept = useRef(value);
  const wanted = useRef(value);
  const shownNow = useRef(value);
  useEffect(() => {
    shownNow.current = value;
    kept.current = value;
    if (!busy.current) wanted.current = value;
  }, [value]);
  const draft = typing.typed ?? (fault || saving ? typing.last : null);

  const take = async (typed: string): Promise<void> => {
    reading.current = readTyped(format, kind, typed, inWords(format, kind, kept.current));
    const base = await reading.current;
    // An arrow pressed before the page follows goes on from what was typed.
    if (next.current === null) wanted.current = base;
    if (base === kept.current && !unset) return;
    const before = shownNow.current;
    typing.sending();
    await onSave(base);
    // Where the page follows already it may show another value than was wanted here: somebody else's was left as it is.
    kept.current = shownNow.current === before ? base : shownNow.current;
  };
  const save = async (typed: string): Promise<void> => {
    if (busy.current) {
      // Leaving the field while it is being saved saves nothing else.
      if (typed !== under.current) next.current = typed;
      return;
    }
    busy.current = true;
    under.current = typed;
    setSaving(true);
    try {
      await taking(take(typed));
      // The next nudge goes on from here, unless one has gone further meanwhile.
      if (next.current === null) wanted.current = kept.current;
      setFault(undefined);
      // What was typed since then stays.
      if (next.current === null) typing.end(typed);
    } catch (error) {
      wanted.current = kept.current;
      typing.refused();
      setFault(
        faultOf(error, "text") ?? faultOf(error, field) ?? otherFault(error, []) ?? "Couldn’t save that.",
      );
    } finally {
      busy.current = false;
      reading.current = null;
      setSaving(false);
      const waiting = next.current;
      next.current = null;
      if (waiting !== null) void save(waiting);
    }
  };

  const nudge = async (direction: number): Promise<void> => {
    await reading.current?.catch(() => undefined);
    const by = nudgeOf(format, kind, step);
    const measured = bare(kind) ? undefined : kind === "oven" ? "temperature" : kind;
    const shown = measured ? format.shown(measured, wanted.current) : wanted.current;
    // Along a ruler and round a dial it goes from mark to mark.
    const marked =
      (kind === "length" && format.units.length === "in") ||
      (kind === "oven" && format.units.temperature === "f");
    const to = marked
      ? markAfter(shown, by, direction)
      : Math.round((shown + direction * by) * 10_000) / 10_000;
    wanted.current = measured ? format.base(measured, to) : to;
    const typed = inWords(format, kind, wanted.current);
    typing.type(typed);
    void save(typed);
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
        data-unkept={draft !== null && draft !== text ? "true" : undefined}
        aria-invalid={fault ? true : undefined}
        aria-describedby={fault ? `${id}-fault` : undefined}
        onFocus={(e) => e.target.select()}
        onChange={(e) => typing.type(e.target.value)}
        onBlur={() => {
          if (draft !== null && draft !== text) void save(draft);
          else if (!fault) typing.end();
        }}
        onKeyDown={(e) => {
          if (e.key === "Enter" && draft !== null) void save(draft);
          if (e.key === "Escape") {
            typing.end();
            setFault(undefined);
          }
          if (e.key === "ArrowUp" || e.key === "ArrowDown") {
            e.preventDefault();
            // What was typed and not yet entered is where it goes on from.
            if (draft !== null && draft !== text && !busy.current) void save(draft);
            void nudge(e.key === "ArrowUp" ? 1 : -1);
          }
        }}
      />
      <Fault id={`${id}-fault`} text={fault} />
    </div>
  );
}

/** The next mark of a scale in a direction; what stands on one to a tenth of a step goes on to the one after it. */
const markAfter = (value: number, step: number, direction: number): number =>
  (direction > 0 ? Math.floor(value / step + 0.1) + 1 : Math.ceil(value / step - 0.1) - 1) * step;

/** One press of an arrow in the unit shown: as given in metric units, and the usual step of a US kitchen nearest to that. */
export function nudgeOf(format: Format, kind: Kind, step: number): number {
  if (bare(kind)) return step;
  const { length, weight, temperature } = format.units;
  switch (kind) {
    case "duration":
      return step;
    case "oven":
      return temperature === "f" ? 25 : step;
    case "length":
      if (length === "mm") return step;
      return step >= 10 ? 0.5 : step >= 2 ? 0.125 : 0.0625;
    case "mass":
      if (weight !== "oz") return step;
      return step >= 100 ? 4 : step >= 10 ? 0.5 : 0.1;
    case "temperature":
      if (temperature === "c") return step;
      return step >= 5 ? 10 : step >= 1 ? 2 : 1;
    case "volume":
      if (weight === "g") return step;
      return step >= 250 ? 1 : 0.25;
  }
}

/** As it stands in the field: with spaces that a keyboard has. */
const inWords = (format: Format, kind: Kind, value: number): string =>
  figureOf(format, kind, value).replaceAll("\u00a0", " ");

function figureOf(format: Format, kind: Kind, value: number): string {
  switch (kind) {
    case "length":
      return format.length(value);
    case "mass":
      return format.mass(value).replaceAll(",", "");
    case "temperature":
      // A whole degree Fahrenheit is finer than a half of the others.
      return format.temperature(value, format.units.temperature === "f" ? 0 : 1);
    case "oven":
      return format.oven(value);
    case "duration":
      return value > 0 && value < 1
        ? `${Math.round(value * 60)}\u00a0s`
        : `${Math.round(value * 10) / 10}\u00a0min`;
    case "volume":
      return `${number(format.shown("volume", value), format.units.weight === "g" ? 0 : 2).replaceAll(",", "")} ${format.symbol("volume")}${format.units.weight === "g" ? "" : "s"}`;
    case "percent":
      return `${value}%`;
    case "count":
    case "ratio":
      return String(value);
  }
}

/** The base value of what was typed, as the server reads it; throws its refusal. */
export async function readTyped(format: Format, kind: Kind, typed: string, shown = ""): Promise<number> {
  const quantity = kind === "oven" ? "temperature" : kind === "ratio" ? "percent" : kind;
  // Beside centimetres a bare number of two digits is meant so; 320 is millimetres all the same.
  const inCm = kind === "length" && shown.endsWith("cm") && /^\s*\d{1,2}([.,]\d*)?\s*$/.test(typed);
  const default_symbol = bare(kind)
    ? ""
    : inCm
      ? "cm"
      : format.symbol(kind === "oven" ? "temperature" : kind);
  const answer = await settled(
    api.POST("/api/units/parse", { body: { quantity, text: typed, default_symbol } }),
  );
  return answer.value;
}
