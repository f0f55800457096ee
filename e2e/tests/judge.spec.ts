import { cell, create, draft, expect, saved, test, turn, url } from "../test";

// Two windows that save at once: one is told so, and takes the other's in.
test.use({ allowed: /status of 409/ });

const steady = { label: "60/120 A", regulation: "fixed", knownBy: "test", volts: 14.4 };

test("on a phone: from the survey to the chosen method", async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await page.goto(url());
  await page.getByRole("button", { name: "New job" }).click();
  await turn(page, "0 Survey");
  const survey = page.getByRole("main");
  await survey.getByRole("combobox", { name: "Vehicle", exact: true }).selectOption("wagon");
  await survey.getByRole("group", { name: "Stops and starts by itself" }).getByText("no", { exact: true }).click();
  await page.getByRole("button", { name: "Next: alternator" }).click();
  await survey.getByLabel("Alternator label").fill("60/120");
  await survey.getByLabel("Alternator label").blur();
  await survey.getByRole("group", { name: "Regulation", exact: true }).getByText("fixed", { exact: true }).click();
  await survey.getByRole("group", { name: "What I enter now is" }).getByText("from the vehicle book").click();
  await survey.getByRole("group", { name: "Regulation known by" }).getByText("logged test").click();
  await survey.getByLabel("Charging voltage, warm, at cruise").fill("14.4 V");
  await page.getByRole("button", { name: "Next: start battery" }).click();
  await page.getByRole("button", { name: "Next: needs" }).click();
  await page.getByRole("button", { name: "+ compressor fridge" }).click();
  const fridge = page.getByRole("listitem", { name: "compressor fridge" });
  await expect(fridge).toContainText("31.5 Ah");
  await fridge.getByLabel("Power each").fill("36 W");
  await expect(fridge).toContainText("25.2 Ah");
  await survey.getByLabel("Hours driven a day").fill("2");
  await expect(page.getByRole("region", { name: "Balance" })).toContainText("full after each drive");
  await page.getByRole("button", { name: "Next: aux battery" }).click();
  await survey.getByRole("group", { name: "Aux battery chemistry" }).getByText("AGM").click();
  await survey.getByRole("group", { name: "Aux battery sits" }).getByText("under a front seat").click();
  await expect(page.getByRole("complementary", { name: "What it means" })).toContainText("voltage-sensing relay", { ignoreCase: true });
  await turn(page, "2 Methods");
  await expect(page.locator("[data-of=vsr]")).toContainText("best for this job");
  await expect(page.getByRole("region", { name: "Reasons" })).toContainText("Steady regulation and lead at both ends");
  await saved(page);
  const id = new URL(page.url()).pathname.split("/")[2] as string;
  const { document } = await draft(id);
  expect(document).toMatchObject({ alternator: { label: "60/120 A", regulation: "fixed", knownBy: "test", volts: 14.4 }, aux: { chemistry: "agm", place: "seat" } });
  expect(document.known).toMatchObject({ "vehicle/kind": "measured", "alternator/label": "measured", "alternator/volts": "book" });
});

test("changing the chemistry turns the verdict and says why", async ({ page }) => {
  const { section } = await create({ title: "Turn", alternator: steady, aux: { chemistry: "agm", capacityAh: 100, place: "seat" }, use: { dailyAh: 30, drivenHours: 2 } });
  await page.goto(`${section}/methods`);
  await expect(page.locator("[data-of=vsr]")).toContainText("best for this job");
  await page.keyboard.press("0");
  await page.getByRole("navigation", { name: "Survey" }).getByRole("button", { name: "Aux battery" }).click();
  await page.getByRole("group", { name: "Aux battery chemistry" }).getByText("LiFePO4").click();
  await turn(page, "2 Methods");
  await expect(page.locator("[data-of=vsr]")).toContainText("ruled out");
  await expect(page.locator("[data-of=dcdc]")).toContainText("best for this job");
  await page.getByRole("button", { name: "voltage-sensing relay", exact: true }).click();
  const reasons = page.getByRole("region", { name: "Reasons" });
  await expect(reasons).toContainText("LiFePO4 rests at 13.2–13.3 V from half charge up");
  await expect(reasons).toContainText("Unless: A lead aux battery.");
});

