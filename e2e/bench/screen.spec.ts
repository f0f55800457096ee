import { gzipSync } from "node:zlib";

import { cell, create, expect, part, test, url } from "../test";

const at = (sorted: number[], share: number): string => (sorted[Math.floor((sorted.length - 1) * share)] as number).toFixed(0);

test("from the last key to the new plan on the screen", async ({ page }) => {
  const { section } = await create({ title: "Bench" });
  await page.goto(section);
  await part(page, "aux").click();
  const field = page.getByLabel("Aux battery capacity");
  // Timed inside the page: from a key to the next painted change of the figure.
  await page.evaluate(() => {
    const timing = window as unknown as { key: number; took: number };
    document.addEventListener("keydown", () => (timing.key = performance.now()), { capture: true });
    const shown = document.querySelector('[data-cell="aux.part"]') as HTMLElement;
    new MutationObserver(() => {
      requestAnimationFrame(() => setTimeout(() => (timing.took = performance.now() - timing.key)));
    }).observe(shown, { subtree: true, characterData: true, childList: true });
  });
  const times: number[] = [];
  for (let i = 0; i < 60; i++) {
    await field.fill("20");
    await expect(cell(page, "aux.part")).toContainText(" 20 Ah");
    await page.waitForTimeout(50);
    await page.keyboard.press(String(i % 10));
    await expect(cell(page, "aux.part")).toContainText(` 20${i % 10} Ah`);
    await page.waitForTimeout(50);
    times.push(await page.evaluate(() => (window as unknown as { took: number }).took));
  }
  times.sort((a, b) => a - b);
  expect(times.length).toBe(60);
  console.log(`key to new plan on screen: median ${at(times, 0.5)} ms, 95 % within ${at(times, 0.95)} ms, worst ${at(times, 1)} ms (aim 100 ms)`);
});

test("compressed script of the first load", async ({ page }) => {
  const scripts: Promise<Buffer>[] = [];
  page.on("response", (r) => {
    if (r.request().resourceType() === "script") scripts.push(r.body());
  });
  await page.goto(url());
  await expect(page.getByRole("heading", { name: "Jobs" })).toBeVisible();
  const sizes = (await Promise.all(scripts)).map((b) => gzipSync(b).length);
  expect(sizes.length).toBeGreaterThan(0);
  console.log(`compressed script of the first load: ${(sizes.reduce((a, b) => a + b, 0) / 1000).toFixed(0)} kB (aim under 300 kB)`);
});
