import type { Page } from "@playwright/test";

import { accessible as check, cell, create, expect, part, saved, test, turn, url } from "../test";

// These tests ask nothing of each other, and are the longest.
test.describe.configure({ mode: "parallel" });

test("everything by keyboard alone", async ({ page }) => {
  await page.goto(url());
  await page.getByRole("button", { name: "New job" }).focus();
  await page.keyboard.press("Enter");
  await expect(cell(page, "aux.part")).toBeVisible();
  await page.keyboard.press("q");
  await expect(page.getByLabel("Vehicle", { exact: true })).toBeFocused();
  await page.keyboard.press("w");
  await expect(page.getByRole("region", { name: "Questions" })).toContainText("What does the alternator's label say?");
  await expect(page.getByLabel("Alternator label")).toBeFocused();
  await page.keyboard.type("180");
  await page.keyboard.press("Enter");
  await expect(cell(page, "alternator.part")).toHaveText("180 A");
  await page.getByRole("button", { name: "later" }).focus();
  await page.keyboard.press("ArrowRight");
  await expect(part(page, "alternator")).toHaveAttribute("aria-pressed", "true");
  for (let i = 0; i < 4; i++) await page.keyboard.press("ArrowRight");
  await expect(page.getByRole("region", { name: "C1" })).toBeVisible();
  await page.keyboard.press("Escape");
  await expect(page.getByRole("region", { name: "C1" })).toBeHidden();
  await page.keyboard.press("z");
  await expect(cell(page, "alternator.part")).toHaveText("120 A");
  await page.keyboard.press("Shift+Z");
  await expect(cell(page, "alternator.part")).toHaveText("180 A");
  await page.keyboard.press("?");
  await expect(page.getByRole("dialog", { name: "Keys" })).toBeVisible();
  await page.keyboard.press("Escape");
  await expect(page.getByRole("dialog", { name: "Keys" })).toBeHidden();
  await page.keyboard.press("/");
  await expect(page.getByPlaceholder("Find or do")).toBeFocused();
  await page.keyboard.type("record");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("heading", { name: "Record" })).toBeVisible();
  await page.keyboard.press("1");
  await expect(cell(page, "aux.part")).toBeVisible();
  await saved(page);
});

// What is dark differs in its colours alone, and those are the same at every width.
const looks = [["light", 1280, 800], ["light", 390, 844], ["dark", 1280, 800]] as const;

for (const [scheme, width, height] of looks) {
  test.describe(`${scheme}, ${width} × ${height}`, () => {
    const accessible = (page: Page) => check(page, scheme === "dark" ? ["color-contrast"] : undefined);

    test("axe finds nothing", async ({ page }) => {
      await page.setViewportSize({ width, height });
      await page.addInitScript((s) => localStorage.setItem("mantine-color-scheme-value", s), scheme);
      await page.goto(url());
      await page.getByLabel("Find a job").fill("Mobile vet");
      await expect(page.getByRole("link", { name: /Mobile vet/ })).toBeVisible();
      await accessible(page);
      await page.getByLabel("Find a job").fill("Clay studio");
      await page.getByRole("link", { name: /Clay studio/ }).click();
      await expect(page.getByRole("region", { name: "Questions" })).toBeVisible();
      await accessible(page);
      await page.locator("[data-part=c2]").click();
      await page.locator("[data-working] summary").first().click();
      await accessible(page);
      const job = page.url();
      await page.goto(`${job}/record`);
      await expect(page.getByRole("heading", { name: "Record" })).toBeVisible();
      await accessible(page);
    });

    test("axe finds nothing on survey, methods and wiring", async ({ page }) => {
      test.slow();
      // The same document at another width: what depends on the layout is looked at again.
      const accessible = (page: Page) => check(page, scheme === "dark" ? ["color-contrast"] : width < 760 ? ["color-contrast", "target-size", "scrollable-region-focusable"] : undefined);
      await page.setViewportSize({ width, height });
      await page.addInitScript((s) => localStorage.setItem("mantine-color-scheme-value", s), scheme);
      await page.goto(url());
      await page.getByLabel("Find a job").fill("Clay studio");
      await page.getByRole("link", { name: /Clay studio/ }).click();
      await expect(page.getByRole("region", { name: "Questions" })).toBeVisible();
      const job = page.url();
      for (const group of ["Alternator", "Needs", "Feed point", "As found"]) {
        await page.goto(`${job}/survey`);
        await page.getByRole("navigation", { name: "Survey" }).getByRole("button", { name: group }).click();
        await expect(page.getByRole("heading", { name: group, exact: true })).toBeVisible();
        await accessible(page);
      }
      await page.goto(`${job}/methods`);
      for (const tab of [/size/i, /differs/]) {
        await page.getByRole("tab", { name: tab }).click();
        await accessible(page);
      }
      await page.goto(url());
      await page.getByLabel("Find a job").fill("Mobile vet");
      await page.getByRole("link", { name: /Mobile vet/ }).click();
      await turn(page, "4 Wiring");
      for (const tab of [/chain/i, /modes/i, /live/i, /settings/i, /before/i]) {
        await page.getByRole("tab", { name: tab }).click();
        await expect(page.getByRole("tabpanel").locator("table").first()).toBeVisible();
        await accessible(page);
      }
    });
  });
}

