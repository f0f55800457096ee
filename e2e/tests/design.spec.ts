import { cell, create, draft, expect, part, saved, test, url } from "../test";

test("six answers give a plan, found again after a reload and in the list", async ({ page }) => {
  await page.goto(url());
  await page.getByRole("button", { name: "New job" }).click();
  const question = page.getByRole("region", { name: "Questions" });
  await expect(question).toContainText("20 of 20 still open");
  await expect(cell(page, "alternator.part")).toHaveText("120 A");

  await question.getByLabel("Vehicle", { exact: true }).selectOption("dual-cab ute with canopy");
  await expect(question).toContainText("What does the alternator's label say?");
  await question.getByLabel("Alternator label").fill("70/140");
  await expect(cell(page, "alternator.part")).toHaveText("70/140 A");
  await question.getByLabel("Alternator label").press("Enter");
  await question.getByText("AGM").click();
  await question.getByLabel("Aux battery capacity").fill("1.2 kWh");
  await expect(cell(page, "aux.part")).toHaveText("AGM 100 Ah");
  await question.getByLabel("Aux battery capacity").press("Enter");
  await question.getByText("in the canopy").click();
  await question.getByLabel("Daily use").fill("30 Ah");
  await question.getByLabel("Daily use").press("Enter");
  await question.getByLabel("Hours driven a day").fill("1h30");
  await question.getByLabel("Hours driven a day").press("Enter");
  await expect(question).toContainText("14 of 20 still open");
  await expect(question).toContainText("How is the alternator regulated?");
  await expect(cell(page, "coupling.part")).toHaveText("25 A out");
  await expect(page.getByRole("complementary", { name: "Title block" })).toContainText("6 of 20 answers");

  await page.getByLabel("Title", { exact: true }).fill("Lighthouse keeper");
  await saved(page);
  const before = await cell(page, "c1.part").innerText();
  await page.reload();
  await expect(cell(page, "c1.part")).toHaveText(before);
  await expect(cell(page, "aux.part")).toHaveText("AGM 100 Ah");
  const listed = page.locator(`[data-job] a[href="${new URL(page.url()).pathname}"]`);
  await page.getByRole("link", { name: /Epitrope/ }).click();
  await expect(listed).toContainText("Lighthouse keeper");
  await expect(listed).toContainText("25 A");
});

test("a cable pinned too thin is noted, cured by its button, and undone", async ({ page }) => {
  const { id, section } = await create({ title: "Pins", aux: { capacityAh: 200 } });
  await page.goto(section);
  await part(page, "c1").click();
  const panel = page.getByRole("region", { name: "C1" });
  await panel.getByLabel("Start run cable").fill("6 mm auto");
  await expect(cell(page, "c1.part")).toContainText("6 mm auto");
  await expect(panel).toContainText("4.6 mm² copper");
  await expect(panel).toContainText("Drop alone approves cable that burns");
  await panel.getByLabel("Start run cable").press("Enter");
  await panel.getByRole("button", { name: /^Fit \d+ mm²$/ }).first().click();
  await expect(panel).not.toContainText("Drop alone approves");
  await expect(cell(page, "c1.part")).toContainText("mm²,");
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(cell(page, "c1.part")).toContainText("6 mm auto");
  await page.getByRole("button", { name: "Redo" }).click();
  await expect(cell(page, "c1.part")).not.toContainText("auto");
  await saved(page);
  await expect.poll(async () => (await draft(id)).document.pins).toBeUndefined();
});

test("every figure opens its working, and the numbers agree", async ({ page }) => {
  const { section } = await create({ title: "Working" });
  await page.goto(section);
  await part(page, "c1").click();
  const panel = page.getByRole("region", { name: "C1" });
  const drop = panel.locator("details", { hasText: "voltage lost" });
  await drop.locator("summary").click();
  await expect(drop).toContainText("ΔU = I·R");
  const volts = /= (\d+\.\d+) V$/m.exec(await drop.locator("[data-formula]").innerText())?.[1];
  const shown = /^(\d+\.\d+) V/.exec(await cell(page, "c1.loses").innerText())?.[1];
  expect(Number(volts).toFixed(2)).toBe(shown);
  const copper = panel.locator("details", { hasText: /^cable resistance/ });
  await copper.locator("summary").click();
  await expect(copper).toContainText("IEC 60228 class 5");
  await expect(copper).toContainText("assumed");
});

