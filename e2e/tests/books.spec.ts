import { writeFile } from "node:fs/promises";

import { accessible, create, draft, expect, saved, test, url } from "../test";

test("a half-bad file of parts: good lines are kept, the others mended; a charger is used, and stays when the book loses it", async ({ page }, info) => {
  const path = info.outputPath("parts.csv");
  await writeFile(path, "kind,name,rating A,price,currency,priced on\ncharger,Bench box 35,35,210,EUR,2030-05-01\nfuse,Strip sixty,sixty,3,EUR,\n");
  await page.goto(url());
  await page.getByRole("link", { name: "Parts book" }).click();
  await page.getByLabel("Parts file").setInputFiles(path);
  const file = page.getByRole("region", { name: "From a file" });
  await expect(file).toContainText("parts.csv: 1 new, 0 changed, 0 as it is in the book already; 1 line cannot be used");
  await expect(page.getByRole("row", { name: /Bench box 35/ })).toHaveCount(0);
  await page.getByRole("button", { name: "Put it in" }).click();
  await expect(file).toContainText("1 part is in the book.");
  await expect(file).toContainText("line 3 rating A “sixty” is not a current; allowed: 0.5 to 600 A");
  await expect(page.getByRole("row", { name: /Bench box 35/ })).toContainText("210.00 EUR 2030-05-01");
  await accessible(page);

  await page.reload();
  const lines = page.getByLabel("Lines to mend");
  await expect(lines).toHaveValue(/Strip sixty,sixty/);
  await lines.fill((await lines.inputValue()).replace("sixty,sixty", "sixty,60"));
  await page.getByRole("button", { name: "Read these lines" }).click();
  await expect(page.getByRole("row", { name: /Strip sixty/ })).toContainText("60");
  await expect(lines).toHaveCount(0);

  const { id, section } = await create({ title: "With its own charger", alternator: { label: "90/180 A" }, pins: { coupling: "dcdc" } });
  await page.goto(`${section}/wiring`);
  await page.getByRole("tab", { name: "Settings" }).click();
  await page.getByRole("button", { name: "Take Bench box 35" }).click();
  await expect(page.getByText("Priced 210 EUR on 2030-05-01.")).toBeVisible();
  await saved(page);
  await page.goto(`${url()}/parts`);
  await page.getByRole("button", { name: "Take out Bench box 35" }).click();
  await expect(page.getByText("“Bench box 35” is out of the book. Jobs that use it keep it.")).toBeVisible();
  await expect(page.getByRole("row", { name: /Bench box 35/ })).toHaveCount(0);
  await page.goto(section);
  await expect(page.locator('[data-cell="coupling.part"]')).toContainText("35 A out");
  expect((await draft(id)).document.card).toMatchObject({ name: "Bench box 35", outputA: 35, price: 210, currency: "EUR", pricedOn: "2030-05-01" });
});

test.describe("a part typed wrongly", () => {
  test.use({ allowed: /status of 422/ });

  test("is told beside its field, and kept when it is right", async ({ page }) => {
    await page.goto(`${url()}/parts`);
    await page.getByRole("button", { name: "Add a part" }).click();
    const form = page.getByRole("form", { name: "Part" });
    await form.getByLabel("kind").selectOption("cable");
    await form.getByLabel("name").fill("Red, on the reel");
    await form.getByLabel("size").fill("8 mm");
    await form.getByRole("button", { name: "Keep" }).click();
    await expect(form).toContainText("is not a cable size; allowed: such as 16 mm², 6 AWG, 8 mm auto; not mm alone");
    await form.getByLabel("size").fill("8 mm auto");
    await form.getByLabel("stock").fill("23,5");
    await form.getByRole("button", { name: "Keep" }).click();
    await expect(page.getByRole("row", { name: /Red, on the reel/ })).toContainText("23.5");
    await page.getByRole("button", { name: "Change Red, on the reel" }).click();
    await expect(form.getByLabel("size")).toHaveValue("8 mm auto");
  });
});