test("on a phone the section stands upright and a part opens in its place", async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  const { section } = await create({ title: "Phone", pins: { startSize: "4 mm2" } });
  await page.goto(section);
  await expect(page.getByText("Stop.").first()).toBeVisible();
  await page.locator("[data-part=c1]").click();
  await expect(page.getByRole("region", { name: "C1" })).toBeVisible();
  await page.getByLabel("Start run cable").fill("35 mm2");
  await expect(page.locator("[data-part=c1]")).toContainText("35 mm²");
  await saved(page);
});

for (const width of [360, 768, 1280, 1920]) {
  test(`nothing is wider than the window at ${width}`, async ({ page }) => {
    await page.setViewportSize({ width, height: 800 });
    const { section } = await create({ title: "Wide", vehicle: { kind: "tow-caravan" }, loads: { a1: { kind: "fridge" } } });
    for (const address of [url(), section, `${section}/survey`, `${section}/methods`, `${section}/wiring`]) {
      await page.goto(address);
      await expect(page.locator("main :is(li, td, p:not([role=status])), [data-cell]").first()).toBeAttached();
      const over = await page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth);
      expect(over).toBeLessThanOrEqual(0);
    }
  });
}

const places: Record<string, string[]> = {
  "panel-van": ["rear", "bonnet", "seat"], "people-mover": ["bonnet", "rear"], "ute-tub": ["rear"], "ute-tray": ["rear"], "ute-canopy": ["middle"],
  wagon: ["bonnet", "rear"], motorhome: ["rear"], "tow-caravan": ["trailer", "bonnet"], "tow-camper": ["trailer"],
};

for (const [kind, where] of Object.entries(places)) {
  test(`no part of the run of a ${kind} overlaps another, and figures fit their columns`, async ({ page }) => {
    for (const place of where) {
      const whole = (kind === "panel-van" && place === "rear") || kind === "tow-caravan";
      for (const coupling of whole ? ["dcdc", "vsr", "trailer", "changeover", "highcurrent", "contactor", "selector", "second", "splitter"] : ["dcdc", "vsr"]) {
        const { section } = await create({ title: `${kind} ${place}`, vehicle: { kind }, aux: { place }, pins: { coupling } });
        await page.goto(section);
        await expect(cell(page, "aux.part")).toBeVisible();
        const found = await page.evaluate(seen);
        expect(found, `${place} ${coupling}`).toEqual({ touching: [], outside: 0, cut: [], parts: expect.any(Number) });
        expect(found.parts).toBeGreaterThanOrEqual(coupling === "second" ? 5 : 6);
      }
    }
  });
}

/** seen is what a person would find wrong on the section: parts that touch, parts outside, figures that are cut. */
function seen() {
  const boxes = [...document.querySelectorAll("[data-symbol] rect, [data-symbol] circle")].map((e) => e.getBoundingClientRect());
  const touching: string[] = [];
  boxes.forEach((a, i) =>
    boxes.slice(i + 1).forEach((b, j) => {
      if (a.left < b.right && b.left < a.right && a.top < b.bottom && b.top < a.bottom) touching.push(`${i} and ${i + 1 + j}`);
    }),
  );
  const drawing = (document.querySelector("[data-drawing]") as Element).getBoundingClientRect();
  const outside = boxes.filter((b) => b.left < drawing.left || b.right > drawing.right || b.top < drawing.top || b.bottom > drawing.bottom).length;
  const cut = [...document.querySelectorAll<HTMLElement>("[data-cell], [data-joint]")].filter((c) => c.scrollWidth > c.clientWidth + 1).map((c) => c.innerText);
  return { touching, outside, cut, parts: boxes.length };
}

test("the section reads in order without the drawing", async ({ page }) => {
  const { section } = await create({ title: "Read" });
  await page.goto(section);
  const reading = page.locator("[data-reading]");
  await expect(reading.getByRole("listitem").first()).toContainText("Alternator: 120 A");
  await expect(reading).toContainText("the worst");
  await expect(reading).toContainText("Return: E1");
});

test("an address that is nowhere says so", async ({ page }) => {
  await page.goto(`${url()}/no/such/page`);
  await expect(page.getByRole("heading", { name: "There is no such page" })).toBeVisible();
});
