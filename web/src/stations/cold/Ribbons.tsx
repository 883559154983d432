/** Ways to chill one dough, each as a ribbon over the clock, from a minute to a night. One is chosen to be looked at. */
import { say } from "../../drawing/sentence";
import type { KeyboardEvent, RefObject } from "react";
import type { Way } from "../../api/client";
import { nightScale } from "../../drawing/scale";
import { clock, duration, shifted } from "../../drawing/time";
import { usePictureWidth } from "../../kit/narrow";
import { useFormat } from "../../kit/settings";
import { formWords } from "./words";

const LEFT = 12;
const HEAD = 32;
const ROW = 60;
const RIBBON = 26;
/** Shown so long. */
const END_MIN = 16 * 60;
const LETTER = 7.3;

const LOOK = {
  too_warm: { fill: "fill-warm-pale", word: "fill-warm" },
  ready: { fill: "fill-butter", word: "on-butter" },
  too_cold: { fill: "fill-cold-pale", word: "fill-cold" },
} as const;

export function Ribbons({
  picture,
  ways,
  night,
  inAt,
  chosen,
  onChoose,
}: {
  picture: RefObject<SVGSVGElement | null>;
  ways: readonly Way[];
  /** What people call overnight, min. */
  night: readonly number[];
  inAt: string;
  chosen: string | undefined;
  onChoose(key: string): void;
}) {
  const format = useFormat();
  const [dusk = 0, dawn = 0] = night;
  const width = usePictureWidth();
  const right = width - 14;
  const x = nightScale(END_MIN, [LEFT, right]);
  const ticks = width > 500 ? [0, 5, 15, 30, 60, 120, 240, 480, 960] : [0, 15, 60, 240, 960];
  const height = HEAD + ways.length * ROW + 34;
  const at = ways.findIndex((w) => w.key === chosen);
  const onKey = (e: KeyboardEvent, i: number) => {
    const step =
      e.key === "ArrowDown" || e.key === "ArrowRight"
        ? 1
        : e.key === "ArrowUp" || e.key === "ArrowLeft"
          ? -1
          : 0;
    const next =
      e.key === "Enter" || e.key === " "
        ? ways[i]
        : step === 0
          ? undefined
          : ways[(i + step + ways.length) % ways.length];
    if (!next) return;
    e.preventDefault();
    onChoose(next.key);
    const rows = e.currentTarget.parentElement?.querySelectorAll<SVGGElement>("[role=radio]");
    rows?.[ways.indexOf(next)]?.focus();
  };
  return (
    <svg
      ref={picture}
      viewBox={`0 0 ${width} ${height}`}
      className="w-full"
      role="radiogroup"
      aria-label="Ways to chill the dough; pick one to look inside"
    >
      <path d={`M${x(dusk)} ${HEAD - 3}v-5H${x(dawn)}v5`} fill="none" className="stroke-edge" />
      <text x={(x(dusk) + x(dawn)) / 2} y={HEAD - 13} textAnchor="middle" fontSize="14" className="soft">
        overnight
      </text>
      {ticks.slice(1).map((t) => (
        <path
          key={t}
          d={`M${x(t)} ${HEAD - 4}V${HEAD + ways.length * ROW + 4}`}
          className="stroke-rule"
          strokeWidth="0.8"
          strokeDasharray="2 5"
        />
      ))}
      {ways.map((w, i) => {
        const top = HEAD + i * ROW;
        const r = w.ready_after_min;
        const form = formWords(w.piece, format);
        const name = w.count > 1 ? `${w.count} × ${form}` : `${form.charAt(0).toUpperCase()}${form.slice(1)}`;
        const when =
          w.told == null
            ? "never"
            : `${clock(shifted(inAt, w.told.ready_min))}, after ${duration(w.told.ready_min)}`;
        const past = w.past_after_min;
        return (
          <g
            key={w.key}
            role="radio"
            aria-checked={w.key === chosen}
            aria-label={`${name}, ${w.place}: ${r == null ? say(w.never ?? "never ready", format) : `ready ${when}${past == null ? "" : `, too cold after ${duration(past)}`}`}`}
            tabIndex={i === Math.max(0, at) ? 0 : -1}
            onClick={() => onChoose(w.key)}
            onKeyDown={(e) => onKey(e, i)}
            className="cursor-pointer"
          >
            <rect
              x="2"
              y={top - 2}
              width={width - 4}
              height={ROW - 4}
              rx="9"
              className={w.key === chosen ? "fill-pale stroke-ink" : "fill-transparent"}
              strokeWidth="1.8"
            />
            <text
              x={LEFT}
              y={top + 17}
              fontSize="15.5"
              fontWeight="600"
              className={w.key === chosen ? "fill-on-pale" : ""}
            >
              {name}
              <tspan
                fontWeight="400"
                className={w.key === chosen ? "fill-on-pale" : "soft"}
              >{`  ${w.place}${w.chosen ? ", your plan" : ""}`}</tspan>
            </text>
            <text
              x={right}
              y={top + 17}
              textAnchor="end"
              fontSize="15.5"
              fontWeight="600"
              className={w.key === chosen ? "fill-on-pale" : ""}
            >
              {when}
            </text>
            <g aria-hidden="true">
              {w.spells.map((s) => {
                const [from, to] = [x(s.from_min), s.to_min == null ? right : x(s.to_min)];
                if (to - from < 0.5) return null;
                const rest =
                  s.side === "too_cold" && w.after_night_min != null ? restWords(w.after_night_min) : "";
                const word = [`${s.word}${rest}`, s.word].find((t) => t.length * LETTER < to - from - 12);
                return (
                  <g key={s.from_min}>
                    <rect
                      x={from}
                      y={top + 24}
                      width={to - from}
                      height={RIBBON}
                      className={`${LOOK[s.side].fill} slides`}
                      stroke="var(--c-worktop)"
                      strokeWidth="1.5"
                    />
                    {word ? (
                      <text
                        x={from + 7}
                        y={top + 24 + RIBBON / 2 + 5}
                        fontSize="14"
                        className={LOOK[s.side].word}
                      >
                        {word}
                      </text>
                    ) : null}
                  </g>
                );
              })}
            </g>
          </g>
        );
      })}
      {ticks.map((t) => (
        <text
          key={t}
          x={x(t)}
          y={HEAD + ways.length * ROW + 20}
          textAnchor={t === 0 ? "start" : t === END_MIN ? "end" : "middle"}
          fontSize="14"
          className="num soft"
          aria-hidden="true"
        >
          {t === 0 ? clock(inAt) : t < 60 ? `+${t}\u00a0min` : `+${t / 60}\u00a0h`}
        </text>
      ))}
    </svg>
  );
}

function restWords(minutes: number): string {
  return minutes < 0.5
    ? "; overnight: roll right away"
    : `; overnight: soften ${duration(Math.max(1, minutes))}`;
}
