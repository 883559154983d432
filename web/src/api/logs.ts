/** Logs and patterned bars, asked of the server. */
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { api, settled, type Schemas } from "./client";
import type { paths } from "./schema";

export type LogQuery = paths["/api/jobs/{id}/log"]["get"]["parameters"]["query"];
export type PatternQuery = paths["/api/jobs/{id}/pattern"]["get"]["parameters"]["query"];

export const askLog = (id: number, query: LogQuery) =>
  settled(api.GET("/api/jobs/{id}/log", { params: { path: { id }, query } }));
export const useLog = (id: number, query: LogQuery) =>
  useQuery({
    queryKey: ["log", id, query],
    queryFn: () => askLog(id, query),
    placeholderData: keepPreviousData,
    retry: false,
  });

export const askPattern = (id: number, query: PatternQuery) =>
  settled(api.GET("/api/jobs/{id}/pattern", { params: { path: { id }, query } }));
export const usePattern = (id: number, query: PatternQuery) =>
  useQuery({
    queryKey: ["pattern", id, query],
    queryFn: () => askPattern(id, query),
    placeholderData: keepPreviousData,
    retry: false,
  });

export type PortionQuery = paths["/api/jobs/{id}/portion"]["get"]["parameters"]["query"];
export type Portioned = Schemas["PortionView"];

export const askPortion = (id: number, query: PortionQuery) =>
  settled(api.GET("/api/jobs/{id}/portion", { params: { path: { id }, query } }));
export const usePortion = (id: number, query: PortionQuery) =>
  useQuery({
    queryKey: ["portion", id, query],
    queryFn: () => askPortion(id, query),
    placeholderData: keepPreviousData,
    retry: false,
  });

/** Asked again when the readings change. */
export const useEvenness = (id: number, sheet: number, readings: unknown) =>
  useQuery({
    queryKey: ["evenness", id, sheet, readings],
    queryFn: () =>
      settled(api.GET("/api/jobs/{id}/evenness", { params: { path: { id }, query: { sheet } } })),
    placeholderData: keepPreviousData,
  });
