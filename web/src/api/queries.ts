/** What is known of the server's state, and the changes to it. The query cache is the only copy. */
import {
  keepPreviousData,
  useInfiniteQuery,
  useMutation,
  useQuery,
  useQueryClient,
  type QueryClient,
} from "@tanstack/react-query";
import {
  api,
  madeFrom,
  Refusal,
  settled,
  type BowlRequest,
  type Formula,
  type FormulaBody,
  type History,
  type IngredientBody,
  type Job,
  type JobBody,
  type Kitchen,
  type Lever,
  type LotBody,
  type BakePhotoQuery,
  type MixNoteBody,
  type NewCutter,
  type PhotoQuery,
  type ReadRequest,
  type RecordBody,
  type SizeRequest,
} from "./client";
import { inTurn, outgoing, type Repeats } from "./outgoing";
import { canChange, type Edited } from "./resting";
import { setZone } from "../drawing/time";
import { didEdit } from "../kit/said";
import { askWhich } from "../kit/asked";

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
  beside: (id: number, neighbour: string, version: number | null) =>
    ["beside", id, neighbour, version] as const,
  versions: (id: number) => ["versions", id] as const,
  mixing: (id: number) => ["mixing", id] as const,
  label: (id: number) => ["label", id] as const,
  pulled: (id: number, lever: Lever) => ["pulled", id, lever] as const,
  sized: (id: number, by: SizeRequest) => ["sized", id, by] as const,
  reading: (request: ReadRequest) => ["reading", request] as const,
};

const jobQuery = (id: number) => ({
  queryKey: keys.job(id),
  queryFn: () => settled(api.GET("/api/jobs/{id}", { params: { path: { id } } })),
});
const planQuery = (id: number) => ({
  queryKey: keys.plan(id),
  queryFn: () => settled(api.GET("/api/jobs/{id}/plan", { params: { path: { id } } })),
});
const kitchenQuery = {
  queryKey: keys.kitchen,
  queryFn: async () => {
    const kitchen = await settled(api.GET("/api/kitchen"));
    setZone(kitchen.zone ?? "");
    return kitchen;
  },
};
const formulasQuery = { queryKey: keys.formulas, queryFn: () => settled(api.GET("/api/formulas")) };
const unitsQuery = {
  queryKey: keys.units,
  queryFn: () => settled(api.GET("/api/units")),
  staleTime: Infinity,
};

/** Asks for what the address will need while its view is still on the way. */
export function askAhead(client: QueryClient, path: string): void {
  void client.prefetchQuery(unitsQuery);
  void client.prefetchQuery(kitchenQuery);
  const id = Number(/^\/jobs\/(\d+)/.exec(path)?.[1]);
  if (id > 0) {
    void client.prefetchQuery(jobQuery(id));
    void client.prefetchQuery(planQuery(id));
  }
}

/** The first page: what is wanted next, then what was. */
export const useJobs = () =>
  useQuery({
    queryKey: [...keys.jobs, "page"],
    queryFn: async () => (await settled(api.GET("/api/jobs"))).jobs,
  });
/** All that have to do with a job: its lots, what is mixed with it, what is wanted on its date. */
export const useJobsAbout = (id: number) =>
  useQuery({
    queryKey: [...keys.jobs, "about", id],
    queryFn: async () => (await settled(api.GET("/api/jobs", { params: { query: { about: id } } }))).jobs,
    enabled: id > 0,
  });
/** Jobs by part of a name, a page after the other. */
export const useJobPages = (named: string) =>
  useInfiniteQuery({
    queryKey: [...keys.jobs, "pages", named],
    queryFn: ({ pageParam }) =>
      settled(api.GET("/api/jobs", { params: { query: { named, from: pageParam } } })),
    initialPageParam: 0,
    getNextPageParam: (last, pages) => {
      const shown = pages.flatMap((p) => p.jobs).filter((j) => j.lot_of == null).length;
      return shown < last.total && last.jobs.length > 0 ? shown : undefined;
    },
    placeholderData: keepPreviousData,
  });
