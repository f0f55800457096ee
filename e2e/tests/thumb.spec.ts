import { create, expect, test, type Page } from "../test";

/** least is the side of what a thumb or a glove hits, in px. */
const least = 44;

/** small are the things to press on what is worked with in the bay that are lower or narrower than a thumb wants. Words in a running text are let off. */
const small = (page: Page, within: string) =>
  page.locator(within).evaluate(
    (at, least) =>
      [...at.querySelectorAll<HTMLElement>("button, select, a, input:not([type=file]), summary")]
        .filter((e) => e.checkVisibility())
        .map((e) => ({ e, box: (e.matches("input[type=checkbox]") ? (e.closest("label") ?? e) : e).getBoundingClientRect() }))
        .filter(({ box }) => box.height > 0 && (box.height < least - 0.5 || box.width < least - 0.5))
        .map(({ e, box }) => `${e.tagName} “${(e.innerText || e.getAttribute("aria-label") || "").slice(0, 30)}” ${Math.round(box.width)} × ${Math.round(box.height)}`),
    least,
  );

for (const width of [360, 390, 430]) {
  test.describe(`a phone of ${width} px`, () => {
    test.use({ viewport: { width, height: 800 }, hasTouch: true, isMobile: true });

    test("a step is ticked and a reading entered with a thumb, in reach, and the screen stays awake", async ({ page }) => {
      await page.addInitScript(() => {
        const held = (window as unknown as { held: number }) ?? { held: 0 };
        held.held = 0;
        Object.defineProperty(navigator, "wakeLock", { value: { request: () => (held.held++, Promise.resolve({ release: () => (held.held--, Promise.resolve()) })) } });
      });
      const { section } = await create({ title: "By thumb" });
      await page.goto(`${section}/steps`);
      const step = page.getByRole("region", { name: "Step", exact: true });
      const done = step.getByRole("button", { name: "Done" });
      await done.scrollIntoViewIfNeeded();
      expect(await small(page, "section[aria-label=Step] article")).toEqual([]);
      expect(await page.evaluate(() => (window as unknown as { held: number }).held)).toBeGreaterThan(0);
      // Within the lower two thirds, where a thumb reaches.
      const box = await done.boundingBox();
      expect((box?.y ?? 0) + (box?.height ?? 0)).toBeGreaterThan(800 / 3);
      await done.tap();
      await expect(step).toContainText("1 of");
      await page.goto(`${section}/proof`);
      const reading = page.getByRole("region", { name: "Reading" });
      await expect(reading.getByRole("button", { name: "Enter", exact: true })).toBeVisible();
      expect(await small(page, "section[aria-label=Reading] article")).toEqual([]);
      for (const key of ["1", "2", "point", "6"]) await reading.getByRole("button", { name: key, exact: true }).tap();
      await reading.getByRole("button", { name: "Enter", exact: true }).tap();
      await expect(reading.locator("[data-level]").first()).toBeVisible();
      expect(await page.evaluate("document.documentElement.scrollWidth")).toBeLessThanOrEqual(width);
      expect(await small(page, "header")).toEqual([]);
    });
  });
}
