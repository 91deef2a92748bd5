import { expect, test } from "@playwright/test";
import ICAL from "ical.js";
import { advance, jobAt, signIn, violations } from "./helpers";

test("a vehicle is two touches from the board; what comes due is ticked off and stays so", async ({ page }) => {
  await signIn(page);
  await page.goto("/");
  await page.getByRole("link", { name: "Vehicles", exact: true }).click();
  await page.getByRole("link", { name: /GNT 118/ }).click();
  await expect(page.getByRole("heading", { name: "Pads looked at by" })).toBeVisible();
  await expect(page.getByRole("img", { name: /Inner lining, left: .* km/ })).toBeVisible();
  await expect(page.getByText(/star wheel loosens upwards/)).toBeVisible();
  expect(await violations(page)).toEqual([]);
  // The next job opens with it.
  await page.getByRole("link", { name: "New job on it" }).click();
  await expect(page.getByLabel("Plate", { exact: true })).toHaveValue("GNT 118");
  await expect(page.getByLabel("Spec sheet")).toHaveValue("NH-5");

  await page.goto("/vehicles");
  const due = page.getByRole("list", { name: "What comes due" });
  await expect(due.getByText("Vernier caliper")).toBeVisible();
  await due.getByRole("listitem").filter({ hasText: "Vernier caliper" }).getByRole("button", { name: /Done/ }).click();
  await expect(due.getByText("Vernier caliper")).toHaveCount(0);
  await page.reload();
  await expect(due.getByRole("listitem").first()).toBeVisible();
  await expect(due.getByText("Vernier caliper")).toHaveCount(0);
});

test("a calendar program subscribes to what comes due, by an address that the lead can change", async ({ page, playwright, baseURL }) => {
  await signIn(page);
  await page.goto("/workshop");
  const address = await page.getByLabel("Address").inputValue();
  // Nobody signed in: the key is all that it shows.
  const program = await playwright.request.newContext();
  const answer = await program.get(address);
  expect(answer.headers()["content-type"]).toContain("text/calendar");
  // Read by another parser than the one that wrote it.
  const events = new ICAL.Component(ICAL.parse(await answer.text())).getAllSubcomponents("vevent").map((e) => new ICAL.Event(e));
  const reminders: { id: string; due: string; says: string }[] = (await (await page.request.get("/api/reminders")).json()).reminders;
  expect(events.map((e) => e.uid).sort()).toEqual(reminders.map((r) => `${r.id}@patient-pawl`).sort());
  for (const r of reminders) {
    const event = events.find((e) => e.uid === `${r.id}@patient-pawl`)!;
    expect(event.startDate.toString()).toBe(r.due);
    expect(event.startDate.isDate).toBe(true);
    expect(event.description).toBe(r.says);
  }

  await page.getByRole("button", { name: "Make a new address" }).click();
  await expect(page.getByLabel("Address")).not.toHaveValue(address);
  expect((await program.get(address)).status()).toBe(404);
  expect((await program.get(`${baseURL}/api/reminders.ics?key=`)).status()).toBe(404);
  await program.dispose();
});

test("a parking brake that the figures do not prove leads back; the bed-in is counted and stands in the record", async ({ page }) => {
  await signIn(page);
  const id = await jobAt(page.request, "GNT 077", "pads", "cable", 77);
  await advance(page.request, id, (now) => now.stepId === "brake-held");
  await page.goto(`/jobs/${id}`);
  await page.getByRole("link", { name: "Parking brake proved" }).click();
  await page.getByLabel("Maximum authorised mass, kg").fill("1500");
  await page.getByLabel("Left, N").fill("2400");
  await page.getByLabel("Right, N").fill("1500");
  await expect(page.getByRole("heading", { name: "Not proved" })).toBeVisible();
  await expect(page.getByText(/The right corner: adjustment/)).toBeVisible();
  await page.getByRole("button", { name: /Note it/ }).click();
  await page.getByRole("link", { name: "Noted: to the run sheet" }).click();
  // What the figures say cannot be clicked away. The bench answers keys until the run sheet stands.
  await expect(page.getByRole("button", { name: /It creeps/ })).toBeVisible();
  await page.keyboard.press("Space");
  await expect(page.getByText(/Say so at the step, or try it again on the bench/)).toBeVisible();
  await page.getByRole("button", { name: /It creeps/ }).click();
  // It is told not to hold: the plan goes back to the brake, and what was tried is tried anew.
  await expect.poll(async () => (await (await page.request.get(`/api/jobs/${id}`)).json()).sheet.now.step.stepId).not.toBe("brake-held");
  expect((await (await page.request.get(`/api/jobs/${id}/proof`)).json()).hold).toBeNull();

  await advance(page.request, id, (now) => now.stepId === "bed-in");
  await page.goto(`/jobs/${id}`);
  await page.getByRole("link", { name: "Bed-in" }).click();
  await page.getByLabel("Car as driven, kg").fill("1500");
  await page.getByLabel("One rear rotor, kg").fill("5");
  await page.getByLabel("Air, °C").fill("20");
  await expect(page.getByRole("heading", { name: "The usual band is out of reach" })).toBeVisible();
  for (let i = 0; i < 4; i++) await page.getByRole("button", { name: "One more stop" }).click();
  await page.getByRole("button", { name: /Note 4 of 5 stops/ }).click();
  await expect(page.getByRole("link", { name: /4 of 5 noted/ })).toBeVisible();
  expect(await violations(page)).toEqual([]);
  await page.goto(`/jobs/${id}/record`);
  await expect(page.getByText(/Bed-in: 4 of 5 firm stops/)).toBeVisible();
});