export const useJob = (id: number) => useQuery({ ...jobQuery(id), enabled: id > 0 });
export const usePlan = (id: number) => useQuery(planQuery(id));
export const useRecords = (id: number) =>
  useQuery({
    queryKey: keys.records(id),
    queryFn: () => settled(api.GET("/api/jobs/{id}/records", { params: { path: { id } } })),
  });
export const useKitchen = () => useQuery(kitchenQuery);
export const useZones = (wanted: boolean) =>
  useQuery({
    queryKey: ["zones"],
    queryFn: () => settled(api.GET("/api/zones")),
    staleTime: Infinity,
    enabled: wanted,
  });
export const useFormulas = () => useQuery(formulasQuery);
/** The built-in shapes never change while the page is open. */
export const useCutterForms = () =>
  useQuery({
    queryKey: ["cutter forms"],
    queryFn: () => settled(api.GET("/api/cutters/forms")),
    staleTime: Infinity,
  });

export const useCutters = () =>
  useQuery({ queryKey: keys.cutters, queryFn: () => settled(api.GET("/api/cutters")) });
export const useHistory = () =>
  useQuery({ queryKey: keys.history, queryFn: () => settled(api.GET("/api/history")) });
export const useIngredients = () =>
  useQuery({ queryKey: keys.ingredients, queryFn: () => settled(api.GET("/api/ingredients")) });
export const useBeside = (id: number, neighbour: string, version: number | null) =>
  useQuery({
    queryKey: keys.beside(id, neighbour, version),
    queryFn: () =>
      settled(
        api.GET("/api/formulas/{id}/beside", {
          params: {
            path: { id },
            query: { ...(neighbour ? { with: neighbour } : {}), ...(version ? { version } : {}) },
          },
        }),
      ),
    placeholderData: keepPreviousData,
  });
export const useVersions = (id: number) =>
  useQuery({
    queryKey: keys.versions(id),
    queryFn: () => settled(api.GET("/api/formulas/{id}/versions", { params: { path: { id } } })),
  });
export const useMixing = (id: number) =>
  useQuery({
    queryKey: keys.mixing(id),
    queryFn: () => settled(api.GET("/api/jobs/{id}/mixing", { params: { path: { id } } })),
  });
export const useLabel = (id: number) =>
  useQuery({
    queryKey: keys.label(id),
    queryFn: () => settled(api.GET("/api/jobs/{id}/label", { params: { path: { id } } })),
  });
export const usePulled = (id: number, lever: Lever | undefined) =>
  useQuery({
    queryKey: lever ? keys.pulled(id, lever) : ["pulled", "none"],
    queryFn: () =>
      settled(api.POST("/api/formulas/{id}/pull", { params: { path: { id } }, body: lever as Lever })),
    enabled: lever !== undefined,
    retry: false,
  });
export const useSized = (id: number, by: SizeRequest | undefined) =>
  useQuery({
    queryKey: by ? keys.sized(id, by) : ["sized", "none"],
    queryFn: () =>
      settled(api.POST("/api/jobs/{id}/size", { params: { path: { id } }, body: by as SizeRequest })),
    enabled: by !== undefined,
    retry: false,
  });
export const readingQuery = (request: ReadRequest) => ({
  queryKey: keys.reading(request),
  queryFn: () => settled(api.POST("/api/recipes/read", { body: request })),
  retry: false,
  gcTime: 30_000,
});
/** A recipe as it is typed: the last reading stays until the next one comes. */
export const useReading = (request: ReadRequest) =>
  useQuery({
    ...readingQuery(request),
    enabled: request.text.trim() !== "",
    placeholderData: keepPreviousData,
  });
export const useUnits = () => useQuery(unitsQuery);

/** What takes longer to reckon is asked for again after a change, too, but no edit waits for it. */
const SLOW: ReadonlySet<unknown> = new Set(["sheets", "bakes-teach", "cooling", "parts-ahead", "tray-times"]);

