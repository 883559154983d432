/** A cutter from a file, dropped or chosen, or one of the built-in forms. */
import { Dialog, Tabs } from "radix-ui";
import { useId, useRef, useState } from "react";
import type { Cutter, NewCutter } from "../../api/client";
import { useAddCutter } from "../../api/queries";
import { Amount } from "../../kit/Amount";
import { Choice } from "../../kit/Choice";
import { Fault, faultOf, otherFault } from "../../kit/Fault";

type Form = "round" | "oval" | "square" | "oblong" | "scalloped" | "hexagon" | "petal";
const FORMS: { value: Form; label: string }[] = [
  { value: "round", label: "Round" }, { value: "scalloped", label: "Scalloped" }, { value: "oval", label: "Oval" },
  { value: "square", label: "Square" }, { value: "oblong", label: "Oblong" }, { value: "hexagon", label: "Hexagon" },
  { value: "petal", label: "Petal" },
];

const kept = (set: (value: number) => void) => (value: number) => {
  set(value);
  return Promise.resolve();
};

export function AddCutter({ onAdded }: { onAdded(cutter: Cutter): void }) {
  const [open, setOpen] = useState(false);
  const add = useAddCutter();
  const [name, setName] = useState("");
  const [svg, setSvg] = useState<{ file: string; text: string }>();
  const [width, setWidth] = useState<number>();
  const [form, setForm] = useState<Form>("round");
  const [across, setAcross] = useState(65);
  const [along, setAlong] = useState(45);
  const [over, setOver] = useState(false);
  const file = useRef<HTMLInputElement>(null);
  const nameId = useId();

  const take = async (chosen: File | undefined) => {
    if (!chosen) return;
    add.reset();
    setSvg({ file: chosen.name, text: await chosen.text() });
    if (!name) setName(chosen.name.replace(/\.svg$/i, ""));
  };
  const put = (body: NewCutter) =>
    add.mutate(body, {
      onSuccess: (cutter) => {
        setOpen(false);
        setName("");
        setSvg(undefined);
        setWidth(undefined);
        onAdded(cutter);
      },
    });
  const nameField = (
    <div>
      <label htmlFor={nameId} className="mb-1 block text-fine text-soft">
        Name
      </label>
      <input id={nameId} className="field" value={name} maxLength={80} onChange={(e) => setName(e.target.value)} autoComplete="off" />
      <Fault text={faultOf(add.error, "name")} />
    </div>
  );
  const twoSizes = form === "oval" || form === "oblong";
  return (
    <Dialog.Root open={open} onOpenChange={setOpen}>
      <Dialog.Trigger className="btn">Add a cutter</Dialog.Trigger>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-black/40" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed left-1/2 top-1/2 z-50 max-h-[92dvh] w-[min(34rem,94vw)] -translate-x-1/2 -translate-y-1/2 overflow-auto rounded-2xl bg-worktop p-6 text-ink"
        >
          <Dialog.Title className="h-station mb-4">Add a cutter</Dialog.Title>
          <Tabs.Root defaultValue="svg" onValueChange={() => add.reset()}>
            <Tabs.List className="seg mb-4" aria-label="Where from">
              <Tabs.Trigger value="svg" className="seg-item data-[state=active]:bg-ink data-[state=active]:text-worktop">
                From an SVG file
              </Tabs.Trigger>
              <Tabs.Trigger value="builtin" className="seg-item data-[state=active]:bg-ink data-[state=active]:text-worktop">
                A plain form
              </Tabs.Trigger>
            </Tabs.List>
            <Tabs.Content value="svg" className="space-y-4">
              <div
                className={`rounded-xl border-2 border-dashed p-6 text-center ${over ? "border-spruce bg-pale" : "border-edge"}`}
                onDragOver={(e) => {
                  e.preventDefault();
                  setOver(true);
                }}
                onDragLeave={() => setOver(false)}
                onDrop={(e) => {
                  e.preventDefault();
                  setOver(false);
                  void take(e.dataTransfer.files[0]);
                }}
              >
                <p className="mb-2">{svg ? `${svg.file} is chosen.` : "Drop an SVG file here. Its largest closed outline becomes the cutting edge."}</p>
                <button type="button" className="btn" onClick={() => file.current?.click()}>
                  {svg ? "Another file" : "Choose a file"}
                </button>
                <input
                  ref={file}
                  type="file"
                  accept=".svg,image/svg+xml"
                  className="visually-hidden"
                  tabIndex={-1}
                  aria-label="SVG file"
                  onChange={(e) => {
                    void take(e.target.files?.[0]);
                    e.target.value = "";
                  }}
                />
                <Fault text={faultOf(add.error, "svg")} />
              </div>
              {nameField}
              <Amount
                label="Width across, if it should be other than drawn"
                kind="length"
                value={width ?? 0}
                unset={width === undefined}
                placeholder="as drawn"
                field="width_mm"
                onSave={kept(setWidth)}
              />
              <Fault text={faultOf(add.error, "width_mm") ?? otherFault(add.error, ["svg", "name", "width_mm"])} />
              <button
                type="button"
                className="btn btn-main"
                disabled={!svg || add.isPending}
                onClick={() => svg && put({ kind: "svg", name, svg: svg.text, width_mm: width ?? null })}
              >
                Add it
              </button>
            </Tabs.Content>
            <Tabs.Content value="builtin" className="space-y-4">
              <Choice label="Form" value={form} options={FORMS} onChange={(v) => setForm(v)} />
              {nameField}
              <div className="grid grid-cols-2 gap-3">
                <Amount label="Across" kind="length" value={across} field="width_mm" onSave={kept(setAcross)} />
                {twoSizes ? <Amount label="Along" kind="length" value={along} field="height_mm" onSave={kept(setAlong)} /> : null}
              </div>
              <Fault text={faultOf(add.error, "width_mm") ?? faultOf(add.error, "height_mm") ?? otherFault(add.error, ["name", "width_mm", "height_mm"])} />
              <button
                type="button"
                className="btn btn-main"
                disabled={add.isPending}
                onClick={() => put({ kind: "builtin", name, form, width_mm: across, height_mm: twoSizes ? along : null })}
              >
                Add it
              </button>
            </Tabs.Content>
          </Tabs.Root>
          <Dialog.Close className="btn btn-quiet absolute right-3 top-3" aria-label="Close">
            ×
          </Dialog.Close>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
