import { accessible, cell, create, expect, part, test } from "../test";

const relay = {
  title: "Relay", alternator: { label: "90/180 A", regulation: "fixed", knownBy: "test", volts: 14.4 },
  aux: { chemistry: "agm", capacityAh: 100, place: "seat" }, pins: { coupling: "vsr" },
};

test("one state shown alone: its volts, its amps, and what it means", async ({ page }) => {
  const { section } = await create(relay);
  await page.goto(section);
  const choice = page.locator("[data-state]");
  await expect(choice).toContainText("the worst");
  await page.getByLabel("State").selectOption({ label: "parked" });
  await expect(choice).toContainText("apart");
  await expect(cell(page, "coupling.carries")).toHaveText("open");
  await expect(page.locator("[data-volts]")).toHaveCount(1);
  await page.getByLabel("State").selectOption({ label: "cranking through the join" });
  await expect(choice).toContainText(/starter \d+ A at \d+\.\d V, of it \d+ A from the aux battery; F\d opens after/);
  await expect(cell(page, "f1.carries")).toHaveText(/^−\d+ A$/);
  await page.getByLabel("State").selectOption("");
  await expect(page.locator("[data-volts]").nth(2)).toBeAttached();
  await expect(page.locator("[data-joint='c1.from']")).toHaveText(/^\d+ mV$/);
});

test("the states are reached by a key", async ({ page }) => {
  const { section } = await create({ title: "Keys" });
  await page.goto(section);
  await expect(cell(page, "aux.part")).toBeVisible();
  await page.keyboard.press("s");
  await expect(page.locator("[data-state=cruise]")).toBeVisible();
  await page.keyboard.press("s");
  await expect(page.locator("[data-state=early]")).toBeVisible();
});

test("a fuse opens its picture of time against current, with the words beside it", async ({ page }) => {
  const { section } = await create({ title: "Curve", aux: { capacityAh: 200 } });
  await page.goto(section);
  await part(page, "f1").click();
  const panel = page.getByRole("region", { name: "F1" });
  const picture = panel.locator("figure");
  await expect(picture.locator("[data-band]")).toHaveAttribute("d", /^M[\d.]+,[\d.]+L/);
  await expect(picture).toContainText(/Short at the far end, \d+ A: F1 opens in [\d.]+ s to [\d.]+ s, C1 bears it for/);
  await panel.getByText("breaker that resets itself").click();
  await expect(panel).toContainText("closes on the fault again and again");
  await panel.getByRole("button", { name: "Fit a fuse" }).click();
  await expect(panel).not.toContainText("closes on the fault");
  await accessible(page);
});
