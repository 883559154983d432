/** Four choices of how things are told, each kept in this browser. What was typed in any unit is kept as it was typed. */
import { useEquip } from "../api/queries";
import { PRESETS, type System, type Units } from "../drawing/units";
import { Choice, type Option } from "../kit/Choice";
import { Window } from "../kit/Window";
import { useSettings } from "../kit/settings";

const TOGETHER: readonly Option<System>[] = [
  { value: "metric", label: "Metric" },
  { value: "us", label: "US" },
];
const WEIGHT: readonly Option<Units["weight"]>[] = [
  { value: "g", label: "Grams" },
  { value: "cups", label: "Grams and cups" },
  { value: "oz", label: "Ounces and pounds" },
];
const LENGTH: readonly Option<Units["length"]>[] = [
  { value: "mm", label: "mm, cm" },
  { value: "in", label: "Inches" },
];
const TEMPERATURE: readonly Option<Units["temperature"]>[] = [
  { value: "c", label: "\u00b0C" },
  { value: "f", label: "\u00b0F" },
];
const CLOCK: readonly Option<Units["clock"]>[] = [
  { value: "24", label: "14:00" },
  { value: "12", label: "2:00 pm" },
];

export function UnitsWindow({ open, onOpen }: { open: boolean; onOpen(open: boolean): void }) {
  const { units, setUnits: keep } = useSettings();
  const equip = useEquip();
  const setUnits = (next: Units) => {
    keep(next);
    if (next.length !== units.length) equip.mutate(next.length);
  };
  const together = (["metric", "us"] as const).find((s) =>
    (Object.keys(units) as (keyof Units)[]).every((k) => PRESETS[s][k] === units[k]),
  );
  return (
    <Window title="Units" open={open} onOpen={onOpen}>
      <div className="space-y-4">
        <Line name="All units">
          <Choice
            label="All units"
            value={together ?? ("" as System)}
            options={TOGETHER}
            onChange={(s) => setUnits(PRESETS[s])}
          />
        </Line>
        <Line name="Weight">
          <Choice
            label="Weight"
            value={units.weight}
            options={WEIGHT}
            onChange={(weight) => setUnits({ ...units, weight })}
          />
        </Line>
        <Line name="Length">
          <Choice
            label="Length"
            value={units.length}
            options={LENGTH}
            onChange={(length) => setUnits({ ...units, length })}
          />
        </Line>
        <Line name="Temperature">
          <Choice
            label="Temperature"
            value={units.temperature}
            options={TEMPERATURE}
            onChange={(temperature) => setUnits({ ...units, temperature })}
          />
        </Line>
        <Line name="Clock">
          <Choice
            label="Clock"
            value={units.clock}
            options={CLOCK}
            onChange={(clock) => setUnits({ ...units, clock })}
          />
        </Line>
      </div>
      <p className="mt-5 text-fine text-soft">
        Type any unit, whatever you choose here: 1/4 in, 6mm, 350F, 4 dozen.
      </p>
    </Window>
  );
}

function Line({ name, children }: { name: string; children: React.ReactNode }) {
  return (
    <div>
      <p className="mb-1 text-fine text-soft" aria-hidden="true">
        {name}
      </p>
      {children}
    </div>
  );
}
