import { expect, test, type APIRequestContext, type Page } from "@playwright/test";
import type { RunOptions } from "axe-core";
import { randomUUID } from "node:crypto";
import { readFileSync } from "node:fs";

export const PIN = "2580";

/** Everything at its full length: by hand, with PAWL_LONG=1 ./test e2e. */
export const LONG = process.env.PAWL_LONG === "1";

/** True for one of each `of`, another one each day, and by hand for all: what is looked through closely today. */
export const today = (n: number, of: number) => LONG || n % of === Math.floor(Date.now() / 86_400_000) % of;

/** Twelve tests walk a job from one end to the other, each with promises of its own on the way: two of them a day, by turn. */
const WHOLE_JOBS_TURN = 6;
export const wholeJob = (n: number) => test.skip(!today(n, WHOLE_JOBS_TURN), "two whole jobs a day, by turn; all by ./test long");

/** Signs in through the page's own API, as the lead unless told otherwise. */
export async function signIn(page: Page, name = "Kit Ransome") {
  await ownClock(page);
  const session = await (await page.request.get("/api/session")).json();
  const who = session.technicians.find((t: { name: string }) => t.name === name);
  const answer = await page.request.post("/api/session", { data: { technicianId: who.id, pin: PIN } });
  expect(answer.ok()).toBeTruthy();
}

declare global {
  interface Window {
    axe: typeof import("axe-core");
  }
}

interface Watched {
  moved: number;
  stands: number | null;
  asked: number;
  /** When something was last seen to be asked. */
  busy?: number;
}

/**
 * Gives the page a clock that can be moved on, so that a test need not wait where a person would have looked up from the car,
 * and counts what it has asked the server and not yet had answered.
 */
export const ownClock = (page: Page) =>
  page.addInitScript(() => {
    const now = performance.now.bind(performance);
    const ask = window.fetch.bind(window);
    const w = window as unknown as Watched;
    w.moved = 0;
    w.stands = null;
    w.asked = 0;
    performance.now = () => (w.stands ?? now()) + w.moved;
    window.fetch = async (...of) => {
      w.asked++;
      try {
        return await ask(...of);
      } finally {
        // What is read of the answer, and what is drawn of it, comes after.
        setTimeout(() => w.asked--, 50);
      }
    };
  });

/** Waits until everything asked is answered: what a finding or an outcome changed is then on the page. */
export const quiet = (page: Page) => page.waitForFunction(() => !(window as unknown as Watched).asked, undefined, { polling: "raf" });

/** Waits until a view is there with what it asked for: nothing more is asked for a while. */
export async function settled(page: Page) {
  await page.locator("h1:visible, h2:visible").first().waitFor();
  await page.waitForFunction(
    () => {
      const w = window as unknown as Watched;
      if (w.asked || w.busy === undefined) w.busy = Date.now();
      return Date.now() - w.busy > 150;
    },
    undefined,
    { polling: 40 },
  );
}

/** Stops the page's clock, or lets it go on. */
export const standClock = (page: Page, stands: boolean) =>
  page.evaluate((stop) => {
    const w = window as unknown as Watched;
    w.stands = stop ? performance.now() - w.moved : null;
  }, stands);

/** Puts the page's clock on. */
export const pass = (page: Page, ms: number) => page.evaluate((on) => void ((window as unknown as Watched).moved += on), ms);

/** Lets the moment pass in which the primary action rests after a step has changed. */
export const rest = (page: Page) => pass(page, 1000);

/** Types like a gauge: digits, then Enter, which moves to the next point. */
export async function gauge(page: Page, values: string[], from = 0) {
  await page.locator(`[data-reading="${from}"]`).focus();
  for (const v of values) {
    await page.keyboard.press("ControlOrMeta+a");
    await page.keyboard.type(v);
    await page.keyboard.press("Enter");
  }
}

/** Opens a bench from the run sheet and waits until it is there. */
export async function openBench(page: Page, name: string) {
  await page.getByRole("link", { name, exact: true }).click();
  await expect(page.getByRole("heading", { level: 1, name: new RegExp(`^${name}`) })).toBeVisible();
}

export const header = (expectedVersion: number) => ({ eventId: randomUUID(), expectedVersion, occurredAt: "2026-11-25T10:00:00+00:00" });

