import { readFile } from "node:fs/promises";

import { accessible, create, expect, test, url } from "../test";
import { ask } from "../ask";

test("the drawing: a wire picked in the list is lit on it, and the lists agree with it", async ({ page }) => {
  const { id, section } = await create({ title: "To be drawn", alternator: { label: "90/180 A" }, pins: { coupling: "dcdc" }, loads: { a1: { kind: "fridge", name: "cool box" } } });
  await page.goto(`${section}/wiring`);
  await page.getByRole("tab", { name: "Drawing" }).click();
  const drawing = page.getByRole("img", { name: /Wiring drawing/ });
  await expect(drawing).toContainText("cool box");
  await page.getByRole("button", { name: "C1", exact: true }).click();
  await expect(drawing.locator("polyline[data-shape=feed][data-lit]")).toHaveCount(2); // C1A is of the same run
  await expect(drawing.locator("polygon[data-shape=outline][data-lit]")).toHaveCount(2);
  await accessible(page);
  await page.goto(`${section}/cuts`);
  const wires = page.getByRole("region", { name: "Wires" });
  await expect(wires.getByRole("row", { name: /^C1 / })).toContainText("ferrule");
  await expect(page.getByRole("region", { name: "Parts" })).toContainText("DC-DC charger");
  await accessible(page);
  const [download] = await Promise.all([page.waitForEvent("download"), wires.getByRole("link", { name: /As a file/ }).click()]);
  expect(await readFile((await download.path()) as string, "utf8")).toContain("C1,F1,out,");
  expect(await (await ask(`${url()}/api/jobs/${id}/drawing.svg`)).text()).toContain("To be drawn");
});

test("what is picked in one place is picked in all", async ({ page }) => {
  const { section } = await create({ title: "To be picked", alternator: { label: "90/180 A" }, pins: { coupling: "changeover" } });
  await page.goto(`${section}/wiring`);
  await page.getByRole("tab", { name: "Drawing" }).click();
  await page.getByRole("button", { name: "K1A", exact: true }).click();
  await page.keyboard.press("5");
  const lists = (name: string) => page.getByRole("region", { name });
  await expect(lists("Wires").locator("tr[data-marked] th")).toHaveText(["K1A"]);
  await expect(lists("Parts").locator("tr[data-marked]").filter({ hasText: "changeover relay" })).toHaveCount(1);
  await page.keyboard.press("6");
  const steps = page.getByRole("navigation", { name: "All steps" });
  await expect(steps.locator("li[data-lit]").filter({ hasText: "Ends of K1A" })).toHaveCount(1);
  await expect(steps.locator("li[data-lit]").filter({ hasText: "Ends of C2C" })).toHaveCount(0);
  await page.keyboard.press("1");
  await expect(page.getByRole("button", { name: /^C1/, pressed: true }).first()).toBeVisible();
  await page.keyboard.press("6");
  await steps.getByRole("button", { name: /Fuse F5 in/ }).click();
  await page.getByRole("link", { name: "Show it on the drawing" }).click();
  const drawing = page.getByRole("img", { name: /Wiring drawing/ });
  await expect(drawing.locator("text[data-shape=name][data-lit]").filter({ hasText: "F5" })).toHaveCount(1);
  await expect(drawing.locator("text[data-shape=terminal]").filter({ hasText: "87a" })).toHaveCount(1);
  await expect(page.getByRole("row", { name: /^S1A / })).toHaveAttribute("data-marked", "true");
});

