import { expect, test } from "@playwright/test";
import { signIn } from "./helpers";

test("a scenario alone with three mistakes: each is caught where it is made, and talked over with its lesson", async ({
  page,
}) => {
  // Runs are their learner's: nobody else's tests make any of hers.
  await signIn(page, "Ines Marrow");
  await page.goto("/practice");
  await page.getByRole("button", { name: "Alone: Lever and cable on the caliper" }).click();
  await expect(page.getByText("Done so far")).toBeVisible();
  const pick = async (step: string) => {
    await page.getByLabel("What do you do next?").fill(step);
    await page.getByRole("group", { name: "Steps" }).getByRole("button", { name: step, exact: true }).click();
  };
  // The plan is nowhere.
  await expect(page.getByRole("link", { name: "Plan", exact: true })).toHaveCount(0);
  // One: the piston while the cable still pulls.
  await pick("Piston home, left");
  await expect(page.getByText("springs out again")).toBeVisible();
  // Two: off the ground with nothing that holds it.
  await pick("Lift, on stands");
  await expect(page.getByText("rolls off the jack")).toBeVisible();
  // What may be done is done at its own bench.
  await pick("Look the car over");
  await expect(page.getByRole("heading", { name: "Look the car over" })).toBeVisible();
  await page.getByRole("button", { name: "Another step" }).click();
  // Asked slowly: the run cannot be ended from under its own question.
  await page.route("**/practice/help", async (route) => {
    await new Promise((r) => setTimeout(r, 600));
    await route.continue();
  });
  await page.getByRole("button", { name: "What is next?" }).click();
  // Three: nothing is written down.
  await page.getByRole("button", { name: "End the run" }).click();
  await expect(page.getByText("No harm done, and not handed over")).toBeVisible();
  await expect(page.getByText("Twice the rules kept harm away")).toBeVisible();
  await expect(page.getByText("Cable slack and lever on its stop come before the piston.")).toBeVisible();
  await expect(page.getByText("nobody signed for what was done")).toBeVisible();
  await expect(page.getByText("Asked what is next")).toBeVisible();
  // It is on no board, and goes when its learner says so.
  const run = page.url().split("/").at(-2)!;
  const board: { jobId: string }[] = await (await page.request.get("/api/board")).json();
  expect(board.some((b) => b.jobId === run)).toBe(false);
  await page.goto("/practice");
  await page.getByRole("button", { name: "Delete the run Lever and cable on the caliper" }).first().click();
  await expect(page.getByRole("button", { name: "Delete the run Lever and cable on the caliper" })).toHaveCount(0);
  expect((await page.request.get(`/api/jobs/${run}`)).status()).toBe(404);
});

test("how the piston goes home is asked before anything shows it; a harm is told at once, and gone back on", async ({
  page,
}) => {
  await signIn(page);
  const at = await guidedAt(page.request, "collapsed-hose", "piston-home");
  await page.goto(`/jobs/${at}`);
  await expect(page.getByRole("heading", { name: /How does the (left|right) piston go home\?/ })).toBeVisible();
  await expect(page.getByText("Nothing inside this piston turns")).toHaveCount(0);
  await page.getByRole("button", { name: "Press and turn clockwise, facing it" }).click();
  await expect(page.getByText("the boot winds up with it and tears")).toBeVisible();
  await page.getByRole("button", { name: "Back to before it" }).click();
  await page.getByRole("button", { name: "Press it straight in" }).click();
  await expect(page.getByText(/^Felt: /)).toBeVisible();
});

test("cards are played with no network, and told once it is back", async ({ page, context }) => {
  await signIn(page);
  await page.goto("/practice/cards");
  await expect(page.getByText("1 of 12")).toBeVisible();
  await context.setOffline(true);
  for (let n = 1; n <= 12; n++) {
    await page.keyboard.press("1");
    await expect(page.getByText(/^(Right|Not so)$/)).toBeVisible();
    await page.keyboard.press("Space");
  }
  await expect(page.getByText(/\d+ of 12 right/)).toBeVisible();
  await expect(page.getByText("12 answers wait on this device")).toBeVisible();
  await context.setOffline(false);
  await page.getByRole("button", { name: "Deal again" }).click();
  await expect(page.getByText("1 of 12")).toBeVisible();
  await expect.poll(() => page.evaluate(() => localStorage.getItem("practice answers"))).toBe("[]");
  const home = await (await page.request.get("/api/practice")).json();
  expect(home.cardsNew).toBeLessThanOrEqual(73);
});

