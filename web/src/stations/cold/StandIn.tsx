/** The stand-in thermometer: noisy, with drop-outs, in a place that is not quite as it is set. */
import { useState } from "react";
import type { LivePiece, ProbeBody } from "../../api/client";
import { useProbe } from "../../api/cold";
import { Amount } from "../../kit/Amount";
import { Fault, otherFault } from "../../kit/Fault";
import { useFormat } from "../../kit/settings";

const USUAL: Required<ProbeBody> = {
  seed: 1,
  noise_k: 0.3,
  drop_out: 0.1,
  film_factor: 1.15,
  air_off_k: 0.6,
  every_s: 120,
};

export function StandIn({ piece }: { piece: LivePiece }) {
  const format = useFormat();
  const probe = useProbe(piece.id);
  const [kind, setKind] = useState<Required<ProbeBody>>({ ...USUAL, seed: piece.id });
  const put = (key: keyof ProbeBody) => (value: number) => {
    setKind((k) => ({ ...k, [key]: value }));
    return Promise.resolve();
  };
  if (piece.probe) {
    return (
      <>
        <p className="mb-2 text-soft">
          Reads every {Math.round(piece.probe.every_s ?? 0)}&nbsp;s of simulated time, noise{" "}
          {format.difference(piece.probe.noise_k ?? 0)}.
        </p>
        <button type="button" className="btn" onClick={() => probe.mutate(null)}>
          Remove it
        </button>
      </>
    );
  }
  return (
    <>
      <p className="mb-2 text-soft">No thermometer? Try a simulated one.</p>
      <button type="button" className="btn" disabled={probe.isPending} onClick={() => probe.mutate(kind)}>
        Use a simulated thermometer
      </button>
      <details className="mt-1">
        <summary className="min-h-11 cursor-pointer py-2 font-semibold">Simulation settings</summary>
        <div className="grid grid-cols-2 gap-3 pb-2">
          <Amount
            label="Missed readings"
            kind="percent"
            value={Math.round(kind.drop_out * 100)}
            field="drop_out"
            step={5}
            onSave={(v) => put("drop_out")(v / 100)}
          />
          <Amount
            label="Reading every"
            kind="duration"
            value={kind.every_s / 60}
            field="every_s"
            onSave={(v) => put("every_s")(v * 60)}
          />
          <Amount
            label="True chilling speed"
            kind="percent"
            value={Math.round(kind.film_factor * 100)}
            field="film_factor"
            step={5}
            onSave={(v) => put("film_factor")(v / 100)}
          />
        </div>
      </details>
      <Fault text={otherFault(probe.error, [])} />
    </>
  );
}
