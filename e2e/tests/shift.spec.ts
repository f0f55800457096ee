import { Application } from "../application";
import { ask } from "../ask";
import { accessible, cell, expect, part, saved, test, type Page } from "../test";

test.use({ serviceWorkers: "allow", allowed: /status of (401|409|50\d)|ERR_CONNECTION_REFUSED|ERR_EMPTY_RESPONSE|ERR_CONNECTION_RESET|ERR_INCOMPLETE_CHUNKED/ });

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
  await app.startServer();
  await expect.poll(async () => (await app.draft(id)).document.aux?.capacityAh, { timeout: 30_000 }).toBe(280);
  expect((await ask(`${app.url}/api/jobs/${id}`)).ok).toBe(true);
});

test("what this device keeps is said: what the browser took away, what the server would not take; signing out takes all of it off", async ({ page }) => {
  test.slow();
  const { id } = await app.create({ title: "Kept here" });
  await page.goto(app.url);
  await takeAlong(page, id);
  await page.context().addCookies([{ name: "epitrope_waits", value: `3_${Date.now() - 60_000}`, url: app.url }]);
  await page.goto(`${app.url}/along`);
  await expect(page.getByText("This browser took away 3 entries before the server had them")).toBeVisible();
  await accessible(page);
  await page.getByRole("alert").getByRole("button").click();
  // A step of no job: the server refuses it, by name.
  await page.route("**/ticks", (route) => (route.request().method() === "POST" ? route.fulfill({ status: 200, contentType: "application/json", body: JSON.stringify({ ticks: [], refused: (JSON.parse(route.request().postData() ?? "[]") as { id: string }[]).map((t) => ({ id: t.id, problems: [{ field: "step", value: "x", wrong: "is no step", allowed: "one of the job's" }] })) }) }) : route.continue()));
  await page.goto(`${app.url}/jobs/${id}/steps`);
  await tick(page, 1).catch(() => undefined);
  await page.goto(`${app.url}/along`);
  await expect(page.getByText("not taken: step x is no step; allowed: one of the job's")).toBeVisible();
  await page.getByRole("button", { name: "Read and done" }).click();
  await expect(page.getByText("The server has everything that was entered here.")).toBeVisible();
  await page.setViewportSize({ width: 360, height: 740 });
  expect(await page.evaluate("document.documentElement.scrollWidth")).toBeLessThanOrEqual(360);
  await page.getByRole("button", { name: /: account and people/ }).click();
  const anew = page.waitForEvent("load"); // the page begins anew, for whoever is next
  await page.getByRole("menuitem", { name: "Sign out" }).click();
  await anew;
  await expect.poll(() => page.evaluate(async () => [(await caches.keys()).filter((k) => k === "epitrope-core").length, (await indexedDB.databases()).length])).toEqual([0, 1]);
  await expect
    .poll(() =>
      page.evaluate(
        () =>
          new Promise((resolve) => {
            const open = indexedDB.open("epitrope");
            open.onsuccess = () => {
              const all = open.result.transaction(["kept", "along"]).objectStore("along").count();
              all.onsuccess = () => resolve(all.result);
            };
          }),
      ),
    )
    .toBe(0);
});

/** picture is a PNG of one point. */
const picture = { name: "photo.png", mimeType: "image/png", buffer: Buffer.from("iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mP8z8BQDwAEhQGAhKmMIQAAAABJRU5ErkJggg==", "base64") };

/** be has a page be somebody of the demo. */
async function be(page: Page, role: string): Promise<string> {
  await page.goto(app.url);
  await expect(page.getByRole("button", { name: /: account and people/ })).toBeVisible(); // the demo signs its foreman in
  return page.evaluate(async (role) => {
    const me = (await (await fetch("/api/me")).json()) as { person?: { id: string; name: string; role: string }; others: { id: string; name: string; role: string }[] };
    const person = [...(me.person ? [me.person] : []), ...me.others].find((o) => o.role === role);
    await fetch("/api/door/demo", { method: "POST", headers: { "Content-Type": "application/json" }, body: JSON.stringify({ person: person?.id }) });
    return person?.name ?? "";
  }, role);
}

/** takeAlong takes a job along, until it would open without the server. */
async function takeAlong(page: Page, id: string): Promise<void> {
  await page.goto(`${app.url}/jobs/${id}/steps`);
  await page.getByRole("button", { name: "Take along" }).click();
  await expect(page.getByRole("button", { name: "Taken along" })).toBeVisible({ timeout: 30_000 });
  await page.waitForFunction(() => navigator.serviceWorker.controller !== null);
}

/** tick ticks so many steps off, each next one; hold points are looked at and signed. */
async function tick(page: Page, count: number): Promise<void> {
  const step = page.getByRole("region", { name: "Step", exact: true });
  for (let i = 0; i < count; i++) {
    const title = await step.getByRole("article").getByRole("heading", { level: 2 }).innerText();
    const act = step.getByRole("button", { name: /^(Done|Sign)$/ });
    for (const box of await step.getByRole("checkbox").all()) await box.check();
    await act.click();
    await expect(step.getByRole("article").getByRole("heading", { level: 2 })).not.toHaveText(title);
  }
}

async function photograph(page: Page, count: number): Promise<void> {
  const tag = page.locator("[data-photo]").first();
  for (let i = 0; i < count; i++) {
    await tag.setInputFiles(picture);
    await expect(page.getByText(`${i + 1} photograph`)).toBeVisible();
  }
}

