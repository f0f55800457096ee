import { cell, create, draft, expect, part, saved, test } from "../test";

/** What a browser may do with its store, as a script that runs before the page's own. */
const stores: Record<string, () => void> = {
  full: () => {
    IDBFactory.prototype.open = () => {
      throw new DOMException("full", "QuotaExceededError");
    };
    Storage.prototype.setItem = () => {
      throw new DOMException("full", "QuotaExceededError");
    };
  },
  forbidden: () => {
    for (const name of ["localStorage", "sessionStorage"]) {
      Object.defineProperty(window, name, {
        get: () => {
          throw new DOMException("forbidden", "SecurityError");
        },
      });
    }
  },
};

for (const [what, script] of Object.entries(stores)) {
  test(`with a ${what} store all works, and nothing typed is lost while the server answers`, async ({ page }) => {
    await page.addInitScript(script);
    const { id, section } = await create({ title: `A ${what} store` });
    await page.goto(section);
    await part(page, "aux").click();
    await page.getByLabel("Aux battery capacity").fill("185");
    await expect(cell(page, "aux.part")).toContainText("185 Ah");
    await saved(page);
    for (const sheet of ["survey", "methods", "day", "wiring", "cuts", "steps", "record", "browser"]) {
      await page.goto(`${section}/${sheet}`);
      await expect(page.getByRole("main").getByRole("heading", { level: 1 })).toBeAttached();
    }
    await expect(page.getByRole("alert")).toContainText("This browser keeps nothing");
    await page.goto(section);
    await expect(cell(page, "aux.part")).toContainText("185 Ah");
    expect((await draft(id)).document).toMatchObject({ aux: { capacityAh: 185 } });
  });
}

test.describe("without an answer of the server", () => {
  test.use({ allowed: /Failed to load resource/ });

  test("where the small store is full the roomier one keeps what was typed, through a reload", async ({ page }) => {
    await page.addInitScript(() => {
      const set = Storage.prototype.setItem;
      Storage.prototype.setItem = function (name, text) {
        if (this === window.localStorage) throw new DOMException("full", "QuotaExceededError");
        set.call(this, name, text);
      };
    });
    const { section } = await create({ title: "Full, and not alone" });
    await page.goto(section);
    await part(page, "aux").click();
    await page.route("**/draft", (route) => route.abort());
    await page.getByLabel("Aux battery capacity").fill("175");
    await expect(page.getByText("not saved yet: kept in this browser")).toBeVisible();
    await page.reload();
    await expect(cell(page, "aux.part")).toContainText("175 Ah");
  });

  test("a full store is told, and what was typed is saved when the server answers again", async ({ page }) => {
    await page.addInitScript(stores.full as () => void);
    const { id, section } = await create({ title: "Full, and alone" });
    await page.goto(section);
    await part(page, "aux").click();
    await page.route("**/draft", (route) => route.abort());
    await page.getByLabel("Aux battery capacity").fill("165");
    await expect(page.getByText("not saved yet, and this browser cannot keep it")).toBeVisible();
    await page.unroute("**/draft");
    await saved(page);
    expect((await draft(id)).document).toMatchObject({ aux: { capacityAh: 165 } });
  });
});

test.describe("a draft that the server refuses", () => {
  test.use({ allowed: /status of 422/ });

  test("says that it cannot be saved, and why, and is saved once it can be", async ({ page }) => {
    const { id, section } = await create({ title: "Refused" });
    await page.goto(section);
    await part(page, "aux").click();
    const why = { type: "urn:epitrope:input", title: "Unprocessable Entity", status: 422, detail: "no", problems: [{ field: "aux.capacityAh", value: "175", wrong: "is out of range", allowed: "5 to 20 Ah" }] };
    await page.route("**/draft", (route) => route.fulfill({ status: 422, contentType: "application/problem+json", body: JSON.stringify(why) }));
    await page.getByLabel("Aux battery capacity").fill("175");
    await expect(page.getByText("cannot be saved, as aux.capacityAh is out of range; allowed: 5 to 20 Ah: kept in this browser")).toBeVisible();
    await page.unroute("**/draft");
    await saved(page);
    expect((await draft(id)).document).toMatchObject({ aux: { capacityAh: 175 } });
  });
});

test("a store that is wiped while one types loses nothing", async ({ page }) => {
  const { id, section } = await create({ title: "Wiped" });
  await page.goto(section);
  await part(page, "aux").click();
  const field = page.getByLabel("Aux battery capacity");
  await field.fill("14");
  await page.evaluate(() => {
    localStorage.clear();
    sessionStorage.clear();
  });
  await field.fill("145");
  await saved(page);
  await page.reload();
  await expect(cell(page, "aux.part")).toContainText("145 Ah");
  expect((await draft(id)).document).toMatchObject({ aux: { capacityAh: 145 } });
});
