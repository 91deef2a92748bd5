import AxeBuilder from "@axe-core/playwright";
import { expect, test, type Page } from "@playwright/test";
import { signIn } from "./helpers";

/** Every view, from the demo workshop. */
async function views(page: Page): Promise<Record<string, string>> {
  const board: { jobId: string; bay: number; status: string }[] = await (await page.request.get("/api/board")).json();
  const waits = board.find((b) => b.bay === 1 && b.status === "waits")!.jobId;
  const bay = (n: number) => board.find((b) => b.bay === n)!.jobId;
  return {
    board: "/",
    "new job": "/jobs/new",
    look: `/jobs/${bay(4)}/look/left`,
    retract: `/jobs/${bay(3)}/retract/left`,
    "run sheet": `/jobs/${bay(3)}`,
    torque: `/jobs/${bay(2)}`,
    "look over": `/jobs/${bay(4)}`,
    record: `/jobs/${bay(6)}/record`,
    "quick retract": "/bench/retract",
    "quick torque": "/bench/torque",
    "shoe bench": "/bench/shoes",
    "rotor bench": "/bench/rotor",
    "pad bench": "/bench/pads",
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

for (const theme of ["day", "night"] as const) {
  test(`axe finds nothing serious on any view, ${theme}`, async ({ page }) => {
    await signIn(page);
    await page.addInitScript((t) => localStorage.setItem("theme", t), theme);
    for (const [name, url] of Object.entries(await views(page))) {
      await page.goto(url);
      await page.waitForLoadState("networkidle");
      expect(await page.evaluate(() => document.documentElement.dataset.theme)).toBe(theme);
      const found = await new AxeBuilder({ page }).analyze();
      const serious = found.violations.filter((v) => v.impact === "serious" || v.impact === "critical");
      expect(serious.map((v) => `${name}: ${v.id} ${v.nodes[0]?.html.slice(0, 120)} ${v.nodes[0]?.failureSummary?.slice(0, 160)}`)).toEqual([]);
    }
    await page.context().clearCookies();
    await page.goto("/");
    await expect(page.getByRole("heading", { name: "Who is it?" })).toBeVisible();
    expect((await new AxeBuilder({ page }).analyze()).violations.filter((v) => v.impact === "serious" || v.impact === "critical").map((v) => v.id)).toEqual([]);
  });
}

const SIZES = [[1280, 800], [1280, 680], [1024, 768], [390, 844]] as const;

test(`no sideways scroll, primary action in view and large enough at ${SIZES.map((s) => s.join("x")).join(", ")}`, async ({ page }) => {
  await signIn(page);
  for (const [name, url] of Object.entries(await views(page))) {
    await page.goto(url);
    await page.waitForLoadState("networkidle");
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
      for (const b of await page.locator("main .btn:visible, main fieldset button:visible").all()) {
        const t = await b.boundingBox();
        if (t) expect(Math.min(t.height, t.width), `${at}: ${await b.innerText()} is 48 px`).toBeGreaterThanOrEqual(47.5);
      }
    }
  }
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

test("nothing is fetched from outside", async ({ page }) => {
  const outside: string[] = [];
  page.on("request", (r) => {
    const url = new URL(r.url());
    if (url.hostname !== "127.0.0.1" && !["data:", "blob:"].includes(url.protocol)) outside.push(r.url());
  });
  const failed: string[] = [];
  page.on("pageerror", (e) => failed.push(e.message));
  await signIn(page);
  for (const url of Object.values(await views(page))) {
    await page.goto(url);
    await page.waitForLoadState("networkidle");
  }
  const fonts = await page.evaluate(async () => [...(await document.fonts.ready)].filter((f) => f.status === "loaded").map((f) => f.family.replaceAll('"', "")));
  expect(fonts).toContain("B612");
  expect(fonts).toContain("Barlow Condensed");
  expect(outside).toEqual([]);
  expect(failed).toEqual([]);
});
