import { expect, test } from "@playwright/test";
import { readFileSync } from "node:fs";
import { advance, identify, jobAt, lookOver, LONG, ownClock, PIN, restByApi, signIn, type Family, wholeJob, work } from "./helpers";

// The whole path a new user takes, through the pages alone; the cable's is done by keyboard, in keyboard.spec.ts.
const CARS: { family: Family; plate: string; scope: string; route?: string; headline: RegExp; never: string[]; size?: { width: number; height: number } }[] = [
  { family: "motor", plate: "GNT 233", scope: "Pads and rotors", route: "Scan tool", headline: /Spindle back, then push straight/, never: ["Cable slack"] },
  { family: "hat", plate: "GNT 140", scope: "Pads", headline: /Push it straight in/, never: ["Cable slack", "Service position"], size: { width: 768, height: 1024 } },
];

for (const [n, car] of CARS.entries()) {
  test(`a whole job from sign-in to record: ${car.family}, ${car.scope}${car.size ? ", on a tablet on its end" : ""}`, async ({ page }) => {
    wholeJob(n);
    if (car.size) await page.setViewportSize(car.size);
    await ownClock(page);
    await page.goto("/");
    await page.getByRole("button", { name: /Ines Marrow/ }).click();
    await page.getByLabel(/PIN/).fill(PIN);
    await page.getByRole("button", { name: "Sign in" }).click();
    await expect(page.getByRole("heading", { name: "Bay board" })).toBeVisible();
    await expect(page.getByText("licensed technician outrank").first()).toBeVisible();

    await page.getByRole("link", { name: /New job/ }).click();
    await page.getByLabel("Known vehicle").selectOption(car.plate);
    await page.getByLabel("Bay", { exact: true }).fill("12");
    await page.getByLabel("Odometer, km").fill("70110");
    await page.getByLabel("What the driver says").fill("Noise from behind");
    await page.getByRole("button", { name: car.scope, exact: true }).click();
    await page.getByRole("button", { name: "Start the job" }).click();
    await expect(page).toHaveURL(/\/jobs\/[0-9a-f-]{36}$/);
    const jobId = page.url().split("/").at(-1)!;

    await lookOver(page);
    await identify(page, jobId, "left", car.family);
    await identify(page, jobId, "right", car.family);
    if (car.route) await page.getByRole("button", { name: car.route }).click();

    // To its end on the page at a desk; on the tablet until its piston's bench was seen, and by hand to its end too.
    const through = !car.size || LONG;
    const seen: string[] = [];
    await work(page, async (title) => {
      seen.push(title);
      if (title !== "Piston home, left") return !through && seen.includes("Piston home, left");
      await page.goto(`/jobs/${jobId}/retract/left`);
      await expect(page.getByRole("heading", { name: car.headline })).toBeVisible();
      await page.getByRole("region", { name: "Ruling" }).getByRole("button", { name: "Why", exact: true }).click();
      await expect(page.getByRole("dialog")).toContainText("new pads and rotor - old pads and rotor + margin");
      await page.keyboard.press("Escape");
      await page.goto(`/jobs/${jobId}`);
      return false;
    });
    for (const name of car.never) expect(seen.join()).not.toContain(name);
    for (const name of ["Lift, on stands", "Caliper off, hung, left", "Piston home, left"]) expect(seen).toContain(name);
    // Facts of the trade (common practice, no source): pedal firm before the brake is closed, wheels on the ground before their torque.
    const order = (a: string, b: string) => expect(seen.indexOf(a), `${a} before ${b}`).toBeLessThan(seen.indexOf(b));
    if (through) {
      for (const name of ["Measure, judge, right", "Piston home, right", "Slide pins, left", "Pump pedal firm", "Wheel nuts, right", "Hand over"]) expect(seen).toContain(name);
      order("Lower the car", "Wheel nuts, left");
      order("Reservoir again, right", "Piston home, right");
    } else await restByApi(page, jobId);
    if (car.family === "motor") {
      order("Pump pedal firm", "Close the brake");
      order("Crack rotor screws, right", "Brake released");
      order("Bracket bolts, left", "Caliper on, left");
    }

    await expect(page.getByRole("heading", { name: "Handed over" })).toBeVisible();
    await page.getByRole("link", { name: /Open the record/ }).click();
    await expect(page.getByRole("heading", { name: /Brake record, job \d+$/ })).toBeVisible();
    await expect(page.getByText("New pads, left.")).toBeVisible();
    await expect(page.getByRole("cell", { name: "Wheel nut 1 of" }).first()).toBeVisible();
    const download = page.waitForEvent("download");
    await page.getByRole("link", { name: "The job as a file" }).click();
    const file = JSON.parse(readFileSync(await (await download).path(), "utf8"));
    expect(file.format).toBe("patient-pawl-job");
    expect(file.events.length).toBeGreaterThan(60);
    expect(file.events.at(-1).content.event.step.stepId).toBe("handed-over");
  });
}

test("motor caliper, spindle by hand: the car sleeps before an actuator is unplugged, and wakes last", async ({ page }) => {
  wholeJob(11);
  await signIn(page);
  const jobId = await jobAt(page.request, "GNT 233", "pads", "motor", 13);
  await page.goto(`/jobs/${jobId}`);
  await page.getByRole("button", { name: /^Spindles by hand/ }).click();
  await expect(page.getByRole("heading", { level: 2, name: "Choose the route" })).toHaveCount(0);
  const seen: string[] = [];
  await advance(page.request, jobId, (_, title) => {
    seen.push(title);
    return false;
  });
  await expect(page.getByRole("heading", { name: "Handed over" })).toBeVisible();
  const order = (...names: string[]) => names.slice(1).forEach((b, i) => expect(seen.indexOf(names[i]!), `${names[i]} before ${b}`).toBeLessThan(seen.indexOf(b)));
  order("Brake released", "Prove it released", "Key out of range", "Wait for sleep", "Unplug actuator, left", "Spindle back, left", "Caliper off, hung, left");
  order("Plug in actuator, right", "Pump pedal firm", "Ignition on again", "First apply", "Cycle the brake", "Lower the car");
});
