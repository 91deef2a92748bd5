import { expect, test, type Page } from "@playwright/test";
import { header, serious, settled, signIn, today } from "./helpers";

test.describe.configure({ mode: "parallel" });

const button = (name: string | RegExp) => (page: Page) => page.getByRole("button", { name }).first().click();
const filled = (fields: Record<string, string>, name: string) => async (page: Page) => {
  for (const [label, value] of Object.entries(fields)) await page.getByLabel(new RegExp(label)).first().fill(value);
  await button(name)(page);
};

// What is behind it is a view, and asked about as one.
const DIALOG = "[role=dialog]";

/** Every dialog, and how it is opened. */
async function dialogs(page: Page): Promise<[string, string, (page: Page) => Promise<void>][]> {
  const board: { jobId: string; bay: number; status: string }[] = await (await page.request.get("/api/board")).json();
  const waits = board.find((b) => b.bay === 1 && b.status === "waits")!.jobId;
  const bay = (n: number) => board.find((b) => b.bay === n)!.jobId;
  const run = crypto.randomUUID();
  const data = { ...header(0), jobId: run, scenarioId: "lever-and-screw", way: "guided" };
  expect((await page.request.post("/api/practice/runs", { data })).ok()).toBe(true);
  return [
    ["keys", "/", button("Keys of this view")],
    ["who is signed in", "/", button(/^Signed in/)],
    ["benches", `/jobs/${bay(3)}`, button("Benches")],
    ["what was found", `/jobs/${bay(2)}`, button("Report a problem")],
    ["what a finding costs", `/jobs/${bay(2)}`, async (p) => {
      await button("Report a problem")(p);
      await button("Hose cracked or collapsed, left")(p);
    }],
    ["by choice", `/jobs/${bay(2)}`, button("By choice")],
    ["why not", `/jobs/${bay(5)}`, (p) => p.locator("button.row-name").first().click()],
    ["why", `/jobs/${bay(2)}`, button("Why")],
    ["aim", `/jobs/${bay(2)}/plan`, button("Change the aim")],
    ["how the piston goes home", `/jobs/${bay(3)}/retract/right`, button("How")],
    ["the log", `/jobs/${bay(3)}/retract/right`, button(/^The log/)],
    ["readings", `/jobs/${waits}/shoes/left`, button(/^Readings/)],
    ["attach readings", "/bench/rotor", filled({ Stamped: "MIN TH 8.4 MM", "^0°": "9.21", "^90°": "9.22" }, "Attach to a job")],
    ["touch", `/jobs/${run}`, button("Touch")],
    ["a look that is not there", `/jobs/${run}/look/left`, button("What is there?")],
  ];
}

for (const half of [0, 1]) {
  test(`every dialog, half ${half + 1}, every second of them a day: nothing serious for axe at a desk and on a phone, by day and by night, and it fits`, async ({ page }) => {
    await signIn(page);
    await page.addInitScript(() => localStorage.setItem("theme", "day"));
    const found: string[] = [];
    for (const [name, url, open] of (await dialogs(page)).filter((_, n) => n % 2 === half && today(n >> 1, 2))) {
      await page.setViewportSize({ width: 1280, height: 800 });
      await page.goto(url);
      await settled(page);
      await open(page);
      const dialog = page.getByRole("dialog");
      await expect(dialog, name).toBeVisible();
      await settled(page);
      for (const [width, height] of [[1280, 800], [390, 844]] as const) {
        await page.setViewportSize({ width, height });
        const box = (await dialog.boundingBox())!;
        expect(box.x, `${name} at ${width}: it is whole`).toBeGreaterThanOrEqual(0);
        expect(box.x + box.width, `${name} at ${width}: it is whole`).toBeLessThanOrEqual(width);
        expect(box.y + box.height, `${name} at ${width}: it is whole`).toBeLessThanOrEqual(height);
        found.push(...(await serious(page, `${name} at ${width}`, undefined, DIALOG)));
      }
      await page.evaluate(() => (document.documentElement.dataset.theme = "night"));
      found.push(...(await serious(page, `${name}, night`, ["color-contrast"], DIALOG)));
    }
    expect(found).toEqual([]);
  });
}
