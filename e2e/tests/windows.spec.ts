import { cell, create, draft, expect, part, saved, test } from "../test";

test.use({ allowed: /status of (409|410)|ERR_FAILED/ });

test("two windows on one job: different fields are joined", async ({ page, context }) => {
  const { id, section } = await create({ title: "Two" });
  const other = await context.newPage();
  await page.goto(section);
  await other.goto(section);
  await part(page, "aux").click();
  await page.getByLabel("Aux battery capacity").fill("150");
  await saved(page);
  await part(other, "alternator").click();
  await other.getByLabel("Alternator label").fill("200 A");
  await expect(cell(other, "aux.part")).toContainText("150 Ah");
  await expect(cell(other, "alternator.part")).toHaveText("200 A");
  await expect(other.getByText(/Taken in from another window: Aux battery capacity/)).toBeVisible();
  await expect.poll(async () => JSON.stringify((await draft(id)).document)).toContain('"label":"200 A"');
  expect(JSON.stringify((await draft(id)).document)).toContain('"capacityAh":150');
  await expect(cell(page, "alternator.part")).toHaveText("200 A");
});

test("two windows on one field: both are shown and one is chosen", async ({ page, context }) => {
  const { id, section } = await create({ title: "Clash" });
  const other = await context.newPage();
  await page.goto(section);
  await other.goto(section);
  for (const p of [page, other]) await part(p, "aux").click();
  await other.route("**/draft", (route) => route.abort());
  await other.route(`**/api/jobs/${id}`, (route) => route.abort());
  await page.getByLabel("Aux battery capacity").fill("111");
  await saved(page);
  await other.getByLabel("Aux battery capacity").fill("222");
  await expect(other.getByText(/not saved yet: kept in this browser/)).toBeVisible();
  await other.unroute("**/draft");
  await other.unroute(`**/api/jobs/${id}`);
  const dialog = other.getByRole("dialog", { name: "Changed in two windows" });
  await expect(dialog).toContainText("this window: 222 Ah");
  await expect(dialog).toContainText("the other: 111 Ah");
  await dialog.getByRole("button", { name: "Go on with these" }).click();
  await expect.poll(async () => JSON.stringify((await draft(id)).document)).toContain('"capacityAh":222');
  await expect(cell(page, "aux.part")).toContainText("222 Ah");
});

test("a job deleted in another window is not lost", async ({ page, context }) => {
  const { id, section } = await create({ title: "Going, going" });
  await page.goto(section);
  const other = await context.newPage();
  await other.goto(`${section}/record`);
  await other.getByRole("button", { name: "Delete this job" }).click();
  await expect(other.getByText("“Going, going” is deleted.")).toBeVisible();
  await part(page, "aux").click();
  await page.getByLabel("Aux battery capacity").fill("333");
  await expect(page.getByText("This job was deleted in another window")).toBeVisible();
  await page.getByRole("button", { name: "Put the job back" }).click();
  await expect.poll(async () => JSON.stringify((await draft(id)).document)).toContain('"capacityAh":333');
  await saved(page);
});
