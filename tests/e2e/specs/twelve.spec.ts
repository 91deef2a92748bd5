import { expect, test, type Locator, type Page } from "@playwright/test";
import { advance, jobAt, LONG, signIn, today } from "./helpers";

/**
 * Twelve everyday questions, from the bay board: each within four actions and ten seconds beside the readings that only the car can give. A
 * touch takes 1.1 s and 1.2 s to be found, as people with gloves on were reckoned; what the page takes is measured. How long a page takes is the
 * machine's as much as ours: the seconds are always printed, and asked for on a quiet machine, with PAWL_TIMED=1.
 */
const TOUCH_S = 1.1;
const FIND_S = 1.2;
const MOST_S = 10;
const MOST_ACTIONS = 4;

/** Counts what a person does. */
class Hand {
  actions = 0;
  private pageMs = 0;

  constructor(readonly page: Page) {}

  async touch(what: Locator) {
    this.actions++;
    await this.timed(() => what.click());
  }

  async choose(what: Locator, value: string) {
    this.actions++;
    await this.timed(() => what.selectOption(value));
  }

  /** What only the car can give. */
  async read(values: Record<string, string>) {
    for (const [label, value] of Object.entries(values)) {
      const field = this.page.getByLabel(label, { exact: true }).first();
      await field.fill(value);
      await field.press("Enter");
    }
  }

  async timed(what: () => Promise<unknown>) {
    const from = Date.now();
    await what();
    this.pageMs += Date.now() - from;
  }

  seconds = () => this.actions * (TOUCH_S + FIND_S) + this.pageMs / 1000;
}

interface Question {
  asks: string;
  /** The least size of the answer at 1280x800; reasons, names and what is next on the board are words that are read. */
  px: number;
  how: (hand: Hand, page: Page, jobs: Jobs) => Promise<Locator>;
}

interface Jobs {
  pads: string;
  hatPlate: string;
}

const bench = (page: Page, name: string) => page.getByRole("link", { name, exact: true });
const sheet = (page: Page) => page.getByLabel("Spec sheet, by plate or code");
const DRUM = Object.fromEntries(["0°", "45°", "90°", "135°"].map((d, i) => [d, `190.${20 + i}`]));
const answer = (page: Page) => page.locator(".huge:visible").first();
const job = (page: Page, id: string) => page.locator(`a[href="/jobs/${id}"]`).first();

const QUESTIONS: Question[] = [
  {
    asks: "which way and how far does this piston go",
    px: 48,
    how: async (hand, page) => {
      await hand.touch(bench(page, "Retract"));
      await hand.choose(sheet(page), "plate GNT 077");
      await hand.read({ "Old inner pad, mm": "8,5", "Old outer pad, mm": "9", "Old rotor, mm": "9.4", "Piston stands proud, mm": "16" });
      return answer(page);
    },
  },
  {
    asks: "may I push this one",
    px: 48,
    how: async (hand, page) => {
      await hand.touch(bench(page, "Retract"));
      await hand.choose(sheet(page), "plate GNT 077");
      return page.getByRole("heading", { name: "Turn it clockwise, facing the piston" });
    },
  },
  {
    asks: "is this drum still good",
    px: 48,
    how: async (hand, page, { hatPlate }) => {
      await hand.touch(bench(page, "Shoes"));
      await hand.choose(sheet(page), `plate ${hatPlate}`);
      await hand.read(DRUM);
      return answer(page);
    },
  },
  {
    asks: "how many clicks",
    px: 48,
    how: async (hand, page, { hatPlate }) => {
      await hand.touch(bench(page, "Shoes"));
      await hand.choose(sheet(page), `plate ${hatPlate}`);
      await hand.read(DRUM);
      await hand.touch(page.getByRole("tab", { name: "Clicks" }));
      await hand.read({ "Over shoes, mm": "189.1" });
      return answer(page);
    },
  },
  {
    asks: "what do I set the wrench to with this crowfoot",
    px: 48,
    how: async (hand, page) => {
      await hand.touch(bench(page, "Torque"));
      await hand.choose(sheet(page), "plate GNT 077");
      await hand.touch(page.getByRole("button", { name: "Bracket" }));
      await hand.read({ "Crowfoot length, mm": "50" });
      return answer(page);
    },
  },
  {
    asks: "will the reservoir overflow",
    px: 48,
    how: async (hand, page) => {
      await hand.touch(bench(page, "Fluid"));
      await hand.choose(sheet(page), "plate GNT 077");
      await hand.read({ "Level now, % of MIN to MAX": "90", "They go back by, mm": "10", "New parts need, mm": "9" });
      return answer(page);
    },
  },
  {
    asks: "what is next on the right side",
    px: 18,
    how: async (_, page, { pads }) => page.locator(`a[href="/jobs/${pads}"]`).getByText("Caliper off, hung").last(),
  },
  {
    asks: "why can I not close the brake yet",
    px: 18,
    how: async (hand, page, { pads }) => {
      await hand.touch(job(page, pads));
      return page.getByText(/Both sides assembled and the pedal proved first/).last();
    },
  },
  {
    asks: "which pad goes inside and which end is the indicator",
    px: 48,
    how: async (hand, page) => {
      await hand.touch(bench(page, "Pads"));
      await hand.touch(page.getByRole("tab", { name: "Placement" }));
      await hand.touch(page.getByRole("button", { name: "Ahead of the axle" }));
      await expect(page.getByText("The pad with the wear indicator goes inside, its indicator at the top.", { exact: false })).toBeVisible();
      return page.getByText(/^(Top|Bottom) leads$/);
    },
  },
  {
    asks: "how many pedal strokes",
    px: 48,
    how: async (hand, page) => {
      await hand.touch(bench(page, "Fluid"));
      await hand.choose(sheet(page), "plate GNT 077");
      await hand.touch(page.getByRole("tab", { name: "Pedal" }));
      await hand.read({ "They go back by, mm": "10", "New parts need, mm": "9" });
      return answer(page);
    },
  },
  {
    asks: "can I leave it overnight",
    px: 48,
    how: async (hand, page, { pads }) => {
      await hand.touch(job(page, pads));
      await hand.touch(page.getByRole("link", { name: "Plan" }));
      return page.getByText(/^(Yes|No|In .*)$/);
    },
  },
  {
    asks: "who torqued the left slide pins",
    px: 24,
    how: async (hand, page, { pads }) => {
      await hand.touch(job(page, pads));
      await hand.touch(page.getByRole("button", { name: "Benches" }));
      await hand.touch(page.getByRole("dialog").getByRole("link", { name: "Torque card" }));
      return page.getByText("Left: Kit Ransome").first();
    },
  },
];

