/** The parts of a figure: each a mass of its own, in the units shown; further ones are added, all but two can go. */
import { Amount } from "../../kit/Amount";

/** No figure is put together of fewer; what it is put together of at most is the server's to say. */
const FEWEST = 2;

export function Parts({ parts_g, field, onSave }: { parts_g: readonly number[]; field: string; onSave(parts_g: number[]): Promise<unknown> }) {
  return (
    <fieldset className="mt-3">
      <legend className="mb-1 text-fine text-soft">Parts</legend>
      <ul className="grid grid-cols-2 gap-2">
        {parts_g.map((mass_g, at) => (
          <li key={`${at} of ${parts_g.length}`} className="flex items-start gap-1">
            <Amount className="min-w-0 flex-1" label={`Part ${at + 1}`} hideLabel kind="mass" step={1} value={mass_g} field={`${field}[${at}]`} onSave={(v) => onSave(parts_g.map((g, i) => (i === at ? v : g)))} />
            {parts_g.length > FEWEST ? (
              <button type="button" className="min-h-11 min-w-11 text-soft" aria-label={`No part ${at + 1}`} onClick={() => void onSave(parts_g.filter((_, i) => i !== at)).catch(() => undefined)}>
                ×
              </button>
            ) : null}
          </li>
        ))}
      </ul>
      <button type="button" className="btn btn-small mt-2" onClick={() => void onSave([...parts_g, parts_g.at(-1) ?? 0]).catch(() => undefined)}>
        Another part
      </button>
    </fieldset>
  );
}
