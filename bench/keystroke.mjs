// Measures a keystroke to a new verdict on screen, against a running workshop: node bench/keystroke.mjs [url]
// Run from tests/e2e's packages: NODE_PATH is not used by ES modules, so the import is relative.
import { chromium } from "../tests/e2e/node_modules/@playwright/test/index.mjs";

const base = process.argv[2] ?? "http://127.0.0.1:5080";
const browser = await chromium.launch({ executablePath: "/usr/bin/chromium", chromiumSandbox: false, args: ["--no-sandbox", "--disable-gpu"] });
const page = await browser.newPage();
await page.goto(`${base}/bench/shoes`);
const field = (i) => page.locator(`[data-reading="${i}"]`);
await field(0).fill("MAX DIA 191");
for (let i = 1; i <= 7; i++) {
  await field(i).fill("190.50");
  await field(i).press("Enter");
}
await page.waitForTimeout(500);
await field(8).focus();
// In the page: from the key's own event to the frame that shows another figure.
const times = await page.evaluate(async () => {
  const figure = () => document.querySelector(".huge")?.textContent;
  const input = document.querySelector('[data-reading="8"]');
  const set = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value").set;
  const result = [];
  for (let i = 0; i < 40; i++) {
    const before = figure();
    const start = performance.now();
    set.call(input, (190.6 + i / 100).toFixed(2));
    input.dispatchEvent(new Event("input", { bubbles: true }));
    while (figure() === before && performance.now() - start < 2000) await new Promise((r) => setTimeout(r, 0));
    result.push(performance.now() - start);
    await new Promise((r) => setTimeout(r, 60));
  }
  return result.sort((a, b) => a - b);
});
console.log(`keystroke to new verdict: median ${times[20].toFixed(1)} ms, 95 % ${times[37].toFixed(1)} ms, longest ${times[39].toFixed(1)} ms, ${times.length} keystrokes`);
await browser.close();
