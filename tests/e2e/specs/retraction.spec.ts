import { expect, test, type Page } from "@playwright/test";
import { jobAt, signIn, work } from "./helpers";

/** A cable job with its left piston next; ends on that corner's retract bench. */
async function atPiston(page: Page, plate: string, bay: number) {
  await signIn(page);
  const jobId = await jobAt(page.request, plate, "pads", "cable", bay, "piston-home", "left");
  await page.goto(`/jobs/${jobId}/retract/left`);
  await expect(page.getByRole("button", { name: /turns to go|Turns to make/i })).toBeVisible();
  return jobId;
}

const proud = (page: Page) => page.getByLabel("Stands proud");

/** A gauge's reading: digits and Enter. */
async function read(page: Page, mm: string) {
  const before = await page.getByRole("button", { name: /^The log, / }).getAttribute("aria-label");
  await proud(page).fill(mm);
  await proud(page).press("Enter");
  await expect(page.getByRole("button", { name: /^The log, / })).not.toHaveAttribute("aria-label", before!);
  await expect(proud(page)).toHaveValue("");
}

/** One turn by its key, away from any field. */
async function turn(page: Page, times = 1) {
  await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
  for (let i = 0; i < times; i++) await page.keyboard.press("Space");
}

test("a piston followed home: counted, fitted, lined up, and clicked on with what the log counted", async ({ page }) => {
  // The sheet: 0.8 mm a turn, home at 1.5 mm; 13.4 mm proud is 11.9 mm or 14.9 turns.
  const jobId = await atPiston(page, "GNT 420", 71);
  await expect(page.getByText("14.9", { exact: true }).first()).toBeVisible();
  await read(page, "13.4");
  await page.getByLabel("Slot now, °").fill("18");
  await page.getByLabel("Slot now, °").press("Tab");
  await expect(page.getByText(/Stop after 14 turns/)).toBeVisible();
  await turn(page, 4);
  await expect(page.getByText(/4 turns made/)).toBeVisible();
  // By the sheet's lead until two readings stand: 14.875 - 4 = 10.9.
  await expect(page.getByText("10.9", { exact: true })).toBeVisible();
  await read(page, "10.2");
  await page.getByRole("button", { name: "Pause" }).click();
  await turn(page, 2);
  await expect(page.getByText(/touches do not count/)).toBeVisible();
  await expect(page.getByText(/4 turns made/)).toBeVisible();
  await page.getByRole("button", { name: "Go on" }).click();
  // The big area counts by touch as well, and a closed page loses nothing.
  await page.getByRole("button", { name: /Touch for each turn/ }).click();
  await page.reload();
  await expect(page.getByText(/5 turns made/)).toBeVisible();
  await turn(page, 3);
  await read(page, "7");
  await expect(page.getByText(/0\.8 ± 0 mm a turn/)).toBeVisible();
  // A wrong line is struck out and stays visible.
  await turn(page, 6);
  await read(page, "6.9");
  await page.getByRole("button", { name: /^The log, / }).click();
  await page.getByRole("listitem").last().getByRole("button", { name: "Strike out" }).click();
  await page.getByLabel("Why it is wrong").fill("gauge on the boot");
  await page.getByRole("button", { name: "Strike it out" }).click();
  await expect(page.getByText("gauge on the boot")).toBeVisible();
  await page.getByRole("button", { name: "Close" }).click();
  await page.getByRole("button", { name: "+ ½" }).click();
  await read(page, "1.8");
  await expect(page.getByRole("status").filter({ hasText: "Home. Stop here" })).toBeVisible();
  await page.goto(`/jobs/${jobId}`);
  await expect(page.getByLabel(/Turns made/)).toHaveValue("14.5");
  await work(page, (t) => !t.startsWith("Piston home, left"));
  const record = await (await page.request.get(`/api/jobs/${jobId}/record`)).json();
  expect(record.log.filter((l: { what: string }) => l.what === "Piston followed")).toHaveLength(5);
});

test("a piston that does not move is condemned only when all is right, and brings its caliper into the plan", async ({ page }) => {
  const jobId = await atPiston(page, "GNT 077", 72);
  for (const mm of ["12.4", "12.4", "12.4"]) {
    await read(page, mm);
    await turn(page);
  }
  const found = page.getByRole("status").filter({ hasText: "12.4 mm" });
  // Direction from the sheet, cable slack, room judged: nothing is left to settle.
  await expect(found).toContainText("The caliper is condemned");
  await expect(page.getByText("stop", { exact: true })).toBeVisible();
  await page.getByRole("button", { name: "A new caliper into the plan" }).click();
  await expect(page).toHaveURL(new RegExp(`/jobs/${jobId}$`));
  const change = page.getByRole("status").filter({ hasText: "piston stuck" });
  await expect(change.locator("ins")).toContainText("caliper away, left");
  const view = await (await page.request.get(`/api/jobs/${jobId}`)).json();
  expect(JSON.stringify(view.sheet.partsList)).toContain("Left rear caliper with sealing washers");
});

