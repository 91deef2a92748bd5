import { expect, type APIRequestContext, type Page } from "@playwright/test";
import { randomUUID } from "node:crypto";

export const PIN = "2580";

/** Signs in through the page's own API, as the lead unless told otherwise. */
export async function signIn(page: Page, name = "Kit Ransome") {
  const session = await (await page.request.get("/api/session")).json();
  const who = session.technicians.find((t: { name: string }) => t.name === name);
  const answer = await page.request.post("/api/session", { data: { technicianId: who.id, pin: PIN } });
  expect(answer.ok()).toBeTruthy();
}

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
export async function openJob(request: APIRequestContext, plate: string, scope: "pads" | "pads-and-rotors" | "shoes", bay = 20) {
  const known = (await (await request.get("/api/vehicles")).json()).find((k: { vehicle: { plate: string } }) => k.vehicle.plate === plate);
  const jobId = randomUUID();
  const answer = await request.post("/api/jobs", {
    data: { ...header(0), jobId, bay, vehicle: known.vehicle, sheetCode: known.sheetCode, odometerKm: 50_000, complaint: "Test", scope },
  });
  expect(answer.ok(), await answer.text()).toBeTruthy();
  return jobId;
}

export type Family = "cable" | "motor" | "hat" | "fixed";

/** What is seen on each family, by the labels on the screen. */
export const LOOKS: Record<Family, string[]> = {
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
  [/stands proud/, "12.4"],
  [/Battery/, "13.1"],
  [/Drawn off/, "30"],
  [/Turns made/, "9"],
  [/Cycles/, "4"],
  [/Strokes/, "7"],
];

/** The run sheet is ready for the next click: whatever was clicked last has come back. */
async function settled(page: Page, before: string) {
  await expect(async () => {
    const now = await page.getByRole("region", { name: "Run sheet" }).innerText();
    expect(now).not.toBe(before);
  }).toPass({ timeout: 10_000 });
}

/** Does whatever the bench asks for, by mouse and keyboard as given, until the job is handed over or `until` says stop. */
export async function work(page: Page, until?: (title: string) => boolean | Promise<boolean>, press: "mouse" | "space" = "mouse") {
  for (let i = 0; i < 140; i++) {
    const title = page.locator("h2").filter({ hasNotText: /corner$|^Car$/ }).last();
    await title.waitFor();
    const text = await title.innerText();
    if (text === "Handed over" || (await until?.(text))) return text;
    const before = await page.getByRole("region", { name: "Run sheet" }).innerText();
    for (const box of await page.locator("button[aria-pressed=false]:has(span.border-current)").all()) await box.click();
    for (const field of await page.locator("input[data-reading]").all()) {
      const label = await field.evaluate((e) => e.closest("label")!.innerText);
      const value = READINGS.find(([r]) => r.test(label));
      if (value) await field.fill(value[1]);
    }
    const crowfoot = page.getByLabel("E, mm");
    if ((await crowfoot.isVisible()) && (await crowfoot.inputValue()) === "") {
      await expect(page.getByRole("button", { name: "Measure the crowfoot first" })).toBeDisabled();
      await crowfoot.fill("50");
      await expect(page.getByText("Set the wrench to")).toBeVisible();
    }
    if (press === "space") {
      await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
      await page.keyboard.press("Space");
    } else await page.locator("button.btn-primary, a.btn-primary").last().click();
    await settled(page, before);
  }
  throw new Error("the job did not end within 140 clicks");
}

/** Answers the questions before lifting, on the run sheet's bench. */
export async function lookOver(page: Page) {
  await expect(page.getByRole("heading", { name: "Look the car over" })).toBeVisible();
  for (const [i, answer] of ["No", "No", "Yes", "Yes", "Yes", "Yes", "No"].entries())
    await page.locator("fieldset").nth(i).getByRole("button", { name: answer, exact: true }).click();
  await page.getByRole("button", { name: /Looked over: done/ }).click();
  await expect(page.getByRole("heading", { name: /Identify brake, left/ })).toBeVisible();
}

/** Touches what is seen at a corner and rules on it; ends on the run sheet. */
export async function identify(page: Page, jobId: string, side: "left" | "right", family: Family) {
  await page.goto(`/jobs/${jobId}/look/${side}`);
  for (const label of LOOKS[family]) {
    const tile = page.getByRole("region", { name: "What is seen" }).getByRole("button", { name: label, exact: true });
    await tile.click();
    await expect(tile).toHaveAttribute("aria-pressed", "true");
    await expect(tile).toBeEnabled();
  }
  await page.getByRole("button", { name: `Rule on the ${side} corner` }).click();
  await expect(page).toHaveURL(new RegExp(`/jobs/${jobId}$`));
}
