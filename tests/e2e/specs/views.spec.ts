import { expect, test, type Page } from "@playwright/test";
import { serious, settled, signIn, today } from "./helpers";

test.describe.configure({ mode: "parallel" });

/** Every view, from the demo workshop. */
async function views(page: Page): Promise<Record<string, string>> {
  const board: { jobId: string; bay: number; status: string }[] = await (await page.request.get("/api/board")).json();
  const waits = board.find((b) => b.bay === 1 && b.status === "waits")!.jobId;
  const bay = (n: number) => board.find((b) => b.bay === n)!.jobId;
  // Whoever practises alone, and guided; both runs are the person's who looks.
  const run = async (way: "alone" | "guided") => {
    const jobId = crypto.randomUUID();
    const data = { eventId: crypto.randomUUID(), expectedVersion: 0, occurredAt: new Date().toISOString(), jobId, scenarioId: "lever-and-screw", way };
    expect((await page.request.post("/api/practice/runs", { data })).ok()).toBe(true);
    return jobId;
  };
  const alone = await run("alone");
  return {
    board: "/",
    "new job": "/jobs/new",
    "past jobs": "/jobs/past",
    look: `/jobs/${bay(4)}/look/left`,
    retract: `/jobs/${bay(3)}/retract/left`,
    "run sheet": `/jobs/${bay(3)}`,
    torque: `/jobs/${bay(2)}`,
    "look over": `/jobs/${bay(4)}`,
    record: `/jobs/${bay(6)}/record`,
    "retract log": `/jobs/${bay(3)}/retract/right`,
    fluid: `/jobs/${bay(3)}/fluid`,
    "quick retract": "/bench/retract",
    "quick log": "/bench/retract?tab=log",
    "quick slot": "/bench/retract?tab=slot",
    "quick opposed": "/bench/retract?tab=opposed",
    "fluid bench": "/bench/fluid",
    "fluid bench, bleeding": "/bench/fluid?tab=bleed",
    "quick torque": "/bench/torque",
    "shoe bench": "/bench/shoes",
    "rotor bench": "/bench/rotor",
    "pad bench": "/bench/pads",
    "current bench": "/bench/current",
    "bed-in": "/bench/bed-in",
    "parking brake": "/bench/parking-brake",
    "bed-in of a job": `/jobs/${bay(2)}/bed-in`,
    "parking brake of a job": `/jobs/${bay(5)}/prove`,
    practice: "/practice",
    cards: "/practice/cards",
    "make a scenario": "/practice/make?from=two-units",
    "practice alone": `/jobs/${alone}`,
    "practice guided": `/jobs/${await run("guided")}`,
    debrief: `/jobs/${alone}/debrief`,
    vehicles: "/vehicles",
    vehicle: "/vehicles/GNT%20118",
    "shoe bench in a job": `/jobs/${waits}/shoes/left`,
    "rotor bench in a job": `/jobs/${waits}/rotor/left`,
    "pad bench in a job": `/jobs/${waits}/pads`,
    "verdict in doubt": `/jobs/${waits}`,
    instruments: "/workshop/instruments",
    workshop: "/workshop",
    "house rules": "/workshop/house-rules",
    sources: "/sources",
    plan: `/jobs/${bay(2)}/plan`,
    "torque card": `/jobs/${bay(2)}/torques`,
    "spec sheet": "/workshop/spec-sheets/BT-3",
  };
}

const SIZES = [[1280, 800], [1280, 680], [1024, 768], [768, 1024], [390, 844]] as const;