/** Opens a job by the API; for tests that are about something later. */
export async function openJob(request: APIRequestContext, plate: string, scope: "pads" | "pads-and-rotors" | "shoes", bay = 20, purpose: "real" | "practice" = "real") {
  const known = (await (await request.get("/api/vehicles")).json()).find((k: { vehicle: { plate: string } }) => k.vehicle.plate === plate);
  const jobId = randomUUID();
  const answer = await request.post("/api/jobs", {
    data: { ...header(0), jobId, bay, vehicle: known.vehicle, sheetCode: known.sheetCode, odometerKm: 50_000, complaint: "Test", scope, purpose, anyway: true },
  });
  expect(answer.ok(), await answer.text()).toBeTruthy();
  return jobId;
}

type Touched = "cable" | "motor" | "hat" | "fixed";
export type Family = Touched | "puller";

/** What is seen on each family, by the labels on the screen. */
export const LOOKS: Record<Touched, string[]> = {
  cable: ["Hand lever", "Brake by wire: No", "Cable lever: Yes", "Motor, plug: No", "Cable in plate: No", "Brake hose: Yes", "Hex at back: No"],
  motor: ["Switch", "Brake by wire: No", "Motor, plug: Yes", "Brake hose: Yes", "Plain cup"],
  hat: ["Hand lever", "Brake by wire: No", "Cable lever: No", "Motor, plug: No", "Cable in plate: Yes", "Brake hose: Yes", "Opposed: No"],
  fixed: ["Hand lever", "Brake by wire: No", "Cable lever: No", "Motor, plug: No", "Cable in plate: Yes", "Brake hose: Yes", "Opposed: Yes"],
};

/** Figures a technician would read, by the field's label. */
const READINGS: [RegExp, string][] = [
  [/Level/, "60"],
  [/Inner pad/, "11.2"],
  [/Outer pad/, "12.0"],
  [/Rotor/, "11.6"],
  [/stands proud/, "13.4"],
  [/Battery/, "13.1"],
  [/Drawn off/, "30"],
  [/Turns made/, "9"],
  [/Cycles/, "4"],
  [/Strokes/, "7"],
];

/**
 * What the bench shows once it shows a step, everything asked is answered, and the run sheet is no longer what it was; in one trip to the
 * page.
 */
const shown = (page: Page, before: string | null) =>
  page.evaluate(async (before) => {
    const visible = (e: Element) => (e as HTMLElement).offsetParent !== null;
    const sheet = () => document.querySelector<HTMLElement>("[aria-label='Run sheet']")?.innerText ?? "";
    const title = () => [...document.querySelectorAll("h2")].map((e) => (e as HTMLElement).innerText.trim()).findLast((t) => !/corner$|^Car$/.test(t));
    // A page without a run sheet has gone on by going elsewhere.
    const ready = () => !(window as unknown as Watched).asked && title() && (before === null || before === "" || sheet() !== before);
    for (const end = Date.now() + 60_000; !ready(); await new Promise((r) => setTimeout(r, 20)))
      if (Date.now() > end) throw new Error(`nothing has come in a minute: ${title()}`);
    const labelled = (text: string) => [...document.querySelectorAll("label")].find((l) => visible(l) && l.innerText.startsWith(text));
    return {
      title: title()!,
      sheet: sheet(),
      boxes: document.querySelectorAll("button[aria-pressed=false]:has(span.border-current)").length,
      fields: [...document.querySelectorAll("input[data-reading]")].map((e) => e.closest("label")!.innerText),
      note: labelled("Say ") !== undefined,
      crowfoot: labelled("Crowfoot length")?.querySelector("input")?.value === "",
    };
  }, before);

/** Does whatever the bench asks for, by mouse and keyboard as given, until the job is handed over or `until` says stop. */
export async function work(page: Page, until?: (title: string) => boolean | Promise<boolean>, press: "mouse" | "space" = "mouse") {
  await page.locator("h2:visible").first().waitFor();
  let before: string | null = null;
  for (let i = 0; i < 140; i++) {
    let now = await shown(page, before);
    if (now.title === "Handed over" || (await until?.(now.title))) return now.title;
    if (until) {
      const then = await shown(page, null);
      // Another step has come up meanwhile, or the test went there and back: it is asked about first.
      if (then.title !== now.title) {
        before = null;
        continue;
      }
      now = then;
    }
    for (let n = now.boxes; n > 0; n--) await page.locator("button[aria-pressed=false]:has(span.border-current)").first().click();
    for (const [n, label] of now.fields.entries()) {
      const value = READINGS.find(([r]) => r.test(label));
      if (value) await page.locator("input[data-reading]").nth(n).fill(value[1]);
    }
    if (now.note) await page.getByLabel(/^Say /).fill("Seen to and put right");
    if (now.crowfoot) {
      await expect(page.getByRole("button", { name: "Measure the crowfoot first" })).toBeDisabled();
      await page.getByLabel("Crowfoot length, mm").fill("50");
      await expect(page.getByText("Set the wrench to")).toBeVisible();
    }
    await rest(page);
    if (press === "space") {
      await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
      await expect(page.locator(".btn-primary").last()).toBeEnabled();
      await page.keyboard.press("Space");
    } else await page.locator("button.btn-primary, a.btn-primary").last().click();
    // The run sheet is ready for the next click when whatever was clicked has come back.
    before = now.sheet;
  }
  throw new Error("the job did not end within 140 clicks");
}

