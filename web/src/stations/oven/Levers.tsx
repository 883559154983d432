/** What each lever would change, as small bars around the bake as it is planned; up to three choices side by side. */
import { useState } from "react";
import type { Plan } from "../../api/client";
import { useLevers, type Lever } from "../../api/levers";
import { useJobContext } from "../../app/JobFrame";
import { cutterPath } from "../../drawing/path";
import { say } from "../../drawing/sentence";
import { number, type Format } from "../../drawing/units";
import { Fault, otherFault } from "../../kit/Fault";
import { Why } from "../../kit/Fold";
import { Part, StationHead, TicketBox, Work } from "../../kit/Ticket";
import { useFormat } from "../../kit/settings";
import { OvenNav } from "./OvenNav";

const GROUPS: readonly { key: Lever["group"]; name: string }[] = [
  { key: "cold", name: "Temperature going in" },
  { key: "oven", name: "Oven and tray" },
  { key: "shape", name: "Size" },
  { key: "dough", name: "Dough" },
];
const MOST_PINNED = 3;
const LETTERS = "ABC";

/** What a lever changes; nothing where that is within the forecast's own steps. */
interface Change {
  spread: number | null;
  time: number | null;
  colour: number | null;
}

const changeOf = (l: Lever): Change | undefined =>
  l.bake_min == null || l.spread_percent == null || l.rim_at_same_time == null
    ? undefined
    : {
        spread: l.spread_change_percent ?? null,
        time: l.bake_change_min ?? null,
        colour: l.rim_change ?? null,
      };

export function Levers() {
  const { job, plan, dim } = useJobContext();
  const { forecast } = plan.oven;
  const key = forecast ? JSON.stringify([job.revision, plan.oven.oven_c, forecast]) : undefined;
  const board = useLevers(job.id, key);
  const [pinned, setPinned] = useState<readonly string[]>([]);
  const format = useFormat();
  if (!forecast) return <Nothing />;
  const changes = board.levers.map(changeOf).filter((c) => c !== undefined);
  const most = {
    spread: Math.max(2, ...changes.map((c) => Math.abs(c.spread ?? 0))),
    time: Math.max(1, ...changes.map((c) => Math.abs(c.time ?? 0))),
    colour: Math.max(8, ...changes.map((c) => Math.abs(c.colour ?? 0))),
  };
  const toggle = (name: string) =>
    setPinned((p) =>
      p.includes(name) ? p.filter((n) => n !== name) : p.length < MOST_PINNED ? [...p, name] : p,
    );
  const chosen = pinned
    .map((name) => board.levers.find((l) => l.name.text === name))
    .filter((l) => l !== undefined);
  return (
    <>
      <Work dim={dim}>
        <StationHead
          title="What changes the bake"
          sub={
            board.done
              ? `${board.levers.length} changes, one step each`
              : `${board.levers.length} of ${board.of || "…"} worked out`
          }
        />
        <OvenNav jobId={job.id} />
        <Fault text={otherFault(board.trouble, [])} />
        <table className="w-full border-collapse" aria-label="Changes and what they do">
          <thead>
            <tr className="text-left text-fine text-soft">
              <th className="py-1 font-semibold">Change</th>
              <th className="w-[24%] font-semibold">Growth all around</th>
              <th className="w-[20%] font-semibold">Time</th>
              <th className="w-[20%] font-semibold">Color, same time</th>
            </tr>
          </thead>
          {GROUPS.map((g) => {
            const rows = board.levers.filter((l) => l.group === g.key);
            return rows.length === 0 ? null : (
              <tbody key={g.key}>
                <tr>
                  <th colSpan={4} scope="rowgroup" className="pb-1 pt-3 text-left font-head text-lg">
                    {g.name}
                  </th>
                </tr>
                {rows.map((l) => {
                  const c = changeOf(l);
                  const pin = pinned.indexOf(l.name.text);
                  return (
                    <tr key={l.number} className="border-t border-rule">
                      <td className="py-1 pr-2">
                        <button
                          type="button"
                          className="flex min-h-11 w-full items-center gap-2 text-left"
                          aria-pressed={pin >= 0}
                          onClick={() => toggle(l.name.text)}
                          disabled={!c}
                        >
                          <span
                            className={`grid size-6 shrink-0 place-items-center rounded-full border text-sm font-bold ${pin >= 0 ? "border-ink bg-ink text-worktop" : "border-edge text-soft"}`}
                          >
                            {pin >= 0 ? LETTERS[pin] : ""}
                          </span>
                          {say(l.name, format)}
                        </button>
                      </td>
                      {c ? (
                        <>
                          <td>
                            <Bar
                              value={c.spread}
                              most={most.spread}
                              text={grows(l.growth_change_mm ?? 0, format)}
                            />
                          </td>
                          <td>
                            <Bar
                              value={c.time}
                              most={most.time}
                              text={`${signed(c.time ?? 0, 1)}\u00a0min`}
                            />
                          </td>
                          <td>
                            <Bar
                              value={c.colour}
                              most={most.colour}
                              text={(c.colour ?? 0) > 0 ? "darker" : "paler"}
                              {...(l.rim_screen ? { fill: l.rim_screen } : {})}
                            />
                          </td>
                        </>
                      ) : (
                        <td colSpan={3} className="text-fine text-soft">
                          no forecast
                        </td>
                      )}
                    </tr>
                  );
                })}
              </tbody>
            );
          })}
        </table>
      </Work>
      <TicketBox>
        <Part title="As planned">
          <p className="answer">{number(forecast.bake_min, 1)}&nbsp;min</p>
          <p className="mt-1 text-soft">{`Grows ${format.length(Math.round(forecast.growth_mm * 10) / 10)} all around (${number(forecast.across_percent, 1)}%), ${format.length(Math.round(forecast.thickness_mm * 10) / 10)} thick`}</p>
        </Part>
        <Part title="Side by side">
          {chosen.length === 0 ? (
            <p className="text-fine text-soft">Pin up to three changes to compare them.</p>
          ) : null}
          <Beside
            plan={plan}
            name="As planned"
            growth_mm={forecast.growth_mm}
            bake_min={forecast.bake_min}
            rim={forecast.rim_screen}
          />
          {chosen.map((l, i) => (
            <Beside
              key={l.name.text}
              plan={plan}
              name={`${LETTERS[i]}: ${say(l.name, format)}`}
              growth_mm={l.growth_mm ?? 0}
              bake_min={l.bake_min ?? 0}
              rim={l.rim_screen ?? forecast.rim_screen}
            />
          ))}
          <p className="mt-2 text-fine text-soft">Dashed: cut size. Colors at the planned time.</p>
        </Part>
        <Why
          name="levers"
          part
          items={[
            "Each bar changes one thing by one step and bakes until done.",
            "Changes don’t simply add up. Make one, then look again.",
          ]}
        />
      </TicketBox>
    </>
  );
}

