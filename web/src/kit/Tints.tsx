/** Portions of a dough or an icing that are coloured. */
import { type Said } from "../drawing/sentence";
import { useState } from "react";
import type { Job } from "../api/client";
import { Amount, readTyped } from "./Amount";
import { Fault, faultOf, otherFault } from "./Fault";
import { unlessChanged } from "./sent";
import { useFormat } from "./settings";

type Tint = NonNullable<Job["tints"]>[number];

interface Of {
  /** What it is a portion of. */
  of: "the dough" | "the icing";
  tints: readonly Tint[];
  field: string;
  onSave(tints: Tint[]): Promise<unknown>;
}

export function Tints({ of, tints, field, onSave }: Of) {
  const format = useFormat();
  const [name, setName] = useState("");
  const [share, setShare] = useState("");
  const [fault, setFault] = useState<Said>();
  const add = async () => {
    try {
      const percent = await readTyped(format, "percent", share);
      await onSave([...tints, { name, percent }]);
      setName(unlessChanged(name, ""));
      setShare(unlessChanged(share, ""));
      setFault(undefined);
    } catch (error) {
      setFault(
        faultOf(error, field) ?? faultOf(error, "text") ?? otherFault(error, []) ?? "Couldn’t save that.",
      );
    }
  };
  return (
    <div>
      <p className="mb-1 text-fine text-soft">{`Portions of ${of} to tint`}</p>
      <ul>
        {tints.map((t, i) => (
          <li key={`${t.name}-${i}`} className="flex items-center gap-2 py-1">
            <span className="min-w-0 flex-1 truncate font-semibold">{t.name}</span>
            <Amount
              className="w-24"
              label={`${t.name}, share of ${of}`}
              hideLabel
              kind="percent"
              value={t.percent}
              field={field}
              onSave={(percent) =>
                onSave(tints.map((other, at) => (at === i ? { ...other, percent } : other)))
              }
            />
            <button
              type="button"
              className="min-h-11 min-w-11 text-soft"
              aria-label={`Remove ${t.name}`}
              onClick={() => void onSave(tints.filter((_, at) => at !== i)).catch(() => undefined)}
            >
              ×
            </button>
          </li>
        ))}
      </ul>
      <form
        className="flex items-center gap-2"
        onSubmit={(e) => {
          e.preventDefault();
          void add();
        }}
      >
        <input
          className="field min-w-0 flex-1"
          aria-label="Color"
          placeholder="red"
          value={name}
          onChange={(e) => setName(e.target.value)}
        />
        <input
          className="field num !w-24"
          aria-label={`Share of ${of}`}
          placeholder="20%"
          value={share}
          onChange={(e) => setShare(e.target.value)}
        />
        <button type="submit" className="btn btn-small" disabled={!name.trim() || !share.trim()}>
          Add
        </button>
      </form>
      <Fault text={fault} />
    </div>
  );
}
