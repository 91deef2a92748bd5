import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef } from "react";
import { api, ApiError, occurredAt, take, type JobView } from "./api";

export const useSession = () =>
  useQuery({ queryKey: ["session"], queryFn: () => take(api.GET("/api/session")), staleTime: Infinity });

export const useCatalogue = () =>
  useQuery({ queryKey: ["catalogue"], queryFn: () => take(api.GET("/api/catalogue")), staleTime: Infinity });

export const useJob = (id: string) =>
  useQuery({
    queryKey: ["job", id],
    queryFn: () => take(api.GET("/api/jobs/{id}", { params: { path: { id } } })),
    // Someone else may be at the other corner.
    refetchInterval: 5000,
  });

interface Header {
  eventId: string;
  expectedVersion: number;
  occurredAt: string;
}

/**
 * Sends a command. The same command sent again after a failure carries the same id, so that a click that did get through
 * is not counted twice; nothing typed is cleared until the server has said yes.
 */
export function useCommand<Body>(
  job: JobView | undefined,
  send: (header: Header, body: Body) => Promise<unknown>,
) {
  const client = useQueryClient();
  const pending = useRef<{ key: string; header: Header } | null>(null);
  return useMutation<unknown, ApiError | Error, Body>({
    mutationFn: async (body) => {
      if (!job) throw new Error("The job is not loaded yet.");
      const key = JSON.stringify(body);
      if (pending.current?.key !== key)
        pending.current = {
          key,
          header: { eventId: crypto.randomUUID(), expectedVersion: job.version, occurredAt: occurredAt() },
        };
      try {
        const answer = await send(pending.current.header, body);
        pending.current = null;
        return answer;
      } catch (e) {
        // The server has answered: whatever is sent next is a new command.
        if (e instanceof ApiError) pending.current = null;
        throw e;
      }
    },
    onSettled: async () => {
      if (job) await client.invalidateQueries({ queryKey: ["job", job.id] });
      void client.invalidateQueries({ queryKey: ["board"] });
    },
  });
}

/** Keys of a view. A key never fires while something is being typed, nor over an open dialog. */
export function useKeys(keys: Record<string, () => void>) {
  const latest = useRef(keys);
  useEffect(() => {
    latest.current = keys;
  });
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      if (e.defaultPrevented || e.ctrlKey || e.metaKey || e.altKey || e.repeat) return;
      const target = e.target as HTMLElement;
      if (target.closest("input, textarea, select, [role=dialog]")) return;
      if (e.key === " " && target.closest("button, a, summary")) return;
      const action = latest.current[e.key === " " ? "Space" : e.key.toLowerCase()];
      if (!action) return;
      e.preventDefault();
      action();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, []);
}
