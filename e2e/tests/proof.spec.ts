import { spawn, type ChildProcess } from "node:child_process";
import { readFileSync, writeFileSync } from "node:fs";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";
import { deflateSync } from "node:zlib";

import { Application } from "../application";
import { accessible, expect, test, type Page } from "../test";
import { ask, cookieOf } from "../ask";

const root = join(dirname(fileURLToPath(import.meta.url)), "../..");
const van = join(root, "testdata/demo/3-sound-recordist.json");

let app: Application;
const running: ChildProcess[] = [];

test.beforeAll(async () => {
  app = await Application.start(false);
});
test.afterAll(async () => {
  for (const p of running) p.kill("SIGTERM");
  await app.stop();
});

/** standIn puts a vehicle that is not there on loopback, and lists its instruments in the settings. */
async function standIn(page: Page, name: string, ...flags: string[]): Promise<void> {
  const vehicle = spawn(join(root, "bin/epitrope"), ["standin", van, "--port", "0", ...flags], { stdio: ["ignore", "pipe", "inherit"] });
  running.push(vehicle);
  const address = await new Promise<string>((resolve) => {
    let said = "";
    vehicle.stdout.on("data", (data: Buffer) => {
      said += data.toString();
      const found = /meter: (\S+:\d+)/.exec(said)?.[1];
      if (found) resolve(found);
    });
  });
  await page.goto(`${app.url}/settings`);
  await page.getByLabel("Name of the instrument").fill(name);
  await page.getByLabel("Address").fill(address);
  await page.getByRole("button", { name: "Add it" }).click();
  await expect(page.getByRole("button", { name: `Take ${name} out` })).toBeVisible();
}

/** readAll takes every reading that is asked for next, by the meter or by looking, until all are read or one is out. */
async function readAll(page: Page, meter: string): Promise<"read" | "out"> {
  for (let i = 0; i < 60; i++) {
    const reading = page.getByRole("region", { name: "Reading" });
    const look = reading.getByRole("button", { name: "As stated" });
    const read = reading.getByRole("button", { name: "Read it from there" });
    await expect(look.or(read).or(reading.getByText("All is read."))).toBeVisible();
    if (await reading.getByText("All is read.").isVisible()) return "read";
    if (await look.isVisible()) await look.click();
    else {
      await reading.getByLabel("Instrument").selectOption(meter);
      await read.click();
    }
    const means = reading.locator("[data-level]").last();
    await expect(means).toBeVisible();
    if ((await means.getAttribute("data-level")) === "out") return "out";
    const next = reading.getByRole("button", { name: /^Next:/ });
    if (await next.isVisible()) await next.click();
    else {
      await expect(page.getByText("Sign-off")).toBeVisible();
      return "read";
    }
  }
  throw new Error("it goes on for ever");
}

/** png is a picture of one colour. */
function png(side: number): Buffer {
  const crc = (data: Buffer) => {
    let c = ~0;
    for (const byte of data) {
      c ^= byte;
      for (let k = 0; k < 8; k++) c = c & 1 ? (c >>> 1) ^ 0xedb88320 : c >>> 1;
    }
    return ~c >>> 0;
  };
  const chunk = (name: string, data: Buffer) => {
    const body = Buffer.concat([Buffer.from(name), data]);
    const out = Buffer.alloc(8);
    out.writeUInt32BE(data.length, 0);
    out.writeUInt32BE(crc(body), 4);
    return Buffer.concat([out.subarray(0, 4), body, out.subarray(4)]);
  };
  const head = Buffer.alloc(13);
  head.writeUInt32BE(side, 0);
  head.writeUInt32BE(side, 4);
  head.set([8, 2, 0, 0, 0], 8);
  const rows = Buffer.alloc(side * (1 + 3 * side), 0x90);
  for (let y = 0; y < side; y++) rows[y * (1 + 3 * side)] = 0;
  return Buffer.concat([Buffer.from([0x89, 0x50, 0x4e, 0x47, 13, 10, 26, 10]), chunk("IHDR", head), chunk("IDAT", deflateSync(rows)), chunk("IEND", Buffer.alloc(0))]);
}

/** stepped ticks every step of a job, as the bay does on sheet 6. */
async function stepped(id: string, document: unknown): Promise<void> {
  const made = (await (await ask(`${app.url}/api/make`, { method: "POST", headers: { "Content-Type": "application/json" }, body: JSON.stringify(document) })).json()) as { steps: { id: string }[] };
  const ticks = made.steps.map((s) => ({ id: crypto.randomUUID(), step: s.id, done: true, by: "Ivo Brandl", at: "2031-05-02T09:00:00Z" }));
  expect((await ask(`${app.url}/api/jobs/${id}/ticks`, { method: "POST", headers: { "Content-Type": "application/json" }, body: JSON.stringify(ticks) })).ok).toBe(true);
}

