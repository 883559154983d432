/** A day of the bakery: every job wanted on it, on the kitchen's lanes. */
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { Link, Navigate, useNavigate, useParams } from "react-router";
import { at } from "../api/base";
import { api, settled } from "../api/client";
import { useKitchen } from "../api/queries";
import { setTitle } from "../app/alerts";
import { clock, dayClock, duration, longDay, now, sameDay } from "../drawing/time";
import { Fault, otherFault } from "../kit/Fault";
import { Says } from "../kit/Says";
import { SaveMenu } from "../kit/SaveMenu";
import { SaveSvg } from "../kit/SaveSvg";
import { Unread } from "../kit/Unread";
import { Board } from "./Board";
import { useTried, type Day, type Trial } from "./move";

/** Those about a date that is long past, else about today. */
const useDates = (about?: string) => {
  const from =
    about !== undefined && about < shifted(now().slice(0, 10), -30) ? shifted(about, -30) : undefined;
  return useQuery({
    queryKey: ["days", "list", from ?? ""],
    queryFn: () => settled(api.GET("/api/days", { params: { query: from === undefined ? {} : { from } } })),
    placeholderData: (before) => before,
  });
};

/** So many days after a date. */
const shifted = (date: string, days: number): string => {
  const at = new Date(`${date}T00:00Z`);
  if (Number.isNaN(at.getTime())) return date;
  at.setUTCDate(at.getUTCDate() + days);
  return at.toISOString().slice(0, 10);
};

/** The first day that is not over, else the last there was. */
export function DaysPage() {
  const dates = useDates();
  if (!dates.data)
    return (
      <main id="work" className="flex-1 rounded-2xl bg-worktop">
        <Unread of={[dates]} />
      </main>
    );
  const today = now().slice(0, 10);
  const next = dates.data.find((d) => d.date >= today) ?? dates.data.at(-1);
  if (next) return <Navigate to={`/days/${next.date}`} replace />;
  return (
    <main id="work" className="flex-1 rounded-2xl bg-worktop p-6">
      <h1 className="h-station">Days</h1>
      <p className="mt-2 text-lg">
        No jobs yet.{" "}
        <Link to="/new" className="underline">
          Plan a job
        </Link>
        .
      </p>
    </main>
  );
}

