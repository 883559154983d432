/** The kitchen as far as the first batch needs it. What nobody has said yet is as in most kitchens, and marked so. */
import type { Kitchen } from "../api/client";
import { useChangeKitchen } from "../api/queries";
import { Amount } from "../kit/Amount";
import { Choice, type Option } from "../kit/Choice";
import { Fault, otherFault } from "../kit/Fault";
import { HalfSheets } from "../kitchen/HalfSheets";

const FAN: readonly Option<"still" | "fan">[] = [
  { value: "still", label: "No fan" },
  { value: "fan", label: "Fan" },
];

/** What the oven is, beside the heading. */
export function OvenFan({ kitchen }: { kitchen: Kitchen }) {
  const fan = useChangeKitchen();
  return (
    <div className="flex items-center gap-2">
      <span className="text-fine text-soft" aria-hidden="true">
        {kitchen.usual.includes("oven_fan") ? "Oven (usual)" : "Oven"}
      </span>
      <Choice
        label="Oven"
        value={kitchen.oven_fan ? "fan" : "still"}
        options={FAN}
        onChange={(kind) => fan.mutate({ oven_fan: kind === "fan" })}
      />
      <Fault text={otherFault(fan.error, [])} />
    </div>
  );
}

export function KitchenStep({ kitchen }: { kitchen: Kitchen }) {
  const { mutateAsync: keep } = useChangeKitchen();
  const named = (name: string, field: keyof Kitchen) =>
    kitchen.usual.includes(field) ? `${name} (usual)` : name;
  return (
    <div className="grid grid-cols-2 items-end gap-3 sm:grid-cols-3 xl:grid-cols-6">
      <Amount
        label={named("Fridge", "fridge_c")}
        kind="temperature"
        value={kitchen.fridge_c}
        field="fridge_c"
        onSave={(fridge_c) => keep({ fridge_c })}
      />
      <Amount
        label={named("Freezer", "freezer_c")}
        kind="temperature"
        value={kitchen.freezer_c}
        field="freezer_c"
        onSave={(freezer_c) => keep({ freezer_c })}
      />
      <Amount
        label={named("Room", "room_c")}
        kind="temperature"
        value={kitchen.room_c}
        field="room_c"
        onSave={(room_c) => keep({ room_c })}
      />
      <Amount
        label={named("Trays", "trays_owned")}
        kind="count"
        value={kitchen.trays_owned}
        field="trays_owned"
        onSave={(trays_owned) => keep({ trays_owned })}
      />
      <Amount
        label={named("Tray width", "tray_width_mm")}
        kind="length"
        step={5}
        value={kitchen.tray_width_mm}
        field="tray_width_mm"
        onSave={(tray_width_mm) => keep({ tray_width_mm })}
      />
      <Amount
        label={named("Tray length", "tray_length_mm")}
        kind="length"
        step={5}
        value={kitchen.tray_length_mm}
        field="tray_length_mm"
        onSave={(tray_length_mm) => keep({ tray_length_mm })}
      />
      <div className="col-span-full empty:hidden">
        <HalfSheets kitchen={kitchen} />
      </div>
    </div>
  );
}
