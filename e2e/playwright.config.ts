import { defineConfig } from "@playwright/test";

export default defineConfig({
  testDir: "./journeys",
  timeout: 120_000,
  expect: { timeout: 30_000 },
  workers: 2,
  fullyParallel: true,
  forbidOnly: true,
  retries: 0,
  reporter: [["list"]],
  outputDir: "./test-results",
  use: {
    viewport: { width: 1280, height: 800 },
    actionTimeout: 60_000,
    navigationTimeout: 60_000,
    trace: "retain-on-failure",
    launchOptions: {
      executablePath: process.env.CHROMIUM ?? "/usr/bin/chromium",
      args: [
        "--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run", "--disable-background-networking",
        "--disable-component-update", "--disable-sync",
      ],
    },
  },
});
