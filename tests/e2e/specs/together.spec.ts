import { expect, test } from "@playwright/test";
import { advance, header, identify, jobAt, lookOver, openJob, PIN, serious, signIn } from "./helpers";

test("two browsers on one job: the second is told what changed, and what was typed stays", async ({ browser }) => {
  const one = await (await browser.newContext()).newPage();
  const two = await (await browser.newContext()).newPage();
  await signIn(one, "Ines Marrow");
  await signIn(two, "Oona Firth");
  const jobId = await openJob(one.request, "GNT 077", "pads", 31);
  await one.goto(`/jobs/${jobId}`);
  await lookOver(one);
  await identify(one, jobId, "left", "cable");
  await identify(one, jobId, "right", "cable");
  await advance(one.request, jobId, (now) => now.stepId === "chocks-in");
  await one.reload();
  await expect(one.getByRole("heading", { name: "Chock both ways" })).toBeVisible();

  // The second looks at the sheet, and then hears nothing more until it clicks.
  await two.goto(`/jobs/${jobId}`);
  await expect(two.getByRole("heading", { name: "Chock both ways" })).toBeVisible();
  let deaf = true;
  await two.route(`**/api/jobs/${jobId}`, (r) => (deaf ? r.abort() : r.continue()));
  await two.getByLabel("Note").fill("left chock is cracked");
  await one.getByRole("button", { name: /Chock both ways: done/ }).click();
  const next = one.getByRole("heading", { name: /^Crack wheel nuts/ });
  await expect(next).toBeVisible();

  await two.getByRole("button", { name: /Chock both ways: done/ }).click();
  await expect(two.getByRole("alert")).toContainText("The job has moved on since you looked.");
  await expect(two.getByRole("alert")).toContainText("Ines Marrow: Chock both ways.");
  await expect(two.getByLabel("Note")).toHaveValue("left chock is cracked");
  deaf = false;
  // The sheet moves on; the notice and what was typed stay until they are seen.
  await expect(two.getByRole("heading", { name: /^Crack wheel nuts/ })).toBeVisible({ timeout: 15_000 });
  await expect(two.getByText("You had typed: left chock is cracked.")).toBeVisible();
  await two.getByRole("button", { name: "OK, understood" }).click();
  const job = await (await one.request.get(`/api/jobs/${jobId}`)).json();
  expect(job.sheet.done.filter((d: { name: string }) => d.name === "Chock both ways")).toHaveLength(1);
});

test("what one does stands on the other's sheet at once, and not when it is next asked for", async ({ browser }) => {
  const one = await (await browser.newContext()).newPage();
  const two = await (await browser.newContext()).newPage();
  await signIn(one, "Ines Marrow");
  await signIn(two, "Oona Firth");
  const jobId = await jobAt(one.request, "GNT 077", "pads", "cable", 36, "chocks-in");
  for (const page of [one, two]) {
    await page.goto(`/jobs/${jobId}`);
    await expect(page.getByRole("heading", { name: "Chock both ways" })).toBeVisible();
  }

  // Both listen by now; nothing is asked on a timer sooner than every five seconds.
  await two.waitForTimeout(1500);
  await one.getByRole("button", { name: /Chock both ways: done/ }).click();
  await expect(one.getByRole("heading", { name: /^Crack wheel nuts/ })).toBeVisible();
  const from = Date.now();
  await expect(two.getByRole("heading", { name: /^Crack wheel nuts/ })).toBeVisible({ timeout: 4500 });
  console.log(`the other sheet followed after ${Date.now() - from} ms`);
  // Whoever listens hears who did what; whoever did it is not told.
  await expect(two.getByRole("status").filter({ hasText: "Ines Marrow: Chock both ways." })).toHaveCount(1);
  await expect(one.getByRole("status").filter({ hasText: "Ines Marrow: Chock both ways." })).toHaveCount(0);
});

test("a dropped connection loses nothing: the same click goes through once", async ({ page }) => {
  await signIn(page);
  const jobId = await openJob(page.request, "GNT 077", "pads", 32);
  await page.goto(`/jobs/${jobId}/look/left`);
  const ids: string[] = [];
  let answers = 0;
  await page.route("**/looks", async (r) => {
    ids.push(r.request().postDataJSON().eventId);
    if (answers++ === 0) {
      // It did reach the server; the answer did not come back.
      await r.fetch();
      await r.abort();
    } else await r.continue();
  });
  const tile = page.getByRole("region", { name: "What is seen" }).getByRole("button", { name: "Hand lever", exact: true });
  await tile.click();
  await expect(tile).toHaveAttribute("aria-pressed", "true");
  const job = await (await page.request.get(`/api/jobs/${jobId}`)).json();
  expect(job.version).toBe(2);
  expect(ids.length).toBeGreaterThanOrEqual(1);
});

