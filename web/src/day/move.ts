/** A job's wanted time, moved on the board. */
import { useQueryClient } from "@tanstack/react-query";
import type { Schemas } from "../api/client";
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
