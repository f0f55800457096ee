import { create, expect, test } from "../test";

test("on a phone nothing of what was found is wider than the window", async ({ page }) => {
  const { section } = await create({ title: "Found on a phone", gear: { g1: { kind: "isolator", works: "works" } }, found: { w1: { role: "start" } } });
  await page.setViewportSize({ width: 390, height: 844 });
  await page.goto(`${section}/survey`);
  await page.getByRole("button", { name: /As found/ }).click();
  const row = page.getByText("between batteries");
  await expect(row).toBeVisible();
  const inputs = await page.getByRole("textbox").all();
  expect(inputs.length).toBeGreaterThan(4);
  for (const input of inputs) {
    const box = await input.boundingBox();
    if (box) expect(box.x + box.width).toBeLessThanOrEqual(390);
  }
});
