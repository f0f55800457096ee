import { accessible, create, draft, expect, saved, test, url } from "../test";
import { ask } from "../ask";

const usual = { title: "Put together otherwise", alternator: { label: "120/200 A" }, aux: { chemistry: "agm", capacityAh: 100 }, use: { dailyAh: 40 } };

test("a run from a body-builder's stud, and what hangs on it, is asked, drawn, judged and cured", async ({ page }) => {
  const { section } = await create({ ...usual, pins: { coupling: "dcdc" } });
  await page.goto(`${section}/survey`);
  await page.getByRole("button", { name: "How the run is put together" }).click();
  const group = page.getByRole("region", { name: "How the run is put together", exact: true });
  await expect(group.getByLabel("The feed's maker allows")).toHaveCount(0);
  await group.getByText("a body-builder's stud or socket").click();
  await group.getByLabel("The feed's maker allows").fill("20 A");
  await group.getByRole("group", { name: "The stud is live" }).getByText("always", { exact: true }).click();
  await accessible(page);
  await saved(page);

  const body = page.locator("body");
  await page.goto(section);
  await expect(body).toContainText("and 20 A is what its maker allows");
  await page.goto(`${section}/survey`);
  await group.getByLabel("The feed's maker allows").fill("180 A");
  await group.getByRole("button", { name: /^Add a fuse block/ }).click();
  await group.getByLabel("Draws at most").fill("10 A");
  await saved(page);
  await page.goto(section);
  await expect(page.locator('[data-part="start"]').first()).toBeVisible();
  await expect(body).not.toContainText("is what its maker allows");
  await page.goto(`${section}/wiring`);
  await page.getByRole("tab", { name: "Drawing" }).click();
  await expect(page.locator("svg text", { hasText: /^P1$/ }).first()).toBeVisible();
});

test("a join that nothing fuses says so, and its cure fuses both ends", async ({ page }) => {
  const { section } = await create({ ...usual, pins: { coupling: "vsr" }, arranged: { fuses: "none" } });
  await page.goto(section);
  await expect(page.locator("body")).toContainText("Nothing opens between the two batteries");
  await expect(page.locator('[data-part="f1"]')).toHaveCount(0);
  await page.getByRole("button", { name: "A fuse at each end" }).first().click();
  await expect(page.locator("body")).not.toContainText("Nothing opens between the two batteries");
  await expect(page.locator('[data-part="f1"]').first()).toBeVisible();
  await saved(page);
});

test("before drilling: what the battery weighs is held against the vehicle and its bolts", async ({ page }) => {
  const { section } = await create(usual);
  await page.goto(`${section}/survey`);
  await page.getByRole("button", { name: "Before drilling" }).click();
  const group = page.getByRole("region", { name: "Before drilling", exact: true });
  const body = page.locator("body");
  await expect(body).toContainText("see what the vehicle, and that axle, may still carry");
  await group.getByLabel("Aux battery weighs").fill("30 kg");
  await group.getByLabel("The vehicle may still carry").fill("20 kg");
  await expect(body).toContainText("the vehicle may still carry 20 kg");
  await group.getByLabel("Battery or box is held by bolts").fill("1");
  await group.getByRole("group", { name: "Of size" }).getByText("M6", { exact: true }).click();
  // 30 kg at twenty times their weight are 5.9 kN; an M6 of class 8.8 holds 6.4 kN.
  await expect(body).toContainText("30 kg pull with 5.9 kN along the vehicle");
  await group.getByRole("group", { name: "Through" }).getByText("sheet alone").click();
  await expect(body).toContainText("tear out of sheet");
  await accessible(page);
  await saved(page);
});

test("a recall finds the vehicle by a serial number", async ({ page }) => {
  const { section } = await create({ ...usual, title: "Found by its charger" });
  await page.goto(`${section}/record`);
  const fitted = page.getByRole("region", { name: "Serial numbers and lots" });
  await fitted.getByRole("button", { name: "Add a part" }).click();
  await fitted.getByLabel("Serial number").fill("QX-77120-B");
  await accessible(page);
  await saved(page);
  await page.goto(url());
  await page.getByRole("searchbox").fill("qx-77120");
  await expect(page.getByRole("link", { name: "Found by its charger" })).toBeVisible();
  await page.getByRole("searchbox").fill("qx-77121");
  await expect(page.getByRole("link", { name: "Found by its charger" })).toHaveCount(0);
});

test("a charger is taken from the shelf: what fits, what does not and why, and what its card leaves unsaid", async ({ page }) => {
  const put = (item: Record<string, string>) =>
    ask(`${url()}/api/parts`, { method: "PUT", headers: { "Content-Type": "application/json" }, body: JSON.stringify({ kind: "charger", ...item }) });
  const whole = { "rating A": "20", "efficiency %": "92", "cut-out V": "11", "restart V": "12.6", "largest fuse A": "60", "full up to °C": "60" };
  expect((await put({ ...whole, name: "Shelf plover", profiles: "agm lifepo4", price: "120", currency: "EUR", stock: "2" })).status).toBe(204);
  expect((await put({ ...whole, name: "Shelf heron", profiles: "gel" })).status).toBe(204);
  expect((await put({ "rating A": "20", name: "Shelf rail" })).status).toBe(204);
  const refused = await put({ ...whole, name: "Shelf crake", profiles: "nickel" });
  expect(refused.status).toBe(422);
  expect(await refused.text()).toContain("lifepo4");

  const { id, section } = await create(usual);
  await page.goto(`${section}/methods`);
  await page.getByRole("tab", { name: "From the shelf" }).click();
  const shelf = page.getByRole("table", { name: "Chargers of the parts book" });
  await expect(shelf.getByRole("row", { name: /Shelf heron/ })).toContainText("no profile for AGM");
  await expect(shelf.getByRole("row", { name: /Shelf rail/ })).toContainText("Where it stops: 11.8 V reckoned");
  await expect(shelf.getByRole("row", { name: /Shelf plover/ })).toContainText("120.00 EUR");
  await accessible(page);
  await shelf.getByRole("button", { name: "Take Shelf plover" }).click();
  await expect(shelf.getByRole("row", { name: /Shelf plover/ })).toContainText("fitted");
  await saved(page);
  const taken = (await draft(id)).document as unknown as { card: { name: string; outputA: number; cutOutV: number } };
  expect(taken.card).toMatchObject({ name: "Shelf plover", outputA: 20, cutOutV: 11 });
});
