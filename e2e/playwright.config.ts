import { defineConfig } from "@playwright/test";
import { LAUNCH } from "./server.mjs";

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
    // A trace costs every journey an eighth of its time: `TRACE=1 npx playwright test` keeps one of what fails.
    trace: process.env.TRACE ? "retain-on-failure" : "off",
    launchOptions: LAUNCH,
  },
});
