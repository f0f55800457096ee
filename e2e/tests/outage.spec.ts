import { Application } from "../application";
import { cell, expect, part, saved, test } from "../test";

test.use({ allowed: /status of 503|ERR_CONNECTION_REFUSED|ERR_EMPTY_RESPONSE|ERR_CONNECTION_RESET/ });

let app: Application;
test.beforeAll(async () => {
  app = await Application.start(false);
});
test.afterAll(() => app.stop());

test("the database stopped while typing and started again loses nothing", async ({ page }) => {
  const { id, section } = await app.create({ title: "Outage" });
  await page.goto(section);
  await part(page, "aux").click();
  const capacity = page.getByLabel("Aux battery capacity");
  await capacity.fill("120");
  await saved(page);
  app.stopDatabase();
  await capacity.fill("260");
  await expect(cell(page, "aux.part")).toContainText("260 Ah");
  await expect(page.getByText(/not saved yet: kept in this browser/)).toBeVisible();
  await page.reload();
  await expect(cell(page, "aux.part")).toContainText("260 Ah");
  app.startDatabase();
  await expect.poll(async () => (await app.draft(id)).document.aux?.capacityAh, { timeout: 30_000 }).toBe(260);
  await saved(page);
});

test("the server stopped while typing: kept here, sent when it is back", async ({ page }) => {
  const { id, section } = await app.create({ title: "Away" });
  await page.goto(section);
  await expect(cell(page, "aux.part")).toContainText("100 Ah");
  await part(page, "aux").click();
  await expect(page.getByLabel("Aux battery capacity")).toBeVisible();
  await app.stopServer();
  await page.getByLabel("Aux battery capacity").fill("280");
  await expect(page.getByText("The server does not answer. What you type is saved as soon as it does")).toBeVisible();
  await app.startServer();
  await expect(cell(page, "aux.part")).toContainText("280 Ah", { timeout: 20_000 });
  await expect.poll(async () => (await app.draft(id)).document.aux?.capacityAh, { timeout: 20_000 }).toBe(280);
  await expect(page.getByText("The server does not answer.")).toBeHidden();
});
