import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useSyncExternalStore } from "react";
import type { JobView, Schemas } from "./api";
import { probe } from "./outbox";
import { queries } from "./queries";

// Whether the server tells of changes as they happen: then nothing is asked for on a timer.
let told = false;
const listeners = new Set<() => void>();
const set = (next: boolean) => {
  told = next;
  listeners.forEach((l) => l());
};

/** How often to ask, ms: while the server tells, never. */
export const useAsking = () => {
  const now = useSyncExternalStore(
    (l) => {
      listeners.add(l);
      return () => listeners.delete(l);
    },
    () => told,
  );
  return now ? (false as const) : 5000;
};

/** Listens for jobs that have moved on, while the page is looked at: a browser keeps few connections to one server. */
export function useChanges(signedIn: boolean) {
  const client = useQueryClient();
  useEffect(() => {
    if (!signedIn) return;
    let source: EventSource | null = null;
    let over = false;
    const newest = new Map<string, number>();
    // Whoever made the change asks for it anyway: what is being asked for is waited for, and asked again only if it was older.
    const look = (jobId: string) => {
      if (!over && (client.isFetching({ queryKey: ["job", jobId] }) > 0 || client.isMutating() > 0))
        return void setTimeout(() => look(jobId), 100);
      const shown = client.getQueryData<JobView>(["job", jobId]);
      if (shown && shown.version < newest.get(jobId)!)
        void client.invalidateQueries({ queryKey: ["job", jobId] });
      newest.delete(jobId);
    };
    const close = () => {
      source?.close();
      source = null;
      set(false);
    };
    const open = () => {
      source = new EventSource("/api/changes");
      // What happened while nobody listened is asked for once.
      source.addEventListener("still", () => {
        if (told) return;
        set(true);
        void client.invalidateQueries({ queryKey: ["job"] });
        void client.invalidateQueries({ queryKey: queries.board.queryKey });
      });
      source.addEventListener("job", (e: MessageEvent<string>) => {
        const { jobId, version } = JSON.parse(e.data) as Schemas["JobChanged"];
        void client.invalidateQueries({ queryKey: queries.board.queryKey });
        const waits = newest.has(jobId);
        newest.set(jobId, version);
        if (!waits) setTimeout(() => look(jobId), 100);
      });
      source.onerror = () => {
        set(false);
        void probe();
        // One that was refused does not come again by itself.
        if (source?.readyState !== EventSource.CLOSED) return;
        close();
        setTimeout(follow, 5000);
      };
    };
    const follow = () => {
      if (document.visibilityState === "hidden") close();
      else if (!source && !over) open();
    };
    follow();
    document.addEventListener("visibilitychange", follow);
    return () => {
      over = true;
      document.removeEventListener("visibilitychange", follow);
      close();
    };
  }, [client, signedIn]);
}
