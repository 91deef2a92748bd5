import { expect, test } from "@playwright/test";
import { advance, header, jobAt, signIn, violations, wholeJob } from "./helpers";

// The stand-in car goes at its real pace: a stroke takes seconds, as it does beside a car.

const fault = (page: import("@playwright/test").Page, name: string, on: boolean) => page.request.post("/api/car/faults", { data: { fault: name, on } });

test("into service and closed on a car that is not there: hands clear first, a link lost on the way, both sides judged", async ({ page }) => {
  await signIn(page);
  const id = await jobAt(page.request, "GNT 207", "pads", "motor", 51, "service-entered", null, "practice");
  await page.goto(`/jobs/${id}`);
  await expect(page.getByRole("banner")).toContainText("Practice, no real car");
  await page.getByRole("link", { name: "Electric bench" }).click();
  await expect(page.getByRole("heading", { name: "Released" })).toBeVisible();
  const into = page.getByRole("button", { name: /Into service/ });
  await expect(into).toBeDisabled();
  await page.getByRole("button", { name: "Kit Ransome: clear" }).click();
  await into.click();
  await expect(page.getByText("Hands out. The motors are moving.")).toBeVisible();
  await expect(page.getByRole("button", { name: /Stop/ })).toBeVisible();
  await expect(page.getByRole("heading", { name: "In service" })).toBeVisible({ timeout: 20_000 });
  await expect(page.getByRole("link", { name: "To the run sheet" })).toBeVisible();
  expect(await violations(page)).toEqual([]);

  await advance(page.request, id, (n) => n.stepId === "service-closed");
  await fault(page, "link-lost", true);
  await page.reload();
  await page.getByRole("button", { name: "Kit Ransome: clear" }).click();
  await page.getByRole("button", { name: /^Close/ }).click();
  await expect(page.getByText("Hands out. The motor may still be running.")).toBeVisible({ timeout: 10_000 });
  // The link comes back by itself and the end is asked for; nothing is started again.
  await expect(page.getByRole("heading", { name: "Left and right alike" })).toBeVisible({ timeout: 20_000 });
  const exchange: { words: string; sent: boolean }[] = await (await page.request.get(`/api/jobs/${id}/electric/exchange`)).json();
  // On a machine that is held up the unit's session may have fallen back: that alone may be refused, and is then asked once more.
  const sent = exchange.filter((e) => e.sent && e.words === "Start: close");
  const refused = exchange.filter((e) => !e.sent && e.words === "Start: close: not in this session");
  expect(sent.length - refused.length).toBe(1);
  await page.getByRole("button", { name: "The exchange" }).click();
  await expect(page.getByRole("dialog")).toContainText("Start: close");
  await page.keyboard.press("Escape");

  // Stop is asked with one key, and what it leaves is looked at.
  await page.getByRole("button", { name: "Kit Ransome: clear" }).click();
  await page.getByRole("button", { name: /Cycle 3 times/ }).click();
  await expect(page.getByText("Hands out. The motors are moving.")).toBeVisible();
  await page.keyboard.press("Escape");
  await expect(page.getByRole("heading", { name: "Not known to the unit" })).toBeVisible({ timeout: 20_000 });
  const job = await (await page.request.get(`/api/jobs/${id}`)).json();
  expect(job.sheet.now.step.stepId).toBe("service-verified");
});

test("a whole job by the tool through its troubles: battery, plug, pads, spindle, pedal; and handed over", async ({ page }) => {
  wholeJob(4);
  await signIn(page);
  const id = await jobAt(page.request, "GNT 207", "pads", "motor", 57, "service-entered", null, "practice");
  const ask = async (act: RegExp) => {
    await page.goto(`/jobs/${id}/electric`);
    await page.getByRole("button", { name: "Kit Ransome: clear" }).click();
    await page.getByRole("button", { name: act }).click();
  };
  const meets = async (name: string, act: RegExp, says: RegExp) => {
    await fault(page, name, true);
    await ask(act);
    await expect(page.getByText(says).first()).toBeVisible({ timeout: 20_000 });
    await fault(page, name, false);
  };
  await fault(page, "charger-off", true);
  await meets("weak-battery", /Into service/, /voltage is too low/);
  await fault(page, "charger-off", false);
  await meets("unplugged-right", /Into service/, /C1A02/);
  await ask(/Into service/);
  await expect(page.getByRole("heading", { name: "In service" })).toBeVisible({ timeout: 20_000 });
  for (const [name, says] of [["pads-missing", /C1A22/], ["seized", /C1A11/]] as const) {
    await advance(page.request, id, (n) => n.stepId === "service-closed");
    await meets(name, /^Close/, says);
    // Nobody knows how it stands: it is looked at, and found still in service.
    await page.goto(`/jobs/${id}`);
    await expect(page.getByRole("heading", { name: "Verify the brake" })).toBeVisible();
    await page.getByRole("button", { name: "It is in service", exact: true }).click();
    await expect(page.getByRole("heading", { name: "Verify the brake" })).toHaveCount(0);
  }
  await advance(page.request, id, (n) => n.stepId === "service-closed");
  await meets("not-pumped", /^Close/, /the piston/);
  expect(await advance(page.request, id)).toBeNull();
  expect((await (await page.request.get(`/api/jobs/${id}`)).json()).handedOver).toBe(true);
});