test("what is typed survives a closed page", async ({ page }) => {
  await signIn(page);
  const board = await (await page.request.get("/api/board")).json();
  const id = board.find((b: { bay: number }) => b.bay === 5).jobId;
  await page.goto(`/jobs/${id}`);
  await page.getByLabel("Note").fill("pedal long at first");
  await page.getByLabel(/Strokes/).fill("9");
  await page.goto("about:blank");
  await page.goto(`/jobs/${id}`);
  await expect(page.getByLabel("Note")).toHaveValue("pedal long at first");
  await expect(page.getByLabel(/Strokes/)).toHaveValue("9");
});

test("a step is undone with a reason: what was done after it stays, what was not goes with it", async ({ page }) => {
  await signIn(page);
  const jobId = await jobAt(page.request, "GNT 077", "pads", "cable", 33, "caliper-off", "left");
  await page.goto(`/jobs/${jobId}`);
  const chocks = page.getByRole("button", { name: "Chock both ways" });
  // The last rows done stand there; the others unfold.
  await page.getByRole("button").filter({ hasText: /^\d+ done$/ }).nth(1).click();
  await chocks.click();
  const dialog = page.getByRole("dialog");
  // Chocks were never in, and all the same the car was lifted and its brake released: each is asked about.
  for (const name of ["Lift, on stands", "Brake released", "Wheel off, left", "Cable slack"]) await expect(dialog).toContainText(name);
  await expect(dialog.getByText("This is undone:")).toBeVisible();
  await dialog.getByRole("button", { name: "Cable slack: was done" }).click();
  await expect(dialog.getByText("These 2 are undone:")).toBeVisible();
  await expect(dialog.getByRole("button", { name: "Undo this step" })).toBeDisabled();
  await dialog.getByLabel("Why").fill("chocks stood at the other car");
  await dialog.getByRole("button", { name: "Undo this step" }).click();
  await expect(page.getByRole("heading", { name: "Chock both ways" })).toBeVisible();
  await page.goto(`/jobs/${jobId}/record`);
  await expect(page.getByText("chocks stood at the other car; 2 undone")).toBeVisible();
});

test("a step to come says why it may not be done yet", async ({ page }) => {
  await signIn(page);
  const board = await (await page.request.get("/api/board")).json();
  const id = board.find((b: { bay: number }) => b.bay === 2).jobId;
  await page.goto(`/jobs/${id}`);
  await page.getByRole("region", { name: "Run sheet" }).getByRole("button", { name: "New pads in" }).first().click();
  const dialog = page.getByRole("dialog");
  await expect(dialog).toContainText("Not yet.");
  await expect(dialog).toContainText("left bracket bolts");
  await page.keyboard.press("Escape");
  await page.getByRole("button", { name: /\d+ more: leak check/ }).click();
  await page.getByRole("button", { name: "Close the brake" }).click();
  await expect(dialog).toContainText("Interlock 11, Closed once, after both.");
});

test("a stuck piston holds its corner, and the other side goes on", async ({ page }) => {
  await signIn(page);
  const jobId = await jobAt(page.request, "GNT 077", "pads", "cable", 34, "piston-home", "left");
  await page.goto(`/jobs/${jobId}`);
  await page.getByRole("button", { name: "Stops short" }).click();
  await expect(page.getByText("Cannot be finished as it stands.")).toBeVisible();
  expect(await advance(page.request, jobId)).toBeNull();
  await expect(page.getByRole("heading", { name: "Nothing can be done now" })).toBeVisible();
  await expect(page.getByText("The left piston is held: stops short.")).toBeVisible();
  await page.goto("/");
  await expect(page.getByText("a left caliper").first()).toBeVisible();
});

