import { readdirSync, statSync } from "node:fs";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";

import { Application } from "../application";
import { ask } from "../ask";
import { cell, expect, test } from "../test";

test.use({ serviceWorkers: "allow", allowed: /ERR_/ });

const assets = join(dirname(fileURLToPath(import.meta.url)), "../../web/dist/assets");

test("a shift of five jobs on a device, and the first start without the server", async ({ page }) => {
  test.slow();
  const app = await Application.start(true);
  try {
    const { jobs } = (await (await ask(`${app.url}/api/jobs`)).json()) as { jobs: { id: string }[] };
    for (const { id } of jobs.slice(0, 5)) {
      await page.goto(`${app.url}/jobs/${id}/steps`);
      await page.getByRole("button", { name: "Take along" }).click();
      await expect(page.getByRole("button", { name: "Taken along" })).toBeVisible({ timeout: 60_000 });
    }
    await page.waitForFunction(() => navigator.serviceWorker.controller !== null);
    const kept = await page.evaluate(async () => {
      const all = await new Promise<{ text: string }[]>((resolve) => {
        const open = indexedDB.open("epitrope");
        open.onsuccess = () => {
          const got = open.result.transaction("kept").objectStore("kept").getAll();
          got.onsuccess = () => resolve(got.result as { text: string }[]);
        };
      });
      return { used: (await navigator.storage.estimate()).usage ?? 0, text: all.reduce((sum, k) => sum + k.text.length, 0) };
    });
    console.log(`five jobs along: ${(kept.used / 1e6).toFixed(1)} MB on the device with the application and the core, ${(kept.text / 1e6).toFixed(1)} MB of it answers (limit 25 MB)`);
    const core = readdirSync(assets).find((a) => a.endsWith(".wasm.br")) ?? "";
    console.log(`the core: ${(statSync(join(assets, core)).size / 1e6).toFixed(2)} MB packed (limit 2.5 MB)`);
    await app.stopServer();
    const times: number[] = [];
    for (const { id } of jobs.slice(0, 5)) {
      const began = Date.now();
      await page.goto(`${app.url}/jobs/${id}`);
      await expect(cell(page, "aux.part")).toBeVisible();
      times.push(Date.now() - began);
      await page.goto("about:blank");
    }
    console.log(`a start without the server, to the plan on the screen: first ${times[0]} ms, then ${times.slice(1).join(", ")} ms (limit 1500 ms)`);
  } finally {
    await app.stop();
  }
});
