import { defineConfig } from "@playwright/test";

import base from "./playwright.config";

/** Renews docs/screenshots from the demo data. */
export default defineConfig({ ...base, testDir: "screenshots", workers: 1 });
