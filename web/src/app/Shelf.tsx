/** Outside a job: the shelf of jobs, formulas and cutters. */
import { at } from "../api/base";
import { useDeferredValue, useState } from "react";
import { Link, Navigate, useNavigate } from "react-router";
import type { Cutter, Formula, Job } from "../api/client";
import {
  useCutters,
  useDeleteCutter,
  useDeleteFormula,
  useDeleteJob,
  useFormulas,
  useJobPages,
  useReadBack,
} from "../api/queries";
import { clock, now, shortDay } from "../drawing/time";
import { say } from "../drawing/sentence";
import { number, type Format } from "../drawing/units";
import { CutterPicture } from "../kit/CutterPicture";
import { FileButton } from "../kit/FileButton";
import { Fault, otherFault } from "../kit/Fault";
import { Unread } from "../kit/Unread";
import { useFormat } from "../kit/settings";
import { SeeDemo } from "./SeeDemo";
import { AddCutter } from "../stations/order/AddCutter";

/** So many jobs are found by eye. */
const SEARCHED = 12;

export function Shelf() {
  const [named, setNamed] = useState("");
  const wanted = useDeferredValue(named.trim());
  const pages = useJobPages(wanted);
  const jobs = { ...pages, data: pages.data?.pages.flatMap((p) => p.jobs) };
  const { total = 0, coming = 0 } = pages.data?.pages[0] ?? {};
  const formulas = useFormulas();
  const cutters = useCutters();
  if (!jobs.data || !formulas.data || !cutters.data) {
    return (
      <main id="work" className="flex-1">
        <h1 className="visually-hidden">Jobs</h1>
        <Unread of={[jobs, formulas, cutters]} />
      </main>
    );
  }
  // A new bakery begins with its first batch.
  if (wanted === "" && jobs.data.length + formulas.data.length + cutters.data.length === 0)
    return <Navigate to="/new" replace />;
  return (
    <main id="work" className="flex-1 space-y-4">
      <section className="rounded-2xl bg-worktop p-5 sm:p-6" aria-labelledby="jobs-head">
        <div className="mb-4 flex flex-wrap items-center justify-between gap-3">
          <h1 id="jobs-head" className="h-station">
            Jobs
          </h1>
          <div className="flex flex-wrap items-center gap-2">
            {total > SEARCHED || named !== "" ? (
              <input
                type="search"
                className="field w-64"
                placeholder="Job, recipe or cutter"
                aria-label="Find a job"
                maxLength={80}
                value={named}
                onChange={(e) => setNamed(e.target.value)}
              />
            ) : null}
            <NewJob />
          </div>
        </div>
        {jobs.data.length === 0 && wanted !== "" ? (
          <p className="max-w-2xl text-lg" role="status">
            No job, recipe or cutter named “{wanted}”.
          </p>
        ) : jobs.data.length === 0 ? (
          <p className="max-w-2xl text-lg">
            No job is planned. <Link to="/new">Plan one</Link>: a dough, a shape, how many and for when.
          </p>
        ) : (
          <JobList jobs={jobs.data} coming={coming} formulas={formulas.data} cutters={cutters.data} />
        )}
        <Damaged all={pages.data?.pages.flatMap((p) => p.damaged) ?? []} />
        {pages.hasNextPage ? (
          <button
            type="button"
            className="btn mt-4"
            disabled={pages.isFetchingNextPage}
            onClick={() => void pages.fetchNextPage()}
          >
            Show more of {total}
          </button>
        ) : null}
      </section>
      <div className="grid gap-4 lg:grid-cols-2">
        <FormulaShelf formulas={formulas.data} jobs={jobs.data} />
        <CutterShelf cutters={cutters.data} />
      </div>
    </main>
  );
}

/** Jobs whose rows were damaged: the rest goes on without them. */
function Damaged({ all }: { all: readonly { id: number; why: string }[] }) {
  const remove = useDeleteJob();
  return (
    <>
      {all.map((d) => (
        <div key={d.id} role="alert" className="say mt-4 flex flex-wrap items-center justify-between gap-3">
          <p>
            Can’t read job {d.id}: {d.why}. A backup may still have it.
          </p>
          <button type="button" className="btn btn-small" onClick={() => remove.mutate(d.id)}>
            Delete job {d.id}
          </button>
        </div>
      ))}
    </>
  );
}

