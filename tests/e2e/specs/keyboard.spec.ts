import { expect, test, type Page } from "@playwright/test";
import { jobAt, openJob, ownClock, PIN, rest, signIn, wholeJob } from "./helpers";

/** Tabs to the control with this accessible name and checks that its focus can be seen. */
async function tabTo(page: Page, name: RegExp, most = 60) {
  for (let i = 0; i < most; i++) {
    await page.keyboard.press("Tab");
    const at = await page.evaluate(() => {
      const e = document.activeElement as HTMLElement;
      const label = e.closest("label")?.innerText ?? "";
      return { name: (e.getAttribute("aria-label") ?? (e.innerText || label)).trim(), outline: getComputedStyle(e).outlineStyle, shadow: getComputedStyle(e.closest(".field") ?? e).boxShadow };
    });
    if (!name.test(at.name)) continue;
    expect(at.outline !== "none" || at.shadow !== "none", `focus is visible on ${at.name}`).toBeTruthy();
    return;
  }
  throw new Error(`no control ${name} within ${most} tabs`);
}

test("a whole job without a mouse", async ({ page }) => {
  wholeJob(2);
  await ownClock(page);
  await page.goto("/");
  await tabTo(page, /^Tor Aske/);
  await page.keyboard.press("Space");
  await tabTo(page, /^PIN/);
  await page.keyboard.type(PIN);
  await page.keyboard.press("Enter");
  await expect(page.getByRole("heading", { name: "Bay board" })).toBeVisible();
  const jobId = await openJob(page.request, "GNT 140", "pads", 21);
  await page.goto(`/jobs/${jobId}`);

  // The questions: Tab to each answer, Space presses it.
  await expect(page.getByRole("heading", { name: "Look the car over" })).toBeVisible();
  const answers = ["No", "No", "Yes", "Yes", "Yes", "No", "No", "Yes", "Yes", "No", "No"];
  for (const [i, answer] of answers.entries()) {
    await page.locator("fieldset").nth(i).getByRole("button", { name: answer, exact: true }).focus();
    await page.keyboard.press("Space");
  }
  await page.evaluate(() => (document.activeElement as HTMLElement).blur());
  await page.keyboard.press("Space");
  await expect(page.getByRole("heading", { name: /Identify brake, left/ })).toBeVisible();

  // Y and N answer the next look until one way back is left; Space rules.
  const yes = /cable go into|brake hose/;
  for (const side of ["left", "right"]) {
    await expect(page.getByRole("heading", { name: `Identify brake, ${side}` })).toBeVisible();
    await page.keyboard.press("Space");
    await expect(page.getByRole("heading", { name: `Look, ${side} corner` })).toBeVisible();
    for (let i = 0; i < 14; i++) {
      const rule = page.getByRole("button", { name: `Confirm brake type, ${side}` });
      if (await rule.isVisible()) break;
      const before = await page.getByRole("region", { name: "What is possible" }).innerText();
      if (/How is the parking brake worked/.test(before)) {
        await page.getByRole("region", { name: "What is possible" }).getByRole("button", { name: "Hand lever" }).focus();
        await page.keyboard.press("Space");
      } else await page.keyboard.press(yes.test(before) ? "y" : "n");
      await expect.poll(() => page.getByRole("region", { name: "What is possible" }).innerText()).not.toBe(before);
    }
    await page.evaluate(() => (document.activeElement as HTMLElement).blur());
    await page.keyboard.press("Space");
    await expect(page).toHaveURL(new RegExp(`${jobId}$`));
  }

  // Every step: acknowledge, type like a gauge (digits, Enter), Space clicks on.
  const figures: Record<string, string> = { Level: "60", Inner: "11.2", Outer: "12", Rotor: "9.4", Piston: "11", Turns: "", Cycles: "4", Strokes: "6", Drawn: "30" };
  for (let i = 0; i < 90; i++) {
    const sheet = page.getByRole("region", { name: "Run sheet" });
    await expect(page.locator("h2").last()).toBeVisible();
    if (await page.getByRole("heading", { name: "Handed over" }).isVisible()) break;
    const before = await sheet.innerText();
    for (const box of await page.locator("button[aria-pressed=false]:has(span.border-current)").all()) {
      await box.focus();
      await page.keyboard.press("Space");
    }
    const fields = page.locator("input[data-reading]");
    const count = await fields.count();
    if (count > 0) await fields.first().focus();
    for (let k = 0; k < count; k++) {
      const label = await page.evaluate(() => document.activeElement!.closest("label")!.innerText.trim());
      const key = Object.keys(figures).find((f) => label.startsWith(f));
      await page.keyboard.type(figures[key ?? ""] ?? "");
      await page.keyboard.press("Enter");
      // Enter moved on and clicked nothing.
      expect(await sheet.innerText()).toBe(before);
    }
    if (count === 0) await page.evaluate(() => (document.activeElement as HTMLElement).blur());
    // A torque is signed once its setting stands on the screen.
    await expect(page.locator(".btn-primary").last()).toBeEnabled();
    await rest(page);
    await page.keyboard.press("Space");
    await expect.poll(() => sheet.innerText(), { message: before.slice(0, 80) }).not.toBe(before);
  }
  await expect(page.getByRole("heading", { name: "Handed over" })).toBeVisible();
  await page.keyboard.press("r");
  await expect(page.getByRole("heading", { name: /Brake record/ })).toBeVisible();
  await page.keyboard.press("?");
  await expect(page.getByRole("dialog")).toContainText("Print");
});

test("a space typed in a field never clicks a step, nor does a key over an open dialog", async ({ page }) => {
  await signIn(page);
  const jobId = await openJob(page.request, "GNT 077", "pads", 22);
  await page.goto(`/jobs/${jobId}/look/left`);
  await page.getByRole("button", { name: "Why" }).click();
  await page.keyboard.press("y");
  await page.keyboard.press("Escape");
  const job = await (await page.request.get(`/api/jobs/${jobId}`)).json();
  expect(job.version).toBe(1);
});

test("who goes by keys stands at the new step's heading, can skip the header, and each view names itself", async ({ page }) => {
  await signIn(page);
  const jobId = await jobAt(page.request, "GNT 077", "pads", "cable", 64, "chocks-in");
  await page.goto(`/jobs/${jobId}`);
  const done = page.getByRole("button", { name: /Chock both ways: done/ });
  await expect(done).toBeEnabled();
  expect(await page.title()).toBe("Brae Avocet, plate GNT 077, door-to-door car 2: Patient Pawl");
  await page.waitForTimeout(900);
  await done.focus();
  await page.keyboard.press("Enter");
  await expect(page.getByRole("heading", { name: /^Crack wheel nuts/ })).toBeFocused();
  await page.goto("/");
  await expect(page.getByRole("heading", { name: "Bay board" })).toBeVisible();
  await page.keyboard.press("Tab");
  await expect(page.getByRole("link", { name: "To the content" })).toBeFocused();
  expect(await page.title()).toContain("Bay board");
});

test("a new job's form is there again after the page was loaded anew", async ({ page }) => {
  await signIn(page);
  await page.goto("/jobs/new");
  await page.getByLabel("What the driver says").fill("squeals when cold");
  await page.getByRole("button", { name: "Pads and rotors" }).click();
  await page.reload();
  await expect(page.getByLabel("What the driver says")).toHaveValue("squeals when cold");
  await expect(page.getByRole("button", { name: "Pads and rotors" })).toHaveAttribute("aria-pressed", "true");
});
