/** A text edited in place: kept when it is left, and held with its fault when it is refused. */
import { type Said } from "../drawing/sentence";
import { useRef, useState, type ComponentProps, type FocusEvent } from "react";
import { Fault, faultOf, otherFault } from "./Fault";
import { taking } from "./taking";
import { useTyped } from "./typed";

export function TextField({
  label,
  value,
  field,
  onSave,
}: {
  label: string;
  value: string;
  field: string;
  onSave(value: string): Promise<unknown>;
}) {
  const change = useDraft(value, onSave, field);
  return (
    <div>
      <label htmlFor={`text-${field}`} className="mb-1 block text-fine text-soft">
        {label}
      </label>
      <DraftInput id={`text-${field}`} className="field" change={change} />
      <Fault id={`text-${field}-fault`} text={change.fault} />
    </div>
  );
}

/** The input of a draft: entered by Enter or by leaving it, as it was by Escape. Its fault stands under its id and `-fault`. */
export function DraftInput({
  change,
  onArrow,
  ...input
}: {
  change: ReturnType<typeof useDraft>;
  /** What an arrow up (1) or down (-1) does. */
  onArrow?(direction: 1 | -1): void;
} & ComponentProps<"input">) {
  return (
    <input
      autoComplete="off"
      spellCheck={false}
      {...input}
      value={change.draft}
      data-unkept={change.draft === change.stands ? undefined : "true"}
      aria-invalid={change.fault ? true : undefined}
      aria-describedby={change.fault && input.id ? `${input.id}-fault` : undefined}
      onChange={(e) => change.set(e.target.value)}
      onBlur={change.commit}
      onKeyDown={(e) => {
        if (e.key === "Enter") change.commit();
        if (e.key === "Escape") change.reset();
        if (onArrow && (e.key === "ArrowUp" || e.key === "ArrowDown")) {
          e.preventDefault();
          onArrow(e.key === "ArrowUp" ? 1 : -1);
        }
      }}
    />
  );
}

/** The whole of what stands is typed over. */
export const selectAll = (e: FocusEvent<HTMLInputElement>): void => e.target.select();

/**
 * A text that is kept when it is left, and stays with its fault when it is refused. A draft ends when it is kept, and when what it was
 * begun on changes (an undo, another device): what stands is what is shown.
 */
export function useDraft(value: string, onSave: (value: string) => Promise<unknown>, field: string) {
  const typing = useTyped(value);
  const [fault, setFault] = useState<Said>();
  // Leaving the field while it is being saved saves nothing twice.
  const sending = useRef<string>(undefined);
  const turn = useRef(0);
  const draft = typing.typed ?? (fault ? typing.last : null) ?? value;
  const send = (sent: string) => {
    if (sent === value) {
      typing.end();
      return;
    }
    if (sending.current === sent) return;
    sending.current = sent;
    turn.current += 1;
    const own = turn.current;
    typing.sending();
    const done = () => {
      if (sending.current === sent) sending.current = undefined;
    };
    taking(onSave(sent))
      .finally(done)
      .then(
        () => {
          // What was sent since then says itself what came of it.
          if (turn.current === own) setFault(undefined);
          typing.end(sent);
        },
        (error: unknown) => {
          if (turn.current !== own) return;
          typing.refused();
          setFault(faultOf(error, field) ?? otherFault(error, []) ?? "Couldn’t save that.");
        },
      );
  };
  const reset = () => {
    typing.end();
    setFault(undefined);
  };
  /** Saves a text that was chosen rather than typed. */
  const choose = (text: string) => {
    typing.type(text);
    send(text);
  };
  return { draft, stands: value, set: typing.type, fault, commit: () => send(draft), send: choose, reset };
}