/** What is wanted from today on, and behind it what was. */
function JobList({
  jobs,
  coming,
  formulas,
  cutters,
}: {
  jobs: Job[];
  coming: number;
  formulas: Formula[];
  cutters: Cutter[];
}) {
  const remove = useDeleteJob();
  const leads = jobs.filter((j) => j.lot_of == null || !jobs.some((k) => k.id === j.lot_of));
  const [next, earlier] = [leads.slice(0, coming), leads.slice(coming)];
  const cards = (some: Job[]) => (
    <JobCards
      leads={some}
      jobs={jobs}
      formulas={formulas}
      cutters={cutters}
      onDelete={(id) => remove.mutate(id)}
    />
  );
  return (
    <>
      <Fault text={otherFault(remove.error, [])} />
      {next.length > 0 ? cards(next) : null}
      {next.length > 0 && earlier.length > 0 ? <h2 className="h-part mb-2 mt-5">Earlier</h2> : null}
      {earlier.length > 0 ? cards(earlier) : null}
    </>
  );
}

interface Cards {
  leads: Job[];
  jobs: Job[];
  formulas: Formula[];
  cutters: Cutter[];
  onDelete(id: number): void;
}

function JobCards({ leads, jobs, formulas, cutters, onDelete }: Cards) {
  const format = useFormat();
  const today = now();
  return (
    <ul className="grid gap-3 md:grid-cols-2 2xl:grid-cols-3">
      {leads.map((job) => {
        const lots = jobs.filter((j) => j.lot_of === job.id);
        const cutter = cutters.find((c) => c.id === job.cutter_id);
        const formula = formulas.find((f) => f.id === job.formula_id);
        return (
          <li
            key={job.id}
            className="flex items-center gap-2 rounded-xl border border-rule bg-raised p-3 sm:gap-4 sm:p-4"
          >
            <div className="grid size-14 shrink-0 place-items-center sm:size-20 max-sm:[&_svg]:w-14">
              {cutter && (job.making?.kind ?? "cut") === "cut" ? (
                <CutterPicture cutter={cutter} size={76} />
              ) : null}
            </div>
            <div className="min-w-0 flex-1">
              <Link to={`/jobs/${job.id}/order`} className="block font-head text-xl font-bold leading-tight">
                {job.name}
              </Link>
              <p className="text-fine text-soft">
                {[madeWords(job, cutter, format), formula?.name].filter(Boolean).join(", ")}
              </p>
              {lots.length > 0 ? (
                <p className="text-fine text-soft">
                  plus {lots.map((l) => `${l.pieces} × ${l.name}`).join(", ")}
                </p>
              ) : null}
              <p className="font-semibold">
                {shortDay(job.ready_by, today)}, {clock(job.ready_by)}
              </p>
            </div>
            <button
              type="button"
              className="btn btn-quiet btn-small self-start max-sm:px-1!"
              aria-label={`Delete ${job.name}`}
              onClick={() => onDelete(job.id)}
            >
              Delete
            </button>
          </li>
        );
      })}
    </ul>
  );
}

/** What a job makes, in few words: `48 × Gull, 6 mm`, `36 slices, 7 mm`. */
function madeWords(job: Job, cutter: Cutter | undefined, format: Format): string {
  const kind = job.making?.kind ?? "cut";
  switch (kind) {
    case "cut":
      return `${job.pieces} × ${cutter?.name ?? "cookies"}, ${format.length(job.thickness_mm)}`;
    case "sliced":
      return `${job.pieces} slices, ${format.length(job.thickness_mm)}`;
    case "tray_bar":
      return `${job.pieces} bars`;
    default:
      return `${job.pieces} portions`;
  }
}

