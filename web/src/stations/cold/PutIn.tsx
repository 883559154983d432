/** Putting a piece in starts its clock. What is not said is as the plan has it. */
import { useState } from "react";
import type { Piece, Plan, PutInBody } from "../../api/client";
import { useForgetPiece, usePutIn } from "../../api/cold";
import { useJobContext } from "../../app/JobFrame";
import { pieceWord } from "../../app/pieceWord";
import { Amount } from "../../kit/Amount";
import { Choice } from "../../kit/Choice";
import { Fault, faultOf, otherFault } from "../../kit/Fault";
import { didFact } from "../../kit/said";
import { unlessChanged } from "../../kit/sent";
import { useFormat } from "../../kit/settings";
import { PLACES, PURPOSES } from "./words";

type Form = "plan" | "sheet" | "disc" | "ball" | "sphere" | "log" | "bar";
type Sizes = Record<"thickness" | "across" | "height", number>;

const FORMS: readonly { value: Form; label: string }[] = [
  { value: "plan", label: "As planned" },
  { value: "disc", label: "Disc" },
  { value: "sheet", label: "Sheet" },
  { value: "ball", label: "Lump" },
  { value: "sphere", label: "Dough ball" },
  { value: "log", label: "Log" },
  { value: "bar", label: "Square or oblong log" },
];

function pieceOf(form: Form, s: Sizes): Piece | null {
  switch (form) {
    case "plan":
      return null;
    case "sheet":
      return { kind: "sheet", thickness_mm: s.thickness };
    case "disc":
      return { kind: "disc", thickness_mm: s.thickness, diameter_mm: s.across };
    case "ball":
      return { kind: "ball", diameter_mm: s.across };
    case "sphere":
      return { kind: "sphere", diameter_mm: s.across };
    case "log":
      return { kind: "log", diameter_mm: s.across };
    case "bar":
      return { kind: "bar", width_mm: s.across, height_mm: s.height };
  }
}

/** The sizes of a form as it usually is, those it does not have as they were. */
function usualSizes(form: Form, usual: Plan["cold"]["usual_forms"], before: Sizes): Sizes {
  const piece = usual.find((p) => p.kind === form);
  if (!piece) return before;
  return {
    thickness: "thickness_mm" in piece ? piece.thickness_mm : before.thickness,
    across: "diameter_mm" in piece ? piece.diameter_mm : "width_mm" in piece ? piece.width_mm : before.across,
    height: "height_mm" in piece ? piece.height_mm : before.height,
  };
}

/** The first name of its kind that is free. */
export function freeName(word: string, taken: readonly string[]): string {
  for (let n = 1; ; n += 1) if (!taken.includes(`${word} ${n}`)) return `${word} ${n}`;
}

