import { cell, create, expect, part, saved, test } from "../test";

test("a relay's thresholds, typed from its label, change what is said of its chatter", async ({ page }) => {
  const { section } = await create({
    title: "From the label", alternator: { label: "90/180 A", regulation: "fixed", knownBy: "test", volts: 13.9 }, aux: { chemistry: "agm", capacityAh: 200, place: "rear" },
    routes: { startM: 4, auxM: 4 }, pins: { coupling: "vsr", startSize: "10 mm2", auxSize: "70 mm2" },
  });
  await page.goto(section);
  const panel = page.locator("[data-panel]");
  await part(page, "coupling").click();
  await expect(panel).toContainText("relay.chatter");
  await panel.getByText("As its label says, or as measured").click();
  await expect(panel.getByLabel("The relay joins above, at 12 V")).toHaveAttribute("placeholder", "assumed 13.3 V");
  await panel.getByLabel("The relay joins above, at 12 V").fill("12.9");
  await panel.getByLabel("… and parts below, at 12 V").fill("11,8 V");
  await expect(panel).not.toContainText("relay.chatter");
  await saved(page);
});

test("a joint measured at 60 mV and 40 A moves the grade line, and is named", async ({ page }) => {
  const { section } = await create({ title: "Worn lug" });
  await page.goto(section);
  const line = () => page.locator("[data-volts]").first().getAttribute("d");
  await part(page, "c1").click();
  const panel = page.locator("[data-panel]");
  await panel.getByText("The joints here, as measured").click();
  const before = await line();
  await panel.getByLabel("The joint loses").first().fill("60");
  await expect(panel.locator("..")).toBeAttached();
  await expect(page.getByRole("region", { name: "Notes" })).toContainText("was measured, and not at what current");
  expect(await line()).toBe(before);
  await panel.getByLabel("… at").first().fill("40 A");
  await expect(page.getByRole("region", { name: "Notes" })).toContainText("measures 1.50 mΩ; a good one has 0.1 to 0.5 mΩ");
  expect(await line()).not.toBe(before);
  await expect(cell(page, "c1.part")).toContainText("mm²");
  await saved(page);
});

test("the chassis measured end to end counts in the return, says what it moves, and is no reason for thicker cable", async ({ page }) => {
  const { section } = await create({ title: "Rusty rail", alternator: { label: "90/180 A" }, aux: { chemistry: "lifepo4", capacityAh: 200 } });
  await page.goto(section);
  await part(page, "c1").click();
  const panel = page.locator("[data-panel]");
  await panel.getByText("Chassis between E2 and E1, as measured").click();
  const size = await cell(page, "c1.part").textContent();
  await panel.getByLabel("… or measures").last().fill("9 mΩ");
  await expect(page.getByRole("region", { name: "Notes" })).toContainText("steel between E2 and E1 measures 9.0 mΩ; the design counts on");
  await expect(panel.getByRole("list", { name: "What it moves" })).toContainText(/… or measures: This moves what the charger sees .* from \d+\.\d+ V to \d+\.\d+ V/);
  expect(await cell(page, "c1.part").textContent()).toBe(size);
  await saved(page);
});

test("a probe at the cells changes what is said about frost", async ({ page }) => {
  const { section } = await create({ title: "Winter", aux: { chemistry: "lifepo4" }, day: { outsideC: -8 }, profile: { disable: "no" } });
  await page.goto(section);
  const notes = page.getByRole("region", { name: "Notes" });
  await expect(notes).toContainText("nothing stops the charger");
  await part(page, "coupling").click();
  const panel = page.locator("[data-panel]");
  await panel.getByText("As its label says, or as measured").click();
  await panel.getByRole("group", { name: "A temperature probe of its own sits at the cells" }).getByText("yes").click();
  await expect(notes).not.toContainText("nothing stops the charger");
  await expect(notes).toContainText("own probe at the cells stops it below 0 °C");
  await saved(page);
});
