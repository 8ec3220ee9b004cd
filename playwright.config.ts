import { defineConfig } from "@playwright/test";

/** Browser journeys with Debian's Chromium. Each starts servers of its own against the test database. */
export default defineConfig({
  testDir: "web/e2e",
  timeout: 120_000,
  expect: { timeout: 20_000 },
  workers: 1,
  retries: 0,
  reporter: [["list"], ...(process.env["RESULTS"] ? [["json", { outputFile: process.env["RESULTS"] }] as const] : [])],
  outputDir: "test-results",
  use: {
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
