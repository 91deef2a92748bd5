import { openDB, type DBSchema, type IDBPDatabase } from "idb";
import { useSyncExternalStore } from "react";

/** A command to a job, kept on this device before it is sent and until it is answered, under the id it was made with. */
export interface Kept {
  /** Its place in the order, given by the store. */
  order: number;
  eventId: string;
  jobId: string;
  /** The last word of its address: steps, torques, readings. */
  kind: string;
  /** True of what is so whatever else has happened: it asks for no version. */
  fact: boolean;
  path: string;
  body: string;
  /** In words: a signature, left. */
  what: string;
  by: Person | null;
  /** When it was last sent, ms: one that another page sends just now is left to it. */
  sentAt: number;
  state: "sending" | "waiting" | "refused";
  /** Why it was refused, in the server's words. */
  says: string | null;
}

export interface Person {
  id: string;
  name: string;
}

export interface OutboxState {
  reachable: boolean;
  /** When the server last said anything, ms. */
  heardAt: number;
  kept: Kept[];
  /** Whose PIN is wanted while there is something to send or to read, and in whose words it is asked for: null where a sign-in has ended. */
  signInWanted: (Person & { says: string | null; order: number | null }) | null;
  /** Who is signed in on this device: nobody, one, or two. */
  people: Person[];
  /** Whichever of them works here now. */
  hand: Person | null;
}

interface Store extends DBSchema {
  kept: { key: number; value: Omit<Kept, "order"> & { order?: number } };
}

// What may follow another that the server has not had yet: it names that one.
export const FOLLOW = new Set(["steps", "torques"]);

let state: OutboxState = {
  reachable: true,
  heardAt: Date.now(),
  kept: [],
  signInWanted: null,
  people: [],
  hand: null,
};
let store: Promise<IDBPDatabase<Store> | null> | null = null;
// Where a browser keeps nothing for this page, the page itself does, as long as it is open.
let unkept = 0;
const listeners = new Set<() => void>();
const others = typeof BroadcastChannel === "undefined" ? null : new BroadcastChannel("outbox");
if (others) others.onmessage = () => void reload();

const db = () =>
  (store ??= openDB<Store>("patient-pawl", 1, {
    upgrade: (made) => void made.createObjectStore("kept", { keyPath: "order", autoIncrement: true }),
  }).catch(() => null));

/** Changes a part of it, and tells whoever listens. */
export function set(next: Partial<OutboxState>) {
  state = { ...state, ...next };
  listeners.forEach((l) => l());
}

export async function reload() {
  const all = await (await db())?.getAll("kept");
  if (all) set({ kept: all as Kept[] });
}

export async function add(entry: Omit<Kept, "order">): Promise<number> {
  const order = (await (await db())?.add("kept", entry)) ?? ++unkept;
  set({ kept: [...state.kept, { ...entry, order }] });
  others?.postMessage(null);
  return order;
}

export async function put(entry: Kept) {
  await (await db())?.put("kept", entry);
  set({ kept: state.kept.map((k) => (k.order === entry.order ? entry : k)) });
  others?.postMessage(null);
}

export async function drop(order: number) {
  await (await db())?.delete("kept", order);
  set({ kept: state.kept.filter((k) => k.order !== order) });
  others?.postMessage(null);
}

export const mine = (k: Kept) => k.by === null || state.people.some((p) => p.id === k.by!.id);

/** What waits for the server: what is being sent for the first time is none of it. */
export const waiting = (kept: Kept[], jobId?: string) =>
  kept.filter((k) => k.state === "waiting" && (jobId === undefined || k.jobId === jobId));

/** Why nothing more may be done in a job before what waits is answered; null where it may. */
export function heldBack(kept: Kept[], jobId: string, kind: string, fact: boolean): string | null {
  if (fact) return null;
  const before = waiting(kept, jobId).filter((k) => !k.fact && mine(k));
  const blocks = FOLLOW.has(kind) ? before.find((k) => k.kind !== "torques") : before[0];
  return blocks ? `What comes next follows from what was not sent yet: ${blocks.what}.` : null;
}

export const find = (order: number | undefined) => state.kept.find((k) => k.order === order);

/** Tells of every change, until what is given back is called. */
export const subscribe = (l: () => void) => {
  listeners.add(l);
  return () => void listeners.delete(l);
};

/** All of it as it stands now. */
export const outbox = () => state;

export const useOutbox = () => useSyncExternalStore(subscribe, outbox);

/** What whoever works here did at a step and the server has not had yet. */
export const useWaitingAt = (
  jobId: string,
  kind: "steps" | "torques",
  step: { stepId: string; side: string | null },
) =>
  waiting(useOutbox().kept, jobId).filter((k) => {
    if (k.kind !== kind || !mine(k)) return false;
    const at = JSON.parse(k.body) as typeof step;
    return at.stepId === step.stepId && at.side === step.side;
  });