/** No sideways scroll; the primary action in view and 64 px high; everything touchable 48 px. */
async function sizes(page: Page, name: string) {
  for (const [width, height] of SIZES) {
    await page.setViewportSize({ width, height });
    const at = `${name} at ${width}x${height}`;
    expect(await page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth), `${at} scrolls sideways`).toBeLessThanOrEqual(0);
    if (width < 1000) continue;
    const primary = page.locator(".btn-primary").last();
    if ((await primary.count()) === 0) continue;
    const box = (await primary.boundingBox())!;
    expect(box.y + box.height, `${at}: the primary action is in view`).toBeLessThanOrEqual(height);
    expect(box.height, `${at}: the primary action is 64 px high`).toBeGreaterThanOrEqual(64);
    const small = await page.locator("main .btn:visible, main fieldset button:visible").evaluateAll((all) =>
      all.map((b) => ({ text: (b as HTMLElement).innerText, box: b.getBoundingClientRect() })).filter((b) => b.box.width > 0 && Math.min(b.box.width, b.box.height) < 47.5).map((b) => b.text),
    );
    expect(small, `${at}: touch targets under 48 px`).toEqual([]);
  }
  await page.setViewportSize({ width: 1280, height: 800 });
}

// Each view is loaded once for everything that is asked of it; two halves, so that two workers share them.
for (const half of [0, 1]) {
  test(`every view, half ${half + 1}: nothing from outside, sizes, and on every second nothing serious for axe by day and by night`, async ({ page }) => {
    const outside: string[] = [];
    page.on("request", (r) => {
      const url = new URL(r.url());
      if (url.hostname !== "127.0.0.1" && !["data:", "blob:"].includes(url.protocol)) outside.push(r.url());
    });
    const failed: string[] = [];
    page.on("pageerror", (e) => failed.push(e.message));
    await signIn(page);
    await page.addInitScript(() => localStorage.setItem("theme", "day"));
    const found: string[] = [];
    for (const [i, [name, url]] of Object.entries(await views(page)).filter((_, n) => n % 2 === half).entries()) {
      await page.goto(url);
      await settled(page);
      await sizes(page, name);
      if (!today(i, 2)) continue;
      found.push(...(await serious(page, name)));
      // The colours are one set of tokens: at night every fourth view is enough to meet them all.
      if (!today(i, 4)) continue;
      await page.evaluate(() => (document.documentElement.dataset.theme = "night"));
      found.push(...(await serious(page, `${name}, night`, ["color-contrast"])));
    }
    expect(found).toEqual([]);
    const fonts = await page.evaluate(async () => [...(await document.fonts.ready)].filter((f) => f.status === "loaded").map((f) => f.family.replaceAll('"', "")));
    expect(fonts).toContain("B612");
    expect(fonts).toContain("Barlow Condensed");
    expect(outside).toEqual([]);
    expect(failed).toEqual([]);
  });
}

test("sign-in by day and by night, and the theme that was chosen is kept", async ({ page }) => {
  for (const theme of ["day", "night"] as const) {
    await page.addInitScript((t) => localStorage.setItem("theme", t), theme);
    await page.goto("/");
    await expect(page.getByRole("heading", { name: "Who is it?" })).toBeVisible();
    expect(await page.evaluate(() => document.documentElement.dataset.theme)).toBe(theme);
    expect(await serious(page, `sign-in, ${theme}`)).toEqual([]);
  }
});

test("what axe is asked would be seen: a picture without words, and grey on grey by night", async ({ page }) => {
  await page.goto("/");
  await expect(page.getByRole("heading", { name: "Who is it?" })).toBeVisible();
  await page.evaluate(() => {
    document.documentElement.dataset.theme = "night";
    document.querySelector("main")!.insertAdjacentHTML("beforeend", '<img src="/pawl.svg"><p style="color:#444;background:#333">grey</p>');
  });
  const found = (await serious(page, "spoilt")).join();
  expect(found).toContain("image-alt");
  expect(found).toContain("color-contrast");
});

test("the figure to act on is the largest on the torque bench", async ({ page }) => {
  await signIn(page);
  await page.goto((await views(page)).torque!);
  const size = (text: string) => page.getByText(text, { exact: true }).evaluate((e) => parseFloat(getComputedStyle(e).fontSize));
  // 94 x 400 / (400 + 50) = 83.56, worked by hand; the wrench's scale goes in steps of 0.2.
  await expect(page.getByText("83.6", { exact: true })).toBeVisible();
  expect(await size("83.6")).toBeGreaterThanOrEqual(104);
  expect(await size("94")).toBeLessThan(await size("83.6"));
});
