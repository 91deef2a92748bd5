import { type ChildProcess, execFileSync, spawn } from "node:child_process";
import { mkdtempSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { expect, test, type Page } from "@playwright/test";
import { freePort } from "../port.mjs";
import { advance, jobAt, PIN, signIn } from "./helpers";

// The pages are kept on the device, as they are in a workshop.
test.use({ serviceWorkers: "allow" });

const banner = (page: Page) => page.getByRole("status").filter({ hasText: "Not sent yet" });
const sign = (page: Page, number: number) => page.getByRole("button", { name: `Number ${number} clicked` });

async function atSlidePins(page: Page, bay: number) {
  const jobId = await jobAt(page.request, "GNT 077", "pads", "cable", bay);
  await advance(page.request, jobId, (now) => now.stepId === "slide-pins-torqued");
  return jobId;
}

/** Every signature of the job's slide pins, in the order of the log. */
async function signatures(page: Page, jobId: string) {
  const record = await (await page.request.get(`/api/jobs/${jobId}/record`)).json();
  return (record.torques as { fastener: string; where: string }[]).filter((t) => t.fastener.startsWith("Slide-pin")).map((t) => `${t.where} ${t.fastener}`);
}

/** The browser has all pages and answers for itself. */
const kept = (page: Page) => page.evaluate(async () => void (await navigator.serviceWorker.ready));

test("signed without network, gone elsewhere, the page closed and come back: each counts once, in order, and no page goes blank", async ({ page, context }) => {
  await signIn(page);
  const jobId = await atSlidePins(page, 42);
  await page.goto(`/jobs/${jobId}`);
  await kept(page);
  await expect(sign(page, 1)).toBeEnabled();
  const before = await signatures(page, jobId);
  await context.setOffline(true);
  await sign(page, 1).click();
  await expect(banner(page)).toContainText("Not sent yet, 1: a signature, left");
  await expect(page.getByText(/does not answer. Last heard \d+ s ago/)).toBeVisible();
  // The next one is not kept waiting by a server that is silent.
  await expect(sign(page, 2)).toBeEnabled({ timeout: 2000 });
  await page.waitForTimeout(900);
  await sign(page, 2).click();
  await expect(banner(page)).toContainText("Not sent yet, 2");
  await expect(page.getByRole("button", { name: "All signed here, not sent yet" })).toBeDisabled();

  // A page that was never opened before comes from the device, and says what only the server knows.
  await page.getByRole("link", { name: "Plan" }).click();
  await expect(page.getByRole("heading", { name: "Lay out first" })).toBeVisible();
  await page.goto("/workshop");
  await expect(page.getByRole("heading", { name: "The server does not answer" })).toBeVisible();
  await expect(banner(page)).toContainText("Not sent yet, 2");
  await page.close();

  await context.setOffline(false);
  const again = await context.newPage();
  await again.goto("/");
  await expect(again.getByRole("heading", { name: "Bay board" })).toBeVisible();
  await expect(banner(again)).toHaveCount(0);
  const after = await signatures(again, jobId);
  expect(after.slice(before.length)).toEqual(["left Slide-pin bolt 1 of 2", "left Slide-pin bolt 2 of 2"]);
});

test("the answer is lost on the way back: it counts once, and the sheet goes on by itself", async ({ page }) => {
  await signIn(page);
  const jobId = await atSlidePins(page, 43);
  await page.goto(`/jobs/${jobId}`);
  let lost = 0;
  await page.route("**/torques", async (r) => {
    if (lost++ > 0) return r.continue();
    await r.fetch();
    await r.abort();
  });
  const before = await signatures(page, jobId);
  await sign(page, 1).click();
  await expect(banner(page)).toHaveCount(0);
  await expect(sign(page, 2)).toBeEnabled();
  expect((await signatures(page, jobId)).length).toBe(before.length + 1);
});

test("what was done without network and may not count any more is said with its reason, and can be kept as a note", async ({ page, context, browser }) => {
  await signIn(page, "Ines Marrow");
  const jobId = await atSlidePins(page, 44);
  await page.goto(`/jobs/${jobId}`);
  await expect(sign(page, 1)).toBeEnabled();
  await context.setOffline(true);
  await sign(page, 1).click();
  await expect(banner(page)).toBeVisible();
  // Meanwhile somebody finds at that corner what takes its bolts out again.
  const other = await (await browser.newContext()).newPage();
  await signIn(other, "Oona Firth");
  await advance(other.request, jobId, (now) => now.stepId !== "slide-pins-torqued");
  await context.setOffline(false);
  const refused = page.getByRole("status").filter({ hasText: "Does not count" });
  await expect(refused).toContainText("a signature, left. The job has moved on since you looked.", { timeout: 15_000 });
  await refused.getByRole("button", { name: "Keep it as a note" }).click();
  await expect(refused).toHaveCount(0);
  const record = await (await page.request.get(`/api/jobs/${jobId}/record`)).json();
  expect(record.log.at(-1)).toMatchObject({ what: "Note", by: "Ines Marrow" });
});

test("a sign-in that ends in the middle of a torque takes the PIN in place, and the signature counts once", async ({ page }) => {
  await signIn(page);
  const jobId = await atSlidePins(page, 45);
  await page.goto(`/jobs/${jobId}`);
  await expect(sign(page, 1)).toBeEnabled();
  const before = await signatures(page, jobId);
  await page.request.delete("/api/session");
  await sign(page, 1).click();
  const dialog = page.getByRole("dialog", { name: "Kit Ransome, your sign-in has ended" });
  await dialog.getByLabel("PIN of Kit Ransome").fill(PIN);
  await dialog.getByRole("button", { name: "Go on" }).click();
  await expect(dialog).toBeHidden();
  await expect(sign(page, 2)).toBeEnabled();
  await expect.poll(async () => (await signatures(page, jobId)).length).toBe(before.length + 1);
});

test("the server is killed and started again: what was signed meanwhile counts once", async ({ browser, page: here }) => {
  const port = freePort();
  const folder = mkdtempSync(join(tmpdir(), "pawl-restart-"));
  const data = join(folder, "data");
  const base = `http://127.0.0.1:${port}`;
  const app = { cwd: join(test.info().config.rootDir, "../../../.build/app"), stdio: "ignore" } as const;
  // It moves into a house of its own with what is there, which is sooner done than filling a demo.
  await signIn(here);
  const backup = join(folder, "moving.pawl-backup");
  writeFileSync(backup, await (await here.request.get("/api/workshop/backup")).body());
  execFileSync("dotnet", ["PatientPawl.Web.dll", "--data", data, "--restore", backup], app);
  const serve = async (): Promise<ChildProcess> => {
    const server = spawn("dotnet", ["PatientPawl.Web.dll", "--port", port, "--data", data], app);
    await expect.poll(() => fetch(`${base}/healthz`).then((r) => r.ok, () => false), { timeout: 150_000 }).toBe(true);
    return server;
  };
  let server = await serve();
  try {
    const page = await (await browser.newContext({ baseURL: base })).newPage();
    await signIn(page);
    const jobId = await atSlidePins(page, 46);
    await page.goto(`/jobs/${jobId}`);
    await expect(sign(page, 1)).toBeEnabled();
    const before = await signatures(page, jobId);
    server.kill("SIGKILL");
    await sign(page, 1).click();
    await expect(banner(page)).toBeVisible();
    server = await serve();
    await expect(banner(page)).toHaveCount(0, { timeout: 15_000 });
    await expect(sign(page, 2)).toBeEnabled();
    expect((await signatures(page, jobId)).length).toBe(before.length + 1);
  } finally {
    server.kill("SIGKILL");
  }
});