test("bad input is named, kept, and keeps nothing else from being saved", async ({ page }) => {
  const { id, section } = await create({ title: "Bad", routes: { startM: 5 } });
  await page.goto(section);
  await part(page, "c1").click();
  const route = page.getByLabel("Route, start battery to coupling");
  for (const [text, says] of [["5 kg", "is not a length"], ["0 m", "is out of range"], ["-3", "is out of range"], ["10000 m", "is out of range"]] as const) {
    await route.fill(text);
    await expect(page.getByText(new RegExp(`${text.replace("-", "-")} ${says}.*Allowed: 0.1 to 30 m`))).toBeVisible();
  }
  await page.getByLabel("Title", { exact: true }).fill("Still saved");
  await expect.poll(async () => (await draft(id)).document.title).toBe("Still saved");
  expect((await draft(id)).document.routes).toEqual({ startM: 5 });
  await page.reload();
  await part(page, "c1").click();
  await expect(page.getByLabel("Route, start battery to coupling")).toHaveValue("10000 m");
  await page.getByLabel("Route, start battery to coupling").fill("12 ft 6");
  await page.getByLabel("Route, start battery to coupling").press("Enter");
  await expect(cell(page, "c1.part")).toContainText("3.81 m");
  await page.getByLabel("Start run cable").fill("8 mm");
  await expect(page.getByText(/copper area or outside diameter/)).toBeVisible();
});

test("the wrong demo job says why, and its cures make it right", async ({ page }) => {
  await page.goto(url());
  await page.getByLabel("Find a job").fill("Clay studio");
  await page.getByRole("link", { name: /Clay studio/ }).click();
  const notes = page.getByRole("region", { name: "Notes" });
  await expect(notes).toContainText("Stop.");
  await expect(notes).toContainText("LiFePO4 rests at 13.2–13.3 V");
  await notes.getByRole("button", { name: "Let the plan choose" }).click();
  await expect(cell(page, "coupling.part")).toContainText("A out");
  await expect(notes).not.toContainText("LiFePO4 rests");
  for (let i = 0; i < 4 && (await notes.innerText()).includes("Stop."); i++) {
    const worst = notes.getByRole("listitem").first();
    const says = await worst.innerText();
    await worst.locator("[data-cures] button").first().click();
    await expect(worst).not.toHaveText(says, { useInnerText: true });
  }
  await expect(notes).not.toContainText("Stop.");
  const undo = page.getByRole("button", { name: "Undo" });
  while (await undo.isEnabled()) await undo.click();
  await expect(notes).toContainText("LiFePO4 rests");
  await saved(page);
});

test("issue a revision: it stays as it was", async ({ page }) => {
  const { section } = await create({ title: "Issued", aux: { capacityAh: 100 } });
  await page.goto(`${section}/record`);
  await page.getByRole("button", { name: "Issue revision 1" }).click();
  await expect(page.getByRole("link", { name: "Revision 1" })).toBeVisible();
  await page.goto(section);
  await part(page, "aux").click();
  await page.getByLabel("Aux battery capacity").fill("300");
  await expect(cell(page, "aux.part")).toContainText("300 Ah");
  await saved(page);
  await page.goto(`${section}/record`);
  await page.getByRole("button", { name: "Issue revision 2" }).click();
  await expect(page.getByText("Aux battery capacity: 100 Ah → 300 Ah")).toBeVisible();
  await page.getByRole("link", { name: "Revision 1" }).click();
  await expect(cell(page, "aux.part")).toContainText("100 Ah");
  await expect(page.getByText("read only")).toBeVisible();
});
