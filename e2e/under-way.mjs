/** The demo's day, moved so that it is under way now and it is early afternoon in the kitchen; its run, some minutes late. */
const HAND = new Set(["mix", "form", "cut", "finish", "pack"]);
const HOUR_MIN = 60;

/** Begins it at a server and returns the address of its bench view. */
export async function underWay(base, { into_min, late_min }) {
  const ask = async (method, path, body) => {
    const answer = await fetch(base + path, { method, headers: { "content-type": "application/json", origin: base }, body: body && JSON.stringify(body) });
    if (!answer.ok) throw new Error(`${path}: ${await answer.text()}`);
    return answer.json();
  };
  // Where it is one o'clock now; of `Etc` the sign is the other way round (IANA time zone database).
  const ahead = 13 - new Date().getUTCHours();
  const zone = ahead === 0 ? "UTC" : `Etc/GMT${ahead > 0 ? "-" : "+"}${Math.abs(ahead)}`;
  await ask("PATCH", "/api/kitchen", { zone });
  const [{ date }] = await ask("GET", "/api/days");
  const planned = await ask("GET", `/api/days/${date}`);
  const utc = (local) => Date.parse(`${local}Z`);
  const by = Date.now() + ahead * HOUR_MIN * 60_000 - into_min * 60_000 - utc(planned.start_at);
  let today = "";
  for (const job of planned.jobs) {
    const ready_by = new Date(utc(job.ready_by) + by).toISOString().slice(0, 16);
    today = ready_by.slice(0, 10);
    await ask("PATCH", `/api/jobs/${job.job_id}`, { ready_by });
  }
  const run = await ask("POST", "/api/runs", { date: today, rehearsal: false });
  // The steps of a run are those of its day, in the same order.
  const { tasks } = await ask("GET", `/api/days/${today}`);
  const first = Math.min(...tasks.map((t) => t.start_min));
  const events = tasks.flatMap((t, task) => {
    const [start, end] = [t.start_min - first + late_min, t.end_min - first + late_min];
    const began = t.step === "bake" || t.step === "preheat" || t.step === "thaw" ? [["started", start]] : [];
    const ended = HAND.has(t.step) || t.step === "bake" ? [["done", end]] : [];
    return [...began, ...ended].filter(([, at_min]) => at_min <= run.now_min).map(([kind, at_min]) => ({ press: `${kind} ${task}`, at_min, what: { kind, task } }));
  });
  await ask("POST", `/api/runs/${run.id}/events`, events);
  return `/bench/${run.id}`;
}
