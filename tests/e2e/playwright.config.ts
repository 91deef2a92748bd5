import { defineConfig } from "@playwright/test";
import { freePort } from "./port.mjs";

// Chosen once and handed to the workers.
process.env.PAWL_PORT ??= freePort();
const port = Number(process.env.PAWL_PORT);

// Each test gets a context that is emptied, and not a new one, wherever it asks for one like the last test's: one part in fifteen of all
// work was making new ones and filling their caches. A switch of the test runner's own; without it everything passes as well, and takes
// longer.
process.env.PW_TEST_REUSE_CONTEXT ??= "1";

export default defineConfig({
  testDir: "specs",
  // Times are here to end what hangs, not to measure: a shared machine may take many times as long as a quiet one.
  timeout: 480_000,
  expect: { timeout: 20_000 },
  // As many as the smallest machine has processors: a third browser made each step a third slower and the whole hardly shorter.
  workers: 2,
  fullyParallel: false,
  retries: 0,
  reporter: [["list"], ["json", { outputFile: "test-results/report.json" }]],
  use: {
    baseURL: `http://127.0.0.1:${port}`,
    viewport: { width: 1280, height: 800 },
    actionTimeout: 20_000,
    // Every test begins with a browser that knows nothing: only those that are about it keep the pages.
    serviceWorkers: "block",
    launchOptions: {
      executablePath: "/usr/bin/chromium",
      chromiumSandbox: false,
      args: ["--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run", "--disable-background-networking", "--disable-component-update", "--disable-sync"],
    },
  },
  webServer: {
    // The built application, on a database of its own that is thrown away.
    command: `cd ../../.build/app && dotnet PatientPawl.Web.dll --port ${port} --data "$(mktemp -d)"`,
    url: `http://127.0.0.1:${port}/healthz`,
    reuseExistingServer: false,
    timeout: 120_000,
  },
});