/** Answers the questions before lifting, on the run sheet's bench. */
export async function lookOver(page: Page) {
  await expect(page.getByRole("heading", { name: "Look the car over" })).toBeVisible();
  for (const [i, answer] of ["No", "No", "Yes", "Yes", "Yes", "No", "No", "Yes", "Yes", "No", "No"].entries())
    await page.locator("fieldset").nth(i).getByRole("button", { name: answer, exact: true }).click();
  await page.getByRole("button", { name: /Looked over: done/ }).click();
  await expect(page.getByRole("heading", { name: /Identify brake, left/ })).toBeVisible();
}

/** Touches what is seen at a corner and rules on it; ends on the run sheet. */
export async function identify(page: Page, jobId: string, side: "left" | "right", family: Touched) {
  await page.goto(`/jobs/${jobId}/look/${side}`);
  for (const label of LOOKS[family]) {
    const tile = page.getByRole("region", { name: "What is seen" }).getByRole("button", { name: label, exact: true });
    await tile.click();
    await expect(tile).toHaveAttribute("aria-pressed", "true");
    await expect(tile).toBeEnabled();
  }
  await page.getByRole("button", { name: `Confirm brake type, ${side}` }).click();
  await expect(page).toHaveURL(new RegExp(`/jobs/${jobId}$`));
}

/** What is seen on each family, as the API takes it. */
const SEEN: Record<Family, [string, string][]> = {
  cable: [["cabin-control", "hand-lever"], ["caliper-lever", "yes"], ["caliper-motor", "no"], ["plate-cable", "no"], ["rear-hex-plug", "no"]],
  motor: [["cabin-control", "switch"], ["caliper-motor", "yes"], ["piston-face", "plain-cup"]],
  hat: [["cabin-control", "hand-lever"], ["caliper-lever", "no"], ["caliper-motor", "no"], ["plate-cable", "yes"], ["opposed-pistons", "no"]],
  fixed: [["cabin-control", "hand-lever"], ["caliper-lever", "no"], ["caliper-motor", "no"], ["plate-cable", "yes"], ["opposed-pistons", "yes"]],
  puller: [["cabin-control", "switch"], ["puller-box", "yes"], ["caliper-lever", "yes"], ["piston-face", "cross"]],
};
const VALUES: Record<string, number> = {
  "reservoir-level": 60,
  cycles: 4, "pedal-strokes": 7, "inner-pad": 11.2, "outer-pad": 12, "rotor-thickness": 11.6, "piston-protrusion": 13.4, "outer-protrusion": 13.4, "battery-voltage": 13.1, "fluid-drawn": 30, "turns-made": 9,
};

const USUALLY_NO = ["roll", "lamps", "twin-wheels", "wheel-bolts", "simulated-pedal", "self-pressurising"];

type Step = { stepId: string; side: "left" | "right" | null };

/**
 * Opens a job and brings it to a step by the API, for tests that are about something later; the pages of the way there have tests of
 * their own.
 */
export async function jobAt(request: APIRequestContext, plate: string, scope: "pads" | "pads-and-rotors" | "shoes", family: Family, bay: number, stepId?: string, side: "left" | "right" | null = null, purpose: "real" | "practice" = "real") {
  const jobId = await openJob(request, plate, scope, bay, purpose);
  const send = sender(request, jobId, 1);
  const questions: { id: string }[] = (await (await request.get("/api/catalogue")).json()).lookOver;
  await send("look-over", { answers: questions.map((q) => ({ id: q.id, answer: USUALLY_NO.includes(q.id) ? "no" : "yes" })) });
  for (const corner of ["left", "right"]) {
    for (const [look, seen] of [...SEEN[family], ["brake-by-wire", "no"], ["brake-hose", "yes"]]) await send("looks", { side: corner, look, seen });
    await send("rulings", { side: corner });
  }
  // A practice job that goes on from here is there for its electric brake.
  if (purpose === "practice" && stepId) await send("route", { route: "scan-tool" });
  if (stepId) await advance(request, jobId, (now) => now.stepId === stepId && now.side === side);
  return jobId;
}

