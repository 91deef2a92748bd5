import { expect, test, type Page } from "@playwright/test";
import { advance, header, jobAt, signIn, work } from "./helpers";

const job = async (page: Page, id: string) => (await page.request.get(`/api/jobs/${id}`)).json();

test("the aim is changed midway to closing up with old parts: the old pads go back and the car is handed over", async ({ page }) => {
  await signIn(page);
  const id = await jobAt(page.request, "GNT 077", "pads", "cable", 71, "lands-clean", "left");
  await page.goto(`/jobs/${id}/plan`);
  await page.getByRole("button", { name: "Change the aim" }).click();
  const dialog = page.getByRole("dialog");
  const closeUp = dialog.getByRole("button", { name: /^Close up with old parts/ });
  await expect(closeUp).toContainText(/\d+ steps/);
  // Why it changes stands in the record: without it nothing changes.
  await closeUp.click();
  await expect(dialog.getByRole("alert")).toContainText("reason");
  await dialog.getByLabel(/Why it changes/).fill("the new pads are for another car");
  await closeUp.click();
  await expect(dialog).toHaveCount(0);
  await page.getByRole("link", { name: "Run sheet" }).click();
  await expect(page.getByRole("banner").getByRole("button", { name: "Close up with old parts" })).toBeVisible();
  const before = await job(page, id);
  expect(before.sheet.ahead.map((a: { step: { stepId: string } }) => a.step.stepId)).not.toContain("pads-in");
  expect(await work(page)).toBe("Handed over");
  const record = await (await page.request.get(`/api/jobs/${id}/record`)).json();
  expect(record.log.map((l: { detail: string }) => l.detail).join(" ")).toContain("the new pads are for another car");
  // New bolts, for these are single-use; but no pad.
  expect(record.fitted.join(" ")).not.toContain("pads");
});

test("a wheel signed by half and taken off again is signed anew, nut by nut", async ({ page }) => {
  await signIn(page);
  const id = await jobAt(page.request, "GNT 077", "pads", "cable", 72, "wheel-torqued", "left");
  await page.goto(`/jobs/${id}`);
  const nuts = (await job(page, id)).sheet.now.torque.perCorner;
  for (let i = 0; i < 2; i++) {
    const { version, sheet } = await job(page, id);
    const set = await (await page.request.post("/api/bench/torque-line", { data: { line: sheet.now.torque, wrenchId: null, crowfoot: null } })).json();
    const answer = await page.request.post(`/api/jobs/${id}/torques`, {
      data: { ...header(version), ...sheet.now.step, index: sheet.now.nextIndex, wrenchId: set.wrench.id, crowfoot: null, unit: "nm", enteredValue: null, enteredPerCorner: null, unverifiedReason: null },
    });
    expect(answer.ok(), await answer.text()).toBeTruthy();
  }

  // Fluid shows at this corner: the wheel comes off again, and what two nuts were signed to says nothing any more.
  await page.reload();
  await page.getByRole("button", { name: "Report a problem" }).click();
  await page.getByRole("dialog").getByRole("button", { name: /^Fluid shows/ }).first().click();
  await page.getByRole("button", { name: "Report it" }).click();
  await expect(page.getByRole("dialog")).toHaveCount(0);
  await advance(page.request, id, (now) => now.stepId === "wheel-torqued" && now.side === "left");
  const again = (await job(page, id)).sheet.now;
  expect(again.torque.perCorner).toBe(nuts);
  expect(again.signed).toHaveLength(0);
  await page.reload();
  expect(await work(page)).toBe("Handed over");
  // What was signed before stays in the record beside what counts.
  const record = await (await page.request.get(`/api/jobs/${id}/record`)).json();
  expect(record.torques.filter((t: { what: string }) => /Wheel/.test(JSON.stringify(t))).length).toBeGreaterThanOrEqual(2 * nuts);
});

test("a tool lost while the brake is closed leaves nobody the wiser: it is verified, closed again and proved", async ({ page }) => {
  await signIn(page);
  const id = await jobAt(page.request, "GNT 233", "pads", "motor", 73);
  await advance(page.request, id, (now) => now.stepId === "choose-route");
  const at = await job(page, id);
  const chosen = await page.request.post(`/api/jobs/${id}/route`, { data: { ...header(at.version), route: "in-car" } });
  expect(chosen.ok(), await chosen.text()).toBeTruthy();
  await advance(page.request, id, (now) => now.stepId === "service-closed");
  await page.goto(`/jobs/${id}`);
  await work(page, async () => (await page.getByRole("button", { name: /Lost half-way/ }).count()) > 0);
  await page.evaluate(() => void ((window as unknown as { moved: number }).moved += 1000));
  await page.getByRole("button", { name: /The actuators can move/ }).click();
  await page.getByRole("button", { name: /Lost half-way/ }).click();
  await expect(page.getByRole("heading", { name: /Verify/ })).toBeVisible();
  const ahead = (await job(page, id)).sheet;
  expect([ahead.now, ...ahead.ahead].map((a: { step: { stepId: string } }) => a.step.stepId)).toContain("brake-cycled");
  expect(await work(page)).toBe("Handed over");
});
