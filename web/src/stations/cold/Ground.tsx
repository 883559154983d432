/** What temperature pictures stand on: the bands of the working temperatures with their words, and the degrees. */
import type { LivePiece, Window } from "../../api/client";
import { apart, DEGREE_STEPS, stepFor, stepped, type Scale } from "../../drawing/scale";
import { useFormat } from "../../kit/settings";

export const LEFT = 52;
export const TOP = 14;
export const BOTTOM = 292;

interface Band {
  from: number;
  to: number;
  fill: string;
  word: string;
}

/** The bands for what a piece is for, the warmest first. */
export function bandsOf(window: Window, purpose: LivePiece["purpose"]): Band[] {
  const slack = { from: window.tacky_to_c, to: 99, fill: "fill-slack", word: "too soft" };
  switch (purpose) {
    case "rolling":
      return [
        slack,
        { from: window.rolls_to_c, to: window.tacky_to_c, fill: "fill-warm-pale", word: "tacky" },
        { from: window.rolls_from_c, to: window.rolls_to_c, fill: "fill-pale", word: "rolls cleanly" },
        { from: -99, to: window.rolls_from_c, fill: "fill-cold-pale", word: "cracks when rolled" },
      ];
    case "slicing":
      return [
        { from: window.slices_to_c, to: 99, fill: "fill-warm-pale", word: "squashes when sliced" },
        { from: window.slices_from_c, to: window.slices_to_c, fill: "fill-pale", word: "slices cleanly" },
        { from: -99, to: window.slices_from_c, fill: "fill-cold-pale", word: "shatters" },
      ];
    case "oven":
      return [
        { from: window.oven_ready_c, to: 99, fill: "fill-warm-pale", word: "soft" },
        { from: -99, to: window.oven_ready_c, fill: "fill-pale", word: "firm" },
      ];
  }
}

/** The scale of degrees, its ends on whole ticks of the shown unit. */
export function useDegrees(low_c: number, high_c: number): { y: Scale; at: (c: number) => number } {
  const format = useFormat();
  const shown = (c: number) => format.shown("temperature", c);
  const [low, high] = [shown(low_c), shown(high_c)];
  const y = stepped(low, high, [BOTTOM, TOP], stepFor(high - low, 7, DEGREE_STEPS));
  return { y, at: (c) => y(shown(c)) };
}

export function Ground({
  bands,
  y,
  at,
  right,
}: {
  bands: readonly Band[];
  y: Scale;
  at: (c: number) => number;
  right: number;
}) {
  const clip = (c: number) => Math.min(BOTTOM, Math.max(TOP, at(c)));
  const visible = bands
    .map((b) => ({ ...b, top: clip(b.to), bottom: clip(b.from) }))
    .filter((b) => b.bottom - b.top > 4);
  const labels = apart(
    visible.map((b) => b.top + 20),
    20,
    TOP + 16,
    BOTTOM - 6,
  );
  return (
    <>
      {visible.map((b, i) => (
        <g key={b.word}>
          <rect x={LEFT} y={b.top} width={right - LEFT} height={b.bottom - b.top} className={b.fill} />
          <text x={right - 10} y={labels[i]} textAnchor="end" fontSize="15" className="soft">
            {b.word}
          </text>
        </g>
      ))}
      {y.ticks.map((t) => (
        <g key={t}>
          <path
            d={`M${LEFT} ${y(t)}h${right - LEFT}`}
            className="stroke-rule"
            strokeWidth="0.7"
            strokeDasharray="2 5"
          />
          <text x={LEFT - 9} y={y(t) + 5} textAnchor="end" fontSize="14.5" className="num soft">
            {`${t < 0 ? "\u2212" : ""}${Math.abs(t)}°`}
          </text>
        </g>
      ))}
    </>
  );
}

export function CurveKey({ readings = false }: { readings?: boolean }) {
  return (
    <p className="mt-1 flex flex-wrap gap-x-5 text-fine text-soft">
      <span>
        <svg width="34" height="8" aria-hidden="true" className="mr-1 inline-block">
          <path d="M0 4h34" className="stroke-ink" strokeWidth="3.2" />
        </svg>
        middle (warmest)
      </span>
      <span>
        <svg width="34" height="8" aria-hidden="true" className="mr-1 inline-block">
          <path
            d="M2 4h32"
            className="stroke-ink"
            strokeWidth="2.2"
            strokeDasharray="1.5 6"
            strokeLinecap="round"
          />
        </svg>
        average
      </span>
      <span>
        <svg width="34" height="8" aria-hidden="true" className="mr-1 inline-block">
          <path d="M0 4h34" className="stroke-spruce" strokeWidth="2.2" strokeDasharray="9 4" />
        </svg>
        how firm it feels
      </span>
      {readings ? (
        <>
          <span>
            <svg width="16" height="12" aria-hidden="true" className="mr-1 inline-block">
              <circle cx="8" cy="6" r="4" className="fill-raised stroke-spruce" strokeWidth="2" />
            </svg>
            reading
          </span>
          <span>
            <svg width="16" height="12" aria-hidden="true" className="mr-1 inline-block">
              <path d="M4 2l8 8M12 2l-8 8" className="stroke-warm" strokeWidth="2.2" />
            </svg>
            not counted
          </span>
          <span>
            <svg width="30" height="12" aria-hidden="true" className="mr-1 inline-block">
              <rect x="1" y="1" width="28" height="10" rx="5" className="fill-spruce" />
            </svg>
            ready, 9 times in 10
          </span>
        </>
      ) : null}
    </p>
  );
}