/** What an edit can have changed and is on the screen is asked for again; the old figures stay meanwhile. */
export async function refresh(client: QueryClient, edited: Edited | "anything"): Promise<void> {
  // A first answer still on its way may have been computed before the edit, and would be taken for new.
  await client.cancelQueries({
    predicate: (q) => canChange(edited, q.queryKey) && q.state.data === undefined,
  });
  void client.invalidateQueries({
    predicate: (q) => canChange(edited, q.queryKey) && SLOW.has(q.queryKey[0]),
  });
  await client.invalidateQueries({
    predicate: (q) => canChange(edited, q.queryKey) && !SLOW.has(q.queryKey[0]),
  });
}

/**
 * Makes a change that says what it was made from. Where somebody else changed the same fields meanwhile the baker is told what they did
 * and asked; nothing of theirs or of ours goes unseen.
 */
async function change<T>(
  wanted: object,
  revision: number | undefined,
  send: (revision: number | undefined) => Promise<T>,
  asItIs: () => Promise<T>,
): Promise<T> {
  try {
    return await send(revision);
  } catch (error) {
    if (!(error instanceof Refusal) || error.problem.status !== 412) throw error;
    // Somebody made the same change, or this one was made when its answer was lost: there is nothing to ask.
    if (stands(wanted, error.problem.current)) return asItIs();
    const choice = await askWhich(error.problem.errors);
    return choice === "mine" ? await send(error.problem.revision ?? undefined) : await asItIs();
  }
}

/** Whether what was wanted is so already. */
export function stands(wanted: object, current: unknown): boolean {
  if (typeof current !== "object" || current === null) return false;
  const now = current as Record<string, unknown>;
  return Object.entries(wanted).every(
    ([field, value]) => JSON.stringify(now[field] ?? null) === JSON.stringify(value ?? null),
  );
}

export function useChangeJob(id: number) {
  const client = useQueryClient();
  return useMutation({
    // A change that rests on the job is made to it as it stands when its turn comes, so that two quick edits keep both.
    mutationFn: (wanted: Partial<JobBody> | ((now: Job) => Partial<JobBody>)) =>
      inTurn(async () => {
        const now = client.getQueryData<Job>(keys.job(id)) ?? (await jobQuery(id).queryFn());
        const patch = typeof wanted === "function" ? wanted(now) : wanted;
        const send = (revision: number | undefined) =>
          settled(
            api.PATCH("/api/jobs/{id}", {
              params: { path: { id } },
              body: patch as Record<string, never>,
              ...madeFrom(revision),
            }),
          );
        const job = await change(patch, now.revision, send, () => jobQuery(id).queryFn());
        client.setQueryData(keys.job(id), job);
        return job;
      }, "does no harm"),
    onSuccess: () => {
      didEdit();
      return refresh(client, "job");
    },
  });
}

/** Equips a kitchen that has no job yet in the units just chosen; any other stays as it is. */
export function useEquip() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: async (length: "mm" | "in") => {
      const body = { equipment: length === "in" ? ("us" as const) : ("metric" as const) };
      const before = client.getQueryData<Kitchen>(keys.kitchen)?.revision;
      const kitchen = await settled(api.POST("/api/kitchen/equipment", { body }));
      // Mostly it stays as it is, and nothing has to be asked anew.
      if (kitchen.revision === before) return;
      client.setQueryData(keys.kitchen, kitchen);
      didEdit();
      await refresh(client, "kitchen");
    },
  });
}

export function useChangeKitchen() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (wanted: Partial<Kitchen> | ((now: Kitchen) => Partial<Kitchen>)) =>
      inTurn(async () => {
        const now = client.getQueryData<Kitchen>(keys.kitchen) ?? (await kitchenQuery.queryFn());
        const patch = typeof wanted === "function" ? wanted(now) : wanted;
        const send = (revision: number | undefined) =>
          settled(api.PATCH("/api/kitchen", { body: patch as Record<string, never>, ...madeFrom(revision) }));
        const kitchen = await change(patch, now.revision, send, kitchenQuery.queryFn);
        client.setQueryData(keys.kitchen, kitchen);
        return kitchen;
      }, "does no harm"),
    onSuccess: (kitchen: Kitchen) => {
      didEdit();
      setZone(kitchen.zone ?? "");
      return refresh(client, "kitchen");
    },
  });
}

