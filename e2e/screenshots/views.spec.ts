import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";

import { expect, part, test, url, type Page } from "../test";

const folder = join(dirname(fileURLToPath(import.meta.url)), "../../docs/screenshots");

async function open(page: Page, title: string): Promise<void> {
  await page.goto(url());
  await page.locator("[data-job]").getByRole("link", { name: new RegExp(title) }).click();
  await expect(page.getByRole("region", { name: "Questions" })).toBeVisible();
  await page.evaluate(() => document.fonts.ready);
  await page.mouse.move(0, 0);
}

const shoot = (page: Page, name: string) => page.screenshot({ path: join(folder, `${name}.png`), animations: "disabled", mask: [], style: "[data-saved], [data-when] { visibility: hidden }" });

test("the jobs", async ({ page }) => {
  await page.goto(url());
  await expect(page.locator("[data-job]").getByRole("link", { name: /Mobile vet/ })).toBeVisible();
  await shoot(page, "jobs");
});

test("the people", async ({ page }) => {
  await page.goto(url());
  await expect(page.locator("[data-job]").getByRole("link", { name: /Mobile vet/ })).toBeVisible();
  await page.goto(`${url()}/people`);
  await expect(page.getByRole("heading", { name: "What each role may do" })).toBeVisible();
  await shoot(page, "people");
});

test("the section", async ({ page }) => {
  await open(page, "Mobile vet");
  await shoot(page, "section");
});

test("a logged test", async ({ page }) => {
  await open(page, "Mobile vet");
  await part(page, "alternator").first().click();
  await page.getByLabel("Recording of the start battery").setInputFiles(join(folder, "../../testdata/logs/variable.csv"));
  await expect(page.getByRole("status", { name: "What the test says" })).toBeVisible();
  await page.locator("[data-panel]").evaluate((e) => (e.scrollTop = (e.querySelector("[data-drop]") as HTMLElement).offsetTop - 8));
  await shoot(page, "regulation");
});

test("the survey", async ({ page }) => {
  await open(page, "Mobile vet");
  await page.keyboard.press("0");
  await page.getByRole("navigation", { name: "Survey" }).getByRole("button", { name: "Needs" }).click();
  await expect(page.getByRole("region", { name: "Balance" })).toBeVisible();
  await shoot(page, "survey");
  await page.setViewportSize({ width: 390, height: 844 });
  await page.getByRole("navigation", { name: "Survey" }).getByRole("button", { name: "Alternator" }).click();
  await shoot(page, "survey-phone");
});

test("the drawing", async ({ page }) => {
  await open(page, "Touring sound recordist");
  await page.keyboard.press("4");
  await page.getByRole("tab", { name: "Drawing" }).click();
  await expect(page.getByRole("img", { name: /Wiring drawing/ })).toBeVisible();
  await shoot(page, "drawing");
});

test("the lists and the steps", async ({ page }) => {
  await open(page, "Mobile vet");
  await page.keyboard.press("5");
  await page.getByRole("region", { name: "Cuts" }).evaluate((e) => e.scrollIntoView());
  await shoot(page, "cuts");
  await page.setViewportSize({ width: 390, height: 844 });
  await page.goto(page.url().replace("/cuts", "/steps"));
  await page.getByRole("navigation", { name: "All steps" }).getByRole("button", { name: /Lay C1/ }).click();
  await shoot(page, "steps-phone");
});

test("the workshop's week", async ({ page }) => {
  await page.goto(`${url()}/week`);
  await expect(page.getByText("clashes in this bay").first()).toBeVisible();
  await shoot(page, "week");
});

test("every coupling", async ({ page }) => {
  await open(page, "Mobile vet");
  await page.keyboard.press("2");
  await expect(page.locator("[data-asking=false]").getByRole("table", { name: "Couplings side by side" })).toBeVisible();
  await shoot(page, "methods");
});

test("before and after", async ({ page }) => {
  await open(page, "Bookmobile");
  await page.keyboard.press("4");
  await page.getByRole("tab", { name: "Before and after" }).click();
  await expect(page.getByRole("table", { name: "What was found, and the new design" })).toBeVisible();
  await page.mouse.move(0, 0);
  await shoot(page, "before-after");
});

async function openDay(page: Page, title: string): Promise<void> {
  await open(page, title);
  await page.keyboard.press("3");
  await expect(page.locator("[data-curves]")).toBeVisible();
  await expect(page.locator("[data-running=false]")).toBeVisible();
}

test("a day", async ({ page }) => {
  await openDay(page, "Mobile vet");
  await page.getByLabel("Shown").selectOption({ label: "day 2" });
  await expect(page.locator("[data-running=false]")).toBeVisible();
  await page.getByRole("slider", { name: "Moment" }).fill("95400");
  await shoot(page, "day");
});

test("how sure a day is", async ({ page }) => {
  test.setTimeout(180_000); // three hundred runs
  await openDay(page, "Mobile vet");
  await page.getByRole("tab", { name: "Chance" }).click();
  await page.getByRole("button", { name: "Run 300 times" }).click();
  await expect(page.getByRole("list", { name: "How sure each aim is" })).toBeVisible({ timeout: 100_000 });
  await page.getByRole("list", { name: "How sure each aim is" }).scrollIntoViewIfNeeded();
  await page.locator("[data-day-tabs]").evaluate((e) => e.scrollTo(0, 330));
  await shoot(page, "day-chance");
});

test("the settings", async ({ page }) => {
  await page.goto(`${url()}/settings`);
  await expect(page.getByRole("heading", { name: "Paper and dates" })).toBeVisible();
  await shoot(page, "settings");
});

test("a proof on a phone", async ({ page }) => {
  await open(page, "Touring sound recordist");
  await page.setViewportSize({ width: 390, height: 844 });
  await page.keyboard.press("7");
  await page.getByRole("button", { name: /^. Holder of F2/ }).click();
  await expect(page.getByText("As expected", { exact: true })).toBeVisible();
  await page.evaluate(() => window.scrollTo(0, 0));
  await shoot(page, "proof-phone");
});

test("a fault traced on a phone", async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await open(page, "Mobile vet");
  await page.goto(`${page.url()}/trace`);
  await page.getByRole("button", { name: "We drive for hours" }).click();
  await page.getByRole("button", { name: "Begin", exact: true }).click();
  await expect(page.getByRole("region", { name: "Test", exact: true }).getByRole("heading")).not.toHaveCount(0);
  await expect(page.getByRole("region", { name: "What may be wrong", exact: true })).toBeVisible();
  await expect(page.getByText("to be sent")).toBeHidden();
  await page.evaluate(() => window.scrollTo(0, 0));
  await shoot(page, "trace-phone");
});

test("on a phone", async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await open(page, "Clay studio");
  await shoot(page, "section-phone");
});

test("the record", async ({ page }) => {
  await open(page, "Bookmobile");
  await page.keyboard.press("9");
  await page.getByRole("button", { name: "Issue revision 1" }).click();
  await expect(page.getByRole("link", { name: "Revision 1" })).toBeVisible();
  await page.addStyleTag({ content: "[data-when] { visibility: hidden }" });
  await shoot(page, "record");
});
