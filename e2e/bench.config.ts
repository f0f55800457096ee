import { defineConfig } from "@playwright/test";

import base from "./playwright.config";

/** Speed on the screen; nothing here passes or fails by a time. */
export default defineConfig({ ...base, testDir: "bench", workers: 1 });
