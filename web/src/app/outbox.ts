import type { Middleware } from "openapi-fetch";
import {
  add,
  drop,
  find,
  FOLLOW,
  heldBack,
  mine,
  outbox,
  put,
  reload,
  set,
  waiting,
  type Kept,
  type Person,
} from "./kept";

/*
 * Every command to a job goes through here. It is kept on this device before it is sent and until it is answered, under the id it was made
 * with: sent twice it counts once, and a closed lid between sending and answer loses nothing. What finds no server waits and is sent again,
 * in order. Whether it may count is the server's word alone.
 */

const NAME: Record<string, string> = {
  steps: "a step",
  torques: "a signature",
  readings: "readings",
  attached: "what a quick bench knew",
  notes: "a note",
  photos: "a photo",
  findings: "a report",
  looks: "a look",
  rulings: "a brake type",
  lifts: "an undone step",
  points: "a line of the log",
  draws: "fluid drawn",
  "stop-signs": "a stop sign",
};

// A page that was closed while it sent cannot hold an entry for longer.
const SENDING_MS = 20_000;
// A short silence is over soon; a long one is not asked about all the time.
const AGAIN_MS = [500, 1000, 2000, 5000];
export const BY = "Pawl-Technician";
const HAND = "at hand";

let arrived: (jobId: string) => void = () => {};
let back: () => void = () => {};
let sending: Promise<void> | null = null;
let wanted = false;
let asked = 0;
let timer: ReturnType<typeof setTimeout> | undefined;

function heard() {
  asked = 0;
  const wasAway = !outbox().reachable;
  set({ reachable: true, heardAt: Date.now() });
  if (wasAway) back();
}

interface Command {
  eventId?: string;
  expectedVersion?: number;
  side?: string | null;
  after?: string | null;
}

const parts = (path: string) => /^\/api\/jobs\/([0-9a-f-]{36})\/(?:.*\/)?([a-z-]+)$/.exec(path);

/** What is answered to the page in the server's place: it is kept, and goes on its way. */
function keptAnswer() {
  const answer = new Response('{"kept":true}', {
    status: 202,
    headers: { "content-type": "application/json" },
  });
  ours.add(answer);
  return answer;
}

const refusal = (title: string) =>
  new Response(JSON.stringify({ title, status: 409, reason: "held-back" }), {
    status: 409,
    headers: { "content-type": "application/problem+json" },
  });

const entries = new WeakMap<Request, number>();
const ours = new WeakSet<Response>();

/** Behind a proxy it is the proxy that answers while the server is away. */
const away = (status: number) => status === 502 || status === 503 || status === 504;

export const keepWrites: Middleware = {
  async onRequest({ request }) {
    if (request.method !== "POST") return undefined;
    const path = new URL(request.url).pathname;
    const [, jobId, kind] = parts(path) ?? [];
    const text = jobId ? await request.clone().text() : "";
    const command = (text.startsWith("{") ? JSON.parse(text) : {}) as Command;
    if (!jobId || !kind || !command.eventId) return undefined;
    const fact = command.expectedVersion === undefined || kind === "notes";
    const held = heldBack(outbox().kept, jobId, kind, fact);
    if (held) return refusal(held);
    // What another did on this device waits for them, and holds nobody else up.
    const before = waiting(outbox().kept, jobId).filter(mine);
    const last = before.filter((k) => !k.fact).at(-1);
    const entry: Omit<Kept, "order"> = {
      eventId: command.eventId,
      jobId,
      kind,
      fact,
      path,
      body: last && FOLLOW.has(kind) ? JSON.stringify({ ...command, after: last.eventId }) : text,
      what: `${NAME[kind] ?? "a change"}${command.side ? `, ${command.side}` : ""}`,
      by: outbox().hand,
      sentAt: Date.now(),
      state: before.length > 0 ? "waiting" : "sending",
      says: null,
    };
    const order = await add(entry);
    if (before.length > 0) {
      void sendAll();
      return keptAnswer();
    }
    entries.set(request, order);
    if (entry.by) request.headers.set(BY, entry.by.id);
    return request;
  },
  async onResponse({ request, response }) {
    if (ours.has(response)) return undefined;
    const entry = find(entries.get(request));
    if (away(response.status)) {
      unreachable();
      return entry ? (await put({ ...entry, state: "waiting" }), keptAnswer()) : undefined;
    }
    heard();
    if (response.status === 401) await askFor(entry?.by ?? outbox().hand, response.clone(), entry);
    if (entry && response.status === 401) {
      await put({ ...entry, state: "waiting" });
      return keptAnswer();
    }
    // Whatever the answer is: it has been given.
    if (entry) await drop(entry.order);
    if (waiting(outbox().kept).length > 0) void sendAll();
    return undefined;
  },
  async onError({ request }) {
    unreachable();
    const entry = find(entries.get(request));
    if (!entry) return undefined;
    await put({ ...entry, state: "waiting" });
    return keptAnswer();
  },
};

/** A sign-in that has ended takes the PIN in place; so does a signature of one of two who has done nothing for a while. */
async function askFor(who: Person | null, answer: Response, entry: Kept | undefined) {
  if (!who) return;
  const problem = (await answer.json().catch(() => ({}))) as { reason?: string; title?: string };
  const says = problem.reason === "pin-again" ? (problem.title ?? null) : null;
  set({ signInWanted: { ...who, says, order: entry?.order ?? null } });
}

function unreachable() {
  if (outbox().reachable) set({ reachable: false });
  again();
}

