import { spawn, type ChildProcess } from "node:child_process";
import { readFileSync } from "node:fs";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";

import { Application } from "../application";
import { ask } from "../ask";
import { accessible, expect, test, type Page } from "../test";

const root = join(dirname(fileURLToPath(import.meta.url)), "../..");
const van = join(root, "testdata/demo/6-mobile-vet.json");
const document = JSON.parse(readFileSync(van, "utf8")) as Record<string, unknown>;

let app: Application;
let vehicle: ChildProcess;

/** stand has a vehicle stand in with a fault, its meter listed in the workshop's settings. */
async function stand(fault: string): Promise<void> {
  vehicle = spawn(join(root, "bin/epitrope"), ["standin", van, "--port", "0", "--fault", fault], { stdio: ["ignore", "pipe", "inherit"] });
  const meter = await new Promise<string>((resolve) => {
    let said = "";
    vehicle.stdout?.on("data", (text: Buffer) => {
      said += text.toString();
      const at = /meter: (\S+),/.exec(said)?.[1];
      if (at) resolve(at);
    });
  });
  const settings = `${app.url}/api/settings`;
  const kept = (await (await ask(settings)).json()) as { settings: object };
  const put = await ask(settings, { method: "PUT", headers: { "Content-Type": "application/json" }, body: JSON.stringify({ ...kept, settings: { ...kept.settings, meters: [{ name: "bench", address: meter, speaks: "scpi" }] } }) });
  expect(put.status).toBe(200);
}

test.beforeEach(async () => {
  app = await Application.start(false);
});
test.afterEach(async ({ page }) => {
  await page.goto("about:blank");
  vehicle.kill();
  await app.stop();
});

const first = (page: Page) => page.getByRole("region", { name: "What may be wrong" }).getByRole("listitem").first();

for (const [width, height] of [[1280, 800], [390, 844]] as const) {
  test(`from a complaint to a proven mend, ${width} × ${height}`, async ({ page }) => {
    test.setTimeout(120_000);
    await stand("blown f1");
    await page.setViewportSize({ width, height });
    const { section } = await app.create(document);
    await page.goto(`${section}/trace`);
    await page.getByRole("button", { name: "We drive for hours" }).click();
    await page.getByLabel("In other words").fill("since the ford");
    await accessible(page);
    await page.getByRole("button", { name: "Begin", exact: true }).click();
    const now = page.getByRole("region", { name: "Test", exact: true });
    const done = page.getByRole("region", { name: "What was done" }).getByRole("listitem");
    await expect(done).toHaveCount(2);
    await expect(done.last()).toContainText("since the ford");
    await expect(now.getByRole("heading", { level: 2 })).toBeVisible();
    await expect(page.getByRole("region", { name: "Where the fault may be" }).locator("[data-suspect]").first()).toBeAttached();
    await accessible(page);

    // One test at a time is read at the vehicle, until a look costs less.
    const look = now.getByRole("heading", { name: /^Look/ });
    for (let taken = 0; taken < 9; taken++) {
      await expect(now.getByRole("heading", { level: 2 }).first()).toBeVisible();
      if (await look.isVisible()) break;
      const title = await now.getByRole("heading", { level: 2 }).first().innerText();
      await now.getByRole("button", { name: "Read it from there" }).click();
      await expect(done).toHaveCount(3 + taken);
      await expect(now.getByRole("heading", { level: 2 }).first()).not.toHaveText(title);
    }
    await expect(look).toBeVisible();
    await expect(first(page)).toContainText("F1 is blown, or not in");
    expect(await done.count()).toBeLessThanOrEqual(2 + 6);

    // It is found, mended, proven and closed; all of it is in the record.
    await now.getByRole("button", { name: "Something is wrong" }).click();
    await now.getByRole("button", { name: "F1 is blown, or not in" }).click();
    await now.getByRole("button", { name: "Mended", exact: true }).click();
    const mended = page.getByRole("region", { name: "Mended" });
    await expect(mended).toContainText("Current into the aux battery");
    await accessible(page);
    await page.reload();
    await expect(mended).toBeVisible();
    await page.getByText("Get the battery charging for now").click();
    await expect(page.getByText(/^No: a lithium battery takes whatever cable/)).toBeVisible();
    await mended.getByRole("button", { name: "Close the case" }).click();
    await expect(page.getByRole("heading", { name: "This case is closed." })).toBeVisible();
    await expect(done.last()).toContainText("Closed");
    await page.getByRole("button", { name: "Another complaint" }).click();
    await expect(page.getByRole("region", { name: "Cases" })).toContainText("We drive for hours");
  });
}
