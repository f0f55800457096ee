import { readFile, writeFile } from "node:fs/promises";

import { Application } from "../application";
import { accessible, create, draft, expect, saved, test } from "../test";

const van = { title: "Days", alternator: { label: "90/180 A" }, aux: { capacityAh: 200 }, use: { dailyAh: 60, drivenHours: 2 }, day: { days: 2 } };

test("scrubbing moves the run, the grade line and every figure to the moment", async ({ page }) => {
  const { section } = await create(van);
  await page.goto(section);
  await expect(page.getByRole("link", { name: "3 Day" })).toBeVisible();
  await page.keyboard.press("3");
  await expect(page.locator("[data-says]")).toContainText("charger in bulk");
  const before = await page.locator("[data-moment]").getAttribute("data-moment");
  const slider = page.getByRole("slider", { name: "Moment" });
  await slider.fill("60000");
  await expect(page.locator("[data-clock]")).toHaveText("day 1, 22:40");
  await expect(page.locator("[data-says]")).toContainText("parked");
  await expect(page.locator("[data-says]")).toContainText("charger resting");
  expect(await page.locator("[data-moment]").getAttribute("data-moment")).not.toBe(before);
  // The curves' values are those of the words.
  const soc = await page.locator("[data-value=auxSOC] b").innerText();
  await expect(page.locator("[data-says]")).toContainText(`aux battery ${soc}`);
  // By a click on the curves.
  const box = (await page.locator("[data-curves]").boundingBox()) as { x: number; y: number; width: number; height: number };
  await page.mouse.click(box.x + box.width * 0.5, box.y + 140);
  await expect(page.locator("[data-clock]")).not.toHaveText("day 1, 22:40");
  // By keys: event by event, and playing.
  await slider.blur();
  await slider.evaluate((e: HTMLInputElement) => e.blur());
  await page.keyboard.press("Shift+ArrowLeft");
  await page.keyboard.press("Shift+ArrowLeft");
  const at = (await page.locator("[data-clock]").getAttribute("data-at")) as string;
  await page.keyboard.press("Shift+ArrowRight");
  await expect(page.locator("[data-clock]")).not.toHaveAttribute("data-at", at);
  const played = await page.locator("[data-clock]").innerText();
  await page.getByRole("button", { name: "Play" }).click();
  await expect(page.locator("[data-clock]")).not.toHaveText(played);
  await page.getByRole("button", { name: "Pause" }).click();
});

test("an event is clicked to its moment, and a day is looked at closely", async ({ page }) => {
  const { section } = await create(van);
  await page.goto(`${section}/day`);
  await page.getByRole("tab", { name: "Events" }).click();
  await page.getByRole("list", { name: "Events" }).getByRole("button", { name: /the engine starts/ }).nth(1).click();
  await expect(page.locator("[data-clock]")).toHaveText("day 1, 17:30");
  await page.getByLabel("Shown").selectOption({ label: "day 2" });
  await expect(page.locator("[data-clock]")).toHaveText("day 2, 00:00");
  await page.getByRole("tab", { name: "Verdict" }).click();
  await expect(page.getByRole("region", { name: "Verdicts" })).toContainText(/Aux battery.*from 50 to \d+ %/);
});

test("what is changed on the sheet is run again and saved with the job", async ({ page }) => {
  const { id, section } = await create(van);
  await page.goto(`${section}/day`);
  await page.getByRole("tab", { name: "Driving" }).click();
  await page.getByLabel("How it is driven").selectOption({ label: "one long drive" });
  await expect(page.locator("[data-day-head]")).toContainText("one long drive");
  await page.getByLabel("Outside").fill("20F");
  await page.getByLabel("Outside").blur();
  await page.getByRole("tab", { name: "Events" }).click();
  await expect(page.getByRole("list", { name: "Events" })).toContainText("the cells are below 0 °C");
  await saved(page);
  await expect.poll(async () => (await draft(id)).document).toMatchObject({ day: { pattern: "long-haul", outsideC: -6.6667 } });
});

