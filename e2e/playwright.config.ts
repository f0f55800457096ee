import { defineConfig } from "@playwright/test";

const root = process.getuid?.() === 0 ? ["--no-sandbox"] : [];

/** Every test drives the real application: the one binary, on a PostgreSQL of its own. */
export default defineConfig({
  testDir: "tests",
  globalSetup: "./setup.ts",
  workers: 2,
  fullyParallel: false,
  timeout: 60_000,
  // A machine that is busy with something else gets one more try; the report names it.
  retries: 1,
  expect: { timeout: 10_000 },
  reporter: "list",
  outputDir: "test-results",
  use: {
    viewport: { width: 1280, height: 800 },
    locale: "en-AU",
    timezoneId: "UTC",
    // Each page would bring the whole application; the tests of that let it.
    serviceWorkers: "block",
    launchOptions: { executablePath: "/usr/bin/chromium", args: [...root, "--disable-background-networking"] },
  },
});
