/** One sheet with its pieces, to scale; a piece is dragged to move it and its knob is dragged to turn it. */
import { useRef, type PointerEvent, type RefObject } from "react";
import type { Cutter } from "../../api/client";
import { Ruler } from "../../drawing/Ruler";
import { cutterPath, outlinePath } from "../../drawing/path";
import { usePictureWidth } from "../../kit/narrow";
import { useFormat } from "../../kit/settings";
import { atFault, type Board } from "./board";

interface Props {
  picture: RefObject<SVGSVGElement | null>;
  /** Of the job, and of the lots after it where several lie on the sheet. */
  cutters: readonly [Cutter, ...Cutter[]];
  board: Board;
  width_mm: number;
  length_mm: number;
  /** Where the sheet may end, when not all of it is used. */
  used_mm?: number | undefined;
  /** Its form where it is a sheet. */
  form?: "oblong" | "round" | "oval";
  /** A tray is drawn as metal, and its pieces are not counted in the order of cutting. */
  tray?: boolean;
  /** The piece as baked, drawn under it. */
  after?: readonly (readonly number[])[] | undefined;
  chosen: number | undefined;
  turnable: boolean;
  onChoose(index: number): void;
  onDrag(index: number, to: { x_mm?: number; y_mm?: number; turn_deg?: number }): void;
  onDrop(): void;
}

