/** A new job from nothing: asked for, looked at before it is there, and added. */
import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, settled, type Schemas } from "./client";
import { didEdit } from "../kit/said";

export type NewJobBody = Schemas["NewJobBody"];
export type Starter = Schemas["StarterView"];

export const useStarters = () =>
  useQuery({ queryKey: ["starters"], queryFn: () => settled(api.GET("/api/starters")), staleTime: Infinity });

export const beginQuery = (body: NewJobBody) => ({
  queryKey: ["begin", body] as const,
  queryFn: () => settled(api.POST("/api/jobs/new/plan", { body })),
  retry: false as const,
});

/** The plan as it would be. */
export const useBeginPlan = (body: NewJobBody) =>
  useQuery({ ...beginQuery(body), placeholderData: keepPreviousData });

/** To the demo, a bakery apart, made where it is not there yet. It is another bakery: its page is loaded anew. */
export const useOpenDemo = () =>
  useMutation({
    mutationFn: () => settled(api.POST("/api/demo")),
    onSuccess: ({ at }) => location.assign(at),
  });

/** Removes the demo whole, and goes home. */
export const useRemoveDemo = () =>
  useMutation({ mutationFn: () => settled(api.DELETE("/api/demo")), onSuccess: () => location.assign("/") });

export function useBegin() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (body: NewJobBody) => settled(api.POST("/api/jobs/new", { body })),
    onSuccess: () => {
      didEdit();
      return client.invalidateQueries();
    },
  });
}
