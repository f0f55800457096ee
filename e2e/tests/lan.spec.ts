import { chromium, type Browser } from "@playwright/test";
import { execFileSync } from "node:child_process";
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { request } from "node:https";
import { tmpdir } from "node:os";
import { join } from "node:path";

import { Application } from "../application";
import { accessible, expect, test } from "../test";

test.use({ allowed: /status of (401|403)/ });

/** taken is what an address answers, whoever vouches for it: as a phone takes the authority that it does not trust yet. */
function taken(address: string): Promise<Buffer> {
  return new Promise((resolve, reject) => {
    const req = request(address, { rejectUnauthorized: false }, (res) => {
      const parts: Buffer[] = [];
      res.on("data", (part: Buffer) => parts.push(part));
      res.on("end", () => resolve(Buffer.concat(parts)));
    });
    req.on("error", reject).end();
  });
}

/** phone is a browser whose store trusts an authority, or none. */
async function phone(authority: Buffer | null): Promise<{ browser: Browser; home: string }> {
  const home = mkdtempSync(join(tmpdir(), "epitrope-phone-"));
  if (authority) {
    const store = join(home, ".pki/nssdb");
    mkdirSync(store, { recursive: true });
    writeFileSync(join(home, "authority.crt"), authority);
    execFileSync("certutil", ["-d", `sql:${store}`, "-N", "--empty-password"]);
    execFileSync("certutil", ["-d", `sql:${store}`, "-A", "-t", "C,,", "-n", "epitrope", "-i", join(home, "authority.crt")]);
  }
  const root = process.getuid?.() === 0 ? ["--no-sandbox"] : [];
  const browser = await chromium.launch({ executablePath: "/usr/bin/chromium", args: [...root, "--disable-background-networking"], env: { ...process.env, HOME: home } as Record<string, string> });
  return { browser, home };
}

test("on the workshop's network: told once to trust it, a phone comes in by TLS; plain http leads there", async () => {
  test.slow(); // two browsers of their own, and a server
  const app = await Application.onNetwork();
  const stranger = await phone(null);
  const authority = await taken(`${app.url}/api/network/authority.crt`);
  const trusting = await phone(authority);
  try {
    const warned = await (await stranger.browser.newContext()).newPage();
    await expect(warned.goto(app.url)).rejects.toThrow(/ERR_CERT_AUTHORITY_INVALID/);

    const page = await (await trusting.browser.newContext({ viewport: { width: 390, height: 844 } })).newPage();
    await page.goto(`${app.plain}/trust`); // it is led to TLS
    expect(new URL(page.url()).origin).toBe(app.url);
    await expect(page.getByRole("heading", { name: "Trust this server, once" })).toBeVisible();
    const fingerprint = /fingerprint is\s+([0-9A-F ]+)/.exec(app.said)?.[1]?.trim() ?? "";
    expect(fingerprint).toHaveLength(79);
    await expect(page.getByText(fingerprint)).toBeVisible();
    await accessible(page);
    expect(await page.evaluate("document.documentElement.scrollWidth")).toBeLessThanOrEqual(390);

    await page.goto(app.url + new URL(/https:\S+\/join#\S+/.exec(app.said)?.[0] ?? "").pathname + new URL(/https:\S+\/join#\S+/.exec(app.said)?.[0] ?? "").hash);
    await page.getByLabel("The workshop's name").fill("Harrow Lane bay");
    await page.getByLabel("Your name").fill("Odile Marrow");
    await page.getByLabel("Name or e-mail to sign in with").fill("odile");
    await page.getByRole("textbox", { name: "Password" }).fill("seven wet otters");
    await page.getByRole("button", { name: "Begin" }).click();
    await page.getByRole("button", { name: "New job" }).click();
    await page.getByLabel("Title", { exact: true }).fill("By TLS");
    await expect(page.locator("[data-saved=saved]")).toBeVisible();
    const cookies = await page.context().cookies();
    expect(cookies.map((c) => [c.name, c.secure, c.httpOnly])).toEqual([["__Host-epitrope", true, true]]);
  } finally {
    for (const p of [stranger, trusting]) {
      await p.browser.close();
      rmSync(p.home, { recursive: true, force: true });
    }
    await app.stop();
  }
});
