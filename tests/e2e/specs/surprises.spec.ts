import { expect, test, type Page } from "@playwright/test";
import { type Family, jobAt, LONG, signIn, toTheEnd, work } from "./helpers";

/** Opens a job, looks it over, identifies both corners; ends on the run sheet. */
async function begin(page: Page, plate: string, scope: "pads" | "pads-and-rotors" | "shoes", family: Family, bay: number, stepId?: string, side: "left" | null = null) {
  await signIn(page);
  const jobId = await jobAt(page.request, plate, scope, family, bay, stepId, side);
  await page.goto(`/jobs/${jobId}`);
  return jobId;
}

test("cable calipers: a stuck piston is found in two touches, and the job ends with a new caliper and a bled circuit", async ({ page }) => {
  const jobId = await begin(page, "GNT 077", "pads", "cable", 61, "piston-home", "left");
  await page.getByRole("button", { name: "Report a problem" }).click();
  await page.getByRole("dialog").getByRole("button", { name: /Piston stuck or boot torn/ }).first().click();
  await expect(page.getByRole("dialog").getByText(/longer/)).toBeVisible();
  await page.getByRole("button", { name: "Report it" }).click();
  const change = page.getByRole("status").filter({ hasText: "piston stuck" });
  await expect(change.locator("s")).toContainText("piston home, left");
  await expect(change.locator("ins")).toContainText("caliper away, left");
  await change.getByRole("button", { name: "OK, understood" }).click();
  await expect(change).toBeHidden();
  await toTheEnd(page, jobId);
  const record = await (await page.request.get(`/api/jobs/${jobId}/record`)).json();
  expect(record.log.map((l: { what: string }) => l.what)).toEqual(expect.arrayContaining(["Piston stuck or boot torn", "Caliper away", "Bleed"]));
  expect(JSON.stringify(record.torques)).toContain("Banjo bolt 1 of 1");
});

test("a finding is reached by a word, its cost is told, and the list fits a tablet", async ({ page }) => {
  const jobId = await begin(page, "GNT 077", "pads", "cable", 63, "measured", "left");
  await page.setViewportSize({ width: 1024, height: 768 });
  await page.getByRole("button", { name: "Report a problem" }).click();
  const dialog = page.getByRole("dialog");
  await expect(dialog.getByRole("button", { name: "Thread stripped, left" })).toBeVisible();
  expect(await dialog.evaluate((d) => d.scrollHeight - d.clientHeight)).toBeLessThanOrEqual(0);
  await dialog.getByLabel("Search by a word").fill("hose");
  await expect(dialog.getByRole("button", { name: "Thread stripped, left" })).toBeHidden();
  await dialog.getByRole("button", { name: "Hose cracked or collapsed, right" }).click();
  await expect(dialog.getByText(/longer/)).toBeVisible();
  await expect(dialog.getByText(/new sealing washers/)).toBeVisible();
  await dialog.getByRole("button", { name: "Report it" }).click();
  await expect(dialog).toHaveCount(0);
  const sheet = (await (await page.request.get(`/api/jobs/${jobId}`)).json()).sheet;
  expect(sheet.ahead.map((a: { step: { stepId: string; side: string } }) => `${a.step.stepId}, ${a.step.side}`)).toContain("hose-renewed, right");
});

