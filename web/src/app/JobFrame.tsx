/** A job's counter: seven stations in the order of the work, each with its one live figure; below, the station itself. */
import { Suspense, useEffect, useRef } from "react";
import { NavLink, Outlet, useLocation, useOutletContext, useParams } from "react-router";
import { Refusal, type Job, type Plan } from "../api/client";
import { useJob, usePlan, useRecords } from "../api/queries";
import { LotTabs } from "./LotTabs";
import { useFamily, useTogether } from "./lots";
import { clock, dayClock, sameDay } from "../drawing/time";
import { say, sentence } from "../drawing/sentence";
import { number, type Format } from "../drawing/units";
import { told } from "../kit/Fault";
import { Live } from "../kit/Live";
import { Unread } from "../kit/Unread";
import { useFormat } from "../kit/settings";
import { setTitle } from "./alerts";
import { Missing } from "./Missing";
import { pieceWord } from "./pieceWord";
import { STATIONS, type StationKey } from "./stations";

export interface JobContext {
  job: Job;
  plan: Plan;
  /** The day of the job: that of all its lots. */
  day: Plan["clock"];
  /** The figures on the screen are older than the last change. */
  dim: boolean;
}

export const useJobContext = (): JobContext => useOutletContext<JobContext>();

/** Which station a field at fault belongs to, so that the way to mend it is one press. */
const FIELD_STATION: Record<string, StationKey> = {
  cutter: "order",
  pieces: "order",
  "making.width_mm": "shape",
  "making.height_mm": "shape",
  formula: "dough",
  chill_place: "cold",
  tray_chill_place: "cold",
};

export function JobFrame() {
  const id = Number(useParams().jobId);
  const job = useJob(id);
  const plan = usePlan(id > 0 ? id : 0);
  const records = useRecords(id);
  const together = useTogether(job.data, useFamily(job.data).length);
  const format = useFormat();
  useEffect(() => {
    setTitle(job.data ? `${job.data.name} · Ready Slab` : "Ready Slab");
    return () => setTitle("Ready Slab");
  }, [job.data]);
  const { pathname } = useLocation();
  if (!Number.isInteger(id) || id < 1 || (job.error instanceof Refusal && job.error.problem.status === 404))
    return <Missing />;
  if (!job.data) {
    return (
      <main id="work">
        <Unread of={[job]} />
      </main>
    );
  }
  const at = STATIONS.find((s) => pathname.split("/")[3] === s.key);
  // The day is that of all lots.
  const day = together.data?.clock ?? plan.data?.clock;
  const fault = plan.error instanceof Refusal ? plan.error.problem : undefined;
  return (
    <>
      <LotTabs job={job.data} />
      <Counter
        id={id}
        plan={plan.data}
        day={day}
        records={records.data?.length ?? 0}
        spread={records.data?.[0]?.spread_percent}
      />
      <main id="work" className="flex flex-1 flex-col overflow-hidden rounded-b-2xl bg-worktop">
        <h1 className="visually-hidden">{at ? `${at.name}: ${job.data.name}` : job.data.name}</h1>
        {fault ? (
          <div role="alert" className="m-5 rounded-xl bg-warm-pale p-4 text-warm">
            <p className="font-semibold">This job can’t be planned yet.</p>
            {fault.errors.length > 0 ? (
              fault.errors.map((e) => (
                <p key={e.field}>
                  {say(told(e), format)}{" "}
                  <NavLink to={FIELD_STATION[e.field] ?? "order"} className="font-semibold underline">
                    Change it
                  </NavLink>
                </p>
              ))
            ) : (
              <p>{sentence(fault.detail)}</p>
            )}
          </div>
        ) : null}
        {plan.data ? (
          <div className="grid flex-1 lg:grid-cols-[minmax(0,1fr)_22.5rem]">
            <Suspense
              fallback={
                <p className="p-6 text-soft" role="status">
                  Loading…
                </p>
              }
            >
              <Outlet
                context={
                  {
                    job: job.data,
                    plan: plan.data,
                    day: day ?? plan.data.clock,
                    dim: plan.isFetching || fault !== undefined,
                  } satisfies JobContext
                }
              />
            </Suspense>
          </div>
        ) : fault ? null : (
          <Unread of={[plan]} />
        )}
      </main>
    </>
  );
}

interface Figure {
  figure: string;
  under: string;
}