test("a line that goes silent is noticed: hands out within a second while a motor moves, and Stop says that it arrived", async ({ page }) => {
  // The stream stays open and nothing comes through it any more, as behind a proxy that swallows bytes.
  await page.addInitScript(() => {
    const Real = window.EventSource;
    const held = window as unknown as { swallow: boolean };
    held.swallow = false;
    window.EventSource = class extends Real {
      override addEventListener(type: string, heard: unknown) {
        super.addEventListener(type, (e) => void (held.swallow || (heard as (e: Event) => void)(e)));
      }
    } as typeof EventSource;
  });
  await signIn(page);
  const jobId = await jobAt(page.request, "GNT 207", "pads", "motor", 47, "service-entered", null, "practice");
  await page.goto(`/jobs/${jobId}/electric`);
  const start = page.getByRole("button", { name: /Into service/ });
  await expect(start).toBeVisible();
  await page.getByRole("button", { name: "Kit Ransome: clear" }).click();
  await start.click();
  await expect(page.getByText("Hands out. The motors are moving.")).toBeVisible();
  await page.evaluate(() => ((window as unknown as { swallow: boolean }).swallow = true));
  await expect(page.getByText("Line lost. Hands out.")).toBeVisible({ timeout: 3000 });
  await page.getByRole("button", { name: /^Stop/ }).click();
  await expect(page.getByText("Stop has arrived")).toBeVisible();
});

test("two people on the job: both say that their hands are clear", async ({ page, browser }) => {
  await signIn(page);
  const id = await jobAt(page.request, "GNT 207", "pads", "motor", 52, "service-entered", null, "practice");
  const other = await (await browser.newContext({ baseURL: test.info().project.use.baseURL, serviceWorkers: "block" })).newPage();
  await signIn(other, "Sol Penhale");
  const { version } = await (await other.request.get(`/api/jobs/${id}`)).json();
  expect((await other.request.post(`/api/jobs/${id}/notes`, { data: { ...header(version), text: "I hold the lamp" } })).ok()).toBeTruthy();
  await page.goto(`/jobs/${id}/electric`);
  await page.getByRole("button", { name: "Kit Ransome: clear" }).click();
  await expect(page.getByRole("button", { name: /Into service/ })).toBeDisabled();
  await page.getByRole("button", { name: "Sol Penhale: clear" }).click();
  await expect(page.getByRole("button", { name: /Into service/ })).toBeEnabled();
});

test("a real car is never served: the bench says so and what to ask of one's own tool", async ({ page }) => {
  await signIn(page);
  const id = await jobAt(page.request, "GNT 207", "pads", "motor", 53);
  await page.goto(`/jobs/${id}/electric`);
  await expect(page.getByRole("heading", { name: "With your own tool" })).toBeVisible();
  await expect(page.getByText("the link does not serve it")).toBeVisible();
});

test("a clamp meter's recording is read with no job, and trouble is told by its line", async ({ page }) => {
  await page.goto("/bench/current");
  const points = Array.from({ length: 900 }, (_, k) => {
    const t = k / 500;
    const amps = t < 0.2 || t > 1.6 ? 0.01 : 1.8 + 10 * Math.exp(-(t - 0.2) / 0.02) + (t > 0.8 ? 12 * (t - 0.8) : 0);
    return `${t.toFixed(3)},${amps.toFixed(3)}`;
  });
  const file = (text: string) => ({ name: "left.csv", mimeType: "text/csv", buffer: Buffer.from(text) });
  const choose = page.locator("input[type=file]").first();
  await choose.setInputFiles(file(`time_s,current_a\n${points.join("\n")}`));
  await expect(page.getByRole("heading", { name: "Clamps, a later apply" })).toBeVisible();
  await expect(page.getByText("s to contact")).toBeVisible();
  await choose.setInputFiles(file("time_s,current_a\n0,x"));
  await expect(page.getByText("Line 2: current_a is x, which is no number.")).toBeVisible();
});

test("the lead sets a fault of the stand-in car, and the bench tells what it makes of it", async ({ page }) => {
  await signIn(page);
  const id = await jobAt(page.request, "GNT 207", "pads", "motor", 54, "service-entered", null, "practice");
  await page.goto("/workshop");
  await page.getByRole("button", { name: "Right actuator unplugged" }).click();
  await expect(page.getByRole("button", { name: "Right actuator unplugged" })).toHaveAttribute("aria-pressed", "true");
  await page.goto(`/jobs/${id}/electric`);
  await page.getByRole("button", { name: "Kit Ransome: clear" }).click();
  await page.getByRole("button", { name: /Into service/ }).click();
  await expect.poll(async () => JSON.stringify((await (await page.request.get(`/api/jobs/${id}/record`)).json()).log)).toContain("C1A02");
  await fault(page, "unplugged-right", false);
});
