import { Application } from "../application";
import { accessible, cell, create, expect, type Page, part, saved, test, turn, url } from "../test";

/** counted counts what somebody does with hand or keys; a typed figure is one act, its Enter with it. */
function counted(page: Page) {
  let acts = 0;
  return {
    get acts() {
      return acts;
    },
    press: async (name: string | RegExp) => (acts++, await page.getByRole("button", { name }).click()),
    pick: async (text: string) => (acts++, await page.getByRole("region", { name: "Questions" }).getByText(text).click()),
    choose: async (label: string, option: string) => (acts++, await page.getByRole("region", { name: "Questions" }).getByLabel(label, { exact: true }).selectOption(option)),
    type: async (label: string, text: string) => {
      acts++;
      const field = page.getByRole("region", { name: "Questions" }).getByLabel(label);
      await field.fill(text);
      await field.press("Enter");
    },
  };
}

test("a new workshop's first page leads to a first plan, six answers in at most fourteen acts", async ({ page }) => {
  const app = await Application.start(false);
  try {
    await page.goto(app.url);
    await expect(page.getByRole("region", { name: "The first job" })).toContainText("Give six answers");
    await accessible(page);
    const hand = counted(page);
    await hand.press("Begin the first job");
    await hand.choose("Vehicle", "dual-cab ute with canopy");
    await hand.type("Alternator label", "70/140");
    await hand.pick("AGM");
    await hand.type("Aux battery capacity", "100 Ah");
    await hand.pick("in the canopy");
    await hand.type("Daily use", "30 Ah");
    await hand.type("Hours driven a day", "1.5");
    await expect(cell(page, "aux.part")).toHaveText("AGM 100 Ah");
    await expect(page.getByRole("complementary", { name: "Title block" })).toContainText("6 of 20 answers");
    expect(hand.acts).toBeLessThanOrEqual(14);
  } finally {
    await app.stop();
  }
});

test("from a warning to its cure in two acts", async ({ page }) => {
  const { section } = await create({ title: "Cured", aux: { capacityAh: 200 }, pins: { startSize: "4 mm²" } });
  await page.goto(section);
  const notes = page.getByRole("region", { name: "Notes" });
  const warning = (await notes.locator("li").first().innerText()).split("\n").reduce((longest, line) => (line.length > longest.length ? line : longest));
  await notes.getByRole("button", { name: /^Fit \d+ mm²/ }).first().click(); // one act: the warning brings its cure with it
  await expect(notes).not.toContainText(warning);
});

test("from the survey to a pack, by what stands on the sheets alone", async ({ page }) => {
  await page.goto(url());
  await page.getByRole("button", { name: "New job" }).click();
  await page.getByLabel("Title", { exact: true }).fill("A first job");
  await turn(page, "0 Survey");
  for (;;) {
    const next = page.getByRole("button", { name: /^Next: / });
    if ((await next.count()) === 0) break;
    await next.click();
  }
  for (const sheet of ["1 Section", "2 Methods", "3 Day", "4 Wiring", "5 Cuts and parts", "6 Steps", "7 Proof", "8 Trace", "9 Record"]) {
    await turn(page, sheet);
    await expect(page.locator("main")).not.toContainText("did not work");
  }
  await saved(page);
  const pack = page.getByRole("region", { name: "Documents" }).getByRole("link", { name: "PDF, A4" }).first();
  const got = await page.request.get(new URL((await pack.getAttribute("href")) as string, url()).href);
  expect(got.headers()["content-type"]).toBe("application/pdf");
  expect((await got.body()).subarray(0, 5).toString()).toBe("%PDF-");
});

