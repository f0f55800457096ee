import { Application } from "../application";
import { ask } from "../ask";
import { cell, expect, part, test } from "../test";

test.use({ allowed: /status of 50\d|ERR_CONNECTION_REFUSED|ERR_EMPTY_RESPONSE|ERR_CONNECTION_RESET|ERR_INCOMPLETE_CHUNKED/ });

let app: Application;
test.beforeAll(async () => {
  app = await Application.start(true);
});
test.afterAll(() => app.stop());

test("a job that was taken along opens without the server, is worked out here, and what is done to it arrives", async ({ page }) => {
  test.slow();
  const { id, section } = await app.create({ title: "Taken along" });
  await page.goto(section);
  await page.getByRole("button", { name: "Take along" }).click();
  await expect(page.getByRole("button", { name: "Taken along" })).toBeVisible({ timeout: 30_000 });
  await page.waitForFunction(() => navigator.serviceWorker.controller !== null);
  await app.stopServer();
  await page.goto(`${app.url}/jobs/${id}`);
  await expect(cell(page, "aux.part")).toContainText("100 Ah");
  await part(page, "aux").click();
  await page.getByLabel("Aux battery capacity").fill("280");
  await expect(cell(page, "aux.part")).toContainText("280 Ah");
  await page.goto(`${app.url}/jobs/${id}/steps`);
  const step = page.getByRole("region", { name: "Step", exact: true });
  await expect(step).toContainText("0 of");
  await page.screenshot({ path: "/tmp/away.png" });
  await app.startServer();
  await expect.poll(async () => (await app.draft(id)).document.aux?.capacityAh, { timeout: 30_000 }).toBe(280);
  expect((await ask(`${app.url}/api/jobs/${id}`)).ok).toBe(true);
});