/** A guided run, brought to a step by the API as somebody would who does everything right. */
async function guidedAt(request: import("@playwright/test").APIRequestContext, scenarioId: string, stepId: string) {
  const id = crypto.randomUUID();
  const post = async (path: string, version: number, data: object) => {
    const answer = await request.post(path, {
      data: { eventId: crypto.randomUUID(), expectedVersion: version, occurredAt: new Date().toISOString(), ...data },
    });
    expect(answer.ok(), await answer.text()).toBe(true);
  };
  await post("/api/practice/runs", 0, { jobId: id, scenarioId, way: "guided" });
  const catalogue = await (await request.get("/api/catalogue")).json();
  for (let i = 0; i < 120; i++) {
    const job = await (await request.get(`/api/jobs/${id}`)).json();
    const now = job.sheet.now;
    const { stepId: at, side } = now.step;
    if (at === stepId) return id;
    const to = (kind: string, data: object) => post(`/api/jobs/${id}/${kind}`, job.version, data);
    if (at === "look-over") {
      const yes = (q: { id: string }) => !["lamps", "twin-wheels", "wheel-bolts", "simulated-pedal", "self-pressurising", "roll"].includes(q.id);
      await to("look-over", { answers: catalogue.lookOver.map((q: { id: string }) => ({ id: q.id, answer: yes(q) ? "yes" : "no" })) });
    } else if (at === "identify") {
      let version = job.version;
      for (const look of catalogue.looks.filter((l: { reach: string }) => ["cabin", "wheel-on", "wheel-off"].includes(l.reach))) {
        const shown = await (
          await request.post(`/api/jobs/${id}/practice/sight`, { data: { side, look: look.look } })
        ).json();
        await post(`/api/jobs/${id}/looks`, version++, { side, look: look.look, seen: shown.seen });
      }
      await post(`/api/jobs/${id}/rulings`, version, { side });
    } else {
      let version = job.version;
      const readings = [];
      for (const r of now.readings) {
        await post(`/api/jobs/${id}/practice/read`, version++, { side, kind: r.kind, instrumentId: r.instrument });
        const run = await (await request.get(`/api/jobs/${id}/practice?stepId=${at}${side ? `&side=${side}` : ""}`)).json();
        readings.push({ kind: r.kind, value: run.read.filter((x: { kind: string }) => x.kind === r.kind).at(-1).value, instrumentId: r.instrument });
      }
      const run = await (await request.get(`/api/jobs/${id}/practice?stepId=${at}${side ? `&side=${side}` : ""}`)).json();
      if (run.question) await post(`/api/jobs/${id}/practice/answer`, version++, { stepId: at, side, option: run.question.options[0].id });
      await post(`/api/jobs/${id}/steps`, version, {
        stepId: at, side, readings, acknowledged: now.cautions.filter((c: { mustAcknowledge: boolean }) => c.mustAcknowledge).map((c: { id: string }) => c.id),
        outcome: null, report: null, note: now.noteWanted ? "seen" : null,
      });
    }
  }
  throw new Error(`${stepId} was not reached`);
}

test("the lead makes a scenario from the car of another, is told what no car could be, and it is played", async ({ page }) => {
  await signIn(page);
  await page.goto("/practice/make?from=drum-in-doubt");
  await page.getByLabel("Title").fill("A drum of our own");
  const drum = page.getByRole("group", { name: "left" }).getByLabel("Drum at 20 °C, 50 to 500 mm");
  await expect(drum).toHaveValue("190.97");
  await drum.fill("7.5");
  await page.getByRole("button", { name: "Keep this scenario" }).click();
  await expect(page.getByText("truth.left.drumMm is 7.5 mm").first()).toBeVisible();
  await drum.fill("191,2");
  await page.getByRole("group", { name: "left" }).getByLabel("Boot torn, wet behind").check();
  await page.getByRole("button", { name: "Keep this scenario" }).click();
  const card = page.getByRole("article").filter({ hasText: "A drum of our own" });
  await expect(card).toBeVisible();
  const id = (await card.getByRole("link", { name: "As a file: A drum of our own" }).getAttribute("href"))!;
  const kept = await (await page.request.get(id)).json();
  expect(kept.truth.left).toMatchObject({ drumMm: 191.2, faults: ["boot-torn"] });
  expect(kept.truth.right).toMatchObject({ drumMm: 190.97, faults: [] });
  await card.getByRole("button", { name: "Guided: A drum of our own" }).click();
  await expect(page.getByText("Guided, 0 min")).toBeVisible();
  await page.goto("/practice");
  await page.getByRole("button", { name: "Remove A drum of our own" }).click();
  await expect(page.getByRole("article").filter({ hasText: "A drum of our own" })).toHaveCount(0);
});