test("steps on a phone: one at a time, a hold point is signed, two people lose nothing", async ({ browser }) => {
  test.slow(); // two browsers, and a network that is lost and found
  const { section } = await create({ title: "To be fitted", pins: { coupling: "dcdc" } });
  const open = async () => {
    const context = await browser.newContext({ viewport: { width: 390, height: 844 } });
    const page = await context.newPage();
    await page.goto(`${section}/steps`);
    await expect(page.getByRole("heading", { name: "Everything in hand" })).toBeVisible();
    return page;
  };
  const [ivo, maren] = [await open(), await open()];
  await accessible(ivo);
  await ivo.getByRole("button", { name: "Done", exact: true }).click();
  await expect(ivo.getByRole("heading", { name: "Photograph it as it is" })).toBeVisible();
  await maren.getByRole("navigation", { name: "All steps" }).getByRole("button", { name: /Measure both batteries at rest/ }).click();
  await maren.getByRole("button", { name: "Done", exact: true }).click();
  for (const page of [ivo, maren]) await expect(page.getByRole("region", { name: "Step" }).getByRole("status")).toContainText(/^2 of /, { timeout: 15_000 });

  const list = ivo.getByRole("navigation", { name: "All steps" });
  await list.getByRole("button", { name: /Close panels and floor/ }).click();
  await expect(ivo.getByText("Waits for the hold point")).toBeVisible();
  await expect(ivo.getByRole("button", { name: "Done", exact: true })).toBeDisabled();
  await list.getByRole("button", { name: /Before panels and floor close/ }).click();
  await expect(ivo.getByRole("button", { name: "Sign", exact: true })).toBeDisabled();
  for (const box of await ivo.getByRole("checkbox").all()) await box.check();
  await ivo.getByRole("button", { name: "Sign", exact: true }).click();
  await list.getByRole("button", { name: /Close panels and floor/ }).click();
  await expect(ivo.getByRole("button", { name: "Done", exact: true })).toBeEnabled();

  // Without a network a tick is kept, through a reload of nothing but time, and sent later.
  await maren.context().setOffline(true);
  await maren.getByRole("navigation", { name: "All steps" }).getByRole("button", { name: /Photograph it as it is/ }).click();
  await maren.getByRole("button", { name: "Done", exact: true }).click();
  await expect(maren.getByRole("region", { name: "Step" }).getByRole("status")).toContainText("1 kept on this device");
  await maren.context().setOffline(false);
  await expect(maren.getByRole("region", { name: "Step" }).getByRole("status")).not.toContainText("kept on this device", { timeout: 20_000 });
  await expect(ivo.getByRole("region", { name: "Step" }).getByRole("status")).toContainText(/^4 of /, { timeout: 15_000 });
});

test("what was built otherwise is judged, and stands beside the design; the pack is printed and kept", async ({ page }) => {
  const { id, section } = await create({ title: "Built otherwise", alternator: { label: "90/180 A" }, pins: { coupling: "dcdc", chargerA: 30 } });
  await page.goto(`${section}/steps`);
  const built = page.getByRole("region", { name: "As built" });
  await expect(built).toContainText("Built as designed.");
  await built.getByLabel("Fuse at the start battery").selectOption("125");
  await expect(built.getByRole("row", { name: /Fuse at the start battery/ })).toContainText("125 A");
  await expect(built).toContainText("Stop, new.");
  await page.goto(`${section}/record`);
  await page.getByRole("button", { name: "Issue revision 1" }).click();
  await page.getByRole("link", { name: /Pack as it was issued, PDF, number 1/ }).waitFor();
  const pack = await ask(`${url()}/api/jobs/${id}/revisions/1/pack.pdf`);
  expect(pack.headers.get("content-type")).toBe("application/pdf");
  expect((await pack.text()).startsWith("%PDF-")).toBe(true);
  expect((await ask(`${url()}/api/jobs/${id}/pack.pdf?paper=Letter`)).status).toBe(200);
});

test("the week shows a bay with two jobs in it at once", async ({ page }) => {
  await create({ title: "First in the bay", dates: { d1: { kind: "fit", due: "2031-03-04", bay: "east" } } });
  await create({ title: "Second in the bay", dates: { d1: { kind: "fit", due: "2031-03-04", bay: "east" } } });
  await page.route("**/api/week", (route) => route.continue({ url: `${route.request().url()}?of=2031-03-01` }));
  await page.goto(url());
  await page.getByRole("link", { name: "Week", exact: true }).click();
  await page.getByRole("button", { name: "Week after" }).click();
  const bay = page.getByRole("row", { name: /^east/ });
  await expect(bay).toContainText("First in the bay");
  await expect(bay).toContainText("clashes in this bay");
  await accessible(page);
  await bay.getByRole("link", { name: /Second in the bay/ }).first().click();
  await expect(page.getByRole("heading", { name: "Everything in hand" })).toBeVisible();
});