function Nothing() {
  const { job, dim } = useJobContext();
  return (
    <Work dim={dim}>
      <StationHead title="What changes the bake" />
      <OvenNav jobId={job.id} />
      <p className="max-w-xl text-lg">
        No forecast for this bake, so nothing to compare. See Forecast for what’s out of range.
      </p>
    </Work>
  );
}

/** More or less growth, in the units shown; what no ruler shows is told in words. */
const grows = (mm: number, format: Format): string =>
  Math.abs(mm) < 0.05
    ? `slightly ${mm < 0 ? "less" : "more"}`
    : `${mm < 0 ? "\u2212" : "+"}${format.length(Math.abs(mm))}`;

function signed(v: number, places: number): string {
  const size = Math.round(Math.abs(v) * 10 ** places) / 10 ** places;
  return `${size === 0 ? "" : v > 0 ? "+" : "−"}${number(size, places)}`;
}

/** A bar to the left for less, to the right for more. */
function Bar({
  value,
  most,
  text,
  fill,
}: {
  value: number | null;
  most: number;
  text: string;
  fill?: string;
}) {
  // Beyond the forecast's own steps, and too little for the figure's last place.
  if (value === null || text.startsWith("0 "))
    return <span className="block py-1 text-[0.8125rem] text-soft">no change</span>;
  const half = Math.min(1, Math.abs(value) / most) * 50;
  return (
    <span className="block py-1 pr-3">
      <span className="relative block h-3 rounded-sm bg-stone-2" aria-hidden="true">
        <span className="absolute inset-y-0 left-1/2 w-px bg-edge" />
        <span
          className={`absolute inset-y-0 rounded-sm ${fill ? "border border-edge" : value >= 0 ? "bg-butter-deep" : "bg-spruce"}`}
          style={{ left: `${value >= 0 ? 50 : 50 - half}%`, width: `${half}%`, background: fill }}
        />
      </span>
      <span className="num text-[0.8125rem] text-soft">{text}</span>
    </span>
  );
}

function Beside({
  plan,
  name,
  growth_mm,
  bake_min,
  rim,
}: {
  plan: Plan;
  name: string;
  growth_mm: number;
  bake_min: number;
  rim: string;
}) {
  const format = useFormat();
  const { cutter } = plan;
  const path = cutterPath(cutter);
  const room = 26;
  const [w, h] = [cutter.width_mm + room, cutter.height_mm + room];
  const g = Math.max(0, growth_mm);
  return (
    <figure className="mb-2 flex items-center gap-3">
      <svg
        viewBox={`${-w / 2} ${-h / 2} ${w} ${h}`}
        width="104"
        height={(104 * h) / w}
        role="img"
        aria-label={`${name}: grows ${format.length(Math.round(g * 10) / 10)} all around`}
        className="shrink-0"
      >
        <path d={path} fill={rim} stroke={rim} strokeWidth={2 * g} strokeLinejoin="round" />
        <path
          d={path}
          fill="none"
          className="stroke-ink"
          strokeWidth={w / 110}
          strokeDasharray={`${w / 26} ${w / 34}`}
        />
      </svg>
      <figcaption className="min-w-0 text-fine">
        <strong className="block">{name}</strong>
        {`${number(bake_min, 1)}\u00a0min, grows ${format.length(Math.round(g * 10) / 10)}`}
      </figcaption>
    </figure>
  );
}