/** read takes so many readings, each next one, or the same again where none is next. */
async function read(page: Page, count: number): Promise<void> {
  const reading = page.getByRole("region", { name: "Reading" });
  for (let i = 0; i < count; i++) {
    const look = reading.getByRole("button", { name: "As stated" });
    const field = reading.getByRole("textbox", { name: /, read$/ });
    await expect(look.or(field)).toBeVisible();
    if (await look.isVisible()) await look.click();
    else {
      await field.fill("12.61");
      await reading.getByRole("button", { name: "Enter", exact: true }).click();
    }
    const again = reading.getByRole("button", { name: "Take it again" });
    await expect(again).toBeVisible();
    await expect(reading.locator("[data-level]").or(reading.getByText("Allowed:")).first()).toBeVisible({ timeout: 20_000 });
    if (i === count - 1) return;
    const next = reading.getByRole("button", { name: /^Next:/ });
    await ((await next.isVisible()) ? next : again).click();
  }
}

interface Kept {
  id: string;
  by: string;
  at: string;
}

test("two people, one job, no server: steps, readings, photographs and edits arrive complete, once, in order", async ({ page: one, browser }) => {
  test.setTimeout(240_000);
  const { id } = await app.create({ title: "A shift", customer: "Before" });
  const other = await browser.newContext({ serviceWorkers: "allow" });
  // The other's clock is a day behind.
  await other.addInitScript(() => {
    const Real = Date;
    const off = -86_400_000;
    globalThis.Date = class extends Real {
      constructor(...given: []) {
        super(...(given.length > 0 ? given : ([Real.now() + off] as unknown as [])));
      }
      static override now = () => Real.now() + off;
    } as DateConstructor;
  });
  const two = await other.newPage();
  const names = [await be(one, "foreman"), await be(two, "owner")];
  await takeAlong(one, id);
  await takeAlong(two, id);
  await expect(one.getByText(`with ${names[1]}`)).toBeVisible({ timeout: 25_000 });
  await app.stopServer();

  await tick(one, 8);
  await photograph(one, 5);
  await one.reload();
  await expect(one.getByRole("status").filter({ hasText: "8 of" })).toContainText("kept on this device");
  await tick(one, 7);
  await one.goto(`${app.url}/jobs/${id}/proof`);
  await read(one, 13);
  await one.goto(`${app.url}/jobs/${id}`);
  await one.getByRole("textbox", { name: "Title" }).fill("A shift, by one");
  await part(one, "aux").click();
  await one.getByLabel("Aux battery capacity").fill("210");

  await tick(two, 15);
  await photograph(two, 5);
  await two.goto(`${app.url}/jobs/${id}/proof`);
  await read(two, 12);
  await two.goto(`${app.url}/jobs/${id}`);
  await two.getByRole("textbox", { name: "Title" }).fill("A shift, by two");
  await expect(two.getByText(/no server: 32 wait here/)).toBeVisible();
  await two.goto(`${app.url}/along`);
  await expect(two.locator("[data-waits]")).toHaveCount(33); // the edits too

  await two.goto(`${app.url}/jobs/${id}`);
  await app.startServer();
  const list = async <T>(path: string): Promise<T> => (await (await ask(`${app.url}/api/jobs/${id}${path}`)).json()) as T;
  await expect.poll(async () => (await list<{ ticks: Kept[] }>("/ticks")).ticks.length, { timeout: 60_000 }).toBe(30);
  await expect.poll(async () => { const all = await list<{ entries: Kept[]; photos: Kept[] }>("/proof"); return [all.entries.length, all.photos.length]; }, { timeout: 60_000 }).toEqual([25, 10]);
  await expect(one.getByText(/wait here|to be sent/)).toBeHidden({ timeout: 30_000 });
  await expect(two.getByText(/wait here|to be sent/)).toBeHidden({ timeout: 30_000 });

  const { ticks } = await list<{ ticks: (Kept & { step: string })[] }>("/ticks");
  const { entries } = await list<{ entries: Kept[] }>("/proof");
  for (const kept of [ticks, entries]) {
    expect(new Set(kept.map((k) => k.id)).size).toBe(kept.length);
    for (const name of names) {
      const times = kept.filter((k) => k.by === name).map((k) => Date.parse(k.at));
      expect(times.length).toBeGreaterThan(10);
      expect(times).toEqual([...times].sort((a, b) => a - b)); // each in the order in which they did it
      for (const at of times) expect(Math.abs(Date.now() - at)).toBeLessThan(600_000); // whatever the phone's clock said
    }
  }
  // Asked only where both changed the same: the title. The capacity is joined.
  await expect.poll(async () => (await one.getByRole("dialog").count()) + (await two.getByRole("dialog").count())).toBe(1);
  const asked = ((await one.getByRole("dialog").count()) > 0 ? one : two).getByRole("dialog");
  await expect(asked).toContainText("by one");
  await expect(asked).not.toContainText("210");
  await asked.getByRole("button", { name: "Go on with these" }).click();
  await expect.poll(async () => (await app.draft(id)).document.aux?.capacityAh, { timeout: 20_000 }).toBe(210);
  await saved(one);
  await saved(two);
  await other.close();
});