test("a torn boot is judged on the bench, and its caliper goes into the plan", async ({ page }) => {
  const jobId = await atPiston(page, "GNT 077", 73);
  await page.getByLabel("Boot").selectOption("bulged");
  await expect(page.getByText(/let the air out/)).toBeVisible();
  await expect(page.getByRole("button", { name: "A new caliper into the plan" })).toBeHidden();
  await page.getByLabel("Boot").selectOption("torn");
  await expect(page.getByText("stop", { exact: true })).toBeVisible();
  await page.getByRole("button", { name: "A new caliper into the plan" }).click();
  await expect(page).toHaveURL(new RegExp(`/jobs/${jobId}$`));
  await expect(page.getByRole("status").filter({ hasText: "boot torn" }).locator("ins")).toContainText("caliper away, left");
});

test("one that springs back stops the work; the gauge types, bad figures stay beside their field", async ({ page }) => {
  await page.goto("/bench/retract?tab=log");
  await page.getByLabel("Proud when home, mm").fill("1.5");
  await page.getByLabel("The sheet's travel a turn, mm").fill("0.8");
  await page.getByLabel("Piston diameter, mm").fill("38");
  await page.getByRole("button", { name: "Gauge" }).click();
  await page.getByLabel("True size, mm").fill("8.7");
  await proud(page).focus();
  await page.getByRole("button", { name: "Press its data button" }).click();
  await expect(page.getByRole("button", { name: "The log, 1 lines" })).toBeVisible();
  await page.getByRole("button", { name: "Close" }).click();
  await expect(page.getByText("9.0", { exact: true })).toBeVisible();
  await turn(page, 3);
  await proud(page).fill("250");
  await proud(page).press("Enter");
  await expect(page.getByText(/protrusionMm is 250 mm: it must be 0 to 100 mm/)).toBeVisible();
  await expect(proud(page)).toHaveValue("250");
  await read(page, "6.3");
  await page.getByRole("button", { name: "Tool released" }).click();
  await read(page, "7.1");
  await expect(page.getByRole("status").filter({ hasText: "Springs back" })).toContainText("collapsed hose");
  await expect(page.getByText("stop", { exact: true })).toBeVisible();
});

test("a quick log is attached to a job and goes on there", async ({ page }) => {
  await signIn(page);
  const jobId = await jobAt(page.request, "GNT 420", "pads", "cable", 74, "piston-home", "left");
  await page.goto("/bench/retract?tab=log");
  await page.getByLabel("Proud when home, mm").fill("1.5");
  await read(page, "12.4");
  await turn(page, 2);
  await read(page, "10.6");
  await page.getByRole("button", { name: "Attach to a job" }).click();
  await page.getByRole("dialog").getByRole("button", { name: "Left corner" }).click();
  await page.getByRole("dialog").getByRole("button", { name: /^Bay 74/ }).click();
  await expect(page).toHaveURL(new RegExp(`/jobs/${jobId}/retract/left$`));
  await expect(page.getByRole("button", { name: "The log, 2 lines" })).toBeVisible();
  await page.goto("/bench/retract?tab=log");
  await expect(page.getByRole("button", { name: "The log, 0 lines" })).toBeVisible();
});

test("slot, opposed pistons and the boot by themselves", async ({ page }) => {
  await page.goto("/bench/retract?tab=slot");
  for (const [label, value] of [["Slots", "2"], ["Slot now, °", "35"], ["Slot needed, °", "90"], ["Travel a turn, mm", "0.8"]] as const)
    await page.getByLabel(label, { exact: true }).fill(value);
  // Worked by hand: onward 55, back-off 125 degrees, 0.28 mm out.
  await expect(page.getByText("55°", { exact: true })).toBeVisible();
  await expect(page.getByText(/back-off 125° \(comes out 0.28 mm\)/)).toBeVisible();
  await page.getByRole("group", { name: "Home already, and resists" }).getByRole("button", { name: "yes" }).click();
  await expect(page.getByText(/onward would force it/)).toBeVisible();
  await page.getByLabel("The boot is").selectOption("torn");
  await expect(page.getByText(/The caliper is condemned/)).toBeVisible();
  await page.getByLabel("Slots", { exact: true }).fill("40");
  await expect(page.getByText(/slots is 40/)).toBeVisible();

  await page.getByRole("tab", { name: "Opposed" }).click();
  await page.getByLabel("Proud when home, mm").fill("2");
  for (const [label, value] of [["Inner 1, before", "8"], ["Outer 1, before", "8"], ["Inner 2, before", "8"], ["Outer 2, before", "8"], ["Inner 1, now", "4"], ["Outer 1, now", "4.2"], ["Inner 2, now", "8.6"]] as const)
    await page.getByLabel(label, { exact: true }).fill(value);
  await expect(page.getByText("Pair 2", { exact: true })).toBeVisible();
  await expect(page.getByText(/Inner 2 crept out by 0.6 mm/).first()).toBeVisible();
});

