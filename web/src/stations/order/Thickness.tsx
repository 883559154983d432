/** Thickness by the guide rods owned, or by eye. */
import { type Said } from "../../drawing/sentence";
import { useState } from "react";
import { Amount } from "../../kit/Amount";
import { Choice } from "../../kit/Choice";
import { Fault, otherFault } from "../../kit/Fault";
import { useFormat } from "../../kit/settings";

const BY_EYE = "by-eye";

export function Thickness({
  value,
  rods,
  onSave,
}: {
  value: number;
  rods: number[];
  onSave(mm: number): Promise<unknown>;
}) {
  const format = useFormat();
  const own = rods.find((r) => Math.abs(r - value) < 0.05);
  const [free, setFree] = useState(false);
  const [fault, setFault] = useState<Said>();
  const byEye = free || own === undefined;
  return (
    <div>
      <p className="mb-1 text-fine text-soft">Thickness, by rolling guides</p>
      <Choice
        label="Thickness"
        value={byEye ? BY_EYE : String(own)}
        options={[
          ...rods.map((r) => ({ value: String(r), label: <span className="num">{format.length(r)}</span> })),
          { value: BY_EYE, label: "By eye" },
        ]}
        onChange={(next) => {
          setFault(undefined);
          if (next === BY_EYE) setFree(true);
          else {
            setFree(false);
            onSave(Number(next)).catch((error: unknown) => setFault(otherFault(error, [])));
          }
        }}
      />
      <Fault text={fault} />
      {byEye ? (
        <Amount
          className="mt-2"
          label="Thickness, by eye"
          kind="length"
          value={value}
          step={0.5}
          field="thickness_mm"
          onSave={onSave}
        />
      ) : null}
    </div>
  );
}