function figures(
  key: StationKey,
  plan: Plan,
  day: Plan["clock"],
  format: Format,
  records: number,
  spread: number | undefined,
): Figure {
  const { dough, cold, shape, oven } = plan;
  switch (key) {
    case "order":
      return {
        figure: `${dough.parts.filter((p) => p.part_use !== "other_job").reduce((n, p) => n + p.pieces, 0)} cookies`,
        under: dayClock(plan.ready_by),
      };
    case "dough":
      return {
        figure: format.bigMass(dough.dough_g),
        under: dough.mixes === 1 ? "1 batch" : `${dough.mixes} batches of ${format.mass(dough.mix_g)}`,
      };
    case "cold":
      if (cold.stays === "no")
        return { figure: "Not chilled", under: `${cold.out_as} at ${format.temperature(cold.out_c, 0)}` };
      return {
        figure:
          cold.stays === "exactly" || cold.stays === "overnight"
            ? `Out ${clock(cold.out_at)}`
            : `Ready ${clock(cold.ready_at)}`,
        under: `${pieceWord(plan, format)}, ${cold.place}`,
      };
    case "shape": {
      if (plan.making.kind !== "cut") {
        const count = shape.rolls[0]?.sheets ?? 0;
        return plan.making.kind === "sliced"
          ? {
              figure: count === 1 ? "1 log" : `${count} logs`,
              under: `${format.length(shape.thickness_mm)} slices`,
            }
          : {
              figure:
                plan.making.kind === "tray_bar"
                  ? count === 1
                    ? "1 pan"
                    : `${count} pans`
                  : `${count} portions`,
              under: `${format.mass(dough.piece_g)} each`,
            };
      }
      const sheets = shape.rolls.reduce((n, r) => n + r.sheets, 0);
      const first = shape.rolls[0]?.sheets ?? 0;
      return {
        figure: first === 1 ? "1 sheet" : `${first} sheets`,
        under: `${format.length(shape.thickness_mm)}, ${sheets > first ? `re-roll ${shape.rolls.length - 1 === 1 ? "once" : "twice"}` : "no re-roll"}`,
      };
    }
    case "oven":
      return {
        figure: shape.trays.fill.length === 1 ? "1 tray" : `${shape.trays.fill.length} trays`,
        under: `about ${number(oven.bake_about_min, 0)}\u00a0min at ${format.oven(oven.oven_c)}`,
      };
    case "clock":
      return {
        figure: `Start ${clock(day.start_at)}`,
        under: sameDay(day.start_at, plan.ready_by)
          ? `ready by ${clock(plan.ready_by)}`
          : `${dayClock(day.start_at)}`,
      };
    case "ledger":
      return {
        figure: records === 1 ? "1 bake" : `${records} bakes`,
        under: spread === undefined ? "nothing measured yet" : `last spread ${number(spread, 1)}%`,
      };
  }
}

function Counter({
  id,
  plan,
  day,
  records,
  spread,
}: {
  id: number;
  plan: Plan | undefined;
  day: Plan["clock"] | undefined;
  records: number;
  spread: number | undefined;
}) {
  const format = useFormat();
  const strip = useRef<HTMLElement>(null);
  const { pathname } = useLocation();
  const drawn = plan !== undefined;
  useEffect(() => {
    // On a narrow screen the strip scrolls; the station one is at stays in view.
    const here = strip.current?.querySelector<HTMLElement>(
      `[href="${pathname.split("/").slice(0, 4).join("/")}"]`,
    );
    if (strip.current && here && drawn)
      strip.current.scrollLeft = here.offsetLeft - (strip.current.clientWidth - here.offsetWidth) / 2;
  }, [pathname, drawn]);
  return (
    <nav
      ref={strip}
      aria-label="Stations of this job"
      className="no-print relative -mx-3 overflow-x-auto px-3 sm:-mx-5 sm:px-5"
    >
      <ol className="grid min-w-[66rem] grid-cols-7 gap-1.5 pt-1">
        {STATIONS.map((s, i) => {
          const shown = plan
            ? figures(s.key, plan, day ?? plan.clock, format, records, spread)
            : { figure: "", under: "" };
          return (
            <li key={s.key}>
              <NavLink
                to={`/jobs/${id}/${s.key}`}
                className={({ isActive }) =>
                  `block h-full min-h-20 rounded-t-xl px-3 pb-2.5 pt-1.5 no-underline ${
                    isActive
                      ? "bg-worktop shadow-[inset_0_4px_0_var(--c-butter)]"
                      : "bg-stone-2 hover:bg-raised"
                  }`
                }
              >
                <span className="flex items-center justify-between text-fine font-semibold text-soft">
                  {s.name}
                  <kbd className="num rounded border border-edge px-1.5 text-xs font-normal">{i + 1}</kbd>
                </span>
                <span className="block truncate font-head text-xl font-bold leading-tight tracking-tight">
                  <Live value={shown.figure} />
                </span>
                <span className="block truncate text-[0.875rem] text-soft">
                  <Live value={shown.under} />
                </span>
              </NavLink>
            </li>
          );
        })}
      </ol>
    </nav>
  );
}
