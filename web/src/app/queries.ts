import { queryOptions } from "@tanstack/react-query";
import { api, take } from "./api";

/** What several pages ask the server for: one key and one way to ask for each, so that what one page changes another shows. */
export const queries = {
  // Asked once: that the server is silent is said at once, and it is asked again as soon as it answers.
  session: queryOptions({
    queryKey: ["session"],
    queryFn: () => take(api.GET("/api/session")),
    staleTime: Infinity,
    retry: false,
    retryOnMount: false,
  }),
  catalogue: queryOptions({
    queryKey: ["catalogue"],
    queryFn: () => take(api.GET("/api/catalogue")),
    staleTime: Infinity,
  }),
  board: queryOptions({ queryKey: ["board"], queryFn: () => take(api.GET("/api/board")) }),
  job: (id: string) =>
    queryOptions({
      queryKey: ["job", id],
      queryFn: () => take(api.GET("/api/jobs/{id}", { params: { path: { id } } })),
    }),
  sheets: queryOptions({ queryKey: ["sheets"], queryFn: () => take(api.GET("/api/spec-sheets")) }),
  sheetForm: queryOptions({
    queryKey: ["sheet form"],
    queryFn: () => take(api.GET("/api/spec-sheets/form")),
    staleTime: Infinity,
  }),
  vehicles: queryOptions({ queryKey: ["vehicles"], queryFn: () => take(api.GET("/api/vehicles")) }),
  wrenches: queryOptions({
    queryKey: ["wrenches"],
    queryFn: () => take(api.GET("/api/workshop/wrenches")),
  }),
  instruments: queryOptions({
    queryKey: ["instruments"],
    queryFn: () => take(api.GET("/api/workshop/instruments")),
    // Every step shows its readings' instruments; the list is not asked for anew with each. The server checks what a click names.
    staleTime: 60_000,
  }),
  houseRules: queryOptions({
    queryKey: ["house-rules"],
    queryFn: () => take(api.GET("/api/workshop/house-rules")),
  }),
};