test("what happened stands in the logbook, what was changed among what fails, and what changed between two revisions", async ({ page }) => {
  const { section } = await create({ title: `Years of it ${Date.now().toString(36)}`, aux: { chemistry: "agm", capacityAh: 100 }, alternator: { label: "90/180 A", regulation: "fixed", knownBy: "test", volts: 14.4 } });
  await page.goto(`${section}/record`);
  await page.getByRole("button", { name: "Issue revision 1" }).click();
  await expect(page.getByRole("link", { name: "Revision 1" })).toBeVisible();
  await page.getByLabel("Customer", { exact: true }).fill("Petrel");
  await saved(page);
  await expect(page.getByRole("region", { name: "Revisions" })).toContainText("Customer: not answered → Petrel");

  const log = page.getByRole("region", { name: "Logbook" });
  await expect(log).toContainText("Revision 1 was issued");
  await log.getByText("Add to the log").click();
  await log.getByLabel("Changed", { exact: true }).selectOption({ label: "Aux battery, AGM 100 Ah" });
  await log.getByLabel("By what, and why").fill("swollen after a hot summer");
  await log.getByRole("button", { name: "Add" }).click();
  await expect(log).toContainText("Aux battery changed: swollen after a hot summer");
  await accessible(page);

  await page.goto(`${url()}/failures`);
  await page.getByLabel("Find").fill("aux battery");
  await expect(page.getByRole("row", { name: /aux battery, AGM 100 Ah/ })).toBeVisible();
  await accessible(page);
});

test("a fault is traced in what was found, before anything of ours is in", async ({ page }) => {
  const { id, section } = await create({ title: "As found", alternator: { regulation: "variable" }, aux: { chemistry: "lifepo4", capacityAh: 200 }, have: { coupling: "vsr", couplingA: 120 } });
  await page.goto(`${section}/trace`);
  const what = page.getByRole("region", { name: "What is traced" });
  await expect(what).toContainText("As it was found: voltage-sensing relay");
  await expect(what).toContainText("Nobody knows");
  await page.getByRole("region", { name: "Test", exact: true }).getByRole("listitem").first().getByRole("button").click();
  await page.getByRole("button", { name: "Begin" }).click();
  await expect(page.getByRole("region", { name: "What may be wrong", exact: true })).toBeVisible();
  await expect.poll(async () => (await (await page.request.get(`${url()}/api/jobs/${id}/proof`)).json()).entries.map((e: { found?: boolean }) => e.found)).toEqual([true]);
  await page.goto(url());
  await expect(page.getByRole("region", { name: "complained of" })).toContainText("As found");
});

test("the board opens what a job waits for, and a filter stays", async ({ page }) => {
  const title = `Filtered ${Date.now().toString(36)}`;
  await create({ title, pins: { startSize: "4 mm²" } });
  await page.goto(url());
  await page.getByRole("button", { name: "with a stop" }).click();
  await page.getByLabel("Find a job").fill(title);
  await expect(page.locator("[data-job]")).toHaveCount(1);
  await page.reload();
  await expect(page.getByRole("region", { name: "What waits" })).toHaveCount(0);
  await page.getByRole("button", { name: "The whole day" }).click();
  await expect(page.getByRole("region", { name: "What waits" })).toBeVisible();
});

test("part of a drawing comes nearer by keys, and the whole comes back", async ({ page }) => {
  const { section } = await create({ title: "Near" });
  await page.goto(`${section}/wiring`);
  await page.getByRole("tab", { name: "Drawing" }).click();
  const drawing = page.getByRole("region", { name: "Drawing" });
  const seen = () => drawing.locator("svg").getAttribute("viewBox");
  const whole = await seen();
  await drawing.focus();
  await page.keyboard.press("+");
  await expect.poll(seen).not.toBe(whole);
  await page.keyboard.press("ArrowRight");
  await page.getByRole("button", { name: "The whole" }).click();
  await expect.poll(seen).toBe(whole);
  await page.getByRole("tab", { name: "Modes" }).click();
  await expect(page.getByText(/Key on, engine running\./)).toBeVisible();
  await page.getByLabel("Position", { exact: true }).selectOption({ label: "Key off, engine stopped" });
  await expect(page.getByText(/Key off, engine stopped\. ?Thick is live/)).toBeVisible();
  expect(await page.locator("figure [data-live]").count()).toBeGreaterThan(0);
});
