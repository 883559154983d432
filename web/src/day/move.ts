/** A job's wanted time, moved on the board. */
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { api, settled, type Schemas } from "../api/client";
import { useChangeJob } from "../api/queries";

export type Day = Schemas["DayView"];

/** Moves the time a job is wanted. */
export function useMoveJob(id: number): (ready_by: string) => Promise<unknown> {
  const change = useChangeJob(id);
  const client = useQueryClient();
  return async (ready_by) => {
    await change.mutateAsync({ ready_by });
    await client.invalidateQueries({ queryKey: ["days"] });
  };
}

/** A flag that is held, and where. */
export interface Trial {
  job: number;
  ready_by: string;
}

/** A flag that rests so long is asked about. */
const RESTS_MS = 60;

/** The day as it would be with a flag where it is held; nothing is saved. */
export function useTried(date: string, trial: Trial | undefined): Day | undefined {
  const [asked, setAsked] = useState<Trial>();
  useEffect(() => {
    if (!trial) return;
    const rests = setTimeout(() => setAsked(trial), RESTS_MS);
    return () => clearTimeout(rests);
  }, [trial]);
  const query = trial && asked?.job === trial.job ? asked : undefined;
  const tried = useQuery({
    queryKey: ["days", date, "tried", query?.job, query?.ready_by],
    queryFn: ({ signal }) =>
      settled(api.GET("/api/days/{date}", { params: { path: { date }, query: query ?? {} }, signal })),
    enabled: query !== undefined,
    retry: false,
    gcTime: 0,
    placeholderData: (before) => before,
  });
  return query ? tried.data : undefined;
}
