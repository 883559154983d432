/** When it is due: a day and a time by the kitchen's clock. */
import { clock, minutesPast, timeOfDay } from "../drawing/time";
import { DayField } from "./DayField";
import { Fault, Misread } from "./Fault";
import { useDraft } from "./TextField";

/** One press of an arrow in a time. */
const STEP_MIN = 15;

export function ReadyBy({ value, onSave }: { value: string; onSave(value: string): Promise<unknown> }) {
  const [day, time] = [value.slice(0, 10), value.slice(11, 16)];
  return (
    <div className="grid grid-cols-[minmax(0,1fr)_7rem] gap-2" role="group" aria-label="Ready by">
      <DayField
        id="ready-by"
        label="Ready by"
        name="Ready by, day"
        value={day}
        field="ready_by"
        onSave={async (said) => said && onSave(`${said.day}T${said.time ?? time}`)}
      />
      <TimeField
        id="ready-by-time"
        label="Time"
        name="Ready by, time"
        value={value}
        onSave={(next) => onSave(`${day}T${next}`)}
      />
    </div>
  );
}

/** The next quarter of an hour in a direction, within the day. */
function quarter(time: string, direction: number): string {
  const steps = minutesPast(`T${time}`) / STEP_MIN;
  const next = direction > 0 ? Math.floor(steps) + 1 : Math.ceil(steps) - 1;
  const minutes = Math.min(Math.max(next, 0), (24 * 60) / STEP_MIN - 1) * STEP_MIN;
  return `${String(Math.floor(minutes / 60)).padStart(2, "0")}:${String(minutes % 60).padStart(2, "0")}`;
}

function TimeField({
  id,
  label,
  name,
  value,
  onSave,
}: {
  id: string;
  label: string;
  name: string;
  value: string;
  onSave(time: string): Promise<unknown>;
}) {
  const shown = clock(value).replaceAll("\u00a0", " ");
  const change = useDraft(
    shown,
    async (text) => {
      const time = timeOfDay(text);
      if (time === undefined) throw new Misread("Type a time, such as 14:00 or 2 pm.");
      return onSave(time);
    },
    "ready_by",
  );
  return (
    <div>
      <label htmlFor={id} className="mb-1 block text-fine text-soft">
        {label}
      </label>
      <input
        id={id}
        className="field num"
        aria-label={name}
        autoComplete="off"
        spellCheck={false}
        value={change.draft}
        data-unkept={change.draft === shown ? undefined : "true"}
        aria-invalid={change.fault ? true : undefined}
        aria-describedby={change.fault ? `${id}-fault` : undefined}
        onFocus={(e) => e.target.select()}
        onChange={(e) => change.set(e.target.value)}
        onBlur={change.commit}
        onKeyDown={(e) => {
          if (e.key === "Enter") change.commit();
          if (e.key === "Escape") change.reset();
          if (e.key === "ArrowUp" || e.key === "ArrowDown") {
            e.preventDefault();
            const next = quarter(
              timeOfDay(change.draft) ?? value.slice(11, 16),
              e.key === "ArrowUp" ? 1 : -1,
            );
            change.send(clock(`T${next}`).replaceAll("\u00a0", " "));
          }
        }}
      />
      <Fault id={`${id}-fault`} text={change.fault} />
    </div>
  );
}