/** Sends to a job whose version is known, and follows it. */
const sender = (request: APIRequestContext, jobId: string, version: number) => async (path: string, data: object) => {
  const answer = await request.post(`/api/jobs/${jobId}/${path}`, { data: { ...header(version), ...data } });
  const said = await answer.text();
  expect(answer.ok(), `${path}: ${said}`).toBeTruthy();
  version = JSON.parse(said).version;
};

/** Clicks on by the API, bolts and all, until a step is reached or nothing is next; says where it ended. */
export async function advance(request: APIRequestContext, jobId: string, until: (now: Step, title: string) => boolean = () => false): Promise<Step | null> {
  for (let i = 0; i < 160; i++) {
    const { version, sheet } = await (await request.get(`/api/jobs/${jobId}`)).json();
    const now = sheet.now;
    const send = sender(request, jobId, version);
    if (!now || until(now.step, now.step.side ? `${now.name}, ${now.step.side}` : now.name)) return now?.step ?? null;
    const left = now.torque ? now.torque.perCorner - now.signed.length : 0;
    const crowfoot = left > 0 && !now.torque.socketReaches ? { extensionMm: 50, angleFromInLineDeg: 90 } : null;
    const set = left > 0 && (await (await request.post("/api/bench/torque-line", { data: { line: now.torque, wrenchId: null, crowfoot } })).json());
    for (let n = 0; n < left; n++)
      await send("torques", {
        ...now.step,
        index: now.nextIndex + n,
        wrenchId: set.wrench.id,
        crowfoot,
        unit: "nm",
        enteredValue: null,
        enteredPerCorner: null,
        unverifiedReason: null,
      });
    // The last bolt of a line clicks its step on.
    if (left > 0) continue;
    await send("steps", {
      ...now.step,
      readings: now.readings.filter((r: { kind: string }) => r.kind in VALUES).map((r: { kind: string; instrument: string | null }) => ({ kind: r.kind, value: VALUES[r.kind], instrumentId: r.instrument })),
      acknowledged: now.cautions.filter((c: { mustAcknowledge: boolean }) => c.mustAcknowledge).map((c: { id: string }) => c.id),
      outcome: null,
      report: now.needsReport ? { succeeded: true, words: "Both at the back stop", codes: "" } : null,
      note: now.noteWanted ? "Seen to and put right" : null,
    });
  }
  throw new Error("the job did not end within 160 clicks");
}

/**
 * Does what comes next on the page, as far as a surprise reaches, and the quiet rest by the API, to the hand-over; for tests that are about
 * the surprise. Whole jobs are gone on the page by whole-job.spec.ts and keyboard.spec.ts.
 */
export async function toTheEnd(page: Page, jobId: string, onThePage = 8) {
  let steps = 0;
  await work(page, () => steps++ >= onThePage);
  await restByApi(page, jobId);
  await expect(page.getByRole("heading", { name: "Handed over" })).toBeVisible();
}

/** Does all that is left by the API, with no page that looks on, and comes back to the job. */
export async function restByApi(page: Page, jobId: string) {
  await page.goto("about:blank");
  expect(await advance(page.request, jobId)).toBeNull();
  await page.goto(`/jobs/${jobId}`);
}

const AXE = readFileSync(new URL("../node_modules/axe-core/axe.min.js", import.meta.url), "utf8");

/** What axe finds on the page or within one part of it; it is put into each page once. */
async function axe(page: Page, rules?: string[], within?: string) {
  if (!(await page.evaluate(() => "axe" in window))) await page.evaluate(AXE);
  const options: RunOptions = { resultTypes: ["violations"], ...(rules && { runOnly: rules }) };
  return page.evaluate(async ([options, within]) => (await window.axe.run(within ?? document, options)).violations, [options, within] as const);
}

/** Everything that axe finds, by its rules' names. */
export const violations = async (page: Page) => (await axe(page)).map((v) => v.id);

/** What axe finds that stops somebody, on the page or within one part of it; at night only the colours differ. */
export const serious = async (page: Page, name: string, rules?: string[], within?: string) =>
  (await axe(page, rules, within))
    .filter((v) => v.impact === "serious" || v.impact === "critical")
    .map((v) => `${name}: ${v.id} ${v.nodes[0]?.html.slice(0, 120)} ${v.nodes[0]?.failureSummary?.slice(0, 160)}`);
