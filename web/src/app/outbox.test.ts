// Its own store in memory, as IndexedDB has it: a general-purpose stand-in, not ours.
import "fake-indexeddb/auto";
import { IDBFactory } from "fake-indexeddb";
import createClient from "openapi-fetch";
import { beforeEach, expect, test, vi } from "vitest";

const JOB = "11111111-1111-4111-8111-111111111111";
const KIT = { id: "kit", name: "Kit" };
const INES = { id: "ines", name: "Ines" };
type Sent = { path: string; body: Record<string, unknown>; by: string | null };

/** A server that says what it is told to, and remembers what it has heard. */
let sent: Sent[] = [];
let answers: (sent: Sent) => Response = () => Response.json({});
let online = true;

async function page() {
  vi.resetModules();
  const outbox = { ...(await import("./kept")), ...(await import("./outbox")) };
  const api = createClient<Record<string, never>>({ baseUrl: "http://here/" });
  api.use(outbox.keepWrites);
  outbox.startOutbox(() => {});
  outbox.setPeople([KIT]);
  const post = (kind: string, body: object) =>
    (
      api as unknown as {
        POST: (path: string, init: object) => Promise<{ response: Response; error?: { title: string } }>;
      }
    ).POST(`/api/jobs/${JOB}/${kind}`, { body });
  return { ...outbox, post };
}

let ids = 0;
const command = (more: object = {}) => ({ eventId: `e${++ids}`, expectedVersion: 7, side: "left", ...more });
const reading = () => ({ eventId: `e${++ids}`, side: "left" });

beforeEach(() => {
  vi.stubGlobal("indexedDB", new IDBFactory());
  [sent, ids, online, answers] = [[], 0, true, () => Response.json({})];
  vi.stubGlobal("window", { addEventListener: () => {} });
  vi.stubGlobal("navigator", {});
  vi.stubGlobal("BroadcastChannel", undefined);
  vi.stubGlobal("fetch", async (input: Request | string, init?: RequestInit) => {
    if (!online) throw new TypeError("no network");
    const request = typeof input === "string" ? new Request(`http://here${input}`, init) : input;
    const path = new URL(request.url).pathname;
    if (path === "/healthz") return new Response("ok");
    const one = {
      path,
      body: (await request.json()) as Record<string, unknown>,
      by: request.headers.get("Pawl-Technician"),
    };
    sent.push(one);
    return answers(one);
  });
});

test("what the server answers is kept no longer, whatever the answer is", async () => {
  const { post, sendAll } = await page();
  expect((await post("torques", command())).response.status).toBe(200);
  answers = () => Response.json({ title: "Not yet." }, { status: 409 });
  expect((await post("torques", command())).error!.title).toBe("Not yet.");
  await sendAll();
  expect(sent.length).toBe(2);
});

test("with no network everything is kept, and goes in the order in which it was done, each naming the one before it", async () => {
  const { post, probe } = await page();
  online = false;
  for (const kind of ["torques", "torques", "steps"])
    expect((await post(kind, command())).response.status).toBe(202);
  online = true;
  await probe();
  expect(sent.map((s) => [s.path.split("/").at(-1), s.body.eventId, s.body.after, s.by])).toEqual([
    ["torques", "e1", undefined, "kit"],
    ["torques", "e2", "e1", "kit"],
    ["steps", "e3", "e2", "kit"],
  ]);
});

test("after a step that was not sent nothing but facts goes on", async () => {
  const { post } = await page();
  online = false;
  await post("steps", command());
  expect((await post("torques", command())).error!.title).toContain("a step, left");
  expect((await post("findings", command())).error!.title).toContain("a step, left");
  expect((await post("readings", reading())).response.status).toBe(202);
  expect((await post("notes", command())).response.status).toBe(202);
});

test("a page that is closed while it sends leaves it to the next, which sends the very same", async () => {
  vi.useFakeTimers({ toFake: ["Date"] });
  const first = await page();
  online = false;
  await first.post("torques", command());
  vi.setSystemTime(Date.now() + 60_000);
  online = true;
  const second = await page();
  await second.sendAll();
  await second.sendAll();
  vi.useRealTimers();
  expect(sent.map((s) => s.body.eventId)).toEqual(["e1"]);
});

