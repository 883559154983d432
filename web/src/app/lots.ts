/** The lots of one job: the job itself first, then those that name it. */
import { useQuery } from "@tanstack/react-query";
import { api, settled, type Job, type Schemas } from "../api/client";
import { useJobsAbout } from "../api/queries";

export type Together = Schemas["TogetherView"];
export type Making = Schemas["MakingBody"];

export const leadOf = (job: Job): number => job.lot_of ?? job.id;

export function familyOf(job: Job, jobs: readonly Job[]): Job[] {
  const lead = leadOf(job);
  return jobs
    .filter((j) => leadOf(j) === lead)
    .toSorted((a, b) => Number(a.id !== lead) - Number(b.id !== lead) || a.id - b.id);
}

export function useFamily(job: Job | undefined): Job[] {
  const jobs = useJobsAbout(job?.id ?? 0);
  return job ? familyOf(job, jobs.data ?? [job]) : [];
}

const dateOf = (job: Job): string => job.ready_by.slice(0, 10);

/** Asked only where there is more than one lot, or another job is wanted on its date. */
export function useTogether(job: Job | undefined, lots: number) {
  const id = job ? leadOf(job) : 0;
  const jobs = useJobsAbout(job?.id ?? 0);
  const shared =
    job && jobs.data?.some((j) => leadOf(j) !== id && j.lot_of == null && dateOf(j) === dateOf(job));
  const asked = useQuery({
    queryKey: ["together", id],
    queryFn: () => settled(api.GET("/api/jobs/{id}/together", { params: { path: { id } } })),
    enabled: id > 0 && (lots > 1 || shared === true),
    retry: false,
  });
  // What is wrong with a batch that is alone, its own plan says already.
  return lots > 1 ? asked : { ...asked, error: null };
}

/** Lots whose pieces may lie on one sheet with those of `job`, which the server says by their key. */
export const cutWith = (job: Job, family: readonly Job[]): Job[] =>
  job.sheet_key == null ? [] : family.filter((j) => j.sheet_key === job.sheet_key);
