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
    await page.goto(`${app.url}/settings`);
    const told = page.getByRole("region", { name: "Told by mail and webhook" }).or(page.locator("section", { has: page.getByRole("heading", { name: "Told by mail and webhook" }) })).last();
    await told.getByLabel("Told at").fill("bay at weir");
    await told.getByRole("button", { name: "List this address" }).click();
    await expect(told.getByText(/bay at weir is no e-mail address. Allowed: an address such as/)).toBeVisible();
    await told.getByLabel("Told at").fill("bay@weir.example");
    await told.getByRole("button", { name: "List this address" }).click();
    await expect(told.getByRole("listitem")).toContainText("bay@weir.example");
    await accessible(page);
    await told.getByRole("button", { name: "Send a test" }).click();
    await expect(told.getByText("A test went to bay@weir.example.")).toBeVisible();
    await expect.poll(() => came).toContain("a test of this address");
    await told.getByLabel("By", { exact: true }).selectOption("webhook");
    await told.getByLabel("Told at").fill(/webhook: (\S+)/.exec(came)?.[1] ?? "");
    await told.getByRole("button", { name: "List this address" }).click();
    await expect(told.getByText(/are signed with/)).toBeVisible();
    await told.getByRole("button", { name: "Take bay@weir.example off" }).click();
    await expect(told.getByRole("listitem")).toHaveCount(1);
    await page.goto(`${app.url}/trail`);
    await expect(page.getByText("listed", { exact: false }).first()).toContainText("bay@weir.example");
    expect((await (await browser.newContext()).request.get(`${app.url}/api/addressees`)).status()).toBe(401);
  } finally {
    box.kill("SIGTERM");
    await app.stop();
  }
});