test.describe("without an answer", () => {
  test.use({ allowed: /Failed to load resource/ });

  test("a coupling whose run is not answered says so, and holds up no other", async ({ page }) => {
    const { section } = await create({ title: "One by one", aux: { chemistry: "agm", capacityAh: 100, place: "rear" }, use: { dailyAh: 30, drivenHours: 2 } });
    await page.route("**/api/methods/second", (route) => route.abort());
    await page.goto(`${section}/methods`);
    await expect(page.locator("[data-of=dcdc]")).toContainText("best for this job");
    await page.getByRole("button", { name: "All 16 figures" }).click();
    const full = page.getByRole("row", { name: /^Full / }).getByRole("cell");
    const columns = await page.locator("th:has([data-method])").evaluateAll((all) => all.map((th) => th.querySelector("[data-method]")?.getAttribute("data-method")));
    await expect(full.nth(columns.indexOf("dcdc"))).toHaveText(/ h$/);
    await expect(full.nth(columns.indexOf("second"))).toHaveText("no answer");
    await page.unroute("**/api/methods/second");
    await page.reload();
    await page.getByRole("button", { name: "All 16 figures" }).click();
    await expect(full.nth(columns.indexOf("second"))).toHaveText(/ h$/);
  });
});

test("pinning against the advice is done, and says what follows", async ({ page }) => {
  const { id, section } = await create({ title: "Pinned", alternator: { regulation: "variable" }, aux: { chemistry: "agm", capacityAh: 100, place: "rear" } });
  await page.goto(`${section}/methods`);
  await page.getByRole("button", { name: "manual selector", exact: true }).click();
  await page.getByRole("button", { name: "Pin the manual selector" }).click();
  await expect(page.locator("[data-of=selector]")).toContainText("pinned, ruled out");
  await expect(page.getByRole("button", { name: "Unpin the manual selector" })).toBeVisible();
  await expect(page.getByRole("region", { name: "Reasons" })).toContainText("left joined, both batteries go flat");
  await page.keyboard.press("1");
  await expect(cell(page, "coupling.part")).toContainText("200 A");
  await expect(page.getByRole("region", { name: "Notes" })).toContainText("The manual selector is pinned, and the rules are against it");
  await page.keyboard.press("4");
  await page.getByRole("tab", { name: "Modes" }).click();
  const forbidden = page.getByRole("region", { name: "Every position" }).locator("tr[data-verdict=forbidden]").filter({ hasText: "selector always" }).first();
  await expect(forbidden).toContainText("Joined with the key out");
  await expect(forbidden).toContainText("Prevented by:");
  await page.getByRole("tab", { name: "What stays live" }).click();
  await expect(page.getByRole("region", { name: "Live map" })).toContainText("C1 F1 taken out and F2 taken out");
  await saved(page);
  expect((await draft(id)).document).toMatchObject({ pins: { coupling: "selector" } });
  // Going from sheet to sheet kept the way back.
  await page.getByRole("button", { name: "Undo" }).click();
  await saved(page);
  expect((await draft(id)).document.pins).toBeUndefined();
});

