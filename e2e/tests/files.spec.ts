import { readFile, writeFile } from "node:fs/promises";

import { cell, create, expect, test, url } from "../test";

test("export a job and import it again", async ({ page }, info) => {
  const { section } = await create({ title: "There and back", aux: { chemistry: "gel", capacityAh: 95 }, pins: { startSize: "2 AWG" } });
  await page.goto(section);
  const download = page.waitForEvent("download");
  await page.getByRole("button", { name: "Export" }).click();
  const path = info.outputPath("job.json");
  await (await download).saveAs(path);
  expect(JSON.parse(await readFile(path, "utf8"))).toEqual({
    format: "epitrope-job", version: 1, title: "There and back", aux: { chemistry: "gel", capacityAh: 95 }, pins: { startSize: "2 AWG" },
  });
  await page.goto(url());
  await page.locator("input[type=file]").setInputFiles(path);
  await expect(page.getByRole("status")).toContainText("job.json: There and back");
  await expect(page).toHaveURL(url() + "/");
  await page.getByRole("button", { name: "Make this a job" }).click();
  await expect(page).toHaveURL(/\/jobs\//);
  expect(page.url()).not.toBe(section);
  await expect(cell(page, "c1.part")).toContainText("2 AWG");
  await expect(cell(page, "aux.part")).toHaveText("gel 95 Ah");
});

test.describe("files that cannot be used", () => {
  test.use({ allowed: /status of 4\d\d/ });

  test("are refused with the field, the value and what is allowed", async ({ page }, info) => {
    const cases: [string, string | Buffer, RegExp][] = [
      ["range", '{"use":{"dailyAh":-3}}', /use\.dailyAh -3 is out of range; allowed: 1 to 1000 Ah/],
      ["twice", '{"format":"epitrope-job","version":1,"title":"a","title":"b"}', /title stands twice/],
      ["unknown", '{"colour":"red"}', /colour "red" is not a field of a job/],
      ["newer", '{"format":"epitrope-job","version":9}', /version 9 is newer than this build reads/],
      ["broken", '{"use":', /is not JSON/],
      ["latin", Buffer.from([0x7b, 0x22, 0xff, 0x22, 0x3a, 0x31, 0x7d]), /is not UTF-8 text/],
      ["huge", `{"title":"${"x".repeat(50 << 20)}"}`, /has 50\.0 MB; at most 1 MB is read/],
    ];
    await page.goto(url());
    for (const [name, content, says] of cases) {
      const path = info.outputPath(`${name}.json`);
      await writeFile(path, content);
      await page.locator("input[type=file]").setInputFiles(path);
      await expect(page.getByText(says)).toBeVisible();
    }
    await expect(page).toHaveURL(url() + "/");
  });
});
