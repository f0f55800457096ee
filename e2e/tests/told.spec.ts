import { spawn } from "node:child_process";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";

import { Application } from "../application";
import { accessible, expect, test } from "../test";

test.use({ allowed: /status of (401|409|422)/ });

const root = join(dirname(fileURLToPath(import.meta.url)), "../..");

test("the owner lists who is told, tries an address, and sees what is wrong with one; others see none of it", async ({ page, browser }) => {
  const box = spawn(join(root, "bin/epitrope"), ["mailbox", "--mail", "0", "--webhook", "0"], { stdio: ["ignore", "pipe", "inherit"] });
  let came = "";
  box.stdout.on("data", (data: Buffer) => (came += data.toString()));
  await expect.poll(() => /webhook: (\S+)/.exec(came)?.[1]).toBeTruthy();
  const app = await Application.start(false, { EPITROPE_SMTP: /smtp:\S+/.exec(came)?.[0] ?? "" }, ["--inner-webhooks"]);
  try {
    await page.goto(`${app.url}/settings`);
    await expect(page.getByRole("heading", { name: "Instruments" })).toBeVisible();
    await expect(page.getByRole("heading", { name: "Told by mail and webhook" })).toBeHidden(); // the foreman lists nobody
    await page.getByRole("button", { name: /: account and people/ }).click();
    await page.getByRole("menuitem", { name: /, owner$/ }).click();
    await expect(page.getByRole("button", { name: /owner: account and people/ })).toBeVisible();
    await page.goto(`${app.url}/settings`);
    await page.getByLabel("Told at").fill("bay at weir");
    await page.getByRole("button", { name: "List this address" }).click();
    await expect(page.getByText(/bay at weir is no e-mail address. Allowed: an address such as/)).toBeVisible();
    await page.getByLabel("Told at").fill("bay@weir.example");
    await page.getByRole("button", { name: "List this address" }).click();
    const row = (address: string) => page.getByRole("listitem").filter({ hasText: address });
    await expect(row("bay@weir.example")).toContainText("once a day at 07:00");
    await accessible(page);
    await page.getByRole("button", { name: "Send a test" }).click();
    await expect(page.getByText("A test went to bay@weir.example.")).toBeVisible();
    await expect.poll(() => came).toContain("a test of this address");
    await page.getByLabel("By", { exact: true }).selectOption("webhook");
    await page.getByLabel("Told at").fill(/webhook: (\S+)/.exec(came)?.[1] ?? "");
    await page.getByRole("button", { name: "List this address" }).click();
    await expect(page.getByText(/are signed with/)).toBeVisible();
    await page.getByRole("button", { name: "Take off bay@weir.example" }).click();
    await expect(row("bay@weir.example")).toHaveCount(0);
    await expect(row("http://127.0.0.1")).toHaveCount(1);
    await page.goto(`${app.url}/trail`);
    await expect(page.getByText("listed", { exact: false }).first()).toContainText("bay@weir.example");
    expect((await (await browser.newContext()).request.get(`${app.url}/api/addressees`)).status()).toBe(401);
  } finally {
    box.kill("SIGTERM");
    await app.stop();
  }
});
