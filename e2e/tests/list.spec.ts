import { Application } from "../application";
import { accessible, expect, test, turn } from "../test";

// So many jobs would push those of other tests off the first page: they stand in an application of their own.
let app: Application;
test.beforeAll(async () => {
  app = await Application.start(false);
});
test.afterAll(() => app.stop());

// An open job that is deleted may ask for itself once more.
test.use({ allowed: /status of 410/ });

test("a job is found among many as its words are typed, a page at a time", async ({ page }) => {
  const customer = `Curlew ${Date.now().toString(36)}`;
  for (let i = 0; i < 53; i++) await app.create({ title: `Float ${i}`, customer });
  await app.create({ title: "Bücherbus, zweite Batterie", customer });
  await page.goto(app.url);
  const find = page.getByLabel("Find a job");
  const jobs = page.locator("[data-job]");
  await find.fill(customer);
  await expect(jobs).toHaveCount(50);
  await accessible(page);
  await page.getByRole("button", { name: "More jobs" }).click();
  await expect(jobs).toHaveCount(54);
  await expect(page.getByRole("button", { name: "More jobs" })).toHaveCount(0);
  await find.fill(`${customer} bucher`);
  await expect(jobs).toHaveCount(1);
  await expect(jobs).toContainText("Bücherbus, zweite Batterie");
  await expect(jobs).toContainText("DC-DC charger");
  await jobs.getByRole("link").click();
  await turn(page, "9 Record");
  await page.getByRole("button", { name: "Delete this job" }).click();
  await expect(page.getByText(/“Bücherbus.*” is deleted/)).toBeVisible();
  await find.fill(`${customer} bucher`);
  await expect(page.getByText(/No job has “.*bucher” in its title/)).toBeVisible();
  await page.getByRole("button", { name: "Put it back" }).click();
  await expect(jobs).toHaveCount(1);
});

test.describe("an answer lost on the way", () => {
  test.use({ allowed: /ERR_FAILED/ });

  test("a new job whose answer is lost on the way is made once", async ({ page }) => {
    await page.goto(app.url);
    const made: string[] = [];
    let lost = false;
    await page.route("**/api/jobs", async (route) => {
      if (route.request().method() !== "POST") return route.continue();
      const answer = await route.fetch();
      made.push(((await answer.json()) as { id: string }).id);
      if (lost) return route.fulfill({ response: answer });
      lost = true;
      return route.abort();
    });
    await page.getByRole("button", { name: "New job" }).click();
    await expect(page).toHaveURL(/\/jobs\//);
    expect(made).toHaveLength(2);
    expect(new Set(made).size).toBe(1);
  });
});

test.describe("a tick that cannot be kept", () => {
  test("is told, and keeps none of the others from being sent", async ({ page }) => {
    const { id, section } = await app.create({ title: "Bad tick" });
    await page.addInitScript((key: string) => {
      const at = new Date().toISOString();
      const tick = { id: "0b6c7c7e-8a36-4a3e-9d0e-1f1f6a1b0c11", step: "", done: true, by: "Ivo", at };
      if (!localStorage.getItem("once")) localStorage.setItem(key, JSON.stringify([tick, { ...tick, id: "0b6c7c7e-8a36-4a3e-9d0e-1f1f6a1b0c12", step: "in-hand" }]));
      localStorage.setItem("once", "1");
    }, `ticks:${id}`);
    await page.goto(`${section}/steps`);
    await expect(page.getByText(/One tick could not be kept: step has 0 characters; allowed: 1 to 60/)).toBeVisible();
    await expect(page.getByText(/^1 of \d+ done/)).toBeVisible();
  });
});
