/** What the cold station asks of the server, and what it changes there. */
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import {
  api,
  Refusal,
  settled,
  type ProbeBody,
  type PutInBody,
  type ReadingBody,
  type TouchBody,
  type Trouble,
} from "./client";
import { useAction, useFact } from "./queries";

export const useWanted = (id: number, in_at: string, ready_at: string) =>
  useQuery({
    queryKey: ["wanted", id, in_at, ready_at],
    queryFn: () =>
      settled(
        api.GET("/api/jobs/{id}/cold/wanted", { params: { path: { id }, query: { in_at, ready_at } } }),
      ),
    placeholderData: keepPreviousData,
    retry: false,
  });
/** Sizes of the ways to chill; as in the plan or as is usual where absent. */
export interface WaySizes {
  disc_mm?: number;
  stack?: number;
  log_mm?: number;
  bar_width_mm?: number;
  bar_height_mm?: number;
}
export const askWays = (id: number, sizes: WaySizes) =>
  settled(api.GET("/api/jobs/{id}/cold/ways", { params: { path: { id }, query: sizes } }));
export const useWays = (id: number, sizes: WaySizes) =>
  useQuery({
    queryKey: ["ways", id, sizes],
    queryFn: () => askWays(id, sizes),
    placeholderData: keepPreviousData,
    retry: false,
  });
export const useSection = (id: number, sizes: WaySizes, way: string | undefined) =>
  useQuery({
    queryKey: ["section", id, sizes, way],
    queryFn: () =>
      settled(
        api.GET("/api/jobs/{id}/cold/section", {
          params: { path: { id }, query: { ...sizes, ...(way ? { way } : {}) } },
        }),
      ),
    enabled: way !== undefined,
    placeholderData: keepPreviousData,
    retry: false,
  });
export interface TroubleQuery {
  trouble: Trouble;
  dough_c?: number;
  room_c?: number;
  ago_min?: number;
}
export const useAdvice = (id: number, query: TroubleQuery) =>
  useQuery({
    queryKey: ["advice", id, query],
    queryFn: () => settled(api.GET("/api/jobs/{id}/cold/advice", { params: { path: { id }, query } })),
    placeholderData: keepPreviousData,
    retry: false,
  });
export const useChills = (id: number) =>
  useQuery({
    queryKey: ["chills", id],
    queryFn: () => settled(api.GET("/api/jobs/{id}/chills", { params: { path: { id } } })),
  });
export const usePlaces = () =>
  useQuery({ queryKey: ["places"], queryFn: () => settled(api.GET("/api/places")) });
export const useTouches = (id: number) =>
  useQuery({
    queryKey: ["touches", id],
    queryFn: () => settled(api.GET("/api/jobs/{id}/touches", { params: { path: { id } } })),
  });
export const usePutIn = (job: number) =>
  useFact((body: PutInBody) =>
    settled(api.POST("/api/jobs/{id}/chills", { params: { path: { id: job } }, body })),
  );
export const useMovePiece = () =>
  useFact(({ id, place }: { id: number; place: "fridge" | "freezer" | "bench" }) =>
    settled(api.POST("/api/chills/{id}/move", { params: { path: { id } }, body: { place } })),
  );
/** A reading, and when it was typed by this device's clock. */
export interface TypedReading extends ReadingBody {
  typed_at: string;
}

/** It bears its own time, so that it is the same one however often it is sent; where this device's clock is ahead of the server's it is of when it comes there. */
async function addReading(id: number, { typed_at, ...reading }: TypedReading) {
  const send = (body: ReadingBody) =>
    settled(api.POST("/api/chills/{id}/readings", { params: { path: { id } }, body: [body] }));
  if (reading.read_at != null) return send(reading);
  try {
    return await send({ ...reading, read_at: typed_at });
  } catch (error) {
    if (error instanceof Refusal && error.of("readings[0].read_at")) return send(reading);
    throw error;
  }
}

/** What is done to a followed piece by its number alone. */
export const usePieceAct = () =>
  useFact(({ id, act }: { id: number; act: "unmove" | "end" | "reopen" | "teach" | "unteach" }) => {
    const to = { params: { path: { id } } };
    switch (act) {
      case "unmove":
        return settled(api.POST("/api/chills/{id}/unmove", to));
      case "end":
        return settled(api.POST("/api/chills/{id}/end", to));
      case "reopen":
        return settled(api.POST("/api/chills/{id}/reopen", to));
      case "teach":
        return settled(api.POST("/api/chills/{id}/teach", to));
      case "unteach":
        return settled(api.DELETE("/api/chills/{id}/teach", to));
    }
  });
export const useForgetPiece = () =>
  useFact((id: number) => settled(api.DELETE("/api/chills/{id}", { params: { path: { id } } })));
export const useAddReading = (id: number) =>
  useFact((reading: TypedReading) => addReading(id, reading), "does no harm");
export const useDeleteReading = () =>
  useFact((id: number) => settled(api.DELETE("/api/readings/{id}", { params: { path: { id } } })));
export const useProbe = (id: number) =>
  useFact((probe: ProbeBody | null) => {
    const path = { id };
    return probe
      ? settled(api.PUT("/api/chills/{id}/probe", { params: { path }, body: probe }))
      : settled(api.DELETE("/api/chills/{id}/probe", { params: { path } }));
  });
export const usePlaceUse = () =>
  useAction(({ place, busy }: { place: "fridge" | "freezer"; busy: boolean }) =>
    settled(api.PUT("/api/places/{place}/use", { params: { path: { place } }, body: { busy } })),
  );
export const useResetPlace = () =>
  useAction(({ place, busy }: { place: "fridge" | "freezer"; busy: boolean }) =>
    settled(
      api.DELETE("/api/places/{place}/{used}", {
        params: { path: { place, used: busy ? "busy" : "usual" } },
      }),
    ),
  );
export const useAddTouch = (job: number) =>
  useFact((body: TouchBody) =>
    settled(api.POST("/api/jobs/{id}/touches", { params: { path: { id: job } }, body })),
  );
export const useDeleteTouch = () =>
  useFact((id: number) => settled(api.DELETE("/api/touches/{id}", { params: { path: { id } } })));
