/** The book of bakes, why one came out so, and what is tried on purpose. */
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { api, settled, type Schemas } from "./client";
import { useFact } from "./queries";

export type SeenWord = Schemas["Seen"];
export type Cause = Schemas["Cause"];
export type Causes = Schemas["CausesView"];
export type Suspect = Schemas["SuspectView"];
export type CausesQuery = Schemas["CausesQuery"];
export type TryNoted = Schemas["TryNoted"];
export type NewTrial = Schemas["NewTrialBody"];
export type BookRecord = Schemas["BookRecordView"];
export type BookQuery = {
  named?: string;
  edge?: Schemas["EdgeColour"];
  spread?: Schemas["AgainstExpected"];
  from_day?: string;
  to_day?: string;
  from?: number;
};

export const useSeen = () =>
  useQuery({ queryKey: ["causes"], queryFn: () => settled(api.GET("/api/causes")), staleTime: Infinity });
export const useCauses = (record: number, query: CausesQuery) =>
  useQuery({
    queryKey: ["records", "causes", record, query],
    queryFn: () => settled(api.GET("/api/records/{id}/causes", { params: { path: { id: record }, query } })),
    enabled: query.seen !== "",
    placeholderData: keepPreviousData,
    retry: false,
  });
export const usePutTest = () =>
  useFact(({ record, query }: { record: number; query: CausesQuery }) =>
    settled(api.POST("/api/records/{id}/test", { params: { path: { id: record } }, body: query })),
  );

export const triesQuery = (job: number) => ({
  queryKey: ["records", "tries", job],
  queryFn: () => settled(api.GET("/api/jobs/{id}/tries", { params: { path: { id: job } } })),
});
export const useTries = (job: number) => useQuery(triesQuery(job));
/** As it is read: pairs are lists there. */
export type Try = NonNullable<ReturnType<typeof useTries>["data"]>[number];
export type Trial = NonNullable<Try["trial"]>;
export const useTrialSize = (
  job: number,
  query: { ways: number; measure: Schemas["EvenMeasure"]; difference_mm: number },
) =>
  useQuery({
    queryKey: ["records", "trial size", job, query],
    queryFn: () => settled(api.GET("/api/jobs/{id}/trial-size", { params: { path: { id: job }, query } })),
    placeholderData: keepPreviousData,
    retry: false,
  });
export const usePlanTrial = (job: number) =>
  useFact((body: NewTrial) =>
    settled(api.POST("/api/jobs/{id}/tries", { params: { path: { id: job } }, body })),
  );
export const useNoteTry = () =>
  useFact(({ id, noted }: { id: number; noted: TryNoted }) =>
    settled(api.POST("/api/tries/{id}/noted", { params: { path: { id } }, body: noted })),
  );
export const useUnnoteTry = () =>
  useFact((id: number) => settled(api.DELETE("/api/tries/{id}/noted", { params: { path: { id } } })));
export const useDeleteTry = () =>
  useFact((id: number) => settled(api.DELETE("/api/tries/{id}", { params: { path: { id } } })));

export const useWorth = (job: number) =>
  useQuery({
    queryKey: ["records", "worth", job],
    queryFn: () => settled(api.GET("/api/jobs/{id}/worth-measuring", { params: { path: { id: job } } })),
    retry: false,
  });

export const useBook = (query: BookQuery) =>
  useQuery({
    queryKey: ["records", "book", query],
    queryFn: () => settled(api.GET("/api/book", { params: { query } })),
    placeholderData: keepPreviousData,
    retry: false,
  });
export const useBesideBakes = (pair: readonly number[]) =>
  useQuery({
    queryKey: ["records", "beside", pair],
    queryFn: () =>
      settled(api.GET("/api/book/beside", { params: { query: { one: pair[0] ?? 0, other: pair[1] ?? 0 } } })),
    enabled: pair.length === 2,
    retry: false,
  });
/** A file sent as it is. */
const asText = async (file: Blob) => ({
  body: await file.text(),
  bodySerializer: (text: string) => text,
  headers: { "content-type": "text/csv" },
});

export const useReadBook = (job: number) =>
  useFact(async ({ file, format }: { file: Blob; format: "csv" | "json" }) =>
    settled(
      api.POST("/api/jobs/{id}/records/read", {
        params: { path: { id: job }, query: { format } },
        ...(await asText(file)),
      }),
    ),
  );
export const readCallipers = async (file: Blob) => settled(api.POST("/api/callipers", await asText(file)));
