import { defineConfig } from "@playwright/test";

/**
 * Browser journeys with Debian's Chromium. Each file has servers and a database of its own, so that two run beside each
 * other. What is judged by the clock runs alone, after all others.
 */
export default defineConfig({
  testDir: "web/e2e",
  globalSetup: "web/e2e/prepare.ts",
  // on a machine that is busy with other work a solver is slow; what is too slow is judged by timing.spec.ts
  timeout: 240_000,
  expect: { timeout: 45_000 },
  workers: 2,
  // what passes at the second try only is counted apart in the last line of `npm test`
  retries: 1,
  reporter: [["list"], ...(process.env["RESULTS"] ? [["json", { outputFile: process.env["RESULTS"] }] as const] : [])],
  outputDir: "test-results",
  projects: [
    { name: "journeys", testIgnore: ["timing.spec.ts", "tasks.spec.ts"] },
    // counted for a README: not part of `npm test`, see `npm run bench:tasks`
    ...(process.env["TASKS"] ? [{ name: "tasks", testMatch: "tasks.spec.ts" }] : []),
    { name: "timing", testMatch: "timing.spec.ts", dependencies: ["journeys"] },
  ],
  use: {
    // what it keeps would be a second answer to every question; what it is for has a test of its own
    serviceWorkers: "block",
    viewport: { width: 1280, height: 800 },
    launchOptions: {
      executablePath: "/usr/bin/chromium",
      args: [
        "--headless",
        "--no-sandbox",
        "--disable-gpu",
        "--disable-quic",
        "--no-first-run",
        "--disable-background-networking",
        "--disable-component-update",
        "--disable-sync",
      ],
    },
  },
});
