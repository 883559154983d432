/** A cutter read from a photo: four corners are laid on the paper's, what was found is shown over the paper, and approved. */
import { Says } from "../../kit/Says";
import { useId, useRef, useState, type KeyboardEvent, type PointerEvent } from "react";
import type { Cutter, PhotoFound, PhotoQuery } from "../../api/client";
import { useAddCutter, useCutterPhoto } from "../../api/queries";
import { Ruler } from "../../drawing/Ruler";
import { outlinePath } from "../../drawing/path";
import { Choice } from "../../kit/Choice";
import { FileButton } from "../../kit/FileButton";
import { Fault, faultOf, otherFault } from "../../kit/Fault";
import { useFormat } from "../../kit/settings";
import { smaller } from "./photo";

type Corner = readonly [number, number];
const START: readonly Corner[] = [[0.12, 0.12], [0.88, 0.12], [0.88, 0.88], [0.12, 0.88]];
const PAPERS = [{ value: "a4", label: "A4" }, { value: "letter", label: "Letter" }] as const;
const EDGES = [
  { value: "outside", label: "The cutter itself" },
  { value: "inside", label: "A line around it" },
  { value: "middle", label: "A line along it" },
] as const;
const NUDGE = 0.002;
const STEPS: Record<string, Corner> = { ArrowLeft: [-NUDGE, 0], ArrowRight: [NUDGE, 0], ArrowUp: [0, -NUDGE], ArrowDown: [0, NUDGE] };

const share = (v: number) => Math.min(1, Math.max(0, v));