function NewJob() {
  const readBack = useReadBack();
  const navigate = useNavigate();
  const [unread, setUnread] = useState<string>();
  const open = (job: Job) => void navigate(`/jobs/${job.id}/order`);
  return (
    <div className="flex flex-wrap items-center gap-2">
      <SeeDemo>See the demo</SeeDemo>
      <FileButton
        label="Job file"
        accept=".json,application/json"
        onFile={async (chosen) => {
          setUnread(undefined);
          let parsed: unknown;
          try {
            parsed = JSON.parse(await chosen.text());
          } catch {
            setUnread("Not a job file: can’t read it as JSON.");
            return;
          }
          readBack.mutate(parsed, { onSuccess: open });
        }}
      >
        Import a job
      </FileButton>
      <Link to="/new" className="btn btn-main">
        New job
      </Link>
      <Fault text={unread ?? otherFault(readBack.error, [])} />
    </div>
  );
}

function FormulaShelf({ formulas, jobs }: { formulas: Formula[]; jobs: Job[] }) {
  const remove = useDeleteFormula();
  return (
    <section className="rounded-2xl bg-worktop p-5 sm:p-6" aria-labelledby="formulas-head">
      <div className="mb-3 flex flex-wrap items-center justify-between gap-2">
        <h2 id="formulas-head" className="h-station">
          Recipes
        </h2>
        <Link to="/read" className="btn btn-small">
          Add a recipe
        </Link>
      </div>
      <Fault text={otherFault(remove.error, [])} />
      <ul>
        {formulas.map((f) => {
          const job = jobs.find((j) => j.formula_id === f.id);
          return (
            <li key={f.id} className="row flex-wrap">
              <span className="min-w-40 flex-1">
                {job ? (
                  <Link to={`/jobs/${job.id}/dough`} className="font-semibold">
                    {f.name}
                  </Link>
                ) : (
                  <span className="font-semibold">{f.name}</span>
                )}
                <span className="block text-fine text-soft">{f.school}</span>
              </span>
              <span className="flex items-center gap-1">
                <span className="num text-right">
                  1 : {number(f.ratio_sugar, 1, 1)} : {number(f.ratio_flour, 1, 1)}
                </span>
                {job ? null : (
                  <>
                    <Link
                      to={`/new?recipe=${f.id}`}
                      className="btn btn-quiet btn-small"
                      aria-label={`Start a job with ${f.name}`}
                    >
                      Start a job
                    </Link>
                    <button
                      type="button"
                      className="btn btn-quiet btn-small"
                      aria-label={`Remove ${f.name}`}
                      onClick={() => remove.mutate(f.id)}
                    >
                      Remove
                    </button>
                  </>
                )}
              </span>
            </li>
          );
        })}
      </ul>
      <p className="mt-2 text-fine text-soft">
        Butter : sugar : flour by weight. Edit a recipe in a job’s Dough station.
      </p>
    </section>
  );
}

function CutterShelf({ cutters }: { cutters: Cutter[] }) {
  const format = useFormat();
  const remove = useDeleteCutter();
  return (
    <section className="rounded-2xl bg-worktop p-5 sm:p-6" aria-labelledby="cutters-head">
      <div className="mb-3 flex flex-wrap items-center justify-between gap-2">
        <h2 id="cutters-head" className="h-station">
          Cutters
        </h2>
        <AddCutter onAdded={() => undefined} />
      </div>
      <Fault text={otherFault(remove.error, [])} />
      <ul className="grid grid-cols-2 gap-3 sm:grid-cols-3">
        {cutters.map((c) => (
          <li key={c.id} className="rounded-xl border border-rule bg-raised p-3 text-center">
            <div className="grid h-24 place-items-center">
              <CutterPicture cutter={c} size={88} />
            </div>
            <p className="font-semibold">{c.name}</p>
            <p className="num text-fine text-soft">
              {format.length(c.width_mm)} × {format.length(c.height_mm)}
            </p>
            {c.warning ? <p className="mt-1 text-fine text-warm">{say(c.warning, format)}</p> : null}
            <div className="mt-2 flex justify-center gap-1">
              <a
                href={at(`/api/cutters/${c.id}/outline.svg`)}
                className="btn btn-quiet btn-small"
                aria-label={`Save SVG of ${c.name}`}
              >
                Save SVG
              </a>
              <button
                type="button"
                className="btn btn-quiet btn-small"
                aria-label={`Remove ${c.name}`}
                onClick={() => remove.mutate(c.id)}
              >
                Remove
              </button>
            </div>
          </li>
        ))}
      </ul>
    </section>
  );
}