export function DayPage() {
  const date = useParams().date ?? "";
  const dates = useDates(date);
  useKitchen();
  const day = useQuery({
    queryKey: ["days", date],
    queryFn: () => settled(api.GET("/api/days/{date}", { params: { path: { date } } })),
    retry: false,
    placeholderData: (before) => (before?.date === date ? before : undefined),
  });
  const [trial, setTrial] = useState<Trial>();
  const tried = useTried(date, trial);
  const picture = useRef<SVGSVGElement>(null);
  useEffect(() => {
    setTitle(`${longDay(`${date}T00:00`)} · Ready Slab`);
    return () => setTitle("Ready Slab");
  }, [date]);
  const all = dates.data ?? [];
  const here = all.findIndex((d) => d.date === date);
  const before = all.findLast((d) => d.date < date);
  const after = all.find((d) => d.date > date);
  return (
    <main id="work" className="flex flex-1 flex-col overflow-hidden rounded-2xl bg-worktop">
      <div className="grid flex-1 lg:grid-cols-[minmax(0,1fr)_22.5rem] lg:grid-rows-[auto_1fr]">
        <div className="flex min-w-0 flex-wrap items-end justify-between gap-3 p-5 pb-0 sm:p-6 sm:pb-0">
          <div>
            <h1 className="h-station">{longDay(`${date}T00:00`)}</h1>
            <p className="text-soft">
              {day.data && day.data.jobs.length > 0
                ? day.data.jobs.map((j) => j.name).join(", ")
                : here < 0 && dates.data
                  ? "Nothing due this day."
                  : ""}
            </p>
          </div>
          <nav aria-label="Days" className="no-print flex flex-wrap gap-2">
            {before ? (
              <Link className="btn btn-small" to={`/days/${before.date}`}>
                ← {longDay(`${before.date}T00:00`)}
              </Link>
            ) : null}
            {after ? (
              <Link className="btn btn-small" to={`/days/${after.date}`}>
                {longDay(`${after.date}T00:00`)} →
              </Link>
            ) : null}
            {day.data && day.data.tasks.length > 0 ? (
              <SaveMenu>
                <SaveSvg picture={picture} name={`Day ${date}`} />
                <a
                  className="btn btn-small"
                  href={at(`/api/days/${date}/calendar`)}
                  download={`Baking ${date}.ics`}
                >
                  Save to calendar
                </a>
                <button type="button" className="btn btn-small" onClick={() => print()}>
                  Print the day
                </button>
              </SaveMenu>
            ) : null}
          </nav>
        </div>
        <section className="min-w-0 p-5 max-lg:order-last sm:p-6 lg:row-start-2">
          {day.data ? (
            day.data.tasks.length > 0 ? (
              <>
                <Board picture={picture} day={day.data} tried={tried} onTry={setTrial} />
                <p className="no-print mt-2 text-fine text-soft">
                  Drag a flag or use the arrow keys to change when a job is ready.
                </p>
                <OnePage day={tried ?? day.data} />
              </>
            ) : null
          ) : (
            <Unread of={[day]} />
          )}
        </section>
        <aside
          className="no-print space-y-5 p-5 max-lg:border-b max-lg:border-rule sm:p-6 lg:col-start-2 lg:row-span-2 lg:row-start-1 lg:border-l lg:border-rule"
          aria-label="About this day"
        >
          {day.data && day.data.tasks.length > 0 ? <About day={tried ?? day.data} /> : null}
        </aside>
      </div>
    </main>
  );
}

function About({ day }: { day: Day }) {
  const start = day.start_at ?? "";
  const ready = day.ready_by ?? "";
  return (
    <>
      <div>
        <h2 className="h-part">Start by</h2>
        <p className="answer mt-1">{clock(start)}</p>
        <p className="mt-1 text-soft">
          {sameDay(start, ready) ? "" : `${longDay(start)}; `}last ready by{" "}
          {sameDay(start, ready) ? clock(ready) : dayClock(ready)}
        </p>
        {day.run_id != null ? (
          <p className="say mt-3">Under way. Follow it at the bench.</p>
        ) : day.late_min > 0 ? (
          <p role="status" className="mt-3 rounded-xl bg-warm-pale px-4 py-3 text-warm">
            <strong>The start time has passed.</strong> Start now and you finish {duration(day.late_min)}{" "}
            late. Move a flag, or see below for what helps.
          </p>
        ) : (
          <p className="say mt-3">
            <strong>{duration(day.hands_min)}</strong> of hands-on work.
          </p>
        )}
      </div>
      <Begin day={day} />
      {day.lacks.length > 0 ? (
        <section className="rounded-xl bg-warm-pale p-4 text-warm">
          <h2 className="h-part">This day doesn’t fit yet</h2>
          {day.lacks.map((l) => (
            <p key={l.text} className="mt-1">
              <Says of={l} />.
            </p>
          ))}
          <p className="mt-1">Shown as if you had it.</p>
        </section>
      ) : null}
      {day.not_planned.map((j) => (
        <section key={j.job_id} className="rounded-xl bg-warm-pale p-4 text-warm">
          <p>
            <Link className="font-semibold underline" to={`/jobs/${j.job_id}/order`}>
              {j.name}
            </Link>{" "}
            cannot be planned:{" "}
            {j.why.map((w) => (
              <Says key={w.text} of={w} />
            ))}
            . The rest is planned without it.
          </p>
        </section>
      ))}
      {day.clashes.length > 0 ? (
        <section className="rounded-xl bg-warm-pale p-4 text-warm">
          <h2 className="h-part">Overlaps another day</h2>
          {day.clashes.map((c) => (
            <p key={`${c.date} ${c.lane} ${c.from_at}`} className="mt-1">
              <Link className="font-semibold underline" to={`/days/${c.date}`}>
                {longDay(`${c.date}T00:00`)}
              </Link>
              : {c.lane === "hands" ? "you" : "the oven"}, {dayClock(c.from_at)} to{" "}
              {sameDay(c.from_at, c.to_at) ? clock(c.to_at) : dayClock(c.to_at)}.
            </p>
          ))}
          <p className="mt-1">Move a flag on either day.</p>
        </section>
      ) : null}
      {day.helps.length > 0 ? (
        <section>
          <h2 className="h-part">What would help</h2>
          <ul className="mt-1 space-y-1">
            {day.helps.map((h) => (
              <li key={h.says.text}>
                <Says of={h.says} />
              </li>
            ))}
          </ul>
        </section>
      ) : null}
      {day.shared.length > 0 ? (
        <section>
          <h2 className="h-part">Shared by jobs</h2>
          <ul className="mt-1 space-y-1">
            {day.shared.map((s) => (
              <li key={s.text}>
                <Says of={s} />
              </li>
            ))}
          </ul>
        </section>
      ) : null}
      <section>
        <h2 className="h-part">Jobs</h2>
        <ul>
          {day.jobs.map((j) => (
            <li key={j.job_id} className="border-b border-rule py-2 last:border-0">
              <Link to={`/jobs/${j.job_id}/clock`} className="font-semibold">
                {j.name}
              </Link>
              <span className="block text-soft">
                {j.pieces} cookies, ready by {clock(j.ready_by)}, start{" "}
                {sameDay(j.start_at, j.ready_by) ? clock(j.start_at) : dayClock(j.start_at)}
              </span>
            </li>
          ))}
        </ul>
      </section>
    </>
  );
}

