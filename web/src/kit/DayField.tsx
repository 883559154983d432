/** A day of the kitchen's calendar: typed as people say it, or chosen on a small calendar. */
import { lazy, Suspense, useRef, useState } from "react";
import { now as nowThere, shortDay } from "../drawing/time";
import type { TypedDay } from "../drawing/typedDay";
import { Fault, Misread } from "./Fault";
import { DraftInput, selectAll, useDraft } from "./TextField";

// Both come when they are needed: most days are never typed.
const Calendar = lazy(() => import("./Calendar"));
const reader = () => import("../drawing/typedDay");

interface Props {
  id: string;
  label: string;
  /** Its name for those who hear it, where the label alone says too little. */
  name?: string;
  /** `2026-12-05`; empty where no day is chosen. */
  value: string;
  /** Field name in the refusal. */
  field: string;
  /** Whether days that were are meant, and none is a choice. */
  past?: boolean;
  /** Throws the refusal. */
  onSave(said: TypedDay | undefined): Promise<unknown>;
}

export function DayField({ id, label, name, value, field, past = false, onSave }: Props) {
  const now = nowThere();
  const [open, setOpen] = useState(false);
  const whole = useRef<HTMLDivElement>(null);
  const shown = value === "" ? "" : shortDay(value, now);
  const change = useDraft(
    shown,
    async (text) => {
      if (past && text.trim() === "") return onSave(undefined);
      const said = (await reader()).typedDay(text, now, past);
      if (!said) throw new Misread("Type a day, like Sat or Dec 5.");
      return onSave(said);
    },
    field,
  );
  return (
    <div>
      <label htmlFor={id} className="mb-1 block text-fine text-soft">
        {label}
      </label>
      <div ref={whole} className="relative">
        <DraftInput
          id={id}
          className="field pr-12!"
          aria-label={name}
          placeholder={past ? "Any day" : undefined}
          onFocus={selectAll}
          change={change}
          onArrow={(direction) => {
            if (direction < 0) setOpen(true);
          }}
        />
        <button
          type="button"
          className="absolute inset-y-0 right-0 grid w-11 place-items-center rounded-[10px] text-soft hover:text-ink"
          aria-label={`${name ?? label}: calendar`}
          aria-haspopup="dialog"
          aria-expanded={open}
          onClick={() => setOpen(!open)}
        >
          <CalendarSign />
        </button>
      </div>
      {open ? (
        <Suspense>
          <Calendar
            at={whole}
            value={value}
            now={now}
            past={past}
            onClose={() => setOpen(false)}
            onChoose={(day) => {
              setOpen(false);
              change.reset();
              if (day !== value) change.send(shortDay(day, now));
            }}
          />
        </Suspense>
      ) : null}
      <Fault id={`${id}-fault`} text={change.fault} />
    </div>
  );
}

function CalendarSign() {
  return (
    <svg width="20" height="20" viewBox="0 0 20 20" fill="none" stroke="currentColor" aria-hidden="true">
      <rect x="2.5" y="4" width="15" height="13.5" rx="2.5" strokeWidth="1.6" />
      <path d="M2.5 8.5h15M6.5 2v3.5M13.5 2v3.5" strokeWidth="1.6" strokeLinecap="round" />
      <rect x="11" y="11.5" width="3.5" height="3" rx="0.8" fill="currentColor" stroke="none" />
    </svg>
  );
}
