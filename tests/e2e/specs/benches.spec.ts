import { expect, test } from "@playwright/test";
import { advance, jobAt, openJob, signIn } from "./helpers";

test("a wrong PIN is said beside the form, and the name stays picked", async ({ page }) => {
  await page.goto("/");
  const name = page.getByRole("button", { name: /Sol Penhale/ });
  await name.click();
  await page.getByLabel(/PIN/).fill("1111");
  await page.getByRole("button", { name: "Sign in" }).click();
  await expect(page.getByRole("alert")).toContainText("That PIN is not right.");
  await expect(name).toHaveAttribute("aria-pressed", "true");
  await page.getByLabel(/PIN/).fill("2580");
  await page.getByRole("button", { name: "Sign in" }).click();
  await expect(page.getByRole("heading", { name: "Bay board" })).toBeVisible();
});

test("a job with wrong particulars is not opened, and what was typed stays", async ({ page }) => {
  await signIn(page);
  await page.goto("/jobs/new");
  await page.getByLabel("Known vehicle").selectOption("GNT 140");
  await page.getByLabel("Bay", { exact: true }).fill("140");
  await page.getByLabel("Odometer, km").fill("-5");
  await page.getByLabel("What the driver says").fill("Grinds");
  await page.getByRole("button", { name: "Start the job" }).click();
  await expect(page.getByText("bay is 140: it must be 1 to 99.").first()).toBeVisible();
  await expect(page.getByText("odometerKm is -5 km: it must be 0 to 2000000 km.").first()).toBeVisible();
  await expect(page.getByLabel("What the driver says")).toHaveValue("Grinds");
  await page.getByLabel("VIN, if known").fill("1111111111111111O");
  await page.getByLabel("Bay", { exact: true }).fill("14");
  await page.getByLabel("Odometer, km").fill("5");
  await page.getByRole("button", { name: "Start the job" }).click();
  await expect(page.getByText(/A VIN never carries 'O'/).first()).toBeVisible();
});

test("looking: a second touch takes an answer back, the other corner is its own, a contradiction is look again", async ({ page }) => {
  await signIn(page);
  const jobId = await openJob(page.request, "GNT 077", "pads", 51);
  await page.goto(`/jobs/${jobId}/look/left`);
  const seen = page.getByRole("region", { name: "What is seen" });
  const stands = page.getByRole("region", { name: "What is possible" });
  await expect(stands.getByRole("heading", { name: "13 possible" })).toBeVisible();
  const lever = seen.getByRole("button", { name: "Cable lever: Yes" });
  await lever.click();
  await expect(stands.getByRole("heading", { name: /^\d possible/ })).toBeVisible();
  await lever.click();
  await expect(stands.getByRole("heading", { name: "13 possible" })).toBeVisible();
  await lever.click();
  await expect(lever).toHaveAttribute("aria-pressed", "true");
  await seen.getByRole("button", { name: "Motor, plug: Yes" }).click();
  await expect(stands.getByRole("heading", { name: "Look again" })).toBeVisible();
  await expect(stands).toContainText("These cannot all be true: Cable lever, Motor on caliper");
  await expect(page.getByRole("button", { name: /Confirm brake type/ })).toHaveCount(0);

  await page.keyboard.press("o");
  await expect(page.getByRole("heading", { name: "Look, right corner" })).toBeVisible();
  await expect(stands.getByRole("heading", { name: "13 possible" })).toBeVisible();
  await seen.getByRole("button", { name: "Cross", exact: true }).click();
  await expect(seen.getByText("A notched face is not proof of a screw.")).toBeVisible();
  await expect(stands.getByRole("heading", { name: "13 possible" })).toBeVisible();
});

test("a bolt that cannot be measured is held for the lead, who accepts it by reason", async ({ page, browser }) => {
  await signIn(page, "Tor Aske");
  const jobId = await jobAt(page.request, "GNT 077", "pads", "cable", 52, "slide-pins-torqued", "left");
  await page.goto(`/jobs/${jobId}`);
  await page.getByRole("button", { name: "Cannot reach it" }).click();
  await expect(page.getByText("The job stays held until the lead accepts it")).toBeVisible();
  await page.getByLabel("Why it cannot be measured").fill("spring arm in the way");
  await page.getByRole("button", { name: "Sign it as unverified" }).click();
  await expect(page.getByText(/^Number 2 of 2/)).toBeVisible();
  await advance(page.request, jobId, (now) => now.stepId === "torques-accepted");
  await page.reload();
  // A technician cannot click it on.
  await page.getByLabel("Reason").fill("looks fine to me");
  await page.getByRole("button", { name: /Lead accepts: done/ }).click();
  await expect(page.getByRole("alert")).toContainText("The lead does this.");

  const lead = await (await browser.newContext()).newPage();
  await signIn(lead);
  await lead.goto(`/jobs/${jobId}`);
  await lead.getByLabel("Reason").fill("checked with a second spanner, marked");
  await lead.getByRole("button", { name: /Lead accepts: done/ }).click();
  await expect(lead.getByRole("heading", { name: "Lead accepts" })).toBeHidden();
  await advance(lead.request, jobId);
  await lead.goto(`/jobs/${jobId}/record`);
  await expect(lead.getByRole("cell", { name: "unverified: spring arm in the way" })).toBeVisible();
  await expect(lead.getByText("checked with a second spanner, marked").first()).toBeVisible();
});

