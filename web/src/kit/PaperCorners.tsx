/** A photo with four handles that are laid on the corners of the paper in it. */
import { useRef, type KeyboardEvent, type PointerEvent } from "react";

export type Corner = readonly [number, number];
export const START: readonly Corner[] = [
  [0.12, 0.12],
  [0.88, 0.12],
  [0.88, 0.88],
  [0.12, 0.88],
];
export const PAPERS = [
  { value: "a4", label: "A4" },
  { value: "letter", label: "Letter" },
] as const;
const NUDGE = 0.002;
const STEPS: Record<string, Corner> = {
  ArrowLeft: [-NUDGE, 0],
  ArrowRight: [NUDGE, 0],
  ArrowUp: [0, -NUDGE],
  ArrowDown: [0, NUDGE],
};

const share = (v: number) => Math.min(1, Math.max(0, v));

/** As the server reads them. */
export const cornersQuery = (corners: readonly Corner[]): string =>
  corners
    .flat()
    .map((v) => v.toFixed(5))
    .join(",");

export function PaperCorners({
  photo,
  corners,
  onMove,
}: {
  photo: { url: string; width: number; height: number };
  corners: readonly Corner[];
  onMove(index: number, to: Corner): void;
}) {
  const picture = useRef<SVGSVGElement>(null);
  const moved = (index: number, [x, y]: Corner) => onMove(index, [share(x), share(y)]);
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
  return (
    <svg
      ref={picture}
      viewBox={`0 0 ${photo.width} ${photo.height}`}
      className="mx-auto block w-full touch-none rounded-lg"
      style={{ maxWidth: `calc(58dvh * ${photo.width / photo.height})` }}
      role="group"
      aria-label="The photo, with four handles for the corners of the paper"
    >
      <image href={photo.url} width={photo.width} height={photo.height} />
      <path
        d={`M${corners.map(([x, y]) => `${x * photo.width} ${y * photo.height}`).join("L")}Z`}
        className="fill-none stroke-spruce"
        strokeWidth={photo.width / 160}
      />
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
          aria-valuetext={`${Math.round(c[0] * 100)}% across, ${Math.round(c[1] * 100)}% down`}
          onPointerDown={(e) => e.currentTarget.setPointerCapture(e.pointerId)}
          onPointerMove={drag(i)}
          onKeyDown={key(i, c)}
        />
      ))}
    </svg>
  );
}
