/** A cutter read from a photo: four corners are laid on the paper's, what was found is shown over the paper, and approved. */
import { Says } from "../../kit/Says";
import { useId, useState } from "react";
import type { Cutter, PhotoFound, PhotoQuery } from "../../api/client";
import { useAddCutter, useCutterPhoto } from "../../api/queries";
import { Ruler } from "../../drawing/Ruler";
import { outlinePath } from "../../drawing/path";
import { Choice } from "../../kit/Choice";
import { FileButton } from "../../kit/FileButton";
import { PAPERS, PaperCorners, START, cornersQuery, type Corner } from "../../kit/PaperCorners";
import { Fault, faultOf, otherFault } from "../../kit/Fault";
import { useFormat } from "../../kit/settings";
import { smaller } from "./photo";

const EDGES = [
  { value: "outside", label: "Cutter" },
  { value: "inside", label: "Line traced around it" },
  { value: "middle", label: "Line drawn on its edge" },
] as const;

export function PhotoCutter({ onAdded }: { onAdded(cutter: Cutter): void }) {
  const format = useFormat();
  const nameId = useId();
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
      setUnread("Can’t read that file. Use a JPEG, PNG or WebP photo.");
    }
  };
  const moved = (index: number, to: Corner) => {
    find.reset();
    setCorners((all) => all.map((c, i) => (i === index ? to : c)));
  };
  const keep = async () => {
    if (!found) return;
    const outline_mm = found.on_paper_mm;
    const first = await add.mutateAsync({ kind: "outline", name, outline_mm, mirrored: false });
    if (pair)
      await add.mutateAsync({
        kind: "outline",
        name: `${name.slice(0, 70)}, mirrored`,
        outline_mm,
        mirrored: true,
      });
    onAdded(first);
  };
  return (
    <div className="space-y-4">
      {photo ? null : (
        <p>
          Lay the cutter flat on a sheet of paper, or trace it in soft pencil. Photograph the whole sheet from
          above, in even light.
        </p>
      )}
      <FileButton
        label="Photo of the cutter"
        accept="image/jpeg,image/png,image/webp"
        onFile={(f) => void take(f)}
      >
        {photo ? "Choose another photo" : "Choose a photo"}
      </FileButton>
      <Fault text={unread} />
      {photo && !found ? (
        <>
          <p className="text-soft">Drag the four handles to the paper’s corners, in order.</p>
          <PaperCorners photo={photo} corners={corners} onMove={moved} />
          <Choice label="Paper" value={paper} options={PAPERS} onChange={(p) => setPaper(p)} />
          <Choice label="Outline of" value={edge} options={EDGES} onChange={(e) => setEdge(e)} />
          <Fault
            text={
              faultOf(find.error, "photo") ??
              faultOf(find.error, "corners") ??
              faultOf(find.error, "edge") ??
              otherFault(find.error, ["photo", "corners", "edge"])
            }
          />
          <button
            type="button"
            className="btn btn-main"
            disabled={find.isPending}
            onClick={() =>
              find.mutate({ photo: photo.blob, query: { paper, edge, corners: cornersQuery(corners) } })
            }
          >
            {find.isPending ? "Looking…" : "Find the outline"}
          </button>
        </>
      ) : null}
      {found ? (
        <>
          <Found found={found} />
          <p>
            <span className="answer block text-2xl">{`${format.length(found.width_mm)} × ${format.length(found.height_mm)}`}</span>
            <span className="text-soft">Measure the cutter. If it’s off, set the corners again.</span>
          </p>
          {found.warning ? (
            <p className="caution">
              <Says of={found.warning} />
            </p>
          ) : null}
          <div>
            <label htmlFor={nameId} className="mb-1 block text-fine text-soft">
              Name
            </label>
            <input
              id={nameId}
              className="field"
              value={name}
              maxLength={80}
              autoComplete="off"
              onChange={(e) => setName(e.target.value)}
            />
            <Fault text={faultOf(add.error, "name") ?? otherFault(add.error, ["name"])} />
          </div>
          <label className="flex min-h-11 items-center gap-3">
            <input
              type="checkbox"
              className="size-5"
              checked={pair}
              onChange={(e) => setPair(e.target.checked)}
            />
            Add its mirror image too
          </label>
          <div className="flex flex-wrap gap-2">
            <button
              type="button"
              className="btn btn-main"
              disabled={add.isPending}
              onClick={() => void keep().catch(() => undefined)}
            >
              Add cutter
            </button>
            <button type="button" className="btn" onClick={() => find.reset()}>
              Set the corners again
            </button>
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
    <svg
      viewBox={`-46 -38 ${w + 52} ${h + 44}`}
      className="mx-auto block w-full"
      style={{ maxWidth: `calc(50dvh * ${w / h})` }}
      role="img"
      aria-label={`The outline found on the paper: ${format.length(found.width_mm)} by ${format.length(found.height_mm)}`}
    >
      <Ruler
        width_mm={found.paper_width_mm}
        height_mm={found.paper_height_mm}
        scale={scale}
        system={format.ruler}
      />
      <image href={found.picture} width={w} height={h} preserveAspectRatio="none" />
      <rect width={w} height={h} className="fill-none stroke-edge" />
      <path
        d={outlinePath(found.on_paper_mm.map(([x = 0, y = 0]) => [x * scale, y * scale]))}
        className="fill-cut/50 stroke-warm"
        strokeWidth="2.2"
        strokeLinejoin="round"
      />
    </svg>
  );
}