export function PhotoCutter({ onAdded }: { onAdded(cutter: Cutter): void }) {
  const format = useFormat();
  const nameId = useId();
  const picture = useRef<SVGSVGElement>(null);
  const [photo, setPhoto] = useState<{ blob: Blob; url: string; width: number; height: number }>();
  const [corners, setCorners] = useState(START);
  const [paper, setPaper] = useState<PhotoQuery["paper"]>(format.ruler === "us" ? "letter" : "a4");
  const [edge, setEdge] = useState<PhotoQuery["edge"]>("outside");
  const [name, setName] = useState("");
  const [pair, setPair] = useState(false);
  const [unread, setUnread] = useState("");
  const find = useCutterPhoto();
  const add = useAddCutter();
  const found = find.data;

  const take = async (chosen: File) => {
    find.reset();
    setUnread("");
    try {
      const small = await smaller(chosen);
      if (photo) URL.revokeObjectURL(photo.url);
      setPhoto({ ...small, url: URL.createObjectURL(small.blob) });
      setCorners(START);
      if (!name) setName(chosen.name.replace(/\.\w+$/, ""));
    } catch {
      setUnread("The file is no picture that reads: a JPEG, PNG or WebP is needed.");
    }
  };
  const moved = (index: number, to: Corner) => {
    find.reset();
    setCorners((all) => all.map((c, i) => (i === index ? [share(to[0]), share(to[1])] : c)));
  };
  const drag = (index: number) => (e: PointerEvent<SVGElement>) => {
    const box = picture.current?.getBoundingClientRect();
    if (!box || !e.currentTarget.hasPointerCapture(e.pointerId)) return;
    moved(index, [(e.clientX - box.left) / box.width, (e.clientY - box.top) / box.height]);
  };
  const key = (index: number, at: Corner) => (e: KeyboardEvent) => {
    const by = STEPS[e.key];
    if (!by) return;
    e.preventDefault();
    const factor = e.shiftKey ? 10 : 1;
    moved(index, [at[0] + by[0] * factor, at[1] + by[1] * factor]);
  };
  const keep = async () => {
    if (!found) return;
    const outline_mm = found.on_paper_mm;
    const first = await add.mutateAsync({ kind: "outline", name, outline_mm, mirrored: false });
    if (pair) await add.mutateAsync({ kind: "outline", name: `${name.slice(0, 70)}, mirrored`, outline_mm, mirrored: true });
    onAdded(first);
  };
  return (
    <div className="space-y-4">
      {photo ? null : (
        <p>
          Lay the cutter flat on a sheet of paper, or draw around it with a soft pencil and take it away. Photograph the whole sheet from above, in even light.
        </p>
      )}
      <FileButton label="Photo of the cutter" accept="image/jpeg,image/png,image/webp" onFile={(f) => void take(f)}>
        {photo ? "Another photo" : "Choose a photo"}
      </FileButton>
      <Fault text={unread} />
      {photo && !found ? (
        <>
          <p className="text-soft">Drag the four handles to the paper’s corners, going round.</p>
          <svg ref={picture} viewBox={`0 0 ${photo.width} ${photo.height}`} className="mx-auto block w-full touch-none rounded-lg" style={{ maxWidth: `calc(58dvh * ${photo.width / photo.height})` }} role="group" aria-label="The photo, with four handles for the corners of the paper">
            <image href={photo.url} width={photo.width} height={photo.height} />
            <path d={`M${corners.map(([x, y]) => `${x * photo.width} ${y * photo.height}`).join("L")}Z`} className="fill-none stroke-spruce" strokeWidth={photo.width / 160} />
            {corners.map((c, i) => (
              <circle
                key={i}
                cx={c[0] * photo.width}
                cy={c[1] * photo.height}
                r={photo.width / 24}
                className="cursor-grab fill-butter/60 stroke-spruce"
                strokeWidth={photo.width / 160}
                tabIndex={0}
                role="slider"
                aria-label={`Corner ${i + 1}`}
                aria-valuenow={Math.round(c[0] * 100)}
                aria-valuetext={`${Math.round(c[0] * 100)} % across, ${Math.round(c[1] * 100)} % down`}
                onPointerDown={(e) => e.currentTarget.setPointerCapture(e.pointerId)}
                onPointerMove={drag(i)}
                onKeyDown={key(i, c)}
              />
            ))}
          </svg>
          <Choice label="Paper" value={paper} options={PAPERS} onChange={(p) => setPaper(p)} />
          <Choice label="What is to be followed" value={edge} options={EDGES} onChange={(e) => setEdge(e)} />
          <Fault text={faultOf(find.error, "photo") ?? faultOf(find.error, "corners") ?? faultOf(find.error, "edge") ?? otherFault(find.error, ["photo", "corners", "edge"])} />
          <button type="button" className="btn btn-main" disabled={find.isPending} onClick={() => find.mutate({ photo: photo.blob, query: { paper, edge, corners: corners.flat().map((v) => v.toFixed(5)).join(",") } })}>
            {find.isPending ? "Looking" : "Find the outline"}
          </button>
        </>
      ) : null}
      {found ? (
        <>
          <Found found={found} />
          <p>
            <span className="answer block text-2xl">{`${format.length(found.width_mm)} × ${format.length(found.height_mm)}`}</span>
            <span className="text-soft">Measure the cutter. If it is more than a millimetre off, lay the corners again.</span>
          </p>
          {found.warning ? <p className="caution"><Says of={found.warning} /></p> : null}
          <div>
            <label htmlFor={nameId} className="mb-1 block text-fine text-soft">Name</label>
            <input id={nameId} className="field" value={name} maxLength={80} autoComplete="off" onChange={(e) => setName(e.target.value)} />
            <Fault text={faultOf(add.error, "name") ?? otherFault(add.error, ["name"])} />
          </div>
          <label className="flex min-h-11 items-center gap-3">
            <input type="checkbox" className="size-5" checked={pair} onChange={(e) => setPair(e.target.checked)} />
            Put its mirror image on the shelf as well
          </label>
          <div className="flex flex-wrap gap-2">
            <button type="button" className="btn btn-main" disabled={add.isPending} onClick={() => void keep().catch(() => undefined)}>Add it</button>
            <button type="button" className="btn" onClick={() => find.reset()}>Lay the corners again</button>
          </div>
        </>
      ) : null}
    </div>
  );
}

/** The paper from straight above with the outline found on it. */
function Found({ found }: { found: PhotoFound }) {
  const format = useFormat();
  const scale = 440 / found.paper_width_mm;
  const [w, h] = [found.paper_width_mm * scale, found.paper_height_mm * scale];
  return (
    <svg viewBox={`-46 -38 ${w + 52} ${h + 44}`} className="mx-auto block w-full" style={{ maxWidth: `calc(50dvh * ${w / h})` }} role="img" aria-label={`The outline found on the paper: ${format.length(found.width_mm)} by ${format.length(found.height_mm)}`}>
      <Ruler width_mm={found.paper_width_mm} height_mm={found.paper_height_mm} scale={scale} system={format.ruler} />
      <image href={found.picture} width={w} height={h} preserveAspectRatio="none" />
      <rect width={w} height={h} className="fill-none stroke-edge" />
      <path d={outlinePath(found.on_paper_mm.map(([x = 0, y = 0]) => [x * scale, y * scale]))} className="fill-cut/50 stroke-warm" strokeWidth="2.2" strokeLinejoin="round" />
    </svg>
  );
}
