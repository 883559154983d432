/** A cutter of a built-in shape: chosen by its picture, in the size it is sold as until somebody says otherwise. */
import { capital } from "../../drawing/sentence";
import { ToggleGroup } from "radix-ui";
import { useId, useState } from "react";
import type { Cutter, Schemas } from "../../api/client";
import { useAddCutter, useCutterForms } from "../../api/queries";
import { CutterPicture } from "../../kit/CutterPicture";
import { Fault, faultOf, otherFault } from "../../kit/Fault";
import { Unread } from "../../kit/Unread";
import { useFormat } from "../../kit/settings";
import { SizeField, sizeNames, useSizes } from "./typedSize";

type Shape = Schemas["FormView"];

export function ShapeForm({ onAdded }: { onAdded(cutter: Cutter): void }) {
  const forms = useCutterForms();
  if (!forms.data) return <Unread of={[forms]} />;
  return <Shapes forms={forms.data} onAdded={onAdded} />;
}

function Shapes({ forms, onAdded }: { forms: readonly Shape[]; onAdded(cutter: Cutter): void }) {
  const format = useFormat();
  const add = useAddCutter();
  const id = useId();
  const [chosen, setChosen] = useState<Shape["form"]>(forms[0]?.form ?? "round");
  const [named, setNamed] = useState<string>();
  const [letter, setLetter] = useState("A");
  const [typed, setTyped] = useState<{ width_mm?: string; height_mm?: string }>({});
  const sizes = useSizes();
  const form = forms.find((f) => f.form === chosen);
  if (!form) return null;
  const isLetter = form.form === "letter";
  const names = sizeNames(form.form);
  const across = typed.width_mm ?? format.length(form.usual_mm);
  const along = typed.height_mm ?? (form.usual_second_mm == null ? "" : format.length(form.usual_second_mm));
  const name = named ?? (isLetter ? `Letter ${letter.toUpperCase()}` : capital(form.name));
  const save = async () => {
    sizes.forget();
    const width_mm = await sizes.read("width_mm", across);
    const height_mm = form.usual_second_mm == null ? null : await sizes.read("height_mm", along);
    if (width_mm === undefined || height_mm === undefined) return;
    add.mutate(
      { kind: "builtin", name, form: form.form, width_mm, height_mm, ...(isLetter ? { letter } : {}) },
      { onSuccess: onAdded },
    );
  };
  return (
    <form
      className="space-y-4"
      onSubmit={(e) => {
        e.preventDefault();
        void save();
      }}
    >
      <ToggleGroup.Root
        type="single"
        className="grid grid-cols-4 gap-1.5 sm:grid-cols-8"
        aria-label="Shape"
        value={chosen}
        onValueChange={(next) => {
          if (!next) return;
          setChosen(next as Shape["form"]);
          setTyped({});
          add.reset();
        }}
      >
        {forms.map((f) => (
          <ToggleGroup.Item
            key={f.form}
            value={f.form}
            aria-label={capital(f.name)}
            title={capital(f.name)}
            className="shape-item"
          >
            <CutterPicture cutter={f} size={42} />
          </ToggleGroup.Item>
        ))}
      </ToggleGroup.Root>
      <p className="h-part" aria-live="polite">
        {capital(form.name)}
      </p>
      <div className="grid grid-cols-2 gap-3">
        {isLetter ? (
          <div>
            <label htmlFor={`${id}-letter`} className="mb-1 block text-fine text-soft">
              Letter or number
            </label>
            <input
              id={`${id}-letter`}
              className="field"
              value={letter}
              maxLength={1}
              autoComplete="off"
              onFocus={(e) => e.target.select()}
              onChange={(e) => setLetter(e.target.value)}
            />
            <Fault text={faultOf(add.error, "letter")} />
          </div>
        ) : null}
        <SizeField
          field="width_mm"
          label={names.first}
          value={across}
          sizes={sizes}
          refused={add.error}
          onChange={(width_mm) => setTyped((t) => ({ ...t, width_mm }))}
        />
        {form.usual_second_mm == null ? null : (
          <SizeField
            field="height_mm"
            label={names.second}
            value={along}
            sizes={sizes}
            refused={add.error}
            onChange={(height_mm) => setTyped((t) => ({ ...t, height_mm }))}
          />
        )}
      </div>
      <div>
        <label htmlFor={`${id}-name`} className="mb-1 block text-fine text-soft">
          Name
        </label>
        <input
          id={`${id}-name`}
          className="field"
          value={name}
          maxLength={80}
          autoComplete="off"
          onChange={(e) => setNamed(e.target.value)}
        />
        <Fault text={faultOf(add.error, "name")} />
      </div>
      <Fault text={otherFault(add.error, ["name", "width_mm", "height_mm", "letter"])} />
      <button type="submit" className="btn btn-main" disabled={add.isPending || (isLetter && letter === "")}>
        Add cutter
      </button>
    </form>
  );
}