function Begin({ day }: { day: Day }) {
  const navigate = useNavigate();
  const client = useQueryClient();
  const [fault, setFault] = useState<unknown>();
  const begin = async (rehearsal: boolean) => {
    try {
      const run = await settled(api.POST("/api/runs", { body: { date: day.date, rehearsal } }));
      void client.invalidateQueries({ queryKey: ["days"] });
      await navigate(`/bench/${run.id}`);
    } catch (error) {
      setFault(error);
    }
  };
  return (
    <div className="grid gap-2">
      {day.run_id == null ? (
        <button type="button" className="btn btn-main" onClick={() => void begin(false)}>
          Start this day at the bench
        </button>
      ) : (
        <Link className="btn btn-main" to={`/bench/${day.run_id}`}>
          Continue at the bench
        </Link>
      )}
      <button type="button" className="btn" onClick={() => void begin(true)}>
        Rehearse it, 60 times as fast
      </button>
      <Fault text={otherFault(fault, [])} />
    </div>
  );
}

/** The whole day on one sheet of paper, with boxes to tick. */
function OnePage({ day }: { day: Day }) {
  return (
    <ol className="mt-5 gap-x-8 sm:columns-2 print:columns-2 print:text-[10pt]">
      {day.tasks.map((t, i) => {
        const before = day.tasks[i - 1];
        const dawns = i > 0 && before !== undefined && !sameDay(before.start_at, t.start_at);
        return (
          <li
            key={`${t.lot} ${t.step} ${t.mix ?? ""} ${t.tray ?? ""} ${t.start_at}`}
            className="break-inside-avoid border-t border-rule py-1"
          >
            {dawns || i === 0 ? <span className="block font-semibold">{longDay(t.start_at)}</span> : null}
            <span className="flex gap-3">
              <span className="num w-12 shrink-0 text-right font-semibold">{clock(t.start_at)}</span>
              <span className="min-w-0 flex-1">
                {t.does}
                {day.lots.length > 1 && t.step !== "preheat" ? (
                  <span className="text-soft">{` · ${day.lots[t.lot] ?? ""}`}</span>
                ) : null}
              </span>
              <span className="only-print">□</span>
            </span>
          </li>
        );
      })}
    </ol>
  );
}