function again() {
  clearTimeout(timer);
  timer = setTimeout(() => void probe(), AGAIN_MS[Math.min(asked++, AGAIN_MS.length - 1)]);
}

/** Asks whether the server is there, and sends what waits. */
export async function probe() {
  try {
    const answer = await fetch("/healthz", { cache: "no-store" });
    if (away(answer.status)) return unreachable();
    heard();
    await sendAll();
  } catch {
    unreachable();
  }
}

/** Sends what waits, one after another in the order in which it was done; one page at a time does it. */
export function sendAll(): Promise<void> {
  wanted = true;
  return (sending ??= rounds().finally(() => (sending = null)));
}

// Whoever asks while one round is on its way gets another after it.
async function rounds() {
  while (wanted) {
    wanted = false;
    if (navigator.locks)
      await navigator.locks.request("outbox", { ifAvailable: true }, (lock) => (lock ? inOrder() : again()));
    else await inOrder();
  }
}

async function inOrder() {
  await reload();
  const held = new Set<string>();
  for (const order of outbox().kept.map((k) => k.order)) {
    const entry = find(order);
    if (!entry || entry.state === "refused") continue;
    const line = `${entry.jobId} ${entry.by?.id}`;
    if (held.has(line)) continue;
    const elsewhere = entry.state === "sending" && Date.now() - entry.sentAt < SENDING_MS;
    // Its person is asked for their PIN just now: nothing is signed in their name before.
    const pin = outbox().signInWanted;
    const pinWanted = pin?.says != null && pin.order === order;
    // Nobody signed in yet, or somebody else: it waits for whoever did it.
    if (elsewhere || pinWanted || !mine(entry)) {
      held.add(line);
      continue;
    }
    const went = await sendOne(entry);
    if (went === "stop") return;
    if (went === "hold") held.add(line);
  }
  if (waiting(outbox().kept).length > 0) again();
}

type Went = "answered" | "hold" | "stop";

async function sendOne(entry: Kept): Promise<Went> {
  for (let tries = 0; tries < 5; tries++) {
    await put({ ...entry, state: "waiting", sentAt: Date.now() });
    let answer: Response;
    try {
      answer = await fetch(entry.path, {
        method: "POST",
        headers: { "content-type": "application/json", ...(entry.by ? { [BY]: entry.by.id } : {}) },
        body: entry.body,
      });
    } catch {
      unreachable();
      return "stop";
    }
    if (away(answer.status)) {
      unreachable();
      return "stop";
    }
    heard();
    if (answer.status === 401) {
      await askFor(entry.by ?? outbox().hand, answer, entry);
      return "stop";
    }
    if (answer.ok) {
      await drop(entry.order);
      arrived(entry.jobId);
      return "answered";
    }
    const problem = (await answer.json().catch(() => ({}))) as {
      title?: string;
      reason?: string;
      because?: string[];
      mayFollow?: boolean;
      version?: number;
    };
    if (problem.reason === "another-person") return "hold";
    if (problem.reason === "stale-version" && problem.mayFollow) {
      const command = JSON.parse(entry.body) as Command;
      delete command.after;
      entry = { ...entry, body: JSON.stringify({ ...command, expectedVersion: problem.version }) };
      continue;
    }
    await put({
      ...entry,
      state: "refused",
      says: [problem.title ?? "It was refused.", ...(problem.because ?? [])].join(" "),
    });
    arrived(entry.jobId);
    return "answered";
  }
  return "hold";
}

/** Lets one go for good. */
export const forget = (order: number) => drop(order);

/** One that was refused is sent again as it is. */
export async function tryAgain(order: number) {
  const entry = find(order);
  if (entry) await put({ ...entry, state: "waiting", says: null });
  await sendAll();
}

/** Whether the server answered when it was last asked. */
export const isReachable = () => outbox().reachable;

/** Begins: what an earlier page kept is sent. Says when something has arrived in a job, and when the server is back after a silence. */
export function startOutbox(onArrived: (jobId: string) => void, onBack: () => void = () => {}) {
  [arrived, back] = [onArrived, onBack];
  window.addEventListener("online", () => void probe());
  void reload().then(() => (outbox().kept.length > 0 ? sendAll() : undefined));
}

/** Who is signed in on this device: what each of them did here may be sent. Whoever worked last goes on, if they are still there. */
export function setPeople(people: Person[]) {
  if (
    people.map((p) => p.id).join() ===
    outbox()
      .people.map((p) => p.id)
      .join()
  )
    return;
  const last = outbox().hand?.id ?? remembered();
  set({ people, hand: people.find((p) => p.id === last) ?? people[0] ?? null, signInWanted: null });
  if (people.length > 0) void sendAll();
}

/** One of the two works on: what is done from here on is theirs. */
export function takeHand(id: string) {
  const hand = outbox().people.find((p) => p.id === id);
  if (!hand) return;
  if (typeof sessionStorage !== "undefined") sessionStorage.setItem(HAND, id);
  set({ hand });
}

const remembered = () => (typeof sessionStorage === "undefined" ? null : sessionStorage.getItem(HAND));

/** Signed in again, in place: what was held is sent. */
export function signedInAgain() {
  set({ signInWanted: null });
  void sendAll();
}

/** The signature that a PIN is wanted for was not theirs, or is given up: nothing of it counts. */
export async function giveUp() {
  const order = outbox().signInWanted?.order ?? null;
  set({ signInWanted: null });
  if (order !== null) await drop(order);
}