test("another wrench and a crowfoot change the setting, and the record carries them", async ({ page }) => {
  await signIn(page);
  const board = await (await page.request.get("/api/board")).json();
  const id = board.find((b: { bay: number }) => b.bay === 2).jobId;
  await page.goto(`/jobs/${id}`);
  await expect(page.getByText("83.6", { exact: true })).toBeVisible();
  await page.getByRole("button", { name: "Other wrench or crowfoot" }).click();
  await page.getByLabel("Angle, °").fill("90");
  // Across the wrench a crowfoot changes nothing.
  await expect(page.getByText("94", { exact: true })).toHaveCount(2);
  await page.getByLabel("Angle, °").fill("0");
  await page.getByRole("button", { name: /W5, to 320/ }).click();
  // 94 x 620 / 670 = 86.99, worked by hand; W5 shows whole newton metres.
  await expect(page.getByText("87", { exact: true })).toBeVisible();
  await page.getByRole("button", { name: /W1, to 25/ }).click();
  // No figure is set on a wrench that cannot show it: the sentence says which would do, and nothing is signed.
  await expect(page.getByText(/^Not with W1: .* wants a wrench in calibration whose scale ends between/)).toBeVisible();
  await expect(page.getByText("W1 reads well from 5 to 25 N m. Take another wrench.")).toBeVisible();
  await expect(page.getByRole("button", { name: /Number 2 clicked/ })).toBeDisabled();
});

test("a spec sheet is read from its file, and an impossible one is refused by every figure", async ({ page }) => {
  await signIn(page);
  const sheets = await (await page.request.get("/api/spec-sheets")).json();
  const { thread: _t, ...rest } = sheets[0];
  const sheet = { ...rest, code: "XX-9", title: "A sheet of our own" };
  const file = (data: unknown) => ({ name: "sheet.json", mimeType: "application/json", buffer: Buffer.from(JSON.stringify(data)) });
  // What is worked out is not part of what is entered.
  for (const line of sheet.torques) {
    delete line.wantedNm;
    delete line.thread;
  }
  await page.goto("/workshop");
  await page.getByLabel("Read a spec sheet file").setInputFiles(file({ ...sheet, rotor: { ...sheet.rotor, minimumThicknessMm: 99 }, pads: { ...sheet.pads, backingMm: 0 } }));
  await expect(page.getByRole("alert")).toContainText("pads.backingMm is 0 mm: it must be 1 to 20 mm.");
  await expect(page.getByRole("alert")).toContainText("rotor.minimumThicknessMm is 99 mm");
  await page.getByLabel("Read a spec sheet file").setInputFiles(file(sheet));
  await expect(page.getByText("XX-9: A sheet of our own")).toBeVisible();
});

test("night colours stay chosen, and the keys of a view are shown", async ({ page }) => {
  await signIn(page);
  await page.goto("/");
  await page.getByRole("button", { name: "Night colours" }).click();
  await page.reload();
  expect(await page.evaluate(() => document.documentElement.dataset.theme)).toBe("night");
  await page.getByRole("button", { name: "Keys of this view" }).click();
  await expect(page.getByRole("dialog")).toContainText("New job");
  await page.keyboard.press("Escape");
  await page.keyboard.press("n");
  await expect(page.getByRole("heading", { name: "New job" })).toBeVisible();
});

test("the record prints with no frame round it", async ({ page }) => {
  await signIn(page);
  const board = await (await page.request.get("/api/board")).json();
  const id = board.find((b: { bay: number }) => b.bay === 6).jobId;
  await page.goto(`/jobs/${id}/record`);
  await expect(page.getByText("The check digit agrees.")).toBeVisible();
  await page.emulateMedia({ media: "print" });
  await expect(page.getByRole("banner")).toBeHidden();
  await expect(page.getByRole("button", { name: /Print/ })).toBeHidden();
  await expect(page.getByRole("heading", { name: /Brake record, job/ })).toBeVisible();
  const pdf = await page.pdf({ format: "A4" });
  expect(pdf.subarray(0, 5).toString()).toBe("%PDF-");
});
