import AxeBuilder from "@axe-core/playwright";
import { test as base, expect, type Page } from "@playwright/test";
import { Application } from "./application";
import { ask } from "./ask";

export { expect, type Page };

/** url is where the shared application is. */
export const url = (): string => process.env.EPITROPE_URL as string;

interface Fixtures {
  /** What the browser may complain of: a refused request shows in its console. */
  allowed: RegExp | null;
  complaints: string[];
}

/** test fails where the console shows an error that the test did not ask for. */
export const test = base.extend<Fixtures>({
  allowed: [null, { option: true }],
  complaints: [
    async ({ context, allowed }, use) => {
      const complaints: string[] = [];
      const note = (text: string) => {
        const afterwards = text.includes("ERR_CONNECTION") && [...Application.ended].some((port) => text.includes(`:${port}/`));
        if (!allowed?.test(text) && !afterwards) complaints.push(text);
      };
      context.on("console", (m) => m.type() === "error" && note(`${m.text()} ${m.location().url}`));
      context.on("weberror", (e) => note(String(e.error())));
      await use(complaints);
      expect(complaints).toEqual([]);
    },
    { auto: true },
  ],
});

export async function create(document: Record<string, unknown>): Promise<{ id: string; section: string }> {
  const res = await ask(`${url()}/api/jobs`, { method: "POST", headers: { "Content-Type": "application/json" }, body: JSON.stringify({ format: "epitrope-job", version: 1, ...document }) });
  expect(res.status).toBe(201);
  const { id } = (await res.json()) as { id: string };
  return { id, section: `${url()}/jobs/${id}` };
}

export async function draft(id: string): Promise<{ version: number; document: Record<string, never> & { title?: string } }> {
  const res = await ask(`${url()}/api/jobs/${id}`);
  if (!res.ok) return { version: 0, document: {} }; // deleted, for the moment
  return ((await res.json()) as { draft: never }).draft;
}

/** cell is a figure in the rows of the section. */
export const cell = (page: Page, name: string) => page.locator(`[data-cell="${name}"]`);

/** part is a part's name on the section, which opens it. */
export const part = (page: Page, id: string) => page.locator(`[data-part="${id}"]`);

/** turn goes to a sheet: by its tab, or on a phone by the list that the open one's name opens. */
export async function turn(page: Page, name: string): Promise<void> {
  const sheets = page.getByRole("navigation", { name: "Sheets" });
  await expect(sheets).toBeVisible();
  const list = sheets.getByRole("button", { name: /^Sheets, / });
  if (await list.isVisible()) {
    await list.click();
    await page.getByRole("menuitem", { name }).click();
  } else {
    await sheets.getByRole("link", { name }).click();
  }
}

export const saved = (page: Page) => expect(page.locator("[data-saved=saved]")).toBeVisible();

/**
 * accessible fails where axe finds anything against WCAG 2.2 AA, or against some rules alone. The bar of sheets stays at the
 * window's foot, over half a row of what scrolls beneath it: for the check it lies where it would.
 */
export async function accessible(page: Page, rules?: string[]): Promise<void> {
  const still = await page.addStyleTag({ content: "[data-sheets] { position: static !important; }" });
  // One page without frames: axe runs in it, and gathers nothing of what is as it should be.
  const axe = new AxeBuilder({ page }).setLegacyMode().options({ resultTypes: ["violations"], preload: false });
  const found = await (rules ? axe.withRules(rules) : axe.withTags(["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa", "best-practice"])).analyze();
  await still.evaluate((e) => (e as Element).remove());
  expect(found.violations.map((v) => `${v.id}: ${v.nodes.map((n) => n.target.join(" ")).join("; ")}`)).toEqual([]);
}
