import { useSyncExternalStore } from "react";
import type { Middleware } from "openapi-fetch";

/** A write that the server did not answer: kept until it has, under the id it was made with, so that it can count once only. */
export interface Unsent {
  eventId: string;
  path: string;
  body: string;
  what: string;
  jobId: string | null;
}

const KEY = "unsent";
const NAME: Record<string, string> = {
  steps: "a step",
  torques: "a signature",
  readings: "readings",
  notes: "a note",
  photos: "a photo",
  findings: "a report",
  looks: "a look",
  rulings: "a brake type",
  lifts: "an undone step",
  "stop-signs": "a stop sign",
};

interface Body {
  eventId?: string;
  side?: string | null;
}

let state: { reachable: boolean; unsent: Unsent[] } = { reachable: true, unsent: read() };
const listeners = new Set<() => void>();

function read(): Unsent[] {
  try {
    return JSON.parse(localStorage.getItem(KEY) ?? "[]") as Unsent[];
  } catch {
    return [];
  }
}

function set(next: Partial<typeof state>) {
  state = { ...state, ...next };
  if (next.unsent) localStorage.setItem(KEY, JSON.stringify(next.unsent));
  listeners.forEach((l) => l());
}

export function forget(eventId: string) {
  if (state.unsent.some((u) => u.eventId === eventId))
    set({ unsent: state.unsent.filter((u) => u.eventId !== eventId) });
}

function keep(path: string, body: string) {
  const { eventId, side } = JSON.parse(body || "{}") as Body;
  if (!eventId || state.unsent.some((u) => u.eventId === eventId)) return;
  const [, jobId = null, kind = ""] = /^\/api\/jobs\/([^/]+)\/(?:.*\/)?([^/]+)$/.exec(path) ?? [];
  const what = `${NAME[kind] ?? "a change"}${side ? `, ${side}` : ""}`;
  set({ unsent: [...state.unsent, { eventId, path, body, what, jobId }] });
}

// What a request carries is read before it is sent: afterwards its body is spent.
const bodies = new WeakMap<Request, string>();

/** Notices every write that finds no server, and every one that is answered after all. */
export const watchWrites: Middleware = {
  async onRequest({ request }) {
    if (request.method !== "GET") bodies.set(request, await request.clone().text());
    return undefined;
  },
  onResponse({ request }) {
    if (!state.reachable) set({ reachable: true });
    const body = bodies.get(request);
    // Whatever the answer is: it has been given.
    if (body?.startsWith("{")) forget((JSON.parse(body) as Body).eventId ?? "");
    return undefined;
  },
  onError({ request }) {
    if (state.reachable) set({ reachable: false });
    const body = bodies.get(request);
    if (body?.startsWith("{")) keep(new URL(request.url).pathname, body);
    return undefined;
  },
};

/** Whether the server answered last time, and what it has not answered yet. */
export const useUnsent = () =>
  useSyncExternalStore(
    (l) => {
      listeners.add(l);
      return () => listeners.delete(l);
    },
    () => state,
  );

/** Sends one again exactly as it was; says what the server made of it, or null when there is still no answer. */
export async function sendAgain(u: Unsent): Promise<{ ok: boolean; title: string } | null> {
  try {
    const answer = await fetch(u.path, {
      method: "POST",
      headers: { "content-type": "application/json" },
      body: u.body,
    });
    set({ reachable: true });
    const title = answer.ok ? "" : (((await answer.json()) as { title?: string }).title ?? "It was refused.");
    forget(u.eventId);
    return { ok: answer.ok, title };
  } catch {
    set({ reachable: false });
    return null;
  }
}