test.describe("where input is refused", () => {
  test.use({ allowed: /status of 422/ });

  test("a track is driven, a broken one is named, and a run is taken away as CSV", async ({ page }, info) => {
    const { section } = await create(van);
    await page.goto(`${section}/day`);
    await page.getByRole("tab", { name: "Driving" }).click();
    const good = info.outputPath("drive.csv");
    const rows = Array.from({ length: 720 }, (_, i) => `${i * 5};${i < 60 ? "0" : i < 400 ? "48,5" : "101"}`);
    await writeFile(good, ["Time;Speed km/h", ...rows].join("\n"));
    await page.getByLabel("Track file").setInputFiles(good);
    await expect(page.getByText(/drive\.csv: 1\.0 h/)).toBeVisible();
    await expect(page.locator("[data-day-head]")).not.toContainText("as written out");
    await page.getByRole("button", { name: "Drive the days by it" }).click();
    await expect(page.locator("[data-day-head]")).toContainText("as written out");
    const bad = info.outputPath("bad.csv");
    await writeFile(bad, "time,speed\n0,10\n5,-3\n");
    await page.getByLabel("Track file").setInputFiles(bad);
    await expect(page.getByText(/line 3: speed "-3 km\/h" is not a vehicle's/)).toBeVisible();
    const own = page.getByLabel("Driving, written out");
    await own.fill("park 8 h, fly 1 h");
    await expect(page.getByText(/"fly" is not known/)).toBeVisible();
    const [download] = await Promise.all([page.waitForEvent("download"), page.getByRole("button", { name: "CSV" }).click()]);
    const text = await readFile(await download.path(), "utf8");
    expect(text.split("\r\n")[0]).toContain("aux battery %");
    expect(text.split("\r\n").length).toBeGreaterThan(100);
  });

  test("designs are compared on the same days", async ({ page }) => {
    const { section } = await create(van);
    await page.goto(`${section}/day`);
    await page.getByRole("tab", { name: "Compare" }).click();
    await page.getByRole("button", { name: "Add a design" }).click();
    await page.getByLabel("Value of design 3").fill("30 min");
    await page.getByRole("button", { name: "Compare", exact: true }).click();
    const table = page.getByRole("table", { name: "What each design came to" });
    await expect(table).toContainText("as it is");
    await expect(table).toContainText("Charger output: 20");
    await expect(table).toContainText("Hours driven a day: 30 min");
    await page.getByLabel("Value of design 3").fill("a while");
    await page.getByRole("button", { name: "Compare", exact: true }).click();
    await expect(page.getByText(/use\.drivenHours.*is not a time/)).toBeVisible();
    await page.reload();
    await page.getByRole("tab", { name: "Compare" }).click();
    await expect(page.getByLabel("Value of design 3")).toHaveValue("a while");
  });
});

test("a map is run, and stopped half-way another keeps what was done", async ({ page }) => {
  const { section } = await create({ ...van, day: { days: 28 } });
  await page.goto(`${section}/day`);
  await page.getByRole("tab", { name: "Map" }).click();
  await page.getByRole("button", { name: "Run the map" }).click();
  await expect(page.getByText(/^[1-9]\d* of 63 runs/)).toBeVisible({ timeout: 30_000 });
  await page.getByRole("button", { name: "Stop" }).click();
  await expect(page.getByText("Stopped before its end: what was done is shown.")).toBeVisible({ timeout: 20_000 });
  const map = page.getByRole("table", { name: /Charger output by Hours driven/ });
  await expect(map).toContainText("%");
  await expect(map.locator("td button:not([data-level])").first()).toBeVisible();
  await map.locator("td button[data-level]").first().click();
  await expect(page.locator("[data-cell-says]")).toContainText("Aux battery");
});

for (const [width, height] of [[1280, 800], [390, 844]] as const) {
  test(`axe finds nothing on the day: ${width} × ${height}`, async ({ page }) => {
    await page.setViewportSize({ width, height });
    const { section } = await create(van);
    await page.goto(`${section}/day`);
    await expect(page.locator("[data-curves]")).toBeVisible();
    for (const tab of ["Verdict", "Driving", "Events", "Compare", "Map", "Chance"]) {
      await page.getByRole("tab", { name: tab }).click();
      await accessible(page);
    }
    const over = await page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth);
    expect(over).toBeLessThanOrEqual(0);
  });
}

test.describe("with a server of its own", () => {
  test.use({ allowed: /status of 50[0-9]|ERR_CONNECTION_REFUSED|ERR_EMPTY_RESPONSE|ERR_CONNECTION_RESET|ERR_INCOMPLETE/ });
  let app: Application;
  test.beforeAll(async () => {
    app = await Application.start(false);
  });
  test.afterAll(() => app.stop());

  test("a spread survives a restart of the server and comes to its end", async ({ page }) => {
    test.slow(); // 150 weeks are computed, twice begun
    const { section } = await app.create({ ...van, day: { days: 7 } });
    await page.goto(`${section}/day`);
    await page.getByRole("tab", { name: "Chance" }).click();
    await page.getByLabel("Runs", { exact: true }).fill("150");
    await page.getByRole("button", { name: "Run 150 times" }).click();
    await expect(page.getByText(/^[1-9]\d* of 150 runs/)).toBeVisible({ timeout: 30_000 });
    await app.stopServer();
    await app.startServer();
    await expect(page.getByText(/150 runs/).first()).toBeVisible({ timeout: 50_000 });
    await expect(page.getByRole("region", { name: "Chance" }).getByRole("list", { name: "How sure each aim is" })).toContainText(/in all 150 runs|about \d in 10|nearly always/, { timeout: 120_000 });
  });
});
