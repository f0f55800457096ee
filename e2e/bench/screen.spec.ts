import { gzipSync } from "node:zlib";

import { cell, create, expect, part, test, url, type Page } from "../test";

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
  for (let i = 0; i < 100; i++) {
    await field.fill("20");
    await expect(cell(page, "aux.part")).toContainText(" 20 Ah");
    await page.waitForTimeout(50);
    await page.keyboard.press(String(i % 10));
    await expect(cell(page, "aux.part")).toContainText(` 20${i % 10} Ah`);
    await page.waitForTimeout(50);
    times.push(await page.evaluate(() => (window as unknown as { took: number }).took));
  }
  times.sort((a, b) => a - b);
  expect(times.length).toBe(100);
  console.log(`key to new plan on screen: median ${at(times, 0.5)} ms, 99 % within ${at(times, 0.99)} ms, worst ${at(times, 1)} ms (aims 40 and 80 ms)`);
});

for (const [what, path, there] of [
  ["the jobs", () => Promise.resolve(url()), (page: Page) => page.getByRole("link", { name: "Parts book" })],
  ["a job's section", () => create({ title: "Bench" }).then((j) => j.section), (page: Page) => part(page, "aux")],
] as const) {
  test(`compressed script and style of the first load: ${what}`, async ({ page }) => {
    const loads: Record<"script" | "stylesheet", Promise<Buffer>[]> = { script: [], stylesheet: [] };
    page.on("response", (r) => {
      const kind = r.request().resourceType();
      if (kind === "script" || kind === "stylesheet") loads[kind].push(r.body());
    });
    await page.goto(await path());
    await expect(there(page)).toBeVisible();
    const sum = async (kind: "script" | "stylesheet") => (await Promise.all(loads[kind])).reduce((sum, b) => sum + gzipSync(b, { level: 9 }).length, 0);
    const [script, style] = [await sum("script"), await sum("stylesheet")];
    expect(script).toBeGreaterThan(0);
    console.log(`first load of ${what}: ${(script / 1000).toFixed(0)} kB of script, ${(style / 1000).toFixed(0)} kB of style, compressed (aims 150 and 30 kB)`);
  });
}