export function NestDrawing({
  picture,
  cutters,
  board,
  width_mm,
  length_mm,
  used_mm,
  form = "oblong",
  tray = false,
  after,
  chosen,
  turnable,
  onChoose,
  onDrag,
  onDrop,
}: Props) {
  const format = useFormat();
  const width = usePictureWidth();
  const scale = Math.min((width - 64) / length_mm, 400 / width_mm);
  const [w, h] = [length_mm * scale, width_mm * scale];
  const paths = cutters.map(cutterPath);
  const knobs = cutters.map((c) => Math.max(c.width_mm, c.height_mm) / 2);
  const smallest = Math.min(...knobs);
  const from = useRef<{ x: number; y: number; x_mm: number; y_mm: number; turning: boolean } | undefined>(
    undefined,
  );

  /** The pointer on the sheet, in its millimetres: its length lies across the page. */
  const onSheet = (e: PointerEvent): { x: number; y: number } => {
    const at = picture.current?.getScreenCTM();
    if (!at) return { x: 0, y: 0 };
    const p = new DOMPoint(e.clientX, e.clientY).matrixTransform(at.inverse());
    return { x: width_mm - p.y / scale, y: p.x / scale };
  };
  const start = (index: number, turning: boolean) => (e: PointerEvent<SVGElement>) => {
    const piece = board.pieces[index];
    if (!piece) return;
    e.currentTarget.setPointerCapture(e.pointerId);
    e.stopPropagation();
    from.current = { ...onSheet(e), x_mm: piece.x_mm, y_mm: piece.y_mm, turning };
    onChoose(index);
  };
  const go = (index: number) => (e: PointerEvent<SVGElement>) => {
    const begun = from.current;
    if (!begun) return;
    const now = onSheet(e);
    if (begun.turning) {
      // The knob lies across the page from the piece's middle, which is along the sheet.
      onDrag(index, { turn_deg: (Math.atan2(now.y - begun.y_mm, now.x - begun.x_mm) * 180) / Math.PI });
    } else if (Math.hypot(now.x - begun.x, now.y - begun.y) > 0.5) {
      onDrag(index, { x_mm: begun.x_mm + now.x - begun.x, y_mm: begun.y_mm + now.y - begun.y });
    }
  };
  const end = () => {
    if (from.current) onDrop();
    from.current = undefined;
  };
  const order = board.pieces.map((_, i) => i).toSorted((a, b) => Number(a === chosen) - Number(b === chosen));
  const faulty = board.pieces.filter((_, i) => atFault(board, i)).length;
  return (
    <svg
      ref={picture}
      viewBox={`-50 -40 ${width} ${h + 56}`}
      className="w-full touch-pan-y select-none"
      role="img"
      aria-labelledby="nest-title nest-desc"
    >
      <title id="nest-title">{`A ${tray ? "tray" : "sheet"} of ${cutters.map((c) => c.name).join(", ")}, to scale`}</title>
      <desc id="nest-desc">
        {`${board.pieces.length} cookies on ${format.length(width_mm)} by ${format.length(length_mm)}, ${board.pieces.filter((p) => p.held).length} locked${faulty ? `, ${faulty} too close to another or in the margin` : ""}`}
      </desc>
      <defs>
        <pattern
          id="nest-scrap"
          width="7"
          height="7"
          patternUnits="userSpaceOnUse"
          patternTransform="rotate(45)"
        >
          <path d="M0 0v7" className="stroke-cut-line" strokeWidth="0.7" opacity="0.3" />
        </pattern>
        <pattern
          id="nest-fault"
          width="6"
          height="6"
          patternUnits="userSpaceOnUse"
          patternTransform="rotate(-45)"
        >
          <path d="M0 0v6" className="stroke-warm" strokeWidth="2.4" opacity="0.55" />
        </pattern>
      </defs>
      <Ruler width_mm={length_mm} height_mm={width_mm} scale={scale} system={format.ruler} />
      {tray ? (
        <>
          <rect
            x="-6"
            y="-4"
            width={w + 12}
            height={h + 8}
            rx="14"
            className="fill-stone-2 stroke-edge"
            strokeWidth="1.6"
          />
          <rect width={w} height={h} rx="6" className="fill-raised stroke-rule" />
        </>
      ) : (
        <>
          <Dough form={form} w={w} h={h} className="fill-dough stroke-cut-line" />
          <Dough form={form} w={w} h={h} fill="url(#nest-scrap)" />
        </>
      )}
      {after
        ? board.pieces.map((p, i) => (
            <path
              key={i}
              d={outlinePath(after)}
              transform={`translate(${p.y_mm * scale} ${(width_mm - p.x_mm) * scale}) rotate(${p.turn_deg - 90}) scale(${scale})`}
              className="fill-pale stroke-butter-deep"
              strokeWidth={1.2 / scale}
              strokeLinejoin="round"
            />
          ))
        : null}
      {order.map((i) => {
        const p = board.pieces[i];
        if (!p) return null;
        const fault = atFault(board, i);
        const path = paths[p.cutter ?? 0] ?? "";
        const knob = knobs[p.cutter ?? 0] ?? 0;
        const on = i === chosen;
        return (
          <g
            key={i}
            className={on ? undefined : "slides"}
            transform={`translate(${p.y_mm * scale} ${(width_mm - p.x_mm) * scale}) rotate(${p.turn_deg - 90}) scale(${scale})`}
            data-piece={i + 1}
          >
            <path
              d={path}
              className={`cursor-grab touch-none ${p.held ? "fill-held" : "fill-cut"} ${fault ? "stroke-warm" : on ? "stroke-ink" : "stroke-cut-line"}`}
              strokeWidth={(on || fault ? 2.6 : 1.3) / scale}
              strokeLinejoin="round"
              onPointerDown={start(i, false)}
              onPointerMove={go(i)}
              onPointerUp={end}
              onPointerCancel={end}
            />
            {fault ? <path d={path} fill="url(#nest-fault)" pointerEvents="none" /> : null}
            {p.held ? <circle r={3.4 / scale} className="fill-ink" pointerEvents="none" /> : null}
            {on && turnable ? (
              <g>
                <path
                  d={`M0 0H${knob}`}
                  className="stroke-ink"
                  strokeWidth={1.2 / scale}
                  strokeDasharray={`${3 / scale}`}
                  pointerEvents="none"
                />
                <circle
                  cx={knob}
                  r={9 / scale}
                  className="cursor-grab touch-none fill-worktop stroke-ink"
                  strokeWidth={2 / scale}
                  onPointerDown={start(i, true)}
                  onPointerMove={go(i)}
                  onPointerUp={end}
                  onPointerCancel={end}
                />
              </g>
            ) : null}
          </g>
        );
      })}
      <g
        className="num"
        fontSize={Math.min(13, smallest * scale * 0.55)}
        textAnchor="middle"
        pointerEvents="none"
        aria-hidden="true"
      >
        {(tray ? [] : board.pieces).map((p, i) => (
          <text
            key={i}
            x={p.y_mm * scale}
            y={(width_mm - p.x_mm) * scale + 4}
            className="on-cut"
            opacity={p.held ? 0 : 1}
          >
            {i + 1}
          </text>
        ))}
      </g>
      {used_mm !== undefined && used_mm < length_mm - 0.5 ? (
        <path
          d={`M${used_mm * scale} -4v${h + 8}`}
          className="stroke-ink"
          strokeWidth="1.6"
          strokeDasharray="7 4"
        />
      ) : null}
    </svg>
  );
}

/** The dough from above. */
export function Dough({
  form,
  w,
  h,
  className,
  fill,
}: {
  form: "oblong" | "round" | "oval";
  w: number;
  h: number;
  className?: string;
  fill?: string;
}) {
  return form === "oblong" ? (
    <rect width={w} height={h} rx="9" className={className} fill={fill} strokeWidth="1.4" />
  ) : (
    <ellipse
      cx={w / 2}
      cy={h / 2}
      rx={w / 2}
      ry={h / 2}
      className={className}
      fill={fill}
      strokeWidth="1.4"
    />
  );
}
