import { readFile, writeFile } from "node:fs/promises";

import { accessible, create, draft, expect, saved, test, url } from "../test";
import { ask } from "../ask";

test("extras are parts of the circuit: what is asked follows what is fitted, and the checks follow the answers", async ({ page }) => {
  const { section } = await create({ title: "With extras", alternator: { label: "120/200 A" }, aux: { chemistry: "agm", capacityAh: 100 }, use: { dailyAh: 40 }, pins: { coupling: "dcdc" } });
  await page.goto(`${section}/wiring`);
  await page.getByRole("tab", { name: "Extras" }).click();
  const isolator = page.getByRole("region", { name: "Isolator Q1", exact: true });
  await expect(isolator.getByLabel("Isolator is rated")).toHaveCount(0);
  await isolator.getByText("master switch at the aux battery").click();
  await expect(isolator).toContainText("Look: does Q1 stop the charger before it opens?");
  await isolator.getByRole("group", { name: "The isolator stops the charger" }).getByText("no", { exact: true }).click();
  await expect(isolator).toContainText("without a battery behind them");

  const disconnect = page.getByRole("region", { name: "Low-voltage disconnect Q3", exact: true });
  await disconnect.getByText("yes", { exact: true }).click();
  await disconnect.getByLabel("The low-voltage disconnect opens below").fill("12.2");
  await disconnect.getByLabel("… and closes again above").fill("12.2 V");
  await expect(disconnect).toContainText("on and off without end");
  await disconnect.getByLabel("… and closes again above").fill("12.8 V");
  await expect(disconnect).not.toContainText("on and off without end");
  await accessible(page);
  await saved(page);
  await page.getByRole("tab", { name: "Modes" }).click();
  await expect(page.getByRole("row", { name: /Q1 open.*on.*running/ }).first()).toContainText("no battery behind it");
  await page.goto(section);
  await expect(page.locator('[data-part="q1"]').first()).toBeVisible();
});

test("a job's dates: what it usually has, done today, due in the list of jobs, and as iCalendar", async ({ page }) => {
  const { id, section } = await create({ title: "Reserve battery", aux: { chemistry: "agm" }, dates: { d1: { kind: "revisit", what: "Measure again", due: "2020-02-29" } } });
  await page.goto(url());
  const due = page.getByRole("region", { name: "Due" });
  await expect(due).toContainText("Measure again");
  await due.getByRole("link", { name: "Measure again" }).click();
  const calendar = page.getByRole("region", { name: "Calendar" });
  await expect(calendar).toContainText(/overdue by \d+ days/);
  await calendar.getByRole("button", { name: /Put in the calendar: Charge the AGM/ }).click();
  await calendar.getByRole("button", { name: "Done today" }).first().click();
  await expect(calendar.locator('[data-row="d1"]')).toContainText("done");
  await accessible(page);
  await saved(page);
  const dates = (await draft(id)).document as unknown as { dates: Record<string, { kind: string; everyDays?: number; due: string; done?: string }> };
  const topUp = Object.values(dates.dates).find((d) => d.kind === "topup");
  expect(topUp?.everyDays).toBeGreaterThan(100);
  expect(dates.dates.d1?.done).toMatch(/^20\d\d-\d\d-\d\d$/);
  const ics = await (await ask(`${url()}/api/jobs/${id}/calendar.ics`)).text();
  expect(ics).toContain(`DTSTART;VALUE=DATE:${topUp?.due.replaceAll("-", "")}`);
  expect(ics).not.toContain("Measure again");
  await page.goto(section);
});

test("the vehicle book by file: bad lines are mended, an answer is taken out, a new job starts from the model", async ({ page }, info) => {
  const path = info.outputPath("vehicles.csv");
  await writeFile(path, "model,answer to,answer,known by\nGodwit 1,routes.startM,18 ft,measured\nGodwit 1,alternator.label,one,\nGodwit 1,points.p1.where,left rear lamp,\n");
  await page.goto(url());
  await page.getByRole("link", { name: "Vehicle book" }).click();
  await page.getByLabel("Vehicle file").setInputFiles(path);
  const file = page.getByRole("region", { name: "From a file" });
  await page.getByRole("button", { name: "Put it in" }).click();
  await expect(file).toContainText("2 answers are in the book.");
  await expect(file).toContainText("line 3 alternator.label “one”");
  const lines = page.getByLabel("Lines to mend");
  await lines.fill((await lines.inputValue()).replace(",one,", ",120 A,"));
  await page.getByRole("button", { name: "Read these lines" }).click();
  const model = page.getByRole("region", { name: "Godwit 1" });
  await expect(model).toContainText("120 A");
  await accessible(page);
  await model.getByRole("button", { name: "Mend Godwit 1", exact: true }).click();
  await model.getByRole("button", { name: "Take out Where of Godwit 1" }).click();
  await expect(model).not.toContainText("left rear lamp");
  const [download] = await Promise.all([page.waitForEvent("download"), page.getByRole("link", { name: "Export" }).click()]);
  expect(await readFile((await download.path()) as string, "utf8")).toContain("Godwit 1,routes.startM,");
  await model.getByRole("button", { name: "New job on it: Godwit 1" }).click();
  await expect(page.getByRole("textbox", { name: "Title" })).toHaveValue("Godwit 1");
  await expect(page.locator('[data-cell="alternator.part"]')).toContainText("120 A");
});
