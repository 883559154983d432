import { defineConfig } from "@playwright/test";
import { LAUNCH } from "./server.mjs";

export default defineConfig({
  testDir: "./journeys",
  globalSetup: "./seeded.ts",
  timeout: 120_000,
  expect: { timeout: 30_000 },
  // One of them plays a rehearsal through, which is mostly waiting.
  workers: 3,
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