test("opposed pistons in a job: measured by rounds, one creeps, all home, and the step is clicked on", async ({ page }) => {
  await signIn(page);
  const jobId = await jobAt(page.request, "GNT 372", "pads", "fixed", 75, "piston-home", "left");
  await page.goto(`/jobs/${jobId}/retract/left`);
  const round = async (mm: string[]) => {
    for (const [i, label] of ["Inner 1", "Outer 1", "Inner 2", "Outer 2"].entries()) await page.getByLabel(label, { exact: true }).fill(mm[i]!);
    await page.getByRole("button", { name: /^Note (the first|this) round$/ }).click();
    await expect(page.getByLabel("Inner 1", { exact: true })).toHaveValue("");
  };
  await expect(page.getByRole("button", { name: "Measure every one" })).toBeDisabled();
  await round(["9", "9", "10", "10"]);
  await expect(page.getByText("Pair 2", { exact: true })).toBeVisible();
  await round(["9.8", "9", "5", "5"]);
  await expect(page.getByText(/Inner 1 crept out by 0.8 mm/).first()).toBeVisible();
  await round(["1.5", "1.7", "1.6", "1.5"]);
  await expect(page.getByText("home", { exact: true }).first()).toBeVisible();
  await page.getByRole("link", { name: "To the run sheet, and click it on" }).click();
  await page.getByRole("button", { name: /Piston home: done/ }).click();
  await expect(page.getByRole("heading", { name: "Piston home, left" })).toBeHidden();
});

test("the fluid bench: drawn off before it overflows, pumped firm, bled to the stop test", async ({ page }) => {
  await page.goto("/bench/fluid");
  for (const [label, value] of [["MIN to MAX, mL", "75"], ["MAX to the brim, mL", "10"], ["Level now, % of MIN to MAX", "95"], ["Piston diameter, mm", "38"], ["They go back by, mm", "12"], ["New parts need, mm", "9"]] as const)
    await page.getByLabel(label, { exact: true }).fill(value);
  // 2 x pi/4 x 38^2 x 12 = 27.2 mL, with 3.75 mL of room: 23.5 mL off.
  await expect(page.getByText("23.5", { exact: true })).toBeVisible();
  await expect(page.getByText(/Never fill it now/)).toBeVisible();
  await page.getByRole("tab", { name: "Pedal" }).click();
  await page.getByLabel("Master cylinder bore, mm").fill("20.6");
  await page.getByLabel("Its piston's stroke, mm").fill("16");
  await expect(page.getByText("of about 4")).toBeVisible();
  await turn(page, 3);
  await page.getByRole("button", { name: "Firm and high" }).click();
  await expect(page.getByText("Firm after 3, about 4 expected.")).toBeVisible();
  await page.getByRole("tab", { name: "Fluid" }).click();
  await page.getByLabel("In the bottle").selectOption("dot5");
  await expect(page.getByText("never", { exact: true })).toBeVisible();
  await page.getByRole("tab", { name: "Bleed" }).click();
  await page.getByRole("button", { name: "caliper renewed" }).click();
  await expect(page.getByText("Bleed the left corner.")).toBeVisible();
  for (const [ml, seen] of [["15", "Bubbles"], ["15", "Clear"], ["15", "Clear"]] as const) {
    const drawn = page.getByText(/mL drawn$/);
    const before = await drawn.innerText();
    await page.getByRole("button", { name: seen, exact: true }).click();
    await page.getByLabel("Drawn, mL").fill(ml);
    await page.getByLabel("Drawn, mL").press("Enter");
    await expect(drawn).not.toHaveText(before);
  }
  await expect(page.getByText("done", { exact: true })).toBeVisible();
  // The last one was never drawn.
  await page.getByRole("list", { name: "Draws, Drawn" }).getByRole("button", { name: "Strike out" }).first().click();
  await page.getByLabel("Why it is wrong").fill("that was water");
  await page.getByRole("button", { name: "Strike it out" }).click();
  await expect(page.getByText("30 mL drawn")).toBeVisible();
  await expect(page.getByText("done", { exact: true })).toBeHidden();
  await page.getByRole("tab", { name: "Leaks" }).click();
  await expect(page.getByText("30", { exact: true })).toBeVisible();
  await page.getByRole("button", { name: /Pedal down: start the clock/ }).click();
  await expect(page.getByText(/^2[5-9]$/)).toBeVisible();
});