export function useChangeFormula(id: number) {
  const client = useQueryClient();
  return useMutation({
    // The change is made to the recipe as it stands when its turn comes, so that two quick edits do not undo each other.
    mutationFn: (wanted: (formula: FormulaBody) => FormulaBody) =>
      inTurn(async () => {
        const all = client.getQueryData<Formula[]>(keys.formulas) ?? (await formulasQuery.queryFn());
        const current = all.find((f) => f.id === id);
        const { name, lines } = current ?? { name: "", lines: [] };
        const body = wanted({ name, lines });
        const send = (revision: number | undefined) =>
          settled(api.PUT("/api/formulas/{id}", { params: { path: { id } }, body, ...madeFrom(revision) }));
        const asItIs = async () => {
          const found = (await formulasQuery.queryFn()).find((f) => f.id === id);
          if (!found) throw new Error("the recipe is gone");
          return found;
        };
        const formula = await change(body, current?.revision, send, asItIs);
        client.setQueryData<Formula[]>(keys.formulas, (known) =>
          known?.map((f) => (f.id === id ? formula : f)),
        );
        return formula;
      }, "does no harm"),
    onSuccess: () => {
      didEdit();
      return refresh(client, "formula");
    },
  });
}

/** A change after which what it can have changed is asked for again. */
export function useAction<Input, Output>(
  action: (input: Input) => Promise<Output>,
  edited: Edited | "anything" = "anything",
  repeats: Repeats = "would be made twice",
) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (input: Input) => inTurn(() => action(input), repeats),
    onSuccess: () => {
      didEdit();
      return refresh(client, edited);
    },
  });
}

/** A fact of the day that was noted: what undo takes back is decided by `didFact`, not by the edits before it. */
export function useFact<Input, Output>(
  action: (input: Input) => Promise<Output>,
  repeats: Repeats = "would be made twice",
) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (input: Input) => inTurn(() => action(input), repeats),
    onSuccess: () => refresh(client, "fact"),
  });
}

/** A new job as the server begins one; of a formula where its number is given. */
export const useAddLot = (id: number) =>
  useAction(
    (body: LotBody) => settled(api.POST("/api/jobs/{id}/lots", { params: { path: { id } }, body })),
    "job",
  );
export const useDeleteJob = () =>
  useAction((id: number) => settled(api.DELETE("/api/jobs/{id}", { params: { path: { id } } })));
export const useReadBack = () =>
  useAction((file: unknown) => settled(api.POST("/api/jobs/read-back", { body: file as never })));
export const useAddFormula = () =>
  useAction((body: FormulaBody) => settled(api.POST("/api/formulas", { body })), "formula");
export const useDeleteFormula = () =>
  useAction((id: number) => settled(api.DELETE("/api/formulas/{id}", { params: { path: { id } } })));
export const useAddIngredient = () =>
  useAction((body: IngredientBody) => settled(api.POST("/api/ingredients", { body })), "ingredient");
export const useSaveIngredient = () =>
  useAction(
    ({ key, body }: { key: string; body: IngredientBody }) =>
      settled(api.PUT("/api/ingredients/{key}", { params: { path: { key } }, body })),
    "ingredient",
  );
export const useDeleteIngredient = () =>
  useAction((key: string) => settled(api.DELETE("/api/ingredients/{key}", { params: { path: { key } } })));
export const useSavePrice = () =>
  useAction(
    ({ key, price_per_kg }: { key: string; price_per_kg: number | null }) =>
      settled(api.PUT("/api/ingredients/{key}/price", { params: { path: { key } }, body: { price_per_kg } })),
    "ingredient",
  );
export const useBowlAdvice = (job: number) =>
  useMutation({
    mutationFn: (body: BowlRequest) =>
      settled(api.POST("/api/jobs/{id}/bowl/advice", { params: { path: { id: job } }, body })),
  });