export function PutIn({ taken, onDone }: { taken: readonly string[]; onDone(id: number): void }) {
  const { job, plan } = useJobContext();
  const format = useFormat();
  const putIn = usePutIn(job.id);
  const { mutateAsync: forget } = useForgetPiece();
  const [form, setForm] = useState<Form>("plan");
  const [sizes, setSizes] = useState<Sizes>(
    usualSizes("disc", plan.cold.usual_forms, { thickness: 0, across: 0, height: 0 }),
  );
  const [purpose, setPurpose] = useState<PutInBody["purpose"]>(null);
  const [place, setPlace] = useState<PutInBody["place"]>(null);
  const [start, setStart] = useState<number>();
  const [speed, setSpeed] = useState("1");
  const kind = form === "plan" ? plan.cold.piece.kind : form;
  const proposed = freeName(
    purpose === "oven" && plan.cold.tray_chill
      ? "Tray"
      : kind === "sphere"
        ? "Dough balls"
        : kind.charAt(0).toUpperCase() + kind.slice(1),
    taken,
  );
  const [typed, setTyped] = useState<string>();
  const name = typed ?? proposed;
  const keep = (key: keyof Sizes) => (value: number) => {
    setSizes((s) => ({ ...s, [key]: value }));
    return Promise.resolve();
  };
  // What a piece as planned is for is the plan's to say; of another form the server has a usual purpose.
  const usual: NonNullable<PutInBody["purpose"]> =
    form === "plan"
      ? plan.cold.purpose
      : form === "log" || form === "bar"
        ? "slicing"
        : plan.cold.purpose === "slicing"
          ? "rolling"
          : plan.cold.purpose;
  const oven = (purpose ?? usual) === "oven" && plan.cold.tray_chill != null;
  const tray = oven ? plan.cold.tray_chill : null;
  const starts_c = tray?.start_c ?? plan.cold.curve[0]?.warmest_c ?? 20;
  const goes = tray?.place ?? plan.cold.place;
  const fields = ["name", "start_c", "clock_speed", "piece", "place", "purpose", "put_in_at"];
  return (
    <form
      className="space-y-3"
      onSubmit={(e) => {
        e.preventDefault();
        putIn.mutate(
          {
            name,
            piece: pieceOf(form, sizes),
            purpose: purpose ?? null,
            place: place ?? null,
            start_c: start ?? null,
            clock_speed: Number(speed),
            put_in_at: null,
          },
          {
            onSuccess: (piece) => {
              setTyped(unlessChanged<string | undefined>(typed, undefined));
              onDone(piece.id);
              didFact(`${piece.name} is in the ${piece.stays[0]?.place ?? "cold"}`, () => forget(piece.id));
            },
          },
        );
      }}
    >
      <p className="text-soft">
        As planned it is {plan.cold.count === 1 ? "one" : "a"}{" "}
        {oven ? "tray of cut cookies" : pieceWord(plan, format, 1)} at {format.temperature(starts_c)}, in the{" "}
        {goes}.
      </p>
      <label className="block">
        <span className="mb-1 block text-fine text-soft">Name</span>
        <input
          className="field"
          value={name}
          maxLength={40}
          onChange={(e) => setTyped(e.target.value)}
          aria-invalid={faultOf(putIn.error, "name") ? true : undefined}
        />
      </label>
      <Fault text={faultOf(putIn.error, "name")} />
      <button type="submit" className="btn btn-main w-full" disabled={putIn.isPending}>
        Put it in now
      </button>
      <details>
        <summary className="min-h-11 cursor-pointer py-2 font-semibold">Different from the plan</summary>
        <div className="space-y-3 pb-2">
          <Choice
            label="Shape"
            value={form}
            options={FORMS}
            onChange={(f) => {
              setForm(f);
              setSizes((s) => usualSizes(f, plan.cold.usual_forms, s));
            }}
          />
          {form === "plan" ? null : (
            <div className="grid grid-cols-2 gap-3">
              {form === "sheet" || form === "disc" ? (
                <Amount
                  label="Thickness"
                  kind="length"
                  value={sizes.thickness}
                  field="thickness_mm"
                  onSave={keep("thickness")}
                />
              ) : null}
              {form === "sheet" ? null : (
                <Amount
                  label={form === "bar" ? "Width" : "Diameter"}
                  kind="length"
                  value={sizes.across}
                  field="diameter_mm"
                  onSave={keep("across")}
                />
              )}
              {form === "bar" ? (
                <Amount
                  label="Height"
                  kind="length"
                  value={sizes.height}
                  field="height_mm"
                  onSave={keep("height")}
                />
              ) : null}
            </div>
          )}
          <Choice
            label="What’s next"
            value={purpose ?? usual}
            options={PURPOSES}
            onChange={(p: NonNullable<PutInBody["purpose"]>) => setPurpose(p)}
          />
          <Choice
            label="Where"
            value={place ?? goes}
            options={PLACES}
            onChange={(p: NonNullable<PutInBody["place"]>) => setPlace(p)}
          />
          <Amount
            label="Dough temperature now"
            kind="temperature"
            value={start ?? starts_c}
            field="start_c"
            step={0.5}
            onSave={(c) => {
              setStart(c);
              return Promise.resolve();
            }}
          />
          <label className="block">
            <span className="mb-1 block text-fine text-soft">Timer speed</span>
            <select className="field" value={speed} onChange={(e) => setSpeed(e.target.value)}>
              <option value="1">Real time</option>
              <option value="10">10 times as fast, to try it out</option>
              <option value="60">60 times as fast, to try it out</option>
              <option value="300">300 times as fast, to try it out</option>
            </select>
          </label>
        </div>
      </details>
      <Fault text={otherFault(putIn.error, ["name"]) ?? faultOf(putIn.error, fields[1] ?? "")} />
    </form>
  );
}
