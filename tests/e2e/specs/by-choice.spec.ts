import { expect, test } from "@playwright/test";
import { jobAt, signIn, toTheEnd } from "./helpers";

test("a caliper is swung up by choice, told what it saves, and both its bolts are torqued all the same", async ({ page }) => {
  await signIn(page);
  const id = await jobAt(page.request, "GNT 077", "pads", "cable", 74, "caliper-off", "left");
  await page.goto(`/jobs/${id}`);
  await page.getByRole("button", { name: "By choice" }).click();
  const swing = page.getByRole("dialog").getByRole("button", { name: /^Swing caliper up, left/ });
  await expect(swing).toContainText("Pads only");
  await expect(swing).toContainText(/shorter|longer|as long/);
  await swing.click();
  await expect(page.getByRole("heading", { name: "Swing caliper up, left" })).toBeVisible();
  await toTheEnd(page, id);
  const record = await (await page.request.get(`/api/jobs/${id}/record`)).json();
  const log: string[] = record.log.map((line: object) => JSON.stringify(line));
  expect(log.filter((line) => line.includes("Swing caliper up"))).toHaveLength(1);
  expect(log.filter((line) => line.includes("Caliper down"))).toHaveLength(1);
});

test("nothing is offered by choice where it is not right", async ({ page }) => {
  await signIn(page);
  const id = await jobAt(page.request, "GNT 077", "pads-and-rotors", "cable", 75, "caliper-off", "left");
  const choices = await (await page.request.get(`/api/jobs/${id}/choices`)).json();
  const offered = choices.map((c: { bench: { step: { stepId: string } } }) => c.bench.step.stepId);
  expect(offered).not.toContain("caliper-swung");
  expect(offered).not.toContain("piston-levered");
});