test("motor calipers: what a step out of order may have done is looked at by real steps, and the job still ends", async ({ page }) => {
  const jobId = await begin(page, "GNT 233", "pads", "motor", 62);
  await work(page, (t) => t.startsWith("Choose the route"));
  await expect(page.getByRole("button", { name: /^Scan tool/ })).toContainText("in all");
  await expect(page.getByText(/Battery straight to the motor: not offered/)).toBeVisible();
  await page.getByRole("button", { name: /^The car's own sequence/ }).click();
  await work(page, (t) => t.startsWith("Service position"));
  await page.getByRole("button", { name: "Start the sequence" }).click();
  await page.getByRole("button", { name: "Next part" }).click();
  await expect(page.getByText(/^[1-5] s$/)).toBeVisible();
  await work(page, (t) => t.startsWith("New pads in, left"));
  // Someone turned the ignition on with the calipers hung.
  const row = page.getByRole("button", { name: "Ignition on again" });
  // Folded rows open lane by lane, from the last group up: it stands far ahead.
  const folded = page.getByRole("button", { name: /more: / });
  for (let i = (await folded.count()) - 1; i >= 0 && (await row.count()) === 0; i--) await folded.nth(i).click();
  await row.first().click({ timeout: 5000 });
  await page.getByText("It was done already, out of order").click();
  await page.getByLabel("How it came about").fill("a helper wanted the radio");
  await page.getByRole("button", { name: "Mark it done out of order" }).click();
  // A woken car may have moved its spindles: no click makes that good, only the ignition off and a look at each.
  await expect(page.getByRole("dialog")).toHaveCount(0);
  const { sheet } = await (await page.request.get(`/api/jobs/${jobId}`)).json();
  const ahead = [sheet.now, ...sheet.ahead].map((a: { step: { stepId: string } }) => a.step.stepId);
  expect(ahead).toContain("ignition-off");
  expect(ahead.filter((id: string) => id === "spindle-verified").length).toBeGreaterThanOrEqual(1);
  await toTheEnd(page, jobId);
});

test("shoes in the hat: left overnight on its stands and come back to", async ({ page }) => {
  const jobId = await begin(page, "GNT 140", "pads", "hat", 63, "pads-out", "left");
  await page.getByRole("link", { name: "Plan", exact: true }).click();
  await expect(page.getByRole("heading", { name: /Leave it overnight/ })).toBeVisible();
  await expect(page.getByText("It can be left as it stands, on its stands.")).toBeVisible();
  await page.getByRole("button", { name: "Tagged: leave it" }).click();
  await expect(page.getByText("The job is left overnight.")).toBeVisible();
  await page.goto("/");
  await expect(page.getByText("the morning")).toBeVisible();
  await page.goto(`/jobs/${jobId}`);
  await expect(page.getByRole("heading", { name: "Left overnight" })).toBeVisible();
  await expect(page.getByText("Key: do not drive")).toBeVisible();
  await page.getByRole("button", { name: /Back at it/ }).click();
  await expect(page.getByRole("heading", { name: "Left overnight" })).toBeHidden();
  await toTheEnd(page, jobId);
});

test("a fixed caliper for two technicians: a timeline each, shorter than alone, and what to lay out stays ticked", async ({ page }) => {
  const jobId = await begin(page, "GNT 372", "pads", "fixed", 64);
  await page.goto(`/jobs/${jobId}/plan`);
  const minutes = async () => {
    const text = await page.locator(".huge").first().innerText();
    const [, h, m] = /(?:(\d+) h )?(\d+)/.exec(text)!;
    return Number(h ?? 0) * 60 + Number(m);
  };
  await expect(page.getByText("Technician 2")).toBeVisible();
  const two = await minutes();
  await page.getByRole("button", { name: "One technician" }).click();
  await expect(page.getByText("to the hand-over, alone")).toBeVisible();
  await expect(page.getByText("Technician 2")).toBeHidden();
  await expect.poll(minutes).toBeGreaterThan(two);
  const box = page.getByRole("checkbox").first();
  await box.check();
  await page.reload();
  await expect(page.getByRole("checkbox").first()).toBeChecked();
  await page.getByRole("link", { name: "Torque card" }).click();
  await expect(page.getByRole("heading", { name: /Wheel nuts/ })).toBeVisible();
  await expect(page.getByRole("img", { name: "Tighten in the order 1, 3, 5, 2, 4" })).toBeVisible();
  await page.getByRole("link", { name: "Run sheet" }).click();
  await toTheEnd(page, jobId);
});

test("house rules: what a school brings into the sample plan is shown before it is set", async ({ page }) => {
  await signIn(page);
  await page.goto("/workshop/house-rules");
  await page.getByRole("button", { name: /^Always a short bleed/ }).click();
  await expect(page.getByRole("region", { name: "Sample plan" }).locator("li.font-bold")).toContainText(["Bleed"]);
  await page.getByRole("button", { name: /^Always a short bleed/ }).scrollIntoViewIfNeeded();
  await page.getByRole("button", { name: /^Not needed if the hydraulics stayed closed/ }).click();
  await expect(page.getByText("This plan stays as it is.")).toBeVisible();
});

/** What a sheet has, by its path. */
function filled(of: unknown, path = ""): string[] {
  if (of === null || (Array.isArray(of) && of.length === 0)) return [];
  if (typeof of !== "object") return [path];
  return Object.entries(of!).flatMap(([k, v]) => filled(v, Array.isArray(of) ? path : `${path}.${k}`));
}

test("a spec sheet that is opened and kept as it is stays what it was, whatever it has", async ({ page }) => {
  await signIn(page);
  const sheets = async () => (await (await page.request.get("/api/spec-sheets")).json()) as { code: string }[];
  const before = await sheets();
  // Sheet by sheet until everything that any of them has was there; by hand all of them.
  const seen = new Set<string>();
  const some = before.toSorted((a, b) => filled(b).length - filled(a).length).filter((sheet) => {
    const fresh = filled(sheet).filter((f) => !seen.has(f));
    fresh.forEach((f) => seen.add(f));
    return LONG || fresh.length > 0;
  });
  for (const { code } of some) {
    await page.goto(`/workshop/spec-sheets/${code}`);
    const kept = page.waitForResponse((r) => r.url().endsWith("/api/spec-sheets") && r.request().method() === "POST");
    await page.getByRole("button", { name: "Keep the sheet" }).click();
    expect((await kept).status()).toBe(200);
  }
  expect(await sheets()).toEqual(before);
});

test("a spec sheet is copied, looked over for slips, kept, and goes out and in as CSV line by line", async ({ page }) => {
  await signIn(page);
  await page.goto("/workshop/spec-sheets/CT-1");
  await page.getByRole("link", { name: "Copy" }).click();
  await page.getByLabel("Code").fill("CT-9");
  // Inches typed as mm, and a torque in lbf ft read as N m of the wrong fastener.
  await page.getByLabel("New, mm").first().fill("0.433");
  await page.getByRole("button", { name: "Look for slips" }).click();
  await expect(page.getByText(/If it is in inches, it is 11 mm/).first()).toBeVisible();
  await page.getByLabel("New, mm").first().fill("11");
  const pin = page.getByRole("group", { name: "Fastener 1" });
  await pin.getByLabel("Torque, or from").fill("88");
  await page.getByRole("button", { name: "Look for slips" }).click();
  await expect(page.getByText(/high for a slide-pin bolt/)).toBeVisible();
  await expect(page.getByText(/same figure: was one copied/)).toBeVisible();
  await pin.getByLabel("Torque, or from").fill("23");
  await pin.getByLabel("Unit").selectOption("lbf-ft");
  await page.getByRole("button", { name: "Look for slips" }).click();
  await expect(page.getByText(/high for a slide-pin bolt/)).toBeHidden();
  await page.getByRole("button", { name: "Keep the sheet" }).click();
  await expect(page).toHaveURL(/spec-sheets\/CT-9$/);
  // The kept sheet is loaded anew before anything else is read into it.
  await expect(page.getByRole("heading", { level: 1, name: "Spec sheet CT-9" })).toBeVisible();
  const csv = await (await page.request.get("/api/spec-sheets/CT-9/csv")).text();
  expect(csv).toContain("torques.0.lowNm,31.18");
  const broken = csv.replace("rotor.newThicknessMm,11", "rotor.newThicknessMm,eleven\r\nrotor.colour,red");
  await page.locator("input[type=file]").setInputFiles({ name: "sheet.csv", mimeType: "text/csv", buffer: Buffer.from(broken) });
  await expect(page.getByRole("status")).toContainText('"eleven" is not a plain figure');
  await expect(page.getByRole("status")).toContainText('"rotor.colour" is no field of a spec sheet');
  await page.locator("input[type=file]").setInputFiles({ name: "sheet.csv", mimeType: "text/csv", buffer: Buffer.from(csv.replace("rotor.newThicknessMm,11", "rotor.newThicknessMm,11.5")) });
  await expect(page.getByRole("status")).toContainText("Read into the form");
  await expect(page.getByLabel("New, mm").first()).toHaveValue("11.5");
  await page.goto("/workshop/spec-sheets/CT-99");
  await expect(page.getByText("This workshop has no spec sheet CT-99.")).toBeVisible();
});

test("a report takes its photo along, a note and a photo stand by themselves, and the record shows them", async ({ page }) => {
  const jobId = await begin(page, "GNT 077", "pads", "cable", 66, "measured", "left");
  const picture = Buffer.from(
    await page.evaluate(() => {
      const canvas = Object.assign(document.createElement("canvas"), { width: 3000, height: 2000 });
      const to = canvas.getContext("2d")!;
      to.fillStyle = "#7a4a2a";
      to.fillRect(0, 0, 3000, 2000);
      return canvas.toDataURL("image/png").split(",")[1]!;
    }),
    "base64",
  );
  const dialog = page.getByRole("dialog");
  await page.getByRole("button", { name: "Report a problem" }).click();
  await dialog.getByRole("button", { name: "Hose cracked or collapsed, right" }).click();
  await dialog.getByLabel("Add a photo").setInputFiles({ name: "hose.png", mimeType: "image/png", buffer: picture });
  await expect(dialog.getByRole("img", { name: "The photo as it was taken" })).toBeVisible();
  await dialog.getByLabel("Note").fill("cracked by the bracket");
  await dialog.getByRole("button", { name: "Report it" }).click();
  await expect(dialog).toBeHidden();

  await page.getByRole("button", { name: "Report a problem" }).click();
  await dialog.getByRole("button", { name: "Note or photo" }).click();
  await dialog.getByLabel("Note").fill("spare wheel has no air");
  await dialog.getByRole("button", { name: "Add the note" }).click();
  await expect(dialog).toBeHidden();

  await page.goto(`/jobs/${jobId}/record`);
  const photo = page.getByRole("figure").filter({ hasText: "cracked by the bracket" });
  await expect(photo).toContainText("right, hose cracked or collapsed, Kit Ransome");
  // Shown, and no larger than is kept.
  expect(await photo.getByRole("img").evaluate((i: HTMLImageElement) => [i.naturalWidth, i.naturalHeight])).toEqual([2048, 1365]);
  await expect(page.getByText("spare wheel has no air")).toBeVisible();
});
