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
  await expect(panel.getByLabel("It joins above, at 12 V")).toHaveAttribute("placeholder", "assumed 13.3 V");
  await panel.getByLabel("It joins above, at 12 V").fill("12.9");
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
  await panel.getByText("Its joints, as measured").click();
  const before = await line();
  await panel.getByLabel("Joint loses").first().fill("60");
  await expect(panel.locator("..")).toBeAttached();
  await expect(page.getByRole("region", { name: "Notes" })).toContainText("was measured, and not at what current");
  expect(await line()).toBe(before);
  await panel.getByLabel("… at").first().fill("40 A");
  await expect(page.getByRole("region", { name: "Notes" })).toContainText("measures 1.5 mΩ; a good one has 0.1 to 0.5 mΩ");
  expect(await line()).not.toBe(before);
  await expect(cell(page, "c1.part")).toContainText("mm²");
  await saved(page);
});
