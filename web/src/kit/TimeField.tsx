/** A time of the day, typed as either clock has it; arrows go from quarter to quarter of an hour. */
import { clock, nextMark, timeOfDay } from "../drawing/time";
import { Fault, Misread } from "./Fault";
import { DraftInput, selectAll, useDraft } from "./TextField";

/** One press of an arrow. */
const STEP_MIN = 15;

/** What is said where a time does not read. */
export const TYPE_A_TIME = "Type a time, like 2 pm or 14:00.";

/** As it is typed: with a space that a keyboard has. */
const typed = (iso: string): string => clock(iso).replaceAll("\u00a0", " ");

interface Props {
  id: string;
  label: string;
  /** Its name for those who hear it, where the label alone says too little. */
  name?: string;
  /** A moment, `2026-12-05T14:00`, of which this is the time. */
  value: string;
  /** Field name in the refusal. */
  field: string;
  /** Throws the refusal. */
  onSave(time: string): Promise<unknown>;
}

export function TimeField({ id, label, name, value, field, onSave }: Props) {
  const shown = typed(value);
  const change = useDraft(
    shown,
    async (text) => {
      const time = timeOfDay(text);
      if (time === undefined) throw new Misread(TYPE_A_TIME);
      return onSave(time);
    },
    field,
  );
  return (
    <div>
      <label htmlFor={id} className="mb-1 block text-fine text-soft">
        {label}
      </label>
      <DraftInput
        id={id}
        className="field num"
        aria-label={name}
        onFocus={selectAll}
        change={change}
        onArrow={(direction) => {
          const from = timeOfDay(change.draft) ?? value.slice(11, 16);
          change.send(typed(`T${nextMark(from, STEP_MIN, direction)}`));
        }}
      />
      <Fault id={`${id}-fault`} text={change.fault} />
    </div>
  );
}
