/** The bench: what the hands do now, what has its time, what comes, and what to do about being late. To be used with a knuckle. */
import { useEffect, useMemo, useRef, useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { api, settled, type Refusal } from "../api/client";
import { playSound } from "../app/sounds";
import { notify, setTitle } from "../app/alerts";
import { pairHere } from "../app/letin";
import { say } from "../drawing/sentence";
import { clock, duration, shifted } from "../drawing/time";
import { Says } from "../kit/Says";
import { useFormat } from "../kit/settings";
import { minuteOf, pressed, useAwake, useRun, useTelling, type HandCard, type Run, type Timer } from "./run";
import { Below, type Press } from "./Below";
import { Tape } from "./Tape";
import { ToTry } from "./ToTry";

/** An alarm that nobody answers sounds again after so long. */
const ALARM_MS = 4000;
/** Cards of timers that are shown in full. */
const IN_FULL = 4;
/** What comes after the one card, so many lines of it. */
const NEXT = 2;
/** What a press changed is told for so long. */
const NEWS_MIN = 5;

const keyOf = (t: Timer): string => `${t.tasks.join(".")} ${t.state}`;

export function BenchPage() {
  const id = Number(useParams().runId);
  const { run, told_ms, connected, fault, waiting, held, refused, press } = useRun(id);
  const seen = useMemo(() => ({ run, told_ms, connected, fault }), [run, told_ms, connected, fault]);
  const now = useNow(seen, run?.speed ?? 1);
  const tells = useTelling();
  useAwake(tells.awake && run !== undefined && !run.ended);
  const gone = pressed(waiting);
  const timers =
    run?.timers.filter(
      (t) => !t.tasks.some((task) => gone.has(task)) && !t.begins.some((task) => gone.has(task)),
    ) ?? [];
  const hands = run?.hands.filter((h) => !gone.has(h.task)) ?? [];
  const [heard, setHeard] = useState<ReadonlySet<string>>(new Set());
  const loud = run?.ended
    ? []
    : timers.filter((t) => (t.state === "due" || t.state === "over") && !heard.has(keyOf(t)));
  useAlarm(loud, tells.sound, tells.spoken);
  useEffect(() => {
    const first = loud[0];
    setTitle(first ? `${first.headline ?? "Now"}: ${first.title}` : `${run?.name ?? "Bench"} · Ready Slab`);
    return () => setTitle("Ready Slab");
  });
  if (!run) {
    return (
      <main id="work" className="grid min-h-dvh place-items-center bg-stone p-6 text-xl">
        <p role="status">
          {connected ? "Loading…" : "No connection, or no such day. Trying again."}{" "}
          <Link to="/days" className="underline">
            See all days
          </Link>
        </p>
      </main>
    );
  }
  // What needs nobody is told in a line.
  const full = timers.filter((t) => !t.by_itself).slice(0, IN_FULL);
  const brief = timers.filter((t) => !full.includes(t));
  const answer = (t: Timer) => setHeard((all) => new Set([...all, keyOf(t)]));
  return (
    <main
      id="work"
      className="mx-auto flex min-h-dvh max-w-[1500px] flex-col gap-3 bg-stone p-3 text-lg sm:px-5 sm:py-4"
      aria-label={`Bench: ${run.name}`}
    >
      <Head run={run} now={now} press={press} />
      <Waiting connected={connected} waiting={waiting.length} held={held} />
      {refused.length > 0 ? (
        <div role="alert" className="rounded-xl bg-warm-pale px-4 py-2 font-semibold text-warm">
          {refused.map(({ thing, why }) => (
            <p key={thing.press}>
              Not taken: {thing.said}, pressed at {clock(shifted(run.zero_at, thing.at_min ?? 0))}.{" "}
              {sentenceOf(why.message)}
            </p>
          ))}
        </div>
      ) : null}
      {fault ? (
        <p role="alert" className="rounded-xl bg-warm-pale px-4 py-2 font-semibold text-warm">
          {fault}
        </p>
      ) : null}
      <Changes run={run} now={now} />
      {run.ended ? null : <ToTry jobs={run.lots.map((l) => l.job_id)} />}
      {run.finished || run.ended ? <Finished run={run} /> : null}
      <div className="grid flex-1 grid-cols-[minmax(0,1fr)] gap-3.5 lg:grid-cols-[minmax(0,1fr)_26rem]">
        <NowCard cards={hands} run={run} now={now} press={press} />
        <section aria-label="Timers" className="flex flex-col gap-3.5">
          {full.map((t) => (
            <TimerCard
              key={t.tasks.join(".")}
              timer={t}
              run={run}
              now={now}
              press={press}
              heard={heard.has(keyOf(t))}
              onHeard={() => answer(t)}
            />
          ))}
          {brief.length > 0 ? (
            <ul className="rounded-2xl bg-worktop px-5 py-2.5">
              {brief.map((t) => (
                <li key={t.tasks.join(".")} className="flex items-baseline justify-between gap-3 py-1">
                  <span className="truncate">{t.title}</span>
                  <span className="shrink-0 text-soft">
                    {t.due_word} <span className="num font-semibold text-ink">{clock(t.due_at)}</span>
                  </span>
                </li>
              ))}
            </ul>
          ) : null}
          {timers.length === 0 && !run.finished ? (
            <p className="rounded-2xl bg-worktop px-5 py-4 text-soft">Nothing in the oven or chilling.</p>
          ) : null}
        </section>
      </div>
      <section aria-label="Timeline" className="rounded-2xl bg-worktop px-4 py-2">
        <Tape run={run} now={now} />
      </section>
      <Below run={run} press={press} />
    </main>
  );
}

/** As a sentence of its own. */
const sentenceOf = (text: string): string =>
  `${text.charAt(0).toUpperCase()}${text.slice(1).replace(/\.$/, "")}.`;

/** What is pressed and not taken yet, and why; nothing of it is lost. */
function Waiting({
  connected,
  waiting,
  held,
}: {
  connected: boolean;
  waiting: number;
  held: Refusal | undefined;
}) {
  const presses = waiting === 0 ? "what you tap" : waiting === 1 ? "1 tap" : `${waiting} taps`;
  if (held && waiting > 0 && held.problem.status === 401) {
    return (
      <p role="alert" className="rounded-xl bg-warm-pale px-4 py-2 font-semibold text-warm">
        Connect this device again to send {presses}.{" "}
        <a href={pairHere()} className="underline">
          Enter a code
        </a>
      </p>
    );
  }
  if (!connected) {
    return (
      <p role="status" className="rounded-xl bg-warm-pale px-4 py-2 font-semibold text-warm">
        No connection. Keep going: {presses} will be sent once it’s back.
      </p>
    );
  }
  if (!held || waiting === 0) return null;
  return (
    <p role="status" className="rounded-xl bg-warm-pale px-4 py-2 font-semibold text-warm">
      {sentenceOf(held.problem.errors[0]?.message ?? held.problem.detail)} Keep going: {presses} will be sent
      again.
    </p>
  );
}

/** The minute of the run, drawn on. */
function useNow(seen: Parameters<typeof minuteOf>[0], speed: number): number {
  const [now, setNow] = useState(() => minuteOf(seen, performance.now()));
  useEffect(() => {
    const tick = () => setNow(minuteOf(seen, performance.now()));
    tick();
    const every = setInterval(tick, speed > 1 ? 200 : 1000);
    return () => clearInterval(every);
  }, [seen, speed]);
  return now;
}

/** It sounds until it is answered. */
function useAlarm(loud: readonly Timer[], sound: boolean, spoken: boolean): void {
  const format = useFormat();
  const key = loud.map(keyOf).join("|");
  const said = useRef("");
  useEffect(() => {
    if (key === "") return undefined;
    const first = loud[0];
    if (spoken && first && said.current !== key && "speechSynthesis" in window) {
      said.current = key;
      speechSynthesis.speak(
        new SpeechSynthesisUtterance(
          `${first.title}: ${first.headline ?? ""}. ${first.note ? say(first.note, format) : ""}`,
        ),
      );
    }
    if (first && document.visibilityState === "hidden")
      notify(first.headline ?? first.title, first.title, key);
    if (!sound) return undefined;
    playSound("bell");
    const again = setInterval(() => playSound("bell"), ALARM_MS);
    return () => clearInterval(again);
    // What sounds is told by its key.
    // oxlint-disable-next-line react-hooks/exhaustive-deps
  }, [key, sound, spoken]);
}

const left = (t: Timer, now: number): string => {
  const min = t.due_min - now;
  return min >= 60 ? duration(min) : min >= 10 ? `${Math.ceil(min)}\u00a0min` : stopwatch(Math.max(min, 0));
};

/** `7:12`. */
function stopwatch(min: number): string {
  const s = Math.max(0, Math.floor(min * 60));
  return `${Math.floor(s / 60)}:${String(s % 60).padStart(2, "0")}`;
}

function Head({ run, now, press }: { run: Run; now: number; press: Press }) {
  const latest = run.lots.reduce<Run["lots"][number] | undefined>(
    (most, lot) => (most === undefined || lot.late_min > most.late_min ? lot : most),
    undefined,
  );
  const late = latest ? Math.round(latest.late_min) : 0;
  const help = run.catch_up;
  return (
    <header className="flex flex-wrap items-center gap-x-5 gap-y-2 px-1">
      <p className="min-w-0 grow basis-36 truncate font-semibold">
        <Link
          to={`/days/${run.date}`}
          className="no-underline hover:underline"
          aria-label={`${run.name}: plan of the day`}
        >
          {run.name}
        </Link>
        {run.rehearsal ? (
          <span className="ml-3 rounded-lg bg-cold px-2.5 py-1 text-base text-on-spruce">
            Rehearsal, {run.speed}× speed
          </span>
        ) : null}
      </p>
      {latest?.ready_at && !run.finished ? (
        <p
          role="status"
          className={`rounded-xl px-3.5 py-2 font-semibold ${late > 0 ? "bg-warm-pale text-warm" : "bg-worktop"}`}
        >
          {run.lots.length > 1 ? `${latest.name} ready` : "Ready"} {clock(latest.ready_at)},{" "}
          {late > 0 ? `${duration(late)} late` : late < 0 ? `${duration(-late)} to spare` : "on time"}
        </p>
      ) : null}
      {help ? (
        help.press ? (
          <button
            type="button"
            className="btn min-h-14 max-w-full whitespace-normal border-warm py-1 text-left leading-snug lg:max-w-[24rem]"
            onClick={() => help.press && press(help.press, help.says.text)}
          >
            <Says of={help.says} />
          </button>
        ) : (
          <p className="text-soft">
            <Says of={help.says} />
          </p>
        )
      ) : null}
      <p className="num ml-auto text-[2.75rem] font-bold leading-none" aria-label="The time">
        {clock(shifted(run.zero_at, Math.floor(now)))}
      </p>
    </header>
  );
}

type Shifts = NonNullable<Run["changed"]>["lots"];

const by = (min: number): string => `${duration(Math.abs(Math.round(min)))} ${min > 0 ? "later" : "sooner"}`;

const and = (names: readonly string[]): string =>
  names.length > 1 ? `${names.slice(0, -1).join(", ")} and ${names.at(-1)}` : (names[0] ?? "");

/** Those that move alike are told together; the times they are at now stand elsewhere. */
function moved(lots: Shifts, work: Shifts): string {
  const alike = new Map<string, string[]>();
  for (const s of lots) alike.set(by(s.by_min), [...(alike.get(by(s.by_min)) ?? []), s.name]);
  const next = work[0];
  return [
    ...[...alike].map(([long, names]) => `${and(names)} ready ${long}`),
    ...(next ? [`${next.name} ${by(next.by_min)}`] : []),
  ].join("; ");
}

/** What the last press changed, while it is news; else what holds the day up. */
function Changes({ run, now }: { run: Run; now: number }) {
  const changed = run.changed && now - run.changed.at_min < NEWS_MIN ? run.changed : undefined;
  if (run.ended || (!changed && !run.held_up)) return null;
  return (
    <p role="status" className="rounded-xl bg-worktop px-4 py-2">
      {changed ? (
        <>
          <strong>
            <Says of={changed.because} />.
          </strong>{" "}
          {moved(changed.lots, changed.work)}.
        </>
      ) : run.held_up ? (
        <Says of={run.held_up} />
      ) : null}
    </p>
  );
}

function NowCard({
  cards,
  run,
  now,
  press,
}: {
  cards: readonly HandCard[];
  run: Run;
  now: number;
  press: Press;
}) {
  const [chosen, setChosen] = useState<number>();
  const card = cards.find((c) => c.task === chosen) ?? cards[0];
  if (!card) {
    return (
      <section
        className="grid place-items-center rounded-3xl bg-worktop p-8 text-soft"
        aria-label="What to do now"
      >
        {run.finished ? "All done." : "Nothing to do. Watch the oven."}
      </section>
    );
  }
  const [head, ...tail] = card.does.split(": ");
  const due = card.start_min - now;
  return (
    <section
      className="flex flex-col gap-4 rounded-3xl bg-worktop p-5 sm:px-8 sm:py-6"
      aria-label="What to do now"
    >
      <div>
        <p className="font-semibold text-soft">
          {card.now
            ? "Now"
            : `Next, at ${clock(card.start_at)}${due > 0 ? `, in ${duration(Math.max(1, due))}` : ""}`}
        </p>
        <h1 className="mt-1 font-head text-[2.5rem] font-bold leading-[1.05] tracking-tight sm:text-[3.4rem]">
          {head}
        </h1>
        <p className="mt-2 text-xl">
          {[
            [tail.join(": "), run.lots.length > 1 ? card.lot : ""].filter(Boolean).join(", "),
            `Done by ${clock(shifted(run.zero_at, Math.ceil(card.end_min)))}`,
          ]
            .filter(Boolean)
            .join(". ")}
          .
        </p>
      </div>
      {card.strip ? <Strip strip={card.strip} now={now} zero={run.zero_at} /> : null}
      <div className="mt-auto grid gap-3.5 sm:grid-cols-[minmax(0,1fr)_auto_auto]">
        <button
          type="button"
          className="btn btn-main min-h-[5.25rem] whitespace-normal rounded-2xl px-6 text-2xl"
          onClick={() => press({ kind: "done", task: card.task }, `${card.does}: ${card.button}`)}
        >
          {card.button}
        </button>
        {card.step === "cut" && card.now ? (
          <button
            type="button"
            className="btn min-h-[5.25rem] rounded-2xl px-6 text-xl"
            onClick={() =>
              press({ kind: "too_soft", task: card.task, min: card.soft_min }, `${card.does}: too soft`)
            }
          >
            Too soft
          </button>
        ) : null}
        <button
          type="button"
          className="btn min-h-[5.25rem] rounded-2xl px-6 text-xl"
          onClick={() =>
            press({ kind: "more_time", task: card.task, min: card.slow_min }, `${card.does}: more time`)
          }
        >
          More time
        </button>
      </div>
      {cards.length > 1 ? (
        <ul className="grid border-t border-rule pt-2" aria-label="Up next">
          {cards
            .filter((c) => c.task !== card.task)
            .slice(0, NEXT)
            .map((c) => (
              <li key={c.task}>
                <button
                  type="button"
                  className="flex min-h-14 w-full items-center justify-between gap-4 rounded-xl px-3 text-left hover:bg-stone"
                  onClick={() => setChosen(c.task)}
                >
                  <span className="min-w-0">
                    {c.does}
                    {run.lots.length > 1 ? <span className="text-soft">{`, ${c.lot}`}</span> : null}
                  </span>
                  <span className="num shrink-0 font-semibold">{c.now ? "now" : clock(c.start_at)}</span>
                </button>
              </li>
            ))}
        </ul>
      ) : null}
    </section>
  );
}

/** How long the dough can be worked: too cold, workable, too soft. */
function Strip({ strip, now, zero }: { strip: NonNullable<HandCard["strip"]>; now: number; zero: string }) {
  const end = strip.to_min + (strip.to_min - strip.out_min) * 0.3;
  const share = (min: number) =>
    Math.min(100, Math.max(0, ((min - strip.out_min) / (end - strip.out_min)) * 100));
  const [from, to] = [share(strip.from_min), share(strip.to_min)];
  const rest = strip.to_min - Math.max(now, strip.from_min);
  const says =
    now < strip.out_min
      ? `Take it out at ${clock(shifted(zero, strip.out_min))}: workable ${duration(strip.to_min - strip.from_min)}`
      : now < strip.from_min
        ? `Workable from ${clock(shifted(zero, Math.ceil(strip.from_min)))}`
        : rest > 0
          ? `Workable ${duration(Math.max(1, rest))} more`
          : "Getting too soft: chill it again";
  return (
    <div>
      <div className="relative h-8 overflow-hidden rounded-lg bg-warm-pale" aria-hidden="true">
        <span className="absolute inset-y-0 left-0 bg-cold-pale" style={{ width: `${from}%` }} />
        <span className="absolute inset-y-0 bg-butter" style={{ left: `${from}%`, width: `${to - from}%` }} />
        {now >= strip.out_min ? (
          <span className="absolute inset-y-0 w-2 bg-ink" style={{ left: `calc(${share(now)}% - 4px)` }} />
        ) : null}
      </div>
      <p className="mt-1.5 flex justify-between gap-3">
        <span className="text-soft">{from > 8 ? "too cold to roll" : ""}</span>
        <strong className="text-center">{says}</strong>
        <span className="text-soft">too soft</span>
      </p>
    </div>
  );
}

function TimerCard({
  timer: t,
  run,
  now,
  press,
  heard,
  onHeard,
}: {
  timer: Timer;
  run: Run;
  now: number;
  press: Press;
  heard: boolean;
  onHeard(): void;
}) {
  const loud = t.state === "due" || t.state === "over";
  const whole = Math.max(0.1, t.due_min - t.since_min);
  const share = Math.min(100, Math.max(0, ((now - t.since_min) / whole) * 100));
  const over = t.by_min != null && t.state === "over" ? now - t.by_min : 0;
  const act = () =>
    press(
      t.begins.length > 0
        ? t.begins.map((task) => ({ kind: "started", task }))
        : t.tasks.map((task) => ({ kind: t.to_begin ? "started" : "done", task })),
      `${t.title}: ${t.button}`,
    );
  return (
    <article
      aria-label={t.title}
      className={`rounded-3xl px-5 py-3 ${t.state === "over" ? "bg-warm-pale text-warm" : loud ? "bg-pale text-on-pale" : "bg-worktop"}`}
    >
      <p className="flex items-baseline justify-between gap-3 font-semibold">
        <span className="min-w-0 truncate">{t.title}</span>
        <span className="num shrink-0 font-normal">
          {t.to_begin ? "" : t.step === "bake" ? stopwatch(now - t.since_min) : `in at ${clock(t.since_at)}`}
        </span>
      </p>
      <div className="flex items-center justify-between gap-3">
        <p className="font-head text-[2.2rem] font-bold leading-tight tracking-tight tabular-nums">
          {t.headline ?? left(t, now)}
          {over >= 1 ? <span className="ml-3 text-xl">{duration(over)} over</span> : null}
        </p>
        {t.step === "bake" && !loud ? (
          <button
            type="button"
            className="btn min-h-14 border-2 border-current bg-transparent px-5 text-xl"
            onClick={act}
          >
            {t.button}
          </button>
        ) : null}
      </div>
      <p>
        {[`${t.due_word} ${clock(t.due_at)}`, t.by_at ? `${t.by_word} ${clock(t.by_at)}` : ""]
          .filter(Boolean)
          .join(", ")}
        {t.note ? (
          <>
            ; <Says of={t.note} />
          </>
        ) : null}
        {t.note && run.rehearsal && t.step !== "bake" && t.step !== "preheat" ? " (simulated)" : ""}
      </p>
      {loud || t.state === "ready" ? (
        <div className="mt-2 flex flex-wrap gap-2.5">
          <button
            type="button"
            className="btn min-h-14 border-2 border-current bg-transparent px-5 text-xl"
            onClick={act}
          >
            {t.button}
          </button>
          {t.step === "bake" && loud ? (
            <button
              type="button"
              className="btn min-h-14 border-2 border-current bg-transparent px-5 text-xl"
              onClick={() =>
                press(
                  t.tasks.map((task) => ({ kind: "more_time", task, min: t.pale_min })),
                  `${t.title}: pale`,
                )
              }
            >
              Pale: {t.pale_min} min more
            </button>
          ) : null}
          {loud && !heard ? (
            <button type="button" className="btn btn-quiet min-h-14 px-4 text-lg" onClick={onHeard}>
              Silence
            </button>
          ) : null}
        </div>
      ) : (
        <div className="mt-2 h-2.5 overflow-hidden rounded-full bg-stone-2" aria-hidden="true">
          <div className="h-full rounded-full bg-spruce" style={{ width: `${share}%` }} />
        </div>
      )}
    </article>
  );
}

function Finished({ run }: { run: Run }) {
  const navigate = useNavigate();
  return (
    <section className="rounded-2xl bg-pale px-5 py-4 text-on-pale">
      <p className="font-head text-2xl font-bold">{run.ended ? "This day is over." : "All done."}</p>
      <p className="mt-1">
        {run.ended ? "Your notes are saved." : "Record your bakes now, then end the day."}{" "}
        <Link to={`/days/${run.date}`} className="font-semibold underline">
          See the plan
        </Link>
      </p>
      {run.ended ? null : (
        <button
          type="button"
          className="btn mt-3 min-h-14 px-5"
          onClick={() =>
            void settled(api.POST("/api/runs/{id}/end", { params: { path: { id: run.id } } })).then(() =>
              navigate(`/days/${run.date}`),
            )
          }
        >
          End the day
        </button>
      )}
    </section>
  );
}