test("bad input is answered beside the field, in words, and stays", async ({ page }) => {
  await signIn(page);
  const jobId = await jobAt(page.request, "GNT 140", "pads", "hat", 35, "measured", "left");
  await page.goto(`/jobs/${jobId}`);
  await page.getByRole("textbox", { name: /Inner pad/ }).fill("112");
  await page.getByRole("textbox", { name: /Outer pad/ }).fill("12");
  await page.getByRole("textbox", { name: /Rotor/ }).fill("9.4");
  await page.getByRole("textbox", { name: /stands proud/ }).fill("9.9");
  await page.getByRole("button", { name: /Measure, judge: done/ }).click();
  await expect(page.getByText("Inner pad, with backing: 112 mm cannot be. Allowed: 1 to 60 mm.").first()).toBeVisible();
  await expect(page.getByRole("textbox", { name: /Inner pad/ })).toHaveValue("112");
  const job = await (await page.request.get(`/api/jobs/${jobId}`)).json();
  const refused = await page.request.post(`/api/jobs/${jobId}/steps`, {
    data: { ...header(job.version), stepId: "pedal-proved", side: null, readings: [], acknowledged: [], outcome: null, report: null, note: null },
  });
  expect(refused.status()).toBe(409);
  const problem = await refused.json();
  expect(problem.interlocks).toContain(3);
});

test("quick benches answer with no job and no sign-in", async ({ page }) => {
  await page.goto("/bench/torque");
  await page.getByRole("button", { name: "Bracket" }).click();
  await page.getByLabel("Torque at the bolt").fill("100");
  await page.getByRole("button", { name: "N m", exact: true }).click();
  await page.getByLabel(/Crowfoot length/).fill("50");
  await page.getByRole("combobox", { name: "Wrench" }).selectOption("W4");
  // 100 x 400 / 450 = 88.9, worked by hand; W4 shows steps of 0.2.
  await expect(page.getByText(/^88\.[89]$/)).toBeVisible();
  await page.getByRole("button", { name: "Slide pin" }).click();
  await page.getByRole("button", { name: "lbf ft" }).click();
  await page.getByLabel("Torque at the bolt").fill("80");
  await expect(page.getByText(/108\.5 N m is high for a slide-pin bolt.*bracket bolt/)).toBeVisible();

  await page.goto("/bench/retract");
  await page.getByLabel("Brake").selectOption("cable-screw");
  const fields: Record<string, string> = { "Old inner pad": "8", "New inner pad": "12", "Old outer pad": "8", "New outer pad": "12", "Old rotor": "10", "New rotor": "10", "Piston stands proud": "13.5", "Proud when home": "1.5", "Piston diameter": "38", "Travel a turn": "0.8" };
  for (const [label, value] of Object.entries(fields)) await page.getByLabel(new RegExp(label)).fill(value);
  // 12 mm / 0.8 = 15 turns; pi/4 x 38^2 x 12 = 13.6 mL, worked by hand.
  await expect(page.getByText("15", { exact: true })).toBeVisible();
  await expect(page.getByText("13.6 mL comes back").first()).toBeVisible();
});

test("a record read back into the workshop changes nothing; a changed one is refused", async ({ page }) => {
  await signIn(page);
  const board = await (await page.request.get("/api/board")).json();
  const id = board.find((b: { bay: number }) => b.bay === 6).jobId;
  const text = await (await page.request.get(`/api/jobs/${id}/file`)).text();
  await page.goto("/workshop");
  await page.getByLabel("Read a job file").setInputFiles({ name: "job.json", mimeType: "application/json", buffer: Buffer.from(text.replace("Squeal", "Quiet")) });
  await expect(page.getByRole("alert")).toContainText("Event 1 does not match its hash");
  await page.getByLabel("Read a job file").setInputFiles({ name: "job.json", mimeType: "application/json", buffer: Buffer.from(text) });
  await expect(page.getByText("That job is here already, with all that the file holds.")).toBeVisible();
  await page.getByRole("link", { name: "Open it" }).click();
  await expect(page).toHaveURL(new RegExp(id));
});

test("house rules: the lead sees what a change does before setting it", async ({ page }) => {
  await signIn(page);
  await page.goto("/workshop/house-rules");
  await expect(page.getByRole("listitem").filter({ hasText: "Crack rotor screws, left" })).toBeVisible();
  await page.getByRole("button", { name: /Released from the start/ }).click();
  await expect(page.getByRole("listitem").filter({ hasText: "Crack screws, bar, left" })).toBeVisible();
  await expect(page.getByRole("button", { name: "Set these rules" })).toBeEnabled();
});

