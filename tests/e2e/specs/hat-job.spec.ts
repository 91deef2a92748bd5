import { expect, test } from "@playwright/test";
import { advance, gauge, jobAt, openBench, openJob, rest, signIn, toTheEnd, work, wholeJob } from "./helpers";

test("a whole shoes job: drums and linings on the bench, one drum in doubt and settled, clicks set, handed over", async ({ page }) => {
  wholeJob(3);
  await signIn(page);
  const jobId = await jobAt(page.request, "GNT 140", "shoes", "hat", 32);
  await page.goto(`/jobs/${jobId}`);
  // Six hundredths out of round at most; only the largest comes near the maximum.
  const drum = (largest: string) => Array.from({ length: 8 }, (_, i) => (i === 2 ? largest : (Number(largest) - 0.08 - i / 500).toFixed(2)));
  for (const [side, largest] of [["left", "190.96"], ["right", "190.70"]] as const) {
    await advance(page.request, jobId, (_, title) => title.startsWith(`Drum and shoes, ${side}`) || title.startsWith("Measure again"));
    await expect(page.getByRole("heading", { name: side === "left" ? "Drum and shoes, left" : "Measure again or renew, left" })).toBeVisible();
    if (side === "right") {
      // The left drum is in doubt: nothing new goes in. Its bench says what settles it.
      await rest(page);
      await page.locator(".btn-primary").last().click();
      await expect(page.getByRole("alert")).toContainText("The bore micrometer will");
      await openBench(page, "Shoe bench");
      await page.getByLabel("Instrument").selectOption("bore-micrometer");
      // Out of round too: every place again, with the finer one.
      await gauge(page, drum("190.955"), 1);
      await expect(page.getByRole("region", { name: "Verdict" }).getByText("Inside", { exact: true })).toBeVisible();
      await page.getByRole("link", { name: /To the run sheet/ }).click();
      await work(page, (title) => title.startsWith("Drum and shoes, right"));
      await page.goto(`/jobs/${jobId}/shoes/right`);
      await page.getByLabel("Instrument").selectOption("bore-micrometer");
    } else {
      await openBench(page, "Shoe bench");
    }

    await gauge(page, ["MAX DIA 191.00 MM", ...drum(largest)]);
    await expect(page.getByRole("region", { name: "Verdict" }).getByText(largest, { exact: true })).toBeVisible();
    await page.getByRole("tab", { name: "Linings" }).click();
    await gauge(page, ["3.1", "3.2", "3.0", "3.1", "3.3", "3.0"]);
    for (const [group, answer] of [[/edge lift/, "No"], [/Oil, grease/, "No"], [/Springs and pins/, "Yes"]] as const)
      await page.getByRole("group", { name: group }).getByRole("button", { name: answer, exact: true }).click();
    await page.getByRole("tab", { name: "Clicks" }).click();
    await gauge(page, ["190.05"]);
    await expect(page.getByRole("region", { name: "Verdict" }).getByRole("heading", { name: /clicks? out|leave it/ })).toBeVisible();
    if (side === "left") await page.getByRole("button", { name: "Up", exact: true }).click();
    await page.getByRole("link", { name: /To the run sheet/ }).click();
  }

  await toTheEnd(page, jobId);
  const record = await (await page.request.get(`/api/jobs/${jobId}/record`)).json();
  expect(record.fitted).toEqual(["New parking shoes, left.", "New parking shoes, right."]);
  expect(record.verdicts.filter((v: { what: string }) => v.what.startsWith("Drum,")).map((v: { verdict: string }) => v.verdict)).toEqual(["inside", "inside"]);

  // The vehicle remembers which way loosened the wheel.
  const next = await openJob(page.request, "GNT 140", "pads-and-rotors", 33);
  await page.goto(`/jobs/${next}/shoes/left`);
  await page.getByRole("tab", { name: "Clicks" }).click();
  await expect(page.getByText("Up loosened this wheel, hole at 6 o'clock")).toBeVisible();
});

test("a rotor under its minimum brings new rotors into a pads job", async ({ page }) => {
  await signIn(page);
  const jobId = await jobAt(page.request, "GNT 077", "pads", "cable", 34, "measured", "left");
  await page.goto(`/jobs/${jobId}`);
  await openBench(page, "Rotor bench");
  await gauge(page, ["MIN TH 8 MM", "7.91", "7.92", "7.92", "7.90", "7.91", "7.92", "7.91", "7.92"]);
  await expect(page.getByRole("region", { name: "Verdict" }).getByText("Outside", { exact: true })).toBeVisible();
  await page.getByRole("link", { name: /To the run sheet/ }).click();
  await expect(page.getByRole("textbox", { name: "Rotor, thinnest" })).toHaveValue("7.9");
  for (const [label, value] of [["Inner pad, with backing", "11.2"], ["Outer pad, with backing", "12"], ["Piston stands proud", "12.4"]] as const) await page.getByRole("textbox", { name: label }).fill(value);
  await page.getByRole("button", { name: /Measure, judge: done/ }).click();
  await expect(page.getByText(/Replace it, with its twin/).first()).toBeVisible();
  const job = await (await page.request.get(`/api/jobs/${jobId}`)).json();
  expect(job.sheet.partsList).toContain("Two rear rotors, added by a finding");
  expect(job.sheet.ahead.map((a: { step: { stepId: string } }) => a.step.stepId)).toContain("rotor-on");
});
