import type { Page } from "@playwright/test";

import { Application } from "../application";
import { accessible, expect, saved, test } from "../test";

test.use({ allowed: /status of 422/ });

let app: Application;
test.beforeAll(async () => {
  app = await Application.start(false);
});
test.afterAll(() => app.stop());

const job = {
  title: "Box 2 m away", vehicle: { kind: "panel-van" }, alternator: { label: "180 A" }, routes: { startM: 4.2, auxM: 1.1 }, bays: { startC: 35 },
  aux: { chemistry: "lifepo4", capacityAh: 200 }, fit: { lengthMM: 330, widthMM: 172, heightMM: 220, recessLengthMM: 400, recessWidthMM: 200, recessHeightMM: 300 },
};

/** What of a page is written in metres, °C or N·m, but for what somebody typed and the workings of figures. */
async function metric(page: Page): Promise<string[]> {
  const text = await page.evaluate(() => {
    const page = document.body.cloneNode(true) as HTMLElement;
    page.querySelectorAll("[data-working], [data-sold], title, input").forEach((e) => e.remove());
    return [...page.querySelectorAll("*")].flatMap((e) => [...e.childNodes].filter((n) => n.nodeType === 3).map((n) => n.textContent ?? "")).join("\n");
  });
  return [...text.matchAll(/.{0,40}\d\s?(m|mm|°C|N·m)(?![\wΩ²/])/g)].map((m) => m[0]).filter((t) => !t.includes("Box 2 m"));
}

const sheets = ["survey", "", "methods", "day", "wiring", "cuts", "steps", "record"];

test("other units change every sheet, and nothing that is stored", async ({ page }) => {
  test.setTimeout(120_000);
  const { id, section } = await app.create(job);
  const before = JSON.stringify((await app.draft(id)).document);
  await page.goto(section);
  await expect(page.locator("body")).toContainText("4.2 m");

  await page.goto(`${new URL(section).origin}/settings`);
  for (const unit of ["AWG, kcmil", "feet and inches", "°F", "lb·ft"]) await page.getByText(unit, { exact: true }).click();
  await page.getByLabel("Sizes on the reels").fill("8 mm");
  await page.getByLabel("Sizes on the reels").blur();
  await expect(page.getByText("it could be copper area or outside diameter")).toBeVisible();
  await page.getByLabel("Sizes on the reels").fill("8 AWG, 4 AWG, 1/0 AWG");
  await page.getByLabel("Sizes on the reels").press("Enter");
  await page.getByLabel("Feeds", { exact: true }).fill("orange");
  await page.getByLabel("Feeds", { exact: true }).blur();
  await page.getByText("Letter", { exact: true }).click();
  await page.getByText("01/02/2006", { exact: true }).click();
  await expect(page.getByText("Saved.")).toBeVisible();
  await accessible(page);
  await page.reload();
  await expect(page.getByLabel("Sizes on the reels")).toHaveValue("8 AWG, 4 AWG, 1/0 AWG");

  await page.goto(section);
  await expect(page.locator("body")).toContainText("13 ft 9 in");
  await expect(page.locator("body")).toContainText("AWG");
  for (const sheet of sheets) {
    await page.goto(`${section}/${sheet}`.replace(/\/$/, ""));
    await expect(page.getByRole("navigation", { name: "Sheets" })).toBeVisible();
    await page.waitForLoadState("networkidle");
    expect(await metric(page), `sheet ${sheet || "section"}`).toEqual([]);
  }
  await expect.poll(async () => JSON.stringify((await app.draft(id)).document)).toBe(before);
  const wires = await page.request.get(`${new URL(section).origin}/api/jobs/${id}/wires.csv`);
  expect(await wires.text()).toMatch(/route ft[\s\S]*orange/);
});

test("a bare number is in the unit that the field is shown in; a job may be written in its own", async ({ page }) => {
  const { id, section } = await app.create(job);
  const settings = `${new URL(section).origin}/api/settings`;
  const kept = (await (await page.request.get(settings)).json()) as { version: number; settings: object };
  await page.request.put(settings, { data: { ...kept, settings: { ...kept.settings, units: { area: "awg", length: "ft", temperature: "F", torque: "lbft" } } } });
  await page.goto(`${section}/survey`);
  await page.getByRole("button", { name: /^Routes/ }).click();
  const route = page.getByLabel("Route, start battery to coupling");
  await expect(route).toHaveValue("13 ft 9¼ in");
  await route.fill("12");
  await expect(route).toHaveValue("12");
  await route.blur();
  await saved(page);
  expect((await app.draft(id)).document).toMatchObject({ routes: { startM: 3.6576 } });
  await expect(route).toHaveValue("12 ft");
  await route.fill("12 ft 6");
  await route.blur();
  await saved(page);
  await expect(route).toHaveValue("12 ft 6 in");
  await route.fill("200");
  await expect(page.getByText(/200 .*Allowed: .*ft/)).toBeVisible();
  await route.fill("3.5 m");
  await route.blur();
  await saved(page);
  expect((await app.draft(id)).document).toMatchObject({ routes: { startM: 3.5 } });

  await page.getByText("221 °F", { exact: true }).first().click(); // insulation, as a choice
  await saved(page);
  expect((await app.draft(id)).document).toMatchObject({ cable: { insulation: 105 } });

  await page.goto(`${section}/record`);
  await page.getByText("mm², metres, °C, N·m", { exact: true }).click();
  await saved(page);
  await page.goto(section);
  await expect(page.locator("body")).toContainText("3.5 m");
  expect((await metric(page)).length).toBeGreaterThan(3);
});
