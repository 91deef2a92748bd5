import { useIsMutating, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useLayoutEffect, useRef, useState } from "react";
import { ApiError, occurredAt, type JobView } from "./api";
import { useAsking } from "./changes";
import { newId } from "./ids";
import { useOutbox } from "./kept";
import { isReachable } from "./outbox";
import { queries } from "./queries";
import { typedNumber } from "./units";

export const useSession = () => useQuery(queries.session);

/** Whichever of those signed in here works now: what is done is recorded under their name. */
export const useHand = () => {
  const session = useSession().data;
  const id = useOutbox().hand?.id;
  return [session?.me, session?.with].find((p) => p?.id === id) ?? session?.me ?? null;
};

export const useCatalogue = () => useQuery(queries.catalogue);

export const useJob = (id: string) => {
  const asking = useAsking();
  return useQuery({
    ...queries.job(id),
    // Someone else may be at the other corner.
    refetchInterval: asking,
  });
};

interface Header {
  eventId: string;
  expectedVersion: number;
  occurredAt: string;
}

const commandsOf = (jobId: string | undefined) => ["job command", jobId];

/** Whether a command on the job is on its way, from whichever part of the page: the next would be refused as a step behind. */
export const useIsCommanding = (jobId: string) => useIsMutating({ mutationKey: commandsOf(jobId) }) > 0;

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
    mutationKey: commandsOf(job?.id),
    mutationFn: async (body) => {
      if (!job) throw new Error("The job is not loaded yet.");
      const key = JSON.stringify(body);
      if (pending.current?.key !== key)
        pending.current = {
          key,
          header: { eventId: newId(), expectedVersion: job.version, occurredAt: occurredAt() },
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
    // After a click the next one waits for the new version; what was refused is said at once.
    onSuccess: () => {
      const asked = client.invalidateQueries({ queryKey: ["job", job?.id] });
      return isReachable() ? asked : undefined;
    },
    onError: () => void client.invalidateQueries({ queryKey: ["job", job?.id] }),
    onSettled: () => void client.invalidateQueries({ queryKey: queries.board.queryKey }),
  });
}

/**
 * A bench's answer to what is typed now: asked as it is typed, and never shown for anything else. While the inputs are not whole
 * (null) nothing is asked.
 */
export function useAnswer<Input, Answer>(
  bench: string,
  input: Input | null,
  ask: (input: Input) => Promise<Answer>,
) {
  return useQuery<Answer, ApiError | Error>({
    queryKey: ["bench", bench, input],
    queryFn: () => ask(input as Input),
    enabled: input !== null,
    retry: false,
    staleTime: Infinity,
    gcTime: 60_000,
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

/** How long the primary action rests once the step under it has changed, ms. */
const REST = 800;

/**
 * Two touches meant for one step must not do two: after what it stands for has changed, the primary action takes no touch and no key
 * for a moment. Fields and gauges are not slowed.
 */
export function useRested(what: string) {
  const changed = useRef<{ what: string; at: number } | null>(null);
  useLayoutEffect(() => {
    changed.current = { what, at: changed.current ? performance.now() : -REST };
  }, [what]);
  return useCallback(() => performance.now() - (changed.current?.at ?? 0) >= REST, []);
}

const draftKey = (name: string) => `draft ${name}`;

/**
 * What is typed at a step, kept in the browser until the step is clicked on: a closed lid, a crash or someone else's click
 * loses none of it.
 */
export function useDraft(
  name: string,
): [Record<string, string>, (key: string, value: string) => void, () => void] {
  const [draft, setDraft] = useState<Record<string, string>>(() => {
    try {
      return JSON.parse(localStorage.getItem(draftKey(name)) ?? "{}") as Record<string, string>;
    } catch {
      return {};
    }
  });
  const set = useCallback(
    (key: string, value: string) =>
      setDraft((old) => {
        const next = { ...old, [key]: value };
        localStorage.setItem(draftKey(name), JSON.stringify(next));
        return next;
      }),
    [name],
  );
  const clear = useCallback(() => localStorage.removeItem(draftKey(name)), [name]);
  return [draft, set, clear];
}

/** What is typed on a quick bench, with its figures read as they stand: the sheet's where nothing is typed, null while there is neither. */
export function useFigures(name: string, sheet: Record<string, number | null | undefined> = {}) {
  const [v, set] = useDraft(name);
  const number = (key: string) => {
    const n = typedNumber(v[key] ?? "");
    return Number.isNaN(n) ? null : (n ?? sheet[key] ?? null);
  };
  return { v, set, number };
}