test("a second visit knows what the first one measured and how long this workshop takes", async ({ page }) => {
  await signIn(page);
  // The right piston of GNT 164 was followed turn by turn at its visit before.
  await page.goto("/vehicles/GNT%20164");
  await expect(page.getByText(/Right: Travel a turn: [\d.]+ mm, measured here on/)).toBeVisible();
  const id = await jobAt(page.request, "GNT 164", "pads", "cable", 78, "piston-home", "right");
  await page.goto(`/jobs/${id}`);
  await expect(page.getByText(/Travel a turn: [\d.]+ mm, measured here on/)).toBeVisible();
  const { sheet, opened }: { sheet: { ahead: { step: { stepId: string }; minutes: number }[] }; opened: { minutes: { stepId: string; minutes: number }[] } } =
    await (await page.request.get(`/api/jobs/${id}`)).json();
  const learnt = new Map(opened.minutes.map((m) => [m.stepId, m.minutes]));
  const told = sheet.ahead.filter((a) => learnt.has(a.step.stepId));
  expect(told.length).toBeGreaterThan(3);
  for (const a of told) expect(a.minutes).toBe(learnt.get(a.step.stepId));
});

test("a wrench's certificate, as found and as left, is entered by the lead and judged at once", async ({ page }) => {
  await signIn(page);
  await page.goto("/workshop");
  const wrenches = page.getByRole("region", { name: "Wrenches" });
  await expect(wrenches.getByText(/Drifts \+?-?[\d.]+ % a year/)).toBeVisible();
  await wrenches.getByRole("button", { name: "Enter a certificate, W1" }).click();
  const form = wrenches.getByRole("form", { name: "Certificate of W1" });
  const day = (offset: number) => new Date(Date.now() + offset * 86_400_000).toISOString().slice(0, 10);
  await form.getByLabel("Certificate number").fill("T-1");
  await form.getByLabel("Its uncertainty (k = 2), %").fill("0,5");
  await form.getByLabel("Calibrated on").fill(day(-2));
  await form.getByLabel("Counts until").fill(day(363));
  const point = form.getByRole("group", { name: "Point 1" });
  await point.getByLabel("Set, N m").fill("20");
  await point.getByLabel("Gave, as found").fill("18,9");
  await point.getByLabel("Gave, as left").fill("0");
  await form.getByRole("button", { name: "Keep the certificate" }).click();
  // A figure that cannot be keeps what was typed, and is named.
  await expect(form.getByText(/asLeftNm/)).toBeVisible();
  await point.getByLabel("Gave, as left").fill("20");
  await form.getByLabel("The laboratory's paper, PDF").setInputFiles({ name: "T-1.pdf", mimeType: "application/pdf", buffer: Buffer.from("%PDF-1.7 as it came") });
  await form.getByRole("button", { name: "Keep the certificate" }).click();
  await expect(wrenches.getByText(/It was wrong until then: what was torqued with it since its last certificate is checked again/)).toBeVisible();
  const paper = await wrenches.getByRole("link", { name: "Its paper." }).first().getAttribute("href");
  expect(await (await page.request.get(paper!)).text()).toBe("%PDF-1.7 as it came");
  expect(await violations(page)).toEqual([]);
});

test("the customer's sheet fits one printed page", async ({ page }) => {
  await signIn(page);
  const board: { jobId: string; vehicle: { plate: string } }[] = await (await page.request.get("/api/board")).json();
  const id = board.find((c) => c.vehicle.plate === "GNT 420")!.jobId;
  await page.goto(`/jobs/${id}/record`);
  await page.getByRole("link", { name: "Customer's sheet" }).click();
  await expect(page.getByRole("heading", { name: "Your rear brakes" })).toBeVisible();
  await expect(page.getByRole("img", { name: /Inner pad, left: .* mm left, at least .* Renewed/ })).toBeVisible();
  expect(await violations(page)).toEqual([]);
  for (const format of ["A4", "Letter"]) {
    const pdf = (await page.pdf({ format })).toString("latin1");
    expect(pdf.match(/\/Type\s*\/Page\b(?!s)/g)?.length, format).toBe(1);
  }
});