const document = JSON.parse(readFileSync(van, "utf8")) as Record<string, unknown>;

test.use({ viewport: { width: 390, height: 844 } });

test("a healthy vehicle, from an empty proof to a signed certificate, on a phone", async ({ page, browser }) => {
  test.setTimeout(180_000);
  const { id, section } = await app.create(document);
  await standIn(page, "bench meter", "--seed", "4");
  await page.goto(`${section}/proof`);
  await expect(page.getByText(/0 of \d+ read/)).toBeVisible();
  expect(await page.evaluate("document.documentElement.scrollWidth")).toBeLessThanOrEqual(390);
  await accessible(page);
  expect(await readAll(page, "bench meter")).toBe("read");
  await expect(page.getByText(/(\d+) of \1 read/)).toBeVisible();
  const gates = page.getByRole("region", { name: "Gates" });
  const sign = page.getByRole("button", { name: /^Sign/ });
  await expect(sign).toBeDisabled();
  await stepped(id, document);
  await page.reload();
  await gates.locator("[data-photo=covered]").setInputFiles({ name: "joint.png", mimeType: "image/png", buffer: png(64) });
  await expect(gates.getByAltText(/covered, taken by Ivo Brandl/)).toBeVisible();
  await expect(gates.getByText("Steps done")).toHaveCount(0);
  const say = async (gate: string, act: "State" | "Waive", text: string) => {
    const one = gates.locator("li", { hasText: gate });
    await one.getByRole("button", { name: `${act} it` }).click();
    await one.getByRole("textbox").fill(text);
    await one.getByRole("button", { name: act, exact: true }).click();
    await expect(one.locator("[data-state=open]")).toHaveCount(0);
  };
  await expect(sign).toBeDisabled();
  await say("Crimps: tool, die, pull test", "State", "hexagonal die of each size, each end pulled by hand");
  await say("recorded as fitted", "State", "as drawn");
  if (await gates.getByText("Regulation tested").isVisible()) await say("Regulation tested", "Waive", "the customer brings it back in May for the drive");
  await expect(sign).toBeEnabled();
  await sign.click();
  const certificate = page.getByRole("link", { name: "Certificate 1" });
  await expect(certificate).toBeVisible();
  await accessible(page);
  const pdf = await ask(`${app.url}/api/jobs/${id}/signoffs/1/certificate.pdf`);
  expect(pdf.headers.get("content-type")).toBe("application/pdf");
  const bytes = Buffer.from(await pdf.arrayBuffer());
  expect(bytes.subarray(0, 5).toString()).toBe("%PDF-");
  const pack = Buffer.from(await (await ask(`${app.url}/api/jobs/${id}/pack.pdf`)).arrayBuffer());
  expect(pack.length).toBeGreaterThan(bytes.length);
  // The vehicle's owner sees what was handed over, tells of a drive, and reaches nothing else.
  await page.goto(`${section}/record`);
  await page.getByRole("region", { name: "For the vehicle's owner" }).getByRole("button", { name: "Make a link" }).click();
  const link = await page.getByLabel("The link").inputValue();
  const theirs = await browser.newContext({ viewport: { width: 390, height: 844 } });
  const owner = await theirs.newPage();
  await owner.goto(link);
  await expect(owner.getByRole("heading", { name: "What to do when" })).toBeVisible();
  await owner.getByLabel("Driven, h").fill("2");
  await owner.getByLabel("Before, %").fill("50");
  await owner.getByLabel("After, %").fill("50");
  await owner.getByRole("button", { name: "Tell the workshop" }).click();
  await expect(owner.getByText("The workshop has it now")).toBeVisible();
  await accessible(owner);
  expect(await owner.evaluate("document.documentElement.scrollWidth")).toBeLessThanOrEqual(390);
  expect((await theirs.request.get(`${app.url}/api/jobs/${id}`)).status()).toBe(401);
  if (process.env.EPITROPE_KEEP) await owner.screenshot({ path: join(process.env.EPITROPE_KEEP, "handed.png"), fullPage: true });
  await theirs.close();
  await page.goto(`${section}/proof`);
  await expect(page.getByText(/the vehicle's owner: 2.0 h, 50 % to 50 %/)).toBeVisible();
  if (process.env.EPITROPE_KEEP) {
    writeFileSync(join(process.env.EPITROPE_KEEP, "certificate.pdf"), bytes);
    writeFileSync(join(process.env.EPITROPE_KEEP, "pack.pdf"), pack);
  }
});

test("a faulty one is noticed at the stretch, its cause is named, and nobody signs for it", async ({ page }) => {
  test.setTimeout(120_000);
  const { section } = await app.create({ ...document, title: "A bad joint" });
  await standIn(page, "other meter", "--seed", "5", "--fault", "joint c1 to", "--size", "0.45");
  await page.goto(`${section}/proof`);
  expect(await readAll(page, "other meter")).toBe("out");
  await expect(page.getByRole("region", { name: "What may be wrong" })).toContainText("C1");
  await accessible(page);
  await page.setViewportSize({ width: 1280, height: 800 });
  await accessible(page);
  await expect(page.getByRole("button", { name: /^Sign/ })).toBeDisabled();
});

test.describe("what is entered by hand", () => {
  test("a slip is met with words that help, and the later reading stands", async ({ page }) => {
    const { section } = await app.create({ ...document, title: "Slips" });
    await page.goto(`${section}/proof`);
    const type = async (text: string) => {
      await page.getByRole("textbox", { name: /, read$/ }).fill(text);
      await page.getByRole("button", { name: "Enter" }).click();
    };
    await type("126");
    await expect(page.getByText("12.60 V would be as expected")).toBeVisible();
    await page.getByRole("button", { name: "Take it again" }).click();
    await type("-12,6");
    await expect(page.getByText("the probes are changed over")).toBeVisible();
    await page.getByRole("button", { name: "Take it again" }).click();
    await type("OL");
    await expect(page.getByText("over the meter's range")).toBeVisible();
    await type("12,6 V");
    await expect(page.getByText("As expected", { exact: true })).toBeVisible();
    await expect(page.getByText(/^1 of \d+ read/)).toBeVisible();
  });

  test.describe("with the server gone", () => {
    test.use({ allowed: /Failed to load resource|ERR_CONNECTION_REFUSED/ });
    test("it waits on the device, and arrives once", async ({ page }) => {
      const own = await Application.start(false);
      try {
        const { id, section } = await own.create({ ...document, title: "No signal" });
        await page.goto(`${section}/proof`);
        await expect(page.getByText(/0 of \d+ read/)).toBeVisible();
        await own.stopServer();
        await page.getByRole("textbox", { name: /, read$/ }).fill("12.6");
        await page.getByRole("button", { name: "Enter" }).click();
        await expect(page.getByText("1 kept on this device until the server answers")).toBeVisible();
        await own.startServer();
        await page.goto(`${own.url}/jobs/${id}/proof`);
        await expect(page.getByText(/^1 of \d+ read$/)).toBeVisible({ timeout: 20_000 });
        const kept = (await (await ask(`${own.url}/api/jobs/${id}/proof`)).json()) as { entries: unknown[] };
        expect(kept.entries).toHaveLength(1);
      } finally {
        await own.stop();
      }
    });
  });
});

test("two browsers on one job: each sees the other's readings, and what is typed outlives a reload", async ({ page, browser }) => {
  const { section } = await app.create({ ...document, title: "Two of us" });
  await page.goto(`${section}/proof`);
  const context = await browser.newContext({ viewport: { width: 390, height: 844 } });
  const [name = "", value = ""] = (await cookieOf(app.url, "installer")).split("=");
  await context.addCookies([{ name, value, url: app.url }]);
  const other = await context.newPage();
  await other.goto(`${section}/proof`);
  await other.getByRole("button", { name: /Aux battery at rest/ }).click();
  await other.getByRole("textbox", { name: "Aux battery at rest, read" }).fill("12.3");
  await page.getByRole("textbox", { name: "Start battery at rest, read" }).fill("12.6");
  await page.getByRole("button", { name: "Enter" }).click();
  await expect(page.getByText("As expected", { exact: true })).toBeVisible();
  await expect(other.getByText(/^1 of \d+ read/)).toBeVisible({ timeout: 15_000 });
  await other.reload();
  await other.getByRole("button", { name: /Aux battery at rest/ }).click();
  await expect(other.getByRole("textbox", { name: "Aux battery at rest, read" })).toHaveValue("12.3");
  await other.getByRole("button", { name: "Enter" }).click();
  await expect(page.getByText(/^2 of \d+ read/)).toBeVisible({ timeout: 15_000 });
  await page.getByRole("button", { name: /Aux battery at rest/ }).click();
  await expect(page.getByText(/^Teo Varga, /)).toBeVisible();
  await other.context().close();
});
