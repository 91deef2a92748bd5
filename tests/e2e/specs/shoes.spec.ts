import { expect, test, type Page } from "@playwright/test";
import { gauge } from "./helpers";

const DRUM = ["190.60", "190.64", "190.96", "190.62", "190.55", "190.58", "190.60", "190.56"];
const verdict = (page: Page) => page.getByRole("region", { name: "Verdict" });

async function tab(page: Page, name: string) {
  await page.getByRole("tab", { name }).click();
}

test("a drum through the gauge path: too close to call, what would settle it, and settled", async ({ page }) => {
  await page.goto("/bench/shoes");
  await gauge(page, ["MAX DIA 191.00 MM", ...DRUM]);
  await expect(verdict(page).getByText("Too close to call", { exact: true })).toBeVisible();
  await expect(verdict(page).getByText("Not passed")).toBeVisible();
  await expect(verdict(page).getByText("190.96", { exact: true })).toBeVisible();
  await expect(verdict(page)).toContainText("More readings with the drum gauge will not settle it. The bore micrometer will");

  // Follow it: only the place in doubt, with the bore micrometer, which reads it a little smaller.
  await page.getByLabel("Instrument").selectOption("bore-micrometer");
  await gauge(page, ["190.955"], 3);
  await expect(page.getByRole("button", { name: "Readings 9" })).toBeVisible();
  await expect(verdict(page).getByText("Inside", { exact: true })).toBeVisible();
  await expect(verdict(page).getByText("Not passed")).toHaveCount(0);

  await gauge(page, ["191.20"], 1);
  await expect(verdict(page).getByText("Outside", { exact: true })).toBeVisible();
  await verdict(page).getByRole("button", { name: "Why" }).click();
  await expect(page.getByRole("dialog")).toContainText("Doubt: permissible error");
  await expect(page.getByRole("dialog")).toContainText("source: iso-14253-1");
  await page.keyboard.press("Escape");

  // That one was wrong: struck out with its reason, it judges nothing and stays to be seen.
  await page.getByRole("button", { name: "Readings 10" }).click();
  const row = page.getByRole("dialog").getByRole("listitem").filter({ hasText: "191.2" });
  await row.getByRole("button", { name: "Strike out" }).click();
  await page.getByLabel("Why it is wrong").fill("gauge sat on the ridge");
  await page.getByRole("button", { name: "Strike it out" }).click();
  await expect(row).toContainText("gauge sat on the ridge");
  await page.keyboard.press("Escape");
  await expect(verdict(page).getByText("Inside", { exact: true })).toBeVisible();
});

test("the stand-in gauge fills a set through the same path, and the verdict follows each press", async ({ page }) => {
  await page.goto("/bench/shoes");
  await page.locator('[data-reading="0"]').fill("MAX DIA 191");
  await page.getByRole("button", { name: "Gauge", exact: true }).click();
  const panel = page.getByRole("dialog", { name: "Stand-in gauge" });
  await panel.getByLabel("True size, mm").fill("190.50");
  await panel.getByLabel("Scatter, mm").fill("0");
  await page.locator('[data-reading="1"]').focus();
  for (let i = 1; i <= 8; i++) {
    await panel.getByRole("button", { name: "Press its data button" }).click();
    await expect(page.locator(`[data-reading="${i}"]`)).toHaveValue("190.50");
    await expect(page.getByRole("button", { name: `Readings ${i}`, exact: true })).toBeVisible();
  }
  await expect(verdict(page).getByText("Inside", { exact: true })).toBeVisible();
  await expect(verdict(page).getByText("190.50", { exact: true })).toBeVisible();
  // In inches the display changes, the drum does not.
  await panel.getByRole("button", { name: "Close" }).click();
  await page.getByRole("button", { name: /Unit mm/ }).click();
  await expect(page.locator('[data-reading="1"]')).toHaveValue("7.500");
});

test("clicks to the target, and the star wheel turned by the keyboard and by drag with the numbers following", async ({ page }) => {
  await page.goto("/bench/shoes");
  await gauge(page, ["MAX 7.52 IN", "190.90", "190.94", "190.98", "190.92", "190.84", "190.88", "190.92", "190.86"]);
  await expect(verdict(page)).toContainText("7.52 inch, 191.01 mm");
  await expect(page.getByRole("img", { name: /Drum, largest 190.98 mm at 90 degrees/ })).toBeVisible();
  await tab(page, "Clicks");
  await gauge(page, ["190.12"]);
  for (const [i, v] of ["80", "80", "1.25", "25", "", "", "6", "190"].entries()) if (v) await page.locator(`[data-reading="${4 + i}"]`).fill(v);
  // 0.72 now, aim 0.45, 0.025 a click: 10.8, so 11, leaving 0.445; worked by hand.
  await expect(verdict(page).getByRole("heading", { name: "clicks out: 0.445 mm left" })).toBeVisible();
  await expect(verdict(page).getByText("11", { exact: true }).first()).toBeVisible();
  await expect(page.getByRole("img", { name: /Radial gap along the lining/ })).toBeVisible();
  const wheel = verdict(page).getByRole("slider");
  await wheel.focus();
  await page.keyboard.press("ArrowUp");
  await page.keyboard.press("ArrowUp");
  await expect(verdict(page)).toContainText("After 13 clicks: 0.395 mm.");
  await page.keyboard.press("ArrowDown");
  await expect(verdict(page)).toContainText("After 12 clicks: 0.42 mm.");
  await page.keyboard.press("ArrowUp");
  const box = (await wheel.boundingBox())!;
  await page.mouse.move(box.x + box.width / 2, box.y + 12);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width - 12, box.y + box.height / 2, { steps: 12 });
  await page.mouse.up();
  // A quarter turn of 25 teeth is about six clicks.
  await expect(verdict(page)).toContainText(/After (18|19|20) clicks/);
});

test("linings: a lifted bond condemns whatever the thickness", async ({ page }) => {
  await page.goto("/bench/shoes");
  await tab(page, "Linings");
  await gauge(page, ["2.4", "2.5", "2.3", "2.4", "2.6", "2.2"]);
  await expect(verdict(page).getByText("Not yet enough", { exact: true })).toBeVisible();
  await expect(verdict(page)).toContainText("Try every edge with a pick.");
  await page.getByRole("group", { name: /edge lift/ }).getByRole("button", { name: "No", exact: true }).click();
  await page.getByRole("group", { name: /Oil, grease/ }).getByRole("button", { name: "No", exact: true }).click();
  await expect(verdict(page).getByText("Inside", { exact: true })).toBeVisible();
  await page.getByRole("group", { name: /edge lift/ }).getByRole("button", { name: "Yes", exact: true }).click();
  await expect(verdict(page).getByText("Outside", { exact: true })).toBeVisible();
});

test("what cannot be is said beside the field and everything typed stays", async ({ page }) => {
  await page.goto("/bench/shoes");
  await gauge(page, ["MAX DIA 191 MM", "190.9", "7.52"]);
  await expect(page.getByText("7.52 mm is no drum: in inches it would be 191.01 mm.")).toBeVisible();
  await expect(page.locator('[data-reading="2"]')).toHaveValue("7.52");
  await page.reload();
  await expect(page.locator('[data-reading="2"]')).toHaveValue("7.52");
  await expect(page.locator('[data-reading="1"]')).toHaveValue("190.90");
  await page.getByRole("button", { name: "Clear the bench" }).click();
  await expect(page.locator('[data-reading="1"]')).toHaveValue("");
});
