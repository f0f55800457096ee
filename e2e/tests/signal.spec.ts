import { create, draft, expect, saved, test, turn } from "../test";

test("on a phone: a hunt for a feed point, state by state; the trap is told, the find is taken", async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  const { id, section } = await create({ title: "Hunt", alternator: { label: "90/180 A" } });
  await page.goto(`${section}/survey`);
  await page.getByRole("navigation", { name: "Survey" }).getByRole("button", { name: "Feed point" }).click();
  const hunt = page.getByRole("region", { name: "Feed point hunt" });
  for (const name of ["F18 radio", "F12 rear wiper", "F3 clock"]) {
    await hunt.getByLabel("Fuse to test").fill(name);
    await hunt.getByLabel("Fuse to test").press("Enter");
    await expect(hunt.getByRole("group", { name })).toBeVisible();
  }
  const say = (name: string, answer: "live" | "dead") => hunt.getByRole("group", { name }).getByText(answer, { exact: true }).click();
  await say("F18 radio", "dead");
  await say("F12 rear wiper", "dead");
  await say("F3 clock", "live");
  await expect(hunt).toContainText("Live with the key out: permanent positive carries no information");
  for (const [stage, radio, wiper] of [["Ignition on", "live", "live"], ["Accessory", "live", "dead"], ["Running", "live", "live"], ["Cranking", "dead", "dead"], ["After sleep", "dead", "dead"]] as const) {
    await hunt.getByRole("tab", { name: stage }).click();
    await expect(hunt.getByRole("group", { name: "F3 clock" })).toBeHidden();
    await say("F18 radio", radio);
    await say("F12 rear wiper", wiper);
  }
  await expect(hunt.getByText("live at accessory, a trap")).toBeVisible();
  await expect(hunt.locator("[data-list=feeds]").first()).toContainText("F12 rear wiper: live with the ignition, the best so far");
  await expect(hunt.locator("[data-list=feeds]").first()).toContainText("Tap holder in F12 rear wiper");
  await hunt.getByRole("button", { name: "Take F18 radio" }).click();
  await saved(page);
  await turn(page, "1 Section");
  await page.locator("[data-part=coupling]").click();
  await expect(page.getByRole("region", { name: "DC-DC" })).toContainText("F18 radio is live at accessory: left so, the charger takes");
  await page.getByRole("button", { name: "Take another" }).first().click();
  await expect(page.getByText("is live at accessory: left so")).toHaveCount(0);
  await saved(page);
  const { document } = await draft(id);
  expect(Object.keys(document.feeds ?? {})).toHaveLength(3);
  expect(document.signal).toBeUndefined();
});

test("a profile mismatch is cured by its button", async ({ page }) => {
  const { id, section } = await create({ title: "Gel on the default", aux: { chemistry: "gel", capacityAh: 100, place: "rear" }, profile: { setting: "agm" } });
  await page.goto(`${section}/wiring`);
  await page.getByRole("tab", { name: "Settings" }).click();
  const card = page.getByRole("region", { name: "Configuration card" });
  await expect(card).toContainText("The charger is set to “AGM”, 14.7 V: gel is harmed above 14.4 V.");
  await expect(card).toContainText("Across the battery at the end of absorption: 14.6");
  await card.getByRole("button", { name: "Set it to gel" }).click();
  await expect(card).not.toContainText("is harmed above 14.4 V. It would");
  await expect(card).toContainText("Across the battery at the end of absorption: 14.2");
  await expect(card).toContainText("Lead B to ground: a meter against minus shows 0 V");
  await saved(page);
  expect((await draft(id)).document.profile).toBeUndefined();
});

test("a device card made from scratch is used", async ({ page }) => {
  const { id, section } = await create({ title: "Own card", aux: { chemistry: "gel", capacityAh: 100, place: "rear" } });
  await page.goto(`${section}/wiring`);
  await page.getByRole("tab", { name: "Settings" }).click();
  await page.getByLabel("Charger's card").fill("Bench box 30");
  await page.getByLabel("Charger's card").blur();
  await page.getByRole("group", { name: "The charger is set by" }).getByText("a mode button held").click();
  await page.getByRole("button", { name: "Add a setting" }).click();
  const row = page.locator("[data-list=settings]").first();
  await row.getByLabel("Setting").fill("amber");
  await row.getByLabel("Meant for").selectOption("gel");
  await row.getByLabel("Absorption").fill("14.2 V");
  await row.getByLabel("Float").fill("13.6");
  await row.getByLabel("How it is made").fill("hold the button five seconds");
  await row.getByLabel("How it is made").blur();
  const card = page.getByRole("region", { name: "Configuration card" });
  await expect(card).toContainText("Bench box 30, for gel 100 Ah");
  await expect(card).toContainText("Set by a mode button held");
  await expect(card.getByRole("row", { name: /amber.*for this battery.*set/ })).toContainText("hold the button five seconds");
  await row.getByLabel("Absorption").fill("142 V");
  await expect(row).toContainText("Allowed: 13 to 16 V");
  await row.getByLabel("Absorption").fill("14.2 V");
  await row.getByLabel("Absorption").blur();
  await saved(page);
  expect(Object.values((await draft(id)).document.settings ?? {})).toEqual([{ name: "amber", for: "gel", absorptionV: 14.2, floatV: 13.6, how: "hold the button five seconds" }]);
});

test("what was found on a model turns up in the next job on it", async ({ page }) => {
  const tested = { kind: "slot", name: "F12", ratingA: 15, off: "dead", on: "live", accessory: "dead", running: "live", cranking: "live", slept: "dead" };
  const { section } = await create({ title: "First of its kind", vehicle: { kind: "wagon", model: "Heron 3" }, alternator: { label: "90/180 A", regulation: "variable", knownBy: "test" }, routes: { startM: 4.1 }, feeds: { f1: tested } });
  await page.goto(`${section}/survey`);
  await page.getByRole("navigation", { name: "Survey" }).getByRole("button", { name: "Vehicle" }).click();
  const book = page.getByRole("region", { name: "Vehicle book" });
  await expect(book).toContainText("Nothing of this model yet.");
  await book.getByRole("button", { name: "Put what was found here into the book" }).click();
  await expect(book).toContainText("1 job has put something in");
  await expect(book).toContainText("This job has all of it.");

  const next = await create({ title: "Second of its kind" });
  await page.goto(`${next.section}/survey`);
  await page.getByLabel("Model, as the workshop calls it").fill("heron  3");
  await page.getByLabel("Model, as the workshop calls it").blur();
  await expect(book).toContainText("1 feed point");
  await book.getByRole("button", { name: "Start from the book" }).click();
  await expect(book).toContainText("This job has all of it.");
  await saved(page);
  const { document } = await draft(next.id);
  expect(document).toMatchObject({ vehicle: { kind: "wagon", model: "heron  3" }, alternator: { label: "90/180 A", regulation: "variable" }, routes: { startM: 4.1 }, feeds: { f1: tested } });
  expect(document.known).toMatchObject({ "alternator/label": "book", "routes/startM": "book" });
  await page.getByRole("navigation", { name: "Survey" }).getByRole("button", { name: "Feed point" }).click();
  await expect(page.getByRole("region", { name: "Feed point hunt" })).toContainText("F12: live with the ignition, the best so far");
});
