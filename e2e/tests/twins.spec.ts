import { readFileSync } from "node:fs";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";

import { Application } from "../application";
import { Proxy } from "../proxy";
import { cell, expect, part, saved, test, type Page } from "../test";

test.use({ ignoreHTTPSErrors: true, allowed: /status of (401|409|50\d)|ERR_|SSL certificate/ });

const password = "seven wet otters";
const document = JSON.parse(readFileSync(join(dirname(fileURLToPath(import.meta.url)), "../../testdata/demo/6-mobile-vet.json"), "utf8")) as Record<string, unknown>;

/** call asks the API as whoever the page is; what is only read is asked for again where a server breaks off, as the pages do. */
const call = <T>(page: Page, method: string, path: string, body?: unknown): Promise<T> =>
  page.evaluate(
    async ([method, path, body]) => {
      for (let left = method === "GET" ? 5 : 0; ; left--) {
        const res = await fetch(path as string, { method: method as string, ...(body ? { headers: { "Content-Type": "application/json" }, body: JSON.stringify(body) } : {}) }).catch(() => null);
        if (res?.ok || left === 0) return (await (res as Response).json()) as T;
        await new Promise((r) => setTimeout(r, 300));
      }
    },
    [method, path, body] as const,
  );

test("two servers on one database behind a proxy: sign-in, edits, events, tasks and what waits; one is killed in the middle", async ({ page: one, browser }) => {
  test.setTimeout(240_000);
  const proxy = await Proxy.start();
  const first = await Application.behind(proxy.url);
  const second = await first.twin();
  proxy.to = [first.port, second.port];
  try {
    // Whoever comes in by one server is in at the other.
    await one.goto(/https:\/\/localhost:\d+\/join#\S+/.exec(second.said)?.[0] ?? "");
    await one.getByLabel("The workshop's name").fill("Two servers");
    await one.getByLabel("Your name").fill("Odile Marrow");
    await one.getByLabel("Name or e-mail to sign in with").fill("odile");
    await one.getByRole("textbox", { name: "Password" }).fill(password);
    await one.getByRole("button", { name: "Begin" }).click();
    await expect(one.getByRole("heading", { name: "Today", exact: true })).toBeVisible();
    const other = await browser.newContext({ ignoreHTTPSErrors: true });
    const two = await other.newPage();
    await two.goto(proxy.url);
    await two.getByLabel("Name or e-mail").fill("odile");
    await two.getByRole("textbox", { name: "Password" }).fill(password);
    await two.getByRole("button", { name: "Sign in" }).click();
    await expect(two.getByRole("heading", { name: "Today", exact: true })).toBeVisible();

    // Edits of both, field by field, heard of by the other.
    const { id } = await call<{ id: string }>(one, "POST", "/api/jobs", document);
    await one.goto(`${proxy.url}/jobs/${id}`);
    await two.goto(`${proxy.url}/jobs/${id}`);
    await part(one, "aux").click();
    await one.getByLabel("Aux battery capacity").fill("310");
    await saved(one);
    await expect(cell(two, "aux.part")).toContainText("310 Ah");
    await two.getByRole("textbox", { name: "Title" }).fill("Edited beside");
    await saved(two);
    await expect(one.getByRole("textbox", { name: "Title" })).toHaveValue("Edited beside");

    // A task is begun, and what is ticked waits in a row, when one server is killed.
    const draft = (await call<{ draft: { document: Record<string, unknown> } }>(one, "GET", `/api/jobs/${id}`)).draft;
    const task = await call<{ id: string }>(one, "POST", `/api/jobs/${id}/tasks`, { kind: "sweep", document: draft.document, sweep: { across: { path: "use.drivenHours" }, up: { path: "use.dailyAh" } } });
    await two.goto(`${proxy.url}/jobs/${id}/steps`);
    const step = two.getByRole("region", { name: "Step", exact: true });
    const done = async () => {
      const title = await step.getByRole("article").getByRole("heading", { level: 2 }).innerText();
      await step.getByRole("button", { name: "Done" }).click();
      await expect(step.getByRole("article").getByRole("heading", { level: 2 })).not.toHaveText(title);
    };
    await done();
    const killed = first.kill();
    for (let i = 0; i < 3; i++) await done();
    await killed;
    await one.getByLabel("Aux battery capacity").fill("330");
    const ticks = async () => (await call<{ ticks: { id: string }[] }>(one, "GET", `/api/jobs/${id}/ticks`)).ticks.map((t) => t.id);
    await expect.poll(async () => (await ticks()).length, { timeout: 30_000 }).toBe(4);
    expect(new Set(await ticks()).size).toBe(4);
    await saved(one);
    await expect.poll(async () => (await call<{ state: string }>(one, "GET", `/api/tasks/${task.id}`)).state, { timeout: 120_000 }).toBe("done");

    // The one that is left tells of changes on its own; back again, both do.
    await expect(one.getByText("no server")).toBeHidden();
    await first.startServer();
    await two.goto(`${proxy.url}/jobs/${id}`);
    await expect(cell(two, "aux.part")).toContainText("330 Ah");
    await part(two, "aux").click();
    await two.getByLabel("Aux battery capacity").fill("340");
    await saved(two);
    await expect(cell(one, "aux.part")).toContainText("340 Ah", { timeout: 20_000 });
    await other.close();
  } finally {
    proxy.stop();
    await second.stopServer();
    await first.stop();
  }
});
