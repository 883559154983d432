/** The parts of a figure: each a mass of its own, in the units shown; further ones are added, all but two can go. */
import { useEffect, useRef } from "react";
import { Amount } from "../../kit/Amount";

/** No figure is put together of fewer; what it is put together of at most is the server's to say. */
const FEWEST = 2;

export function Parts({
  parts_g,
  field,
  onSave,
}: {
  parts_g: readonly number[];
  field: string;
  onSave(parts_g: number[]): Promise<unknown>;
}) {
  // What they come to with what is still on its way: two parts changed one right after the other both stay.
  const wanted = useRef(parts_g);
  const onTheirWay = useRef(0);
  useEffect(() => {
    if (onTheirWay.current === 0) wanted.current = parts_g;
  }, [parts_g]);
  const save = async (next: number[]) => {
    const before = wanted.current;
    wanted.current = next;
    onTheirWay.current += 1;
    try {
      await onSave(next);
    } catch (error) {
      wanted.current = before;
      throw error;
    } finally {
      onTheirWay.current -= 1;
    }
  };
  const changed = (at: number) => (mass_g: number) =>
    save(wanted.current.map((g, i) => (i === at ? mass_g : g)));
  const quietly = (next: number[]) => void save(next).catch(() => undefined);
  return (
    <fieldset className="mt-3">
      <legend className="mb-1 text-fine text-soft">Parts</legend>
      <ul className="grid grid-cols-2 gap-2">
        {parts_g.map((mass_g, at) => (
          <li key={`${at} of ${parts_g.length}`} className="flex items-start gap-1">
            <Amount
              className="min-w-0 flex-1"
              label={`Part ${at + 1}`}
              hideLabel
              kind="mass"
              step={1}
              value={mass_g}
              field={`${field}[${at}]`}
              onSave={changed(at)}
            />
            {parts_g.length > FEWEST ? (
              <button
                type="button"
                className="min-h-11 min-w-11 text-soft"
                aria-label={`No part ${at + 1}`}
                onClick={() => quietly(wanted.current.filter((_, i) => i !== at))}
              >
                ×
              </button>
            ) : null}
          </li>
        ))}
      </ul>
      <button
        type="button"
        className="btn btn-small mt-2"
        onClick={() => quietly([...wanted.current, wanted.current.at(-1) ?? 0])}
      >
        Add a part
      </button>
    </fieldset>
  );
}
