/** What is asked of a cutter that is added: from a file, dropped or chosen, from a photo, or one of the built-in forms. */
import { Tabs } from "radix-ui";
import { useId, useState } from "react";
import type { Cutter, NewCutter } from "../../api/client";
import { useAddCutter, useLookAtCutter } from "../../api/queries";
import { TrueSize } from "./TrueSize";
import { FileButton } from "../../kit/FileButton";
import { Fault, faultOf, otherFault } from "../../kit/Fault";
import { Window } from "../../kit/Window";
import { PhotoCutter } from "./PhotoCutter";
import { ShapeForm } from "./ShapeForm";
import { SizeField, useSizes } from "./typedSize";

export function NewCutterForm({
  open,
  onOpen,
  onAdded,
}: {
  open: boolean;
  onOpen(open: boolean): void;
  onAdded(cutter: Cutter): void;
}) {
  const add = useAddCutter();
  const seen = useLookAtCutter();
  const [name, setName] = useState("");
  const [svg, setSvg] = useState<{ file: string; text: string }>();
  const [width, setWidth] = useState("");
  const sizes = useSizes();
  const [over, setOver] = useState(false);
  const nameId = useId();

  const take = async (chosen: File | undefined) => {
    if (!chosen) return;
    add.reset();
    seen.reset();
    const text = await chosen.text();
    setSvg({ file: chosen.name, text });
    seen.mutate({ kind: "svg", name: chosen.name.slice(0, 80), svg: text, width_mm: null });
    if (!name) setName(chosen.name.replace(/\.svg$/i, ""));
  };
  const addFile = async () => {
    sizes.forget();
    const width_mm = width.trim() === "" ? null : await sizes.read("width_mm", width);
    if (svg && width_mm !== undefined) put({ kind: "svg", name, svg: svg.text, width_mm });
  };
  const put = (body: NewCutter) =>
    add.mutate(body, {
      onSuccess: (cutter) => {
        setName("");
        setSvg(undefined);
        setWidth("");
        onAdded(cutter);
      },
    });
  const nameField = (
    <div>
      <label htmlFor={nameId} className="mb-1 block text-fine text-soft">
        Name
      </label>
      <input
        id={nameId}
        className="field"
        value={name}
        maxLength={80}
        onChange={(e) => setName(e.target.value)}
        autoComplete="off"
      />
      <Fault text={faultOf(add.error, "name")} />
    </div>
  );
  return (
    <Window title="Add a cutter" open={open} onOpen={onOpen}>
      <Tabs.Root defaultValue="builtin" onValueChange={() => add.reset()}>
        <Tabs.List className="seg mb-4" aria-label="Where from">
          <Tabs.Trigger
            value="builtin"
            className="seg-item data-[state=active]:bg-ink data-[state=active]:text-worktop"
          >
            Built-in shape
          </Tabs.Trigger>
          <Tabs.Trigger
            value="svg"
            className="seg-item data-[state=active]:bg-ink data-[state=active]:text-worktop"
          >
            SVG file
          </Tabs.Trigger>
          <Tabs.Trigger
            value="photo"
            className="seg-item data-[state=active]:bg-ink data-[state=active]:text-worktop"
          >
            Photo
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
            <p className="mb-2">
              {svg ? `${svg.file}` : "Drop an SVG file here. Its largest closed outline is the cutter."}
            </p>
            {svg ? null : (
              <p className="mb-2 text-fine text-soft">
                Rings in the same path are holes. Anything else inside is embossing and doesn’t cut.
              </p>
            )}
            <FileButton label="SVG file" accept=".svg,image/svg+xml" onFile={(f) => void take(f)}>
              {svg ? "Choose another file" : "Choose a file"}
            </FileButton>
            <Fault text={faultOf(add.error, "svg") ?? faultOf(seen.error, "svg")} />
          </div>
          {seen.data ? <TrueSize cutter={seen.data} /> : null}
          {nameField}
          <SizeField
            field="width_mm"
            label="Width"
            value={width}
            placeholder="as drawn"
            sizes={sizes}
            refused={add.error}
            onChange={setWidth}
          />
          <Fault text={otherFault(add.error, ["svg", "name", "width_mm"])} />
          <button
            type="button"
            className="btn btn-main"
            disabled={!svg || add.isPending}
            onClick={() => void addFile()}
          >
            Add cutter
          </button>
        </Tabs.Content>
        <Tabs.Content value="photo">
          <PhotoCutter onAdded={onAdded} />
        </Tabs.Content>
        <Tabs.Content value="builtin">
          <ShapeForm onAdded={onAdded} />
        </Tabs.Content>
      </Tabs.Root>
    </Window>
  );
}
