/** A text edited in place: kept when it is left, and held with its fault when it is refused. */
import { useState } from "react";
import { Fault, faultOf, otherFault } from "./Fault";

export function TextField({ label, value, field, onSave }: { label: string; value: string; field: string; onSave(value: string): Promise<unknown> }) {
  const change = useDraft(value, onSave, field);
  return (
    <div>
      <label htmlFor={`text-${field}`} className="mb-1 block text-fine text-soft">
        {label}
      </label>
      <input
        id={`text-${field}`}
        className="field"
        autoComplete="off"
        value={change.draft}
        aria-invalid={change.fault ? true : undefined}
        onChange={(e) => change.set(e.target.value)}
        onBlur={change.commit}
        onKeyDown={(e) => {
          if (e.key === "Enter") change.commit();
          if (e.key === "Escape") change.reset();
        }}
      />
      <Fault text={change.fault} />
    </div>
  );
}

/** A text that is kept when it is left, and stays with its fault when it is refused. */
export function useDraft(value: string, onSave: (value: string) => Promise<unknown>, field: string) {
  const [begun, setBegun] = useState<{ on: string; typed: string } | null>(null);
  const [fault, setFault] = useState<string>();
  const draft = begun && (begun.on === value || fault) ? begun.typed : value;
  const set = (typed: string) => setBegun({ on: value, typed });
  const commit = () => {
    if (draft === value) return;
    onSave(draft).then(
      () => setFault(undefined),
      (error: unknown) => setFault(faultOf(error, field) ?? otherFault(error, [])),
    );
  };
  const reset = () => {
    setBegun(null);
    setFault(undefined);
  };
  return { draft, set, fault, commit, reset };
}
