import { readFile } from "node:fs/promises";

import { accessible, cell, create, draft, expect, part, saved, test } from "../test";

const logs = new URL("../../testdata/logs/", import.meta.url).pathname;
const job = { title: "Regulation", alternator: { label: "120/220 A" }, aux: { chemistry: "agm", capacityAh: 100, place: "seat" } };

test("a dropped log says that it varies; taken, it answers two questions and is one step back", async ({ page }) => {
  const { id, section } = await create(job);
  await page.goto(section);
  await part(page, "alternator").first().click();
  const text = await readFile(`${logs}variable.csv`, "utf8");
  const dropped = await page.evaluateHandle((csv) => {
    const data = new DataTransfer();
    data.items.add(new File([csv], "van.csv", { type: "text/csv" }));
    return data;
  }, text);
  await page.locator("[data-drop]").dispatchEvent("drop", { dataTransfer: dropped });
  const says = page.getByRole("status", { name: "What the test says" });
  await expect(says).toContainText(/Variable, nothing else explains it\. \d+ min under 13\.2 V in all, and \d+ jumps of 0\.8 V or more/);
  await expect(says).toContainText("a jump from 12.9 to 14.9 V");
  await accessible(page);
  await says.getByRole("button", { name: "Take as tested: variable" }).click();
  await saved(page);
  const { document } = await draft(id);
  expect(document).toMatchObject({ alternator: { label: "120/220 A", regulation: "variable", knownBy: "test" } });
  await page.getByRole("button", { name: "Undo" }).click();
  await saved(page);
  expect((await draft(id)).document).not.toHaveProperty("alternator.regulation");
});

test("a fixed one is proven with the volts it holds, and a relay will do", async ({ page }) => {
  const { id, section } = await create(job);
  await page.goto(section);
  const before = await cell(page, "coupling.part").innerText();
  expect(before).toMatch(/A out/);
  await part(page, "alternator").first().click();
  await page.getByLabel("Recording of the start battery").setInputFiles(`${logs}fixed.csv`);
  await page.getByRole("button", { name: "Take as tested: fixed" }).click();
  await saved(page);
  expect((await draft(id)).document).toMatchObject({ alternator: { regulation: "fixed", knownBy: "test", volts: 14.32 } });
  await expect(page.getByLabel("Charging voltage, warm, at cruise")).toHaveValue("14.32 V");
  await expect(cell(page, "coupling.part")).not.toHaveText(before);
});

test.describe("on a phone, where a log is wrong or too little", () => {
  test.use({ viewport: { width: 390, height: 844 }, allowed: /status of 422/ });

  test("it is named, and nothing is taken", async ({ page }, info) => {
    const { id, section } = await create(job);
    await page.goto(section);
    await part(page, "alternator").first().click();
    const input = page.getByLabel("Recording of the start battery");
    await input.setInputFiles(`${logs}short.csv`);
    const says = page.getByRole("status", { name: "What the test says" });
    await expect(says).toContainText("Not seen to vary, not proven");
    await expect(says).toContainText(/To be surer, record fifteen to twenty minutes/);
    await expect(says.getByRole("button", { name: /Take/ })).toHaveCount(0);
    await input.setInputFiles({ name: "bad.csv", mimeType: "text/csv", buffer: Buffer.from("time,volts\n0,12.6\n1,twelve\n") });
    await expect(page.getByRole("alert").filter({ hasText: "bad.csv" })).toContainText(/line 3/);
    expect((await draft(id)).document).not.toHaveProperty("alternator.regulation");
    expect(info.errors).toEqual([]);
  });
});