test("what was found is taken in wire by wire, judged, and held against the new design", async ({ page }) => {
  const { section } = await create({ title: "Found", alternator: { label: "90/180 A", regulation: "variable", knownBy: "test" }, aux: { chemistry: "agm", capacityAh: 100, place: "rear" }, use: { dailyAh: 40, drivenHours: 2 }, routes: { startM: 5, auxM: 0.9 } });
  await page.goto(`${section}/wiring`);
  await page.getByRole("tab", { name: "Before and after" }).click();
  await expect(page.getByText("As a whole it cannot be judged yet")).toContainText("which coupling was found");
  await page.getByRole("link", { name: "To the survey" }).click();
  await page.getByRole("navigation", { name: "Survey" }).getByRole("button", { name: "As found" }).click();
  await page.getByLabel("Found coupling", { exact: true }).selectOption("voltage-sensing relay");
  await page.getByRole("button", { name: "Add a wire" }).click();
  const first = page.locator("[data-list][data-row]").first();
  await expect(first).toContainText("is there a fuse at end A");
  await first.getByLabel("End A", { exact: true }).fill("start battery");
  await first.getByLabel("End B", { exact: true }).fill("relay");
  await first.getByLabel("Cable", { exact: true }).fill("35 mm2");
  await first.getByLabel("Length").fill("5.2 m");
  await first.getByLabel("Fuse at A").fill("60 A");
  await first.getByLabel("Fuse from A by").fill("150 mm");
  await expect(first).toContainText("Nothing against it.");
  await expect(first).toContainText("Thick enough for the new design.");
  await first.getByRole("button", { name: "Keep 35 mm²" }).click();
  await page.getByRole("button", { name: "Add a wire" }).click();
  const second = page.locator("[data-list][data-row]").nth(1);
  await second.getByLabel("Wire is").selectOption("aux run");
  await second.getByLabel("Cable", { exact: true }).fill("8 mm");
  await expect(second).toContainText("outside diameter");
  await second.getByLabel("Cable", { exact: true }).fill("6 mm auto");
  await expect(second).toContainText("is there a fuse at end B");
  await second.getByRole("group", { name: "At end B there is" }).getByText("no fuse", { exact: true }).click();
  await expect(second).toContainText("No fuse at end B");
  await second.getByLabel("Length").fill("1 m");
  await second.getByLabel("Length").blur();
  await saved(page);
  await page.keyboard.press("4");
  const table = page.getByRole("table", { name: "What was found, and the new design" });
  await expect(table.getByRole("row", { name: /^Coupling/ })).toContainText("voltage-sensing relay");
  await expect(table.getByRole("row", { name: /^Coupling/ })).toContainText("DC-DC charger");
  await expect(table.getByRole("row", { name: /^Start run/ }).getByRole("cell").nth(1)).toContainText("35 mm²");
  await expect(table.getByRole("row", { name: /^Makes it unfit/ })).toContainText("never closes or drops out");
});

test("two windows add a load each; neither is lost", async ({ page, context }) => {
  const { id, section } = await create({ title: "Two add" });
  const other = await context.newPage();
  for (const p of [page, other]) {
    await p.goto(`${section}/survey`);
    await p.getByRole("navigation", { name: "Survey" }).getByRole("button", { name: "Needs" }).click();
  }
  await page.getByRole("button", { name: "+ freezer" }).click();
  await other.getByRole("button", { name: "+ roof fan" }).click();
  await saved(page);
  await saved(other);
  await expect(page.getByRole("listitem", { name: "roof fan" })).toBeVisible({ timeout: 15_000 });
  await expect(page.getByRole("listitem", { name: "freezer" })).toBeVisible();
  expect(Object.values((await draft(id)).document.loads ?? {}).map((l) => (l as { kind: string }).kind).sort()).toEqual(["fan", "freezer"]);
  await page.getByRole("button", { name: "Remove freezer" }).click();
  await expect(page.getByRole("listitem", { name: "freezer" })).toBeHidden();
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(page.getByRole("listitem", { name: "freezer" })).toBeVisible();
});

test("a charger's size is taken from its list, and a school changed", async ({ page }) => {
  const { id, section } = await create({ title: "Sizes", use: { dailyAh: 40, drivenHours: 2 } });
  await page.goto(`${section}/methods`);
  await page.getByRole("tab", { name: "Charger size" }).click();
  await expect(page.getByRole("row", { name: /advised/ })).toContainText("nothing");
  await page.getByRole("button", { name: "Take two of 30 A" }).click();
  await expect(page.getByRole("row", { name: /two of 30 A.*fitted/ })).toBeVisible();
  await saved(page);
  expect((await draft(id)).document.pins).toMatchObject({ chargerA: 30, chargerCount: 2, coupling: "dcdc" });
  await page.getByRole("tab", { name: "Where the trade differs" }).click();
  const drop = page.getByRole("region", { name: "How much drop is allowed?" });
  await drop.getByText("10 %", { exact: true }).click();
  await expect(drop.getByLabel("10 %")).toBeChecked();
  await saved(page);
  expect((await draft(id)).document).toMatchObject({ limits: { chargerDrop: 10 } });
});