export const useAddMixNote = (job: number) =>
  useFact((body: MixNoteBody) =>
    settled(api.POST("/api/jobs/{id}/bowl", { params: { path: { id: job } }, body })),
  );
export const useDeleteMixNote = () =>
  useFact((id: number) => settled(api.DELETE("/api/bowl/{id}", { params: { path: { id } } })));
export const usePutBackMixNote = () =>
  useFact((id: number) => settled(api.POST("/api/bowl/{id}/put-back", { params: { path: { id } } })));
export const useAddCutter = () =>
  useAction((body: NewCutter) => settled(api.POST("/api/cutters", { body })), "cutter");
/** What a cutter would be, without putting it on the shelf. */
export const useLookAtCutter = () =>
  useMutation({ mutationFn: (body: NewCutter) => settled(api.POST("/api/cutters/look", { body })) });
/** A file as the body of a request. */
const asFile = (file: Blob) => ({
  body: file as never,
  headers: { "content-type": file.type },
  bodySerializer: (body: unknown) => body as Blob,
});

export const useCutterPhoto = () =>
  useMutation({
    mutationFn: ({ photo, query }: { photo: Blob; query: PhotoQuery }) =>
      settled(api.POST("/api/cutters/photo", { params: { query }, ...asFile(photo) })),
  });
/** Measures baked pieces; nothing is kept. */
export const useBakePhoto = (job: number) =>
  useMutation({
    mutationFn: ({ photo, query }: { photo: Blob; query: BakePhotoQuery }) =>
      settled(api.POST("/api/jobs/{id}/photo", { params: { path: { id: job }, query }, ...asFile(photo) })),
  });
/** Keeps the photo that a record was measured by. */
export const useKeepPhoto = () =>
  useFact(({ record, photo, query }: { record: number; photo: Blob; query: BakePhotoQuery }) =>
    settled(
      api.POST("/api/records/{id}/photo", { params: { path: { id: record }, query }, ...asFile(photo) }),
    ),
  );
export const useRemovePhoto = () =>
  useFact((record: number) =>
    settled(api.DELETE("/api/records/{id}/photo", { params: { path: { id: record } } })),
  );
export const useDeleteCutter = () =>
  useAction((id: number) => settled(api.DELETE("/api/cutters/{id}", { params: { path: { id } } })));
export const useAddRecord = (job: number) =>
  useFact((body: RecordBody) =>
    settled(api.POST("/api/jobs/{id}/records", { params: { path: { id: job } }, body })),
  );
export const useDeleteRecord = () =>
  useFact((id: number) => settled(api.DELETE("/api/records/{id}", { params: { path: { id } } })));
export const usePutBackRecord = () =>
  useFact((id: number) => settled(api.POST("/api/records/{id}/put-back", { params: { path: { id } } })));
/** Leaves a record out of what bakes teach, or puts it back. */
export const useLeaveRecordOut = () =>
  useFact(({ id, left_out }: { id: number; left_out: boolean }) =>
    settled(api.PUT("/api/records/{id}/left-out", { params: { path: { id } }, body: { left_out } })),
  );
export const useUndo = () => {
  const client = useQueryClient();
  return useMutation({
    mutationFn: () => {
      // What is shown as next to be taken back is what is taken back, or it is asked about. Where changes of one's own are still on their way, or not shown yet,
      // the last of them is meant.
      const shown = client.getQueryData<History>(keys.history)?.undo?.id;
      const behind =
        outgoing().waiting > 0 ||
        client.isFetching({ queryKey: keys.history }) > 0 ||
        client.getQueryState(keys.history)?.isInvalidated === true;
      return inTurn(async () => {
        const edit = behind ? (await settled(api.GET("/api/history"))).undo?.id : shown;
        return settled(api.POST("/api/undo", { params: { query: edit === undefined ? {} : { edit } } }));
      }, "would be made twice");
    },
    onSuccess: () => {
      didEdit();
      return refresh(client, "anything");
    },
  });
};
export const useRedo = () => useAction(() => settled(api.POST("/api/redo")));