test("a finished job is found among past jobs by how its words begin", async ({ page }) => {
  await signIn(page);
  await page.goto("/");
  await page.getByRole("link", { name: "Past jobs" }).click();
  const jobs = page.getByRole("list", { name: "Past jobs" }).getByRole("listitem");
  await page.getByLabel("Plate, job number, make, model or use").fill("sander");
  await expect(jobs.first()).toContainText("GNT 420");
  await expect(jobs.filter({ hasText: "GNT 118" })).toHaveCount(0);
  await page.getByLabel("Plate, job number, make, model or use").fill("gnt 99");
  await expect(page.getByText("No finished job is found by that.")).toBeVisible();
  await page.getByLabel("Plate, job number, make, model or use").fill("meals sander");
  await jobs.first().getByRole("link").click();
  await expect(page.getByRole("heading", { name: /Brake record, job \d+/ })).toBeVisible();
});

test("two at one device: a signature asks which of them with one touch, and the record names who gave it", async ({ page }) => {
  await signIn(page);
  const jobId = await jobAt(page.request, "GNT 077", "pads", "cable", 49);
  await advance(page.request, jobId, (now) => now.stepId === "slide-pins-torqued");
  await page.goto(`/jobs/${jobId}`);
  await page.getByRole("button", { name: "Signed in: Kit Ransome" }).click();
  await page.getByRole("group", { name: "Torques in" }).getByRole("button", { name: "lbf ft" }).click();
  await page.getByRole("button", { name: "Somebody works here with me" }).click();
  await page.getByRole("button", { name: "Ines Marrow" }).click();
  await page.getByLabel("Their PIN").fill(PIN);
  await page.getByRole("button", { name: "Sign them in beside you" }).click();
  await expect(page.getByRole("dialog", { name: "Two work here" })).toBeVisible();
  await page.keyboard.press("Escape");
  expect(await serious(page, "a signature of one of two")).toEqual([]);
  // Units are each person's own: Kit reads pound-feet, Ines has chosen none.
  const window = page.locator(".window").filter({ hasText: "Set the wrench to" });
  await expect(window).toHaveText(/lbf ft.* N m$/);
  const sign = (number: number, who: string) => page.getByRole("button", { name: new RegExp(`^Number ${number} clicked.*: ${who}$`) });
  await sign(1, "Ines Marrow").click();
  await expect(sign(2, "Kit Ransome")).toBeEnabled();
  await expect(page.getByRole("button", { name: "Signed in: Ines Marrow, with Kit Ransome" })).toBeVisible();
  await expect(window).toHaveText(/N m.*lbf ft$/);
  // By key too: the numbers stand on the two buttons. The page rests for a moment after each step.
  await page.waitForTimeout(900);
  await page.keyboard.press("1");
  const named = async () => {
    const { log } = await (await page.request.get(`/api/jobs/${jobId}/record`)).json();
    return (log as { by: string }[]).map((l) => l.by);
  };
  await expect.poll(async () => (await named()).slice(-2)).toEqual(["Ines Marrow", "Kit Ransome"]);

  // An hour later, at the next fasteners, the server asks whoever signs for their PIN; the signature waits for it and counts once.
  await advance(page.request, jobId, (now) => now.stepId === "wheel-torqued");
  const count = (await named()).length;
  await page.route("**/torques", (r) => r.fulfill({ status: 401, json: { title: "Two are signed in here, and Ines Marrow has done nothing for an hour: their PIN is wanted again.", reason: "pin-again" } }), { times: 1 });
  const next = page.getByRole("button", { name: /clicked.*: Ines Marrow$/ });
  await expect(next).toBeEnabled();
  await page.waitForTimeout(900);
  await next.click();
  const again = page.getByRole("dialog", { name: "Ines Marrow, your PIN again" });
  await expect(again).toBeVisible();
  // The sheet is asked for meanwhile, and answers: nothing is signed before the PIN.
  await page.waitForTimeout(900);
  expect((await named()).length).toBe(count);
  await again.getByLabel("PIN of Ines Marrow").fill(PIN);
  await again.getByRole("button", { name: "Go on" }).click();
  await expect(again).toBeHidden();
  await expect.poll(async () => (await named()).length).toBe(count + 1);
  expect((await named()).at(-1)).toBe("Ines Marrow");

  // One of the two leaves; whoever stays goes on alone.
  await page.getByRole("button", { name: /^Signed in/ }).click();
  await page.getByRole("button", { name: "Sign Kit out" }).click();
  await expect(page.getByRole("dialog", { name: "Ines Marrow" })).toBeVisible();
});
