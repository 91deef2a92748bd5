import { expect, test, type Page } from "@playwright/test";
import { advance, jobAt, LONG, ownClock, rest, restByApi, signIn, work, type Family, wholeJob } from "./helpers";

// Three everyday jobs through the pages, each with surprises of four kinds, and three electric ones by their other ways; the rest go over HTTP. Common practice, no source.

const STEPS_AFTER = 6;

/** Two touches from any step: the list, and the finding; then what it costs, and the report. */
const found = (name: string, note?: string) => async (page: Page) => {
  await page.getByRole("button", { name: "Report a problem" }).click();
  await page.getByRole("button", { name, exact: true }).click();
  await expect(page.getByRole("region", { name: "What it changes" })).toContainText(/longer|shorter/);
  if (note) await page.getByRole("dialog").getByRole("textbox").fill(note);
  await page.getByRole("button", { name: "Report it" }).click();
  await expect(page.getByRole("dialog")).toHaveCount(0);
};

const outcome = (name: string) => async (page: Page) => {
  await rest(page);
  await page.getByRole("button", { name, exact: true }).click();
};

const waits = async (page: Page) => {
  await page.getByRole("button", { name: "Report a problem" }).click();
  await page.getByRole("button", { name: "Waiting for parts" }).click();
  await page.getByLabel("For what").fill("Rear pad set");
  await page.getByLabel("From where").fill("the mainland store");
  await page.getByRole("button", { name: "Wait for parts" }).click();
  await expect(page.getByRole("status").filter({ hasText: "Rear pad set" })).toContainText("the mainland store");
  await page.getByRole("button", { name: "Parts are here" }).click();
  await expect(page.getByRole("button", { name: "Parts are here" })).toHaveCount(0);
};

const stopped = async (page: Page) => {
  await page.getByRole("button", { name: "Boot twists" }).click();
  await expect(page.getByText("The left piston is held: boot twists.")).toBeVisible();
  await page.getByRole("link", { name: "Settle it" }).click();
  await expect(page.getByText("it tears next")).toBeVisible();
  await page.getByLabel("What was done").fill("lip lifted all round, a trace of grease");
  await page.getByRole("button", { name: "Freed all round: whole and dry" }).click();
  await expect(page.getByText("it tears next")).toHaveCount(0);
  await page.getByRole("link", { name: "Run sheet" }).click();
};

const freed = async (page: Page) => {
  await found("Rotor stuck on hub, left")(page);
  await expect(page.getByText("Penetrating oil at pilot and studs, and time. Way 1 of 4.")).toBeVisible();
  await outcome("Not yet: the next way")(page);
  await expect(page.getByText(/Blows between the studs/)).toBeVisible();
};

const JOBS: { name: string; plate: string; scope: "pads" | "pads-and-rotors"; family: Family; bay: number; route?: RegExp; purpose?: "practice"; through?: true; at: [string, (page: Page) => Promise<void>][] }[] = [
  {
    name: "pads of a small car: a boot that winds up, a tight pad, parts that come late, a pin on air",
    plate: "GNT 077", scope: "pads", family: "cable", bay: 31,
    at: [["Piston home, left", stopped], ["New pads in, left", found("Pad tight in its bracket, left")], ["Measure, judge, right", waits], ["Caliper on, right", found("Slide pin springs back: air, right")]],
  },
  {
    name: "rotors that have stood by the sea: screws, a stuck rotor by ways, a stepped hub, a stud",
    plate: "GNT 164", scope: "pads-and-rotors", family: "cable", bay: 32,
    at: [
      ["Crack rotor screws, left", outcome("One of them broke")], ["Rotor off, left", freed],
      ["Clean bracket abutments, left", found("Slide pin seized, left")], ["Wheel nuts, right", found("Wheel stud or nut damaged, right")],
    ],
  },
  {
    name: "a minibus by the tool: one side stays, grease on a lining, a pedal that sinks, a lead who wants it closed",
    plate: "GNT 207", scope: "pads", family: "motor", bay: 33, route: /^Scan tool/,
    at: [
      ["Service position", outcome("The right one did not go back")], ["Caliper on, left", found("Grease on a new lining, left")], ["Measure, judge, right", found("Slide pin worn or scored, right")],
      ["Fluid level", found("Pedal sinks or stays soft")],
    ],
  },
  // An electric brake by each of its other ways, on the stand-in car.
  {
    name: "a bus by its own sequence, lost half-way",
    plate: "GNT 233", scope: "pads", family: "motor", bay: 34, purpose: "practice", through: true, route: /^The car.s own sequence/,
    at: [["Service position", outcome("Lost half-way: nobody knows")]],
  },
  {
    name: "a library bus by hand, whose actuator has had enough",
    plate: "GNT 301", scope: "pads", family: "motor", bay: 35, purpose: "practice", through: true, route: /^Spindles by hand/,
    at: [["Spindle back, left", found("Actuator does not move, left")]],
  },
  {
    name: "a van whose box pulls its cables, and one is frayed",
    plate: "GNT 266", scope: "pads", family: "puller", bay: 36, purpose: "practice", through: true, route: /^Release the puller/,
    at: [["Measure, judge, left", found("Parking cable frayed, left")]],
  },
];

for (const [n, job] of JOBS.entries()) {
  test(`an everyday job: ${job.name}`, async ({ page }) => {
    wholeJob(5 + n);
    await ownClock(page);
    await signIn(page);
    const jobId = await jobAt(page.request, job.plate, job.scope, job.family, job.bay, undefined, null, job.purpose);
    await page.goto(`/jobs/${jobId}`);
    if (job.route) {
      await page.getByRole("button", { name: job.route }).click();
      await expect(page.getByRole("heading", { level: 2, name: "Choose the route" })).toHaveCount(0);
    }

    // What happens is met on the page, and the steps that come of it are done there. The quiet stretches between are gone there by
    // whole-job.spec.ts, and here, by hand, on the three ways to which no whole job goes.
    const through = job.through && LONG;
    const left = [...job.at];
    while (left.length > 0) {
      let at = "";
      await advance(page.request, jobId, (_, title) => {
        at = title;
        return left.some(([where]) => where === title);
      });
      const [[, meet]] = left.splice(left.findIndex(([where]) => where === at), 1);
      await expect(page.getByRole("heading", { level: 2, name: at, exact: true })).toBeVisible();
      await meet(page);
      let steps = 0;
      await work(page, (title) => (!through && steps++ >= STEPS_AFTER) || left.some(([where]) => where === title));
    }
    if (!through) await restByApi(page, jobId);
    await expect(page.getByRole("heading", { name: "Handed over" })).toBeVisible();
  });
}