test("a stale one follows where the server says that it may, and is refused in words where not", async () => {
  const { post, probe, waiting } = await page();
  online = false;
  await post("torques", command());
  online = true;
  answers = (s) =>
    s.body.expectedVersion === 7
      ? Response.json({ reason: "stale-version", mayFollow: true, version: 9 }, { status: 409 })
      : Response.json({});
  await probe();
  expect(sent.map((s) => s.body.expectedVersion)).toEqual([7, 9]);

  online = false;
  await post("torques", command());
  online = true;
  answers = () =>
    Response.json(
      { title: "The job has moved on.", reason: "stale-version", mayFollow: false },
      { status: 409 },
    );
  await probe();
  const count = sent.length;
  await probe();
  expect(sent.length).toBe(count);
  expect(waiting([]).length).toBe(0);
});

test("what one person did waits while another is signed in", async () => {
  const { post, probe, setPeople } = await page();
  online = false;
  await post("steps", command());
  setPeople([INES]);
  online = true;
  await probe();
  expect(sent).toEqual([]);
  // Whoever works here meanwhile is not held up by it.
  expect((await post("steps", command())).response.status).toBe(200);
  expect(sent.map((s) => s.by)).toEqual(["ines"]);
  setPeople([KIT]);
  await vi.waitFor(() => expect(sent.map((s) => s.by)).toEqual(["ines", "kit"]));
});

test("before anybody has signed in nothing of theirs is sent", async () => {
  const first = await page();
  online = false;
  await first.post("torques", command());
  online = true;
  const second = await page();
  second.setPeople([]);
  await second.probe();
  expect(sent).toEqual([]);
  second.setPeople([KIT]);
  await vi.waitFor(() => expect(sent.length).toBe(1));
});

test("a sign-in that has ended holds what is sent and asks for it, and so does a proxy whose server is away", async () => {
  const { post, signedInAgain, probe } = await page();
  answers = () => new Response("", { status: 401 });
  expect((await post("torques", command())).response.status).toBe(202);
  answers = () => new Response("", { status: 502 });
  signedInAgain();
  await vi.waitFor(() => expect(sent.length).toBe(2));
  answers = () => Response.json({});
  await probe();
  expect(sent.map((s) => s.body.eventId)).toEqual(["e1", "e1", "e1"]);
});

test("of two at one device each gives under their own name, and what either did is sent", async () => {
  const { post, setPeople, takeHand, probe } = await page();
  setPeople([KIT, INES]);
  await post("notes", command());
  takeHand("ines");
  online = false;
  await post("torques", command());
  takeHand("kit");
  await post("torques", command());
  online = true;
  await probe();
  expect(sent.map((s) => s.by)).toEqual(["kit", "ines", "kit"]);
  expect(sent[2]!.body.after).toBe(sent[1]!.body.eventId);
});

test("a signature that asks for the PIN again waits, and goes once it was given", async () => {
  const { post, setPeople, takeHand, signedInAgain, sendAll, outbox } = await page();
  setPeople([KIT, INES]);
  takeHand("ines");
  answers = () => Response.json({ title: "Ines, your PIN again.", reason: "pin-again" }, { status: 401 });
  expect((await post("torques", command())).response.status).toBe(202);
  expect(outbox().signInWanted).toMatchObject({ ...INES, says: "Ines, your PIN again." });
  // Other answers come meanwhile: none of them sends it.
  answers = () => Response.json({});
  await sendAll();
  expect(sent).toHaveLength(1);
  signedInAgain();
  await sendAll();
  expect(sent.map((s) => s.by)).toEqual(["ines", "ines"]);
  expect(outbox().kept).toEqual([]);
});

test("a signature that its person does not give after all is given up, and never goes", async () => {
  const { post, setPeople, giveUp, sendAll, outbox } = await page();
  setPeople([KIT, INES]);
  answers = () => Response.json({ title: "Kit, your PIN again.", reason: "pin-again" }, { status: 401 });
  await post("torques", command());
  await giveUp();
  expect(outbox()).toMatchObject({ signInWanted: null, kept: [] });
  answers = () => Response.json({});
  await sendAll();
  expect(sent).toHaveLength(1);
});
