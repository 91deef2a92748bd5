import { expect, test, type Page } from "@playwright/test";
import { gauge, openJob, signIn } from "./helpers";

const verdict = (page: Page) => page.getByRole("region", { name: "Verdict" });

/** A dial that shows a cosine, as its display would. */
const cosine = (amplitude: number, from = 0) => Array.from({ length: 12 }, (_, i) => (amplitude * Math.cos((i * Math.PI) / 6 + from)).toFixed(2));

test("rotor: thickness, variation, and hub told from rotor by a second run", async ({ page }) => {
  await page.goto("/bench/rotor");
  await page.getByLabel("Instrument").selectOption("fine-micrometer");
  await gauge(page, ["MIN TH 8.4 MM", ...Array(7).fill("9.210"), "9.205"]);
  await expect(verdict(page).getByText("9.205", { exact: true }).first()).toBeVisible();
  await expect(verdict(page)).toContainText("Not yet enough.");
  await expect(verdict(page)).toContainText("Look for cracks.");
  await page.getByRole("tab", { name: "Seen" }).click();
  await page.getByRole("group", { name: "Cracks" }).getByRole("button", { name: "None" }).click();
  await expect(verdict(page).getByText("Keep it.")).toBeVisible();
  await expect(page.getByText("A speck 0.05 mm thick on the hub is 0.089 mm")).toBeVisible();

  await page.getByRole("tab", { name: "Runout" }).click();
  // Hub 0.05, rotor 0.03, in step: 0.08 as amplitude; half a turn on they oppose.
  await gauge(page, cosine(0.08), 1);
  await expect(verdict(page)).toContainText("measure again half a turn on, to tell hub from rotor");
  await page.getByRole("button", { name: "2, turned on the studs" }).click();
  await page.getByLabel("Turned by, °").fill("180");
  await gauge(page, cosine(0.02), 1);
  await expect(verdict(page).getByRole("heading", { name: /Turn the rotor [23] studs on/ })).toBeVisible();
  await expect(verdict(page)).toContainText("Hub 0.102, rotor 0.059");
  const dial = verdict(page).getByRole("slider");
  await dial.focus();
  const before = await dial.getAttribute("aria-valuetext");
  await page.keyboard.press("ArrowRight");
  await expect(dial).not.toHaveAttribute("aria-valuetext", before!);
  // Back at 0 it stands as it was: 0.16.
  while ((await dial.getAttribute("aria-valuenow")) !== "0") await page.keyboard.press("ArrowRight");
  await expect(verdict(page)).toContainText("as it stood");
  await expect(verdict(page).getByText("Outside", { exact: true })).toBeVisible();
});

test("pads: a pattern, its causes, and a check that ranks them anew; placement; forecast", async ({ page }) => {
  await page.goto("/bench/pads");
  await gauge(page, ["3.1", "3.0", "7.2", "7.4", "6.8", "6.9", "7.2", "7.1", "11", "2"]);
  await expect(verdict(page)).toContainText("Left inner 3 mm, outer 7.2: inner much thinner");
  await expect(verdict(page)).toContainText("1. Pads frozen in the bracket.");
  await page.getByRole("button", { name: "Piston does not go back: it is so" }).first().click();
  await expect(verdict(page)).toContainText("1. Piston does not go back.");
  await page.getByRole("button", { name: "Pads frozen in the bracket: it is not so" }).first().click();
  await expect(verdict(page)).toContainText("4. Pads frozen in the bracket.");

  await page.getByRole("tab", { name: "Placement" }).click();
  // Nobody has looked yet: neither end is said to lead.
  await expect(verdict(page)).toContainText("Say where the caliper sits");
  await page.getByRole("button", { name: "Behind the axle" }).click();
  await expect(verdict(page)).toContainText("Bottom leads");
  await page.getByRole("button", { name: "Ahead of the axle" }).click();
  await expect(verdict(page)).toContainText("Top leads");

  await page.getByRole("tab", { name: "Forecast" }).click();
  await page.getByLabel("Odometer now, km").fill("40000");
  await page.getByLabel("Next inspection in, km").fill("10000");
  await expect(verdict(page)).toContainText("by the class default");
  await page.getByLabel("Odometer, km", { exact: true }).fill("0");
  await page.getByLabel("Thinnest lining, mm").fill("11");
  await page.getByRole("button", { name: "Add it" }).click();
  // 11 to 3 in 40 000 km leaves 1 mm for 5 000.
  await expect(verdict(page)).toContainText("About 5000 km by two points, with no band");
});

test("a quick bench is attached to a job, and readings pasted as CSV are reported line by line", async ({ page }) => {
  await signIn(page);
  const jobId = await openJob(page.request, "GNT 233", "pads", 31);
  await page.goto("/bench/rotor");
  await page.getByRole("button", { name: /^Readings/ }).click();
  await page.getByLabel(/Paste readings as CSV/).fill("measurand,place,direction_deg,value_mm,instrument\nrotor-thickness,ring,0,11.2,micrometer\nrotor-thickness,ring,90,thick,micrometer\nrotor-thickness,ring,180,11.21,micrometer");
  await page.getByRole("button", { name: "Take the readings in" }).click();
  await expect(page.getByText('Line 3: value_mm "thick" is not a plain figure.')).toBeVisible();
  const saved = page.waitForEvent("download");
  await page.getByRole("button", { name: "Save them as CSV" }).click();
  expect((await saved).suggestedFilename()).toBe("readings.csv");
  await page.keyboard.press("Escape");
  await page.getByRole("button", { name: /Attach to a job/ }).click();
  await page.getByRole("button", { name: "Right corner" }).click();
  await page.getByRole("button", { name: /Bay 31: Knot/ }).click();
  await expect(page).toHaveURL(new RegExp(`/jobs/${jobId}/rotor/right$`));
  await expect(verdict(page).getByText("11.200", { exact: true })).toBeVisible();
  const benches = await (await page.request.get(`/api/jobs/${jobId}/benches`)).json();
  expect(benches.readings.map((r: { side: string }) => r.side)).toEqual(["right", "right"]);
  await page.goto("/bench/rotor");
  await expect(page.getByRole("button", { name: "Readings 0" })).toBeVisible();
});

test("the lead adds an instrument with its calibration, and one out of calibration is refused", async ({ page }) => {
  await signIn(page);
  await page.goto("/workshop/instruments");
  await expect(page.getByText(/Out of calibration since/)).toBeVisible();
  await page.getByRole("button", { name: "Add an instrument" }).click();
  await page.getByLabel("Tool-board name").fill("dial-2");
  await page.getByLabel("What it is").fill("Dial, small");
  await page.getByLabel("Resolution, mm").fill("0.002");
  await page.getByLabel("Error up to, mm").fill("0.005");
  await page.getByLabel("In calibration until").fill("2030-01-01");
  await page.getByRole("form", { name: "Instrument" }).getByRole("button", { name: "Outside" }).click();
  await page.getByRole("form", { name: "Instrument" }).getByRole("button", { name: "Dial" }).click();
  await page.getByRole("button", { name: "Keep it" }).click();
  await expect(page.getByText("Dial, small")).toBeVisible();
  await page.goto("/bench/rotor");
  await page.getByRole("tab", { name: "Runout" }).click();
  await expect(page.getByLabel("Instrument")).toContainText("Dial, small, 0.002");
  await page.goto("/bench/shoes");
  await page.getByLabel("Instrument").selectOption("vernier");
  await gauge(page, ["190.9"], 1);
  await expect(page.getByText(/The calibration of the vernier caliper ran out/)).toBeVisible();
});