// The desk's and the phone's, each question at one of them a day; at both, and at the two between them, by hand.
const SIZES = [[1280, 800], ...(LONG ? [[1024, 768], [768, 1024]] as const : []), [390, 844]] as const;

test("twelve everyday questions are answered within ten seconds and four actions, each a day at a desk or on a phone", async ({ page }) => {
  await signIn(page);
  // Each question begins on the board with nothing typed before.
  await page.addInitScript(() => {
    if (location.pathname !== "/") return;
    for (const key of Object.keys(localStorage)) if (/^(draft|quick)/.test(key)) localStorage.removeItem(key);
  });
  const id = await jobAt(page.request, "GNT 077", "pads", "cable", 71);
  // The left side is together and its pins are signed; the right one comes next.
  await advance(page.request, id, (now) => now.side === "right" && now.stepId === "caliper-off");
  const sheets = (await (await page.request.get("/api/spec-sheets")).json()) as { code: string; drum: { maximumMm: number | null } | null }[];
  const vehicles = (await (await page.request.get("/api/vehicles")).json()) as { vehicle: { plate: string }; sheetCode: string }[];
  const hat = vehicles.find((v) => sheets.find((s) => s.code === v.sheetCode)?.drum?.maximumMm)!;
  const jobs: Jobs = { pads: id, hatPlate: hat.vehicle.plate };
  const rows: string[] = [];
  for (const [at, [width, height]] of SIZES.entries()) {
    await page.setViewportSize({ width, height });
    for (const { asks, px, how } of QUESTIONS.filter((_, n) => today(n + at, SIZES.length))) {
      await page.goto("/");
      await expect(page.locator("a[href^='/jobs/']").first()).toBeVisible();
      const hand = new Hand(page);
      const found = await how(hand, page, jobs);
      await hand.timed(() => expect(found, `${asks}, ${width}x${height}`).toBeVisible());
      const size = await found.evaluate((e) => Number.parseFloat(getComputedStyle(e).fontSize));
      rows.push(`${width}x${height}  ${hand.actions} actions  ${hand.seconds().toFixed(1).padStart(4)} s  ${Math.round(size)} px  ${asks}`);
      expect.soft(hand.actions, asks).toBeLessThanOrEqual(MOST_ACTIONS);
      if (process.env.PAWL_TIMED) expect.soft(hand.seconds(), `${asks}, ${width}x${height}`).toBeLessThanOrEqual(MOST_S);
      if (width === 1280) expect.soft(size, asks).toBeGreaterThanOrEqual(px);
    }
  }

  console.log(rows.join("\n"));
});
