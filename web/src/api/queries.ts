/** What is known of the server's state, and the changes to it. The query cache is the only copy. */
import { useMutation, useQuery, useQueryClient, type QueryClient } from "@tanstack/react-query";
import { api, settled, type Formula, type FormulaBody, type Job, type JobBody, type Kitchen, type NewCutter, type RecordBody } from "./client";

export const keys = {
  jobs: ["jobs"] as const,
  job: (id: number) => ["jobs", id] as const,
  plan: (id: number) => ["plan", id] as const,
  records: (id: number) => ["records", id] as const,
  kitchen: ["kitchen"] as const,
  formulas: ["formulas"] as const,
  ingredients: ["ingredients"] as const,
  cutters: ["cutters"] as const,
  history: ["history"] as const,
  units: ["units"] as const,
};

const jobQuery = (id: number) => ({
  queryKey: keys.job(id),
  queryFn: () => settled(api.GET("/api/jobs/{id}", { params: { path: { id } } })),
});
const planQuery = (id: number) => ({
  queryKey: keys.plan(id),
  queryFn: () => settled(api.GET("/api/jobs/{id}/plan", { params: { path: { id } } })),
});
const unitsQuery = { queryKey: keys.units, queryFn: () => settled(api.GET("/api/units")), staleTime: Infinity };

/** Asks for what the address will need while its view is still on the way. */
export function askAhead(client: QueryClient, path: string): void {
  void client.prefetchQuery(unitsQuery);
  const id = Number(/^\/jobs\/(\d+)/.exec(path)?.[1]);
  if (id > 0) {
    void client.prefetchQuery(jobQuery(id));
    void client.prefetchQuery(planQuery(id));
  }
}

export const useJobs = () => useQuery({ queryKey: keys.jobs, queryFn: () => settled(api.GET("/api/jobs")) });
export const useJob = (id: number) => useQuery(jobQuery(id));
export const usePlan = (id: number) => useQuery(planQuery(id));
export const useRecords = (id: number) =>
  useQuery({ queryKey: keys.records(id), queryFn: () => settled(api.GET("/api/jobs/{id}/records", { params: { path: { id } } })) });
export const useKitchen = () => useQuery({ queryKey: keys.kitchen, queryFn: () => settled(api.GET("/api/kitchen")) });
export const useFormulas = () => useQuery({ queryKey: keys.formulas, queryFn: () => settled(api.GET("/api/formulas")) });
export const useCutters = () => useQuery({ queryKey: keys.cutters, queryFn: () => settled(api.GET("/api/cutters")) });
export const useHistory = () => useQuery({ queryKey: keys.history, queryFn: () => settled(api.GET("/api/history")) });
export const useIngredients = () =>
  useQuery({ queryKey: keys.ingredients, queryFn: () => settled(api.GET("/api/ingredients")), staleTime: Infinity });
export const useUnits = () => useQuery(unitsQuery);

/** After a change everything may have moved; what is on the screen is asked for again, the old figures stay meanwhile. */
function refresh(client: QueryClient): Promise<void> {
  return client.invalidateQueries({ predicate: (q) => q.queryKey[0] !== "units" && q.queryKey[0] !== "ingredients" });
}

export function useChangeJob(id: number) {
  const client = useQueryClient();
  return useMutation({
    scope: { id: "edits" },
    mutationFn: (patch: Partial<JobBody>) =>
      settled(api.PATCH("/api/jobs/{id}", { params: { path: { id } }, body: patch as Record<string, never> })),
    onSuccess: (job: Job) => {
      client.setQueryData(keys.job(id), job);
      return refresh(client);
    },
  });
}

export function useChangeKitchen() {
  const client = useQueryClient();
  return useMutation({
    scope: { id: "edits" },
    mutationFn: (patch: Partial<Kitchen>) => settled(api.PATCH("/api/kitchen", { body: patch as Record<string, never> })),
    onSuccess: (kitchen: Kitchen) => {
      client.setQueryData(keys.kitchen, kitchen);
      return refresh(client);
    },
  });
}

export function useChangeFormula(id: number) {
  const client = useQueryClient();
  return useMutation({
    scope: { id: "edits" },
    // The change is made to the formula as it stands when its turn comes, so that two quick edits do not undo each other.
    mutationFn: async (change: (formula: FormulaBody) => FormulaBody) => {
      const all = client.getQueryData<Formula[]>(keys.formulas) ?? (await settled(api.GET("/api/formulas")));
      const current = all.find((f) => f.id === id);
      const { name, lines } = current ?? { name: "", lines: [] };
      return settled(api.PUT("/api/formulas/{id}", { params: { path: { id } }, body: change({ name, lines }) }));
    },
    onSuccess: () => refresh(client),
  });
}

function useAction<Input, Output>(action: (input: Input) => Promise<Output>) {
  const client = useQueryClient();
  return useMutation({ scope: { id: "edits" }, mutationFn: action, onSuccess: () => refresh(client) });
}

export const useAddJob = () => useAction((body: JobBody) => settled(api.POST("/api/jobs", { body })));
export const useAddDemo = () => useAction(() => settled(api.POST("/api/demo")));
export const useDeleteJob = () =>
  useAction((id: number) => settled(api.DELETE("/api/jobs/{id}", { params: { path: { id } } })));
export const useReadBack = () =>
  useAction((file: unknown) => settled(api.POST("/api/jobs/read-back", { body: file as never })));
export const useAddFormula = () => useAction((body: FormulaBody) => settled(api.POST("/api/formulas", { body })));
export const useAddCutter = () => useAction((body: NewCutter) => settled(api.POST("/api/cutters", { body })));
export const useDeleteCutter = () =>
  useAction((id: number) => settled(api.DELETE("/api/cutters/{id}", { params: { path: { id } } })));
export const useAddRecord = (job: number) =>
  useAction((body: RecordBody) => settled(api.POST("/api/jobs/{id}/records", { params: { path: { id: job } }, body })));
export const useDeleteRecord = () =>
  useAction((id: number) => settled(api.DELETE("/api/records/{id}", { params: { path: { id } } })));
export const useUndo = () => useAction(() => settled(api.POST("/api/undo")));
export const useRedo = () => useAction(() => settled(api.POST("/api/redo")));
