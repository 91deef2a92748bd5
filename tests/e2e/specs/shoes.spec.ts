import { expect, test, type Page } from "@playwright/test";

/** Types like a gauge: digits, then Enter, which moves to the next point. */
async function gauge(page: Page, values: string[]) {
  await page.locator('[data-reading="0"]').focus();
  for (const v of values) {
    await page.keyboard.press("ControlOrMeta+a");
    await page.keyboard.type(v);
    await page.keyboard.press("Enter");
  }
}

const set = (largest: string) => ["MAX DIA 191.00 MM", "190.60", "190.64", largest, "190.62", "190.55", "190.58", "190.60", "190.56"];

test("a drum through the gauge path: too close to call, what would settle it, and settled", async ({ page }) => {
  await page.goto("/bench/shoes");
  await gauge(page, set("190.96"));
  // Enter moved through every point and asked for nothing.
  await expect(page.getByText("Too close to call")).toHaveCount(0);
  await page.getByRole("button", { name: /Judge it/ }).click();
  const verdict = page.getByRole("region", { name: "Verdict" });
  await expect(verdict.getByText("Too close to call", { exact: true })).toBeVisible();
  await expect(verdict.getByText("Not passed")).toBeVisible();
  await expect(verdict.getByText("190.96", { exact: true })).toBeVisible();
  await expect(verdict).toContainText("More readings with the drum gauge will not settle it. The bore micrometer will");

  // Follow it: the same drum with the bore micrometer, which reads it a little smaller.
  await page.getByLabel("Instrument").selectOption("bore-micrometer");
  await gauge(page, set("190.955"));
  await page.getByRole("button", { name: /Judge it/ }).click();
  await expect(verdict.getByText("Inside", { exact: true })).toBeVisible();
  await expect(verdict.getByText("Not passed")).toHaveCount(0);

  await gauge(page, set("191.20"));
  await page.getByRole("button", { name: /Judge it/ }).click();
  await expect(verdict.getByText("Outside", { exact: true })).toBeVisible();
  await verdict.getByRole("button", { name: "Why" }).click();
  await expect(page.getByRole("dialog")).toContainText("Doubt: permissible error");
  await expect(page.getByRole("dialog")).toContainText("source: iso-14253-1");
});

test("clicks to the target, and the star wheel turned by the keyboard with the numbers following", async ({ page }) => {
  await page.goto("/bench/shoes");
  await gauge(page, ["MAX 7.52 IN", "190.90", "190.94", "190.98", "190.92", "190.84", "190.88", "190.92", "190.86", "190.12", "80", "80", "1.25", "25", "6"]);
  await page.getByRole("button", { name: /Judge it/ }).click();
  const verdict = page.getByRole("region", { name: "Verdict" });
  await expect(verdict).toContainText("7.52 inch, 191.01 mm");
  // 0.72 now, aim 0.45, 0.025 a click: 10.8, so 10, leaving 0.47; worked by hand.
  await expect(verdict.getByRole("heading", { name: "Turn 10 clicks out: 0.47 mm left" })).toBeVisible();
  const wheel = verdict.getByRole("slider");
  await wheel.focus();
  await page.keyboard.press("ArrowUp");
  await page.keyboard.press("ArrowUp");
  await expect(verdict).toContainText("After 12 clicks: 0.42 mm.");
  const box = (await wheel.boundingBox())!;
  await page.mouse.move(box.x + box.width / 2, box.y + 12);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width - 12, box.y + box.height / 2, { steps: 12 });
  await page.mouse.up();
  // A quarter turn of 25 teeth is about six clicks.
  await expect(verdict).toContainText(/After (17|18|19) clicks/);
  await expect(page.getByRole("img", { name: /Drum, largest 190.98 mm at 90 degrees/ })).toBeVisible();
});

test("what cannot be is said beside the field and everything typed stays", async ({ page }) => {
  await page.goto("/bench/shoes");
  await gauge(page, ["MAX DIA 191 MM", "7.52", "190.9"]);
  await page.getByRole("button", { name: /Judge it/ }).click();
  await expect(page.getByRole("alert")).toContainText("7.52 mm is no drum: in inches it would be 191.01 mm.");
  await page.reload();
  await expect(page.locator('[data-reading="1"]')).toHaveValue("7.52");
  await page.getByRole("button", { name: "Clear the bench" }).click();
  await expect(page.locator('[data-reading="1"]')).toHaveValue("");
});
