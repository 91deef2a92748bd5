import { expect, test } from "@playwright/test";
import { jobAt, pass, quiet, rest, signIn, standClock } from "./helpers";

test("an answer on a quick bench is gone as soon as what it was asked for has changed", async ({ page }) => {
  // The server is slow here, so that what stands meanwhile can be seen.
  let slow = 0;
  await page.route("**/api/bench/**", async (route) => {
    await new Promise((go) => setTimeout(go, slow));
    await route.continue();
  });
  await page.goto("/bench/retract");
  await page.getByLabel("Brake").selectOption("cable-screw");
  const answer = page.getByRole("region", { name: "Answer" });
  await page.getByLabel("Brake").selectOption("motor-push");
  await expect(answer.getByRole("heading", { name: "Spindle back, then push straight" })).toBeVisible();
  slow = 1500;
  await page.getByLabel("Brake").selectOption("cable-screw");
  await expect(answer.getByRole("heading", { name: /Spindle back/ })).toHaveCount(0, { timeout: 700 });
  await expect(answer.getByRole("heading", { name: /Turn it clockwise/ })).toBeVisible();

  slow = 0;
  await page.goto("/bench/torque");
  await page.getByRole("button", { name: "Bracket" }).click();
  await page.getByLabel("Torque at the bolt").fill("94");
  await page.getByRole("button", { name: "N m", exact: true }).click();
  await page.getByLabel(/Crowfoot length/).fill("50");
  await page.getByRole("combobox", { name: "Wrench" }).selectOption("W4");
  await expect(answer.getByText(/^83\.6$/)).toBeVisible();
  slow = 1500;
  await page.getByLabel(/Crowfoot length/).fill("120");
  await expect(answer.getByText(/^83\.6$/)).toHaveCount(0, { timeout: 700 });
  // 94 x 400 / 520 = 72.3, worked by hand; W4 shows steps of 0.2.
  await expect(answer.getByText(/^72\.[24]$/)).toBeVisible();
});

test("a screw piston whose turns cannot be reckoned is wound, never pushed in", async ({ page }) => {
  await page.goto("/bench/retract");
  await page.getByLabel("Brake").selectOption("cable-screw");
  const fields = { "Old inner pad": "8", "New inner pad": "12", "Old outer pad": "8", "New outer pad": "12", "Old rotor": "10", "New rotor": "10", "Piston stands proud": "15", "Proud when home": "1.5", "Piston diameter": "38" };
  for (const [label, value] of Object.entries(fields)) await page.getByLabel(new RegExp(label)).fill(value);
  const answer = page.getByRole("region", { name: "Answer" });
  await expect(answer.getByText("13.5", { exact: true })).toBeVisible();
  await expect(answer.getByText("Wind it in")).toBeVisible();
  await expect(answer.getByText("Push it in")).toHaveCount(0);
});

test("two touches 300 ms apart record one step, by mouse and by key", async ({ page }) => {
  await signIn(page);
  const jobId = await jobAt(page.request, "GNT 077", "pads", "cable", 41, "chocks-in");
  const version = async () => (await (await page.request.get(`/api/jobs/${jobId}`)).json()).version as number;
  await page.goto(`/jobs/${jobId}`);
  await expect(page.locator(".btn-primary").last()).toBeEnabled();
  for (const touch of [() => page.mouse.down().then(() => page.mouse.up()), () => page.keyboard.press("Space")]) {
    const before = await version();
    await rest(page);
    const box = (await page.locator(".btn-primary").last().boundingBox())!;
    await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
    await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
    const now = await page.locator("h2").last().innerText();
    // The page's clock stands, and is put on by the 300 ms: however long this machine takes, it is 300 ms for the page.
    await standClock(page, true);
    await touch();
    await expect.poll(() => page.locator("h2").last().innerText()).not.toBe(now);
    await pass(page, 300);
    await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
    await touch();
    await page.waitForTimeout(300);
    await quiet(page);
    await standClock(page, false);
    expect(await version()).toBe(before + 1);
  }
});

test("who is signed in stands on every size, and signing out asks first", async ({ page }) => {
  await signIn(page, "Ines Marrow");
  for (const [width, height, shown] of [[1280, 800, "Ines Marrow"], [1024, 768, "IM"], [768, 1024, "IM"], [390, 844, "IM"]] as const) {
    await page.setViewportSize({ width, height });
    await page.goto("/");
    const who = page.getByRole("button", { name: "Signed in: Ines Marrow" });
    await expect(who).toBeInViewport();
    await expect(who).toHaveText(new RegExp(shown));
    await who.click();
    await expect(page.getByRole("dialog").getByRole("button", { name: "Sign out" })).toBeVisible();
    await page.keyboard.press("Escape");
    await expect(page.getByRole("heading", { name: "Bay board" })).toBeVisible();
  }

  await page.getByRole("button", { name: "Signed in: Ines Marrow" }).click();
  await page.getByRole("dialog").getByRole("button", { name: "Sign out" }).click();
  await expect(page.getByRole("heading", { name: "Who is it?" })).toBeVisible();
});
