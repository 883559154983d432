/** When it is due: a day and a time by the kitchen's clock. */
import { DayField } from "./DayField";
import { TimeField } from "./TimeField";

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
        field="ready_by"
        onSave={(next) => onSave(`${day}T${next}`)}
      />
    </div>
  );
}
