/** When it is wanted: a moment by the kitchen's clock. */
import { Fault } from "./Fault";
import { useDraft } from "./TextField";

export function ReadyBy({ value, onSave }: { value: string; onSave(value: string): Promise<unknown> }) {
  const change = useDraft(value, onSave, "ready_by");
  return (
    <div>
      <label htmlFor="ready-by" className="mb-1 block text-fine text-soft">
        Ready by
      </label>
      <input
        id="ready-by"
        type="datetime-local"
        className="field num"
        value={change.draft}
        aria-invalid={change.fault ? true : undefined}
        onChange={(e) => change.set(e.target.value)}
        onBlur={change.commit}
        onKeyDown={(e) => {
          if (e.key === "Enter") change.commit();
        }}
      />
      <Fault text={change.fault} />
    </div>
  );
}
