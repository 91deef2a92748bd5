// Makes the pictures of the main views from the demo workshop: node pictures.mjs OUT [view,view] [1280x800,1024x768] [day,night]
// Views with a state of their own (a piston followed, opposed pistons) are brought there by what a person would type.
import { chromium } from "@playwright/test";
import { spawn } from "node:child_process";
import { mkdirSync, mkdtempSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { freePort } from "./port.mjs";

const [out = "pictures", only, sizes = "1280x800", themes = "day"] = process.argv.slice(2);
mkdirSync(out, { recursive: true });
const port = freePort();
const data = process.env.PAWL_DATA ?? mkdtempSync(join(tmpdir(), "pawl-pictures-"));
const server = spawn("dotnet", ["PatientPawl.Web.dll", "--port", port, "--data", data], { cwd: new URL("../../.build/app", import.meta.url), stdio: "ignore" });
const base = `http://127.0.0.1:${port}`;
for (let i = 0; i < 300; i++) {
  const up = await fetch(`${base}/healthz`).then((r) => r.ok, () => false);
  if (up) break;
  await new Promise((go) => setTimeout(go, 200));
}

const browser = await chromium.launch({ executablePath: "/usr/bin/chromium", chromiumSandbox: false, args: ["--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run", "--disable-background-networking", "--disable-component-update", "--disable-sync"] });
const context = await browser.newContext();
const page = await context.newPage();
const session = await (await page.request.get(`${base}/api/session`)).json();
await page.request.post(`${base}/api/session`, { data: { technicianId: session.technicians.find((t) => t.isLead).id, pin: "2580" } });
const board = await (await page.request.get(`${base}/api/board`)).json();
const bay = (n) => board.find((b) => b.bay === n).jobId;
const waits = board.find((b) => b.bay === 1 && b.status === "waits").jobId;

const fill = async (fields) => {
  for (const [label, value] of Object.entries(fields)) await page.getByLabel(new RegExp(label)).first().fill(value);
};

const VIEWS = {
  board: ["/"],
  "past-jobs": ["/jobs/past"],
  look: [`/jobs/${bay(4)}/look/left`],
  "run-sheet": [`/jobs/${bay(3)}`],
  "retract-bench": [`/jobs/${bay(3)}/retract/right`],
  stuck: [`/jobs/${bay(3)}/retract/left`],
  practice: [
    "/practice",
    async () => {
      await page.getByRole("button", { name: "Alone: Lever and cable on the caliper" }).click();
      await page.getByLabel("What do you do next?").fill("piston home");
      await page.getByRole("button", { name: "Piston home, left" }).click();
      await page.getByText("springs out again").waitFor();
    },
  ],
  "make-scenario": ["/practice/make?from=two-units"],
  torque: [`/jobs/${bay(2)}`],
  "shoe-bench": [`/jobs/${waits}/shoes/left`],
  "rotor-bench": ["/bench/rotor"],
  "rotor-thickness": ["/bench/rotor", () => fill({ Stamped: "MIN TH 8.4 MM", "^0°": "9.21", "^90°": "9.22", "^180°": "9.20", "^270°": "9.21" })],
  "pad-bench": ["/bench/pads"],
  "pad-wear": [
    "/bench/pads",
    () => fill({ "New lining": "10", "Inner, leading": "7.1", "Inner, trailing": "7.0", "Outer, leading": "7.3", "Outer, trailing": "7.4" }),
  ],
  plan: [`/jobs/${bay(2)}/plan`],
  "torque-card": [`/jobs/${bay(2)}/torques`],
  "house-rules": ["/workshop/house-rules"],
  "spec-sheet": ["/workshop/spec-sheets/BT-3"],
  "fluid-bench": [`/jobs/${bay(3)}/fluid`],
  record: [`/jobs/${bay(6)}/record`],
  "quick-retract": [
    "/bench/retract",
    async () => {
      await page.getByLabel("Spec sheet").selectOption("plate GNT 077");
      await fill({ "Old inner pad": "8.5", "Old outer pad": "9", "Old rotor": "9.4", "Piston stands proud": "16" });
    },
  ],
  "quick-torque": [
    "/bench/torque",
    async () => {
      await page.getByRole("button", { name: "Bracket" }).click();
      await page.getByRole("button", { name: "N m", exact: true }).click();
      await fill({ "Torque at the bolt": "94", "Crowfoot length": "50" });
    },
  ],
  "torque-refused": [
    "/bench/torque",
    async () => {
      await page.getByRole("button", { name: "Rotor screw" }).click();
      await page.getByRole("button", { name: "N m", exact: true }).click();
      await fill({ "Torque at the bolt": "2" });
    },
  ],
  "quick-opposed": [
    "/bench/retract",
    async () => {
      await page.getByLabel("Spec sheet").selectOption("");
      await page.getByLabel("Brake").selectOption("plain");
      await page.getByRole("button", { name: "Pistons on both sides" }).click();
    },
  ],
  "by-choice": [`/jobs/${bay(2)}`, () => page.getByRole("button", { name: "By choice" }).click()],
  goals: [`/jobs/${bay(2)}/plan`, () => page.getByRole("button", { name: "Change the aim" }).first().click()],
  help: [`/jobs/${bay(3)}`, () => page.keyboard.press("?")],
  problem: [`/jobs/${bay(2)}`, () => page.getByRole("button", { name: "Report a problem" }).click()],
  "found-cost": [
    `/jobs/${bay(2)}`,
    async () => {
      await page.getByRole("button", { name: "Report a problem" }).click();
      await page.getByRole("button", { name: "Hose cracked or collapsed, left" }).first().click();
      await page.getByText(/longer/).waitFor();
    },
  ],
  "new-job": ["/jobs/new"],
  "bed-in": ["/bench/bed-in", () => fill({ "Car as driven": "1500", "One rear rotor": "5", "Air": "20" })],
  prove: ["/bench/parking-brake", () => fill({ "Maximum authorised mass": "1500", "Left, N": "2400", "Right, N": "1500" })],
  "job-prove": [`/jobs/${bay(5)}/prove`, () => fill({ "Maximum authorised mass": "1500", "Grade": "12" })],
  customer: [`/jobs/${bay(6)}/customer`],
  vehicles: ["/vehicles"],
  vehicle: ["/vehicles/GNT%20118"],
  workshop: ["/workshop"],
};

for (const [name, [url, act]] of Object.entries(VIEWS)) {
  if (only && only !== "all" && !only.split(",").includes(name)) continue;
  for (const size of sizes.split(",")) {
    const [width, height] = size.split("x").map(Number);
    await page.setViewportSize({ width, height });
    for (const theme of themes.split(",")) {
      await page.goto(base + "/healthz");
      await page.evaluate((t) => localStorage.setItem("theme", t), theme);
      await page.goto(base + url);
      await page.waitForLoadState("networkidle");
      await act?.();
      await page.waitForTimeout(400);
      const many = sizes.includes(",") || themes.includes(",");
      await page.screenshot({ path: join(out, `${name}${many ? `-${size}-${theme}` : ""}.png`) });
    }
  }
}

await browser.close();
server.kill();
