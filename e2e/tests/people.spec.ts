import type { BrowserContext } from "@playwright/test";

import { Application } from "../application";
import { accessible, expect, saved, test, type Page } from "../test";

// Who is signed out meanwhile asks once more, and is refused.
test.use({ allowed: /status of (401|403|422|429)/ });

const password = "seven wet otters";

/** joinBy opens a link and comes in by it. */
async function joinBy(page: Page, link: string, who: { name: string; workshop?: string }): Promise<void> {
  await page.goto(link);
  if (who.workshop) await page.getByLabel("The workshop's name").fill(who.workshop);
  await page.getByLabel("Your name").fill(who.name);
  await page.getByLabel("Name or e-mail to sign in with").fill(who.name.split(" ")[0] ?? "");
  await page.getByRole("textbox", { name: "Password" }).fill(password);
  await page.getByRole("button", { name: who.workshop ? "Begin" : "Join" }).click();
  await expect(page.getByRole("heading", { name: "Today", exact: true })).toBeVisible();
}

/** invited is a link for somebody of a role, made by whoever the page is. */
async function invited(page: Page, app: Application, role: string): Promise<string> {
  await page.goto(`${app.url}/people`);
  await page.getByLabel("Invited as").selectOption(role);
  await page.getByRole("button", { name: "Make a link" }).click();
  return page.getByLabel("The link").inputValue();
}

async function signIn(page: Page, name: string): Promise<void> {
  await page.getByLabel("Name or e-mail").fill(name);
  await page.getByRole("textbox", { name: "Password" }).fill(password);
  await page.getByRole("button", { name: "Sign in" }).click();
}

const phone = { viewport: { width: 390, height: 844 } };

test.describe.serial("a workshop of its own", () => {
  let app: Application;
  let office: BrowserContext;
  let owner: Page;
  let job: string;

  test.beforeAll(async ({ browser }) => {
    app = await Application.fresh();
    office = await browser.newContext();
    owner = await office.newPage();
  });
  test.afterAll(async () => {
    await office.close();
    await app.stop();
  });

  test("from the first start to the first job", async ({ browser }) => {
    await owner.goto(app.url);
    await expect(owner.getByText("There is no workshop here yet.")).toBeVisible();
    const link = /http:\/\/localhost:\d+\/join#\S+/.exec(app.said)?.[0] ?? "";
    expect(link).not.toBe("");
    await owner.goto(link);
    await expect(owner.getByRole("heading", { name: "Begin your workshop" })).toBeVisible();
    await accessible(owner);
    await owner.getByRole("textbox", { name: "Password" }).fill("password123");
    await owner.getByLabel("The workshop's name").fill("Harrow Lane bay");
    await owner.getByLabel("Your name").fill("Odile Marrow");
    await owner.getByLabel("Name or e-mail to sign in with").fill("odile@harrow.example");
    await owner.getByRole("button", { name: "Begin" }).click();
    await expect(owner.getByText(/one of the best known/)).toBeVisible();
    await owner.getByRole("textbox", { name: "Password" }).fill(password);
    await owner.getByRole("button", { name: "Begin" }).click();
    await expect(owner.getByText("No jobs yet.")).toBeVisible();
    await owner.getByRole("button", { name: "New job" }).click();
    await owner.getByLabel("Title", { exact: true }).fill("Odile's first");
    await saved(owner);
    job = new URL(owner.url()).pathname.split("/")[2] ?? "";
    await expect(owner.getByText(/job 0001/)).toBeVisible();
    // The link is good once.
    const other = await (await browser.newContext()).newPage();
    await other.goto(link);
    await expect(other.getByText("This link is not, or no longer, of use.")).toBeVisible();
    await other.context().close();
  });

  test("an apprentice is invited, and their hold point waits for a countersignature", async ({ browser }) => {
    const bay = await browser.newContext(phone);
    const pim = await bay.newPage();
    await joinBy(pim, await invited(owner, app, "apprentice"), { name: "Pim Aldous" });
    await expect(pim.getByRole("button", { name: "New job" })).toHaveCount(0);
    await pim.goto(`${app.url}/jobs/${job}/steps`);
    await pim.getByRole("navigation", { name: "All steps" }).getByRole("button", { name: /Before panels and floor close/ }).click();
    for (const box of await pim.getByRole("checkbox").all()) await box.check();
    await pim.getByRole("button", { name: "Sign", exact: true }).click();
    await pim.getByRole("navigation", { name: "All steps" }).getByRole("button", { name: /Before panels and floor close/ }).click();
    await expect(pim.getByText(/Signed by Pim Aldous.*waits for a countersignature/)).toBeVisible();
    await expect(pim.getByRole("button", { name: "Countersign", exact: true })).toHaveCount(0);
    // What depends on it still waits.
    await pim.getByRole("navigation", { name: "All steps" }).getByRole("button", { name: /Close panels and floor/ }).click();
    await expect(pim.getByText("Waits for the hold point")).toBeVisible();
    // A question, with a mention.
    await pim.getByRole("button", { name: "Ask or say something" }).click();
    await pim.getByRole("textbox", { name: "Question or comment" }).fill("Is the panel glued?");
    await pim.getByLabel("Mention somebody").selectOption("Odile Marrow");
    await accessible(pim);
    await pim.getByRole("button", { name: "Ask", exact: true }).click();
    await expect(pim.getByText("1 open question")).toBeVisible();

    await owner.goto(app.url);
    const waits = owner.getByRole("region", { name: "Waits for somebody" });
    await expect(waits.getByText("To countersign")).toBeVisible();
    await expect(waits.getByText("You are asked")).toBeVisible();
    await waits.getByRole("link", { name: /of an apprentice/ }).click();
    await owner.getByRole("region", { name: "Countersignatures" }).getByRole("button", { name: "Countersign", exact: true }).click();
    await expect(owner.getByRole("region", { name: "Countersignatures" })).toHaveCount(0);
    await owner.goto(app.url);
    await waits.getByRole("link", { name: /Is the panel glued/ }).click();
    await owner.getByRole("navigation", { name: "All steps" }).getByRole("button", { name: /Close panels and floor/ }).click();
    await owner.getByRole("button", { name: "1 open question" }).click();
    await owner.getByRole("button", { name: "Answer", exact: true }).click();
    await owner.getByRole("textbox", { name: "Answer" }).fill("No, four screws.");
    await owner.getByRole("button", { name: "Answer", exact: true }).click();
    await expect(owner.getByText("1 comment")).toBeVisible();
    await pim.reload();
    await expect(pim.getByRole("navigation", { name: "All steps" }).getByRole("button", { name: /Before panels and floor close/ })).toContainText("✓");
    await owner.goto(app.url);
    await expect(owner.getByRole("heading", { name: "Today", exact: true })).toBeVisible();
    await expect(waits).toHaveCount(0);
    // The job's trail has it all, under the names of those who did it.
    await owner.goto(`${app.url}/jobs/${job}/record`);
    const trail = owner.getByRole("region", { name: "Who did what" });
    await trail.getByRole("button", { name: "Show it" }).click();
    await expect(trail.getByText("Pim Aldous ticked Before panels and floor close")).toBeVisible();
    await expect(trail.getByText("Odile Marrow countersigned Before panels and floor close")).toBeVisible();
    await expect(trail.getByText(/Odile Marrow answered/)).toBeVisible();
    await accessible(owner);
    await bay.close();
  });

  test("an installer changes what was measured, and not what is decided", async ({ browser }) => {
    const bay = await browser.newContext();
    const teo = await bay.newPage();
    await joinBy(teo, await invited(owner, app, "installer"), { name: "Teo Varga" });
    await teo.goto(`${app.url}/jobs/${job}`);
    await expect(teo.getByLabel("Title", { exact: true })).toHaveAttribute("readonly", "");
    await teo.locator("[data-part=aux]").click();
    await teo.getByLabel("Aux battery capacity").fill("140");
    await saved(teo);
    await expect(teo.locator("[data-cell='aux.part']")).toContainText("140 Ah");
    await bay.close();
  });

  test("who is let go cannot save another key, is told why, and loses nothing typed", async ({ browser }) => {
    const desk = await browser.newContext();
    const sanna = await desk.newPage();
    await joinBy(sanna, await invited(owner, app, "designer"), { name: "Sanna Keel" });
    await sanna.goto(`${app.url}/jobs/${job}`);
    await expect(sanna.getByLabel("Title", { exact: true })).toHaveValue("Odile's first");
    await owner.goto(`${app.url}/people`);
    const row = owner.getByRole("region", { name: "Who works here" }).getByRole("listitem").filter({ hasText: "Sanna Keel" });
    await row.getByRole("button", { name: "Let go" }).click();
    await row.getByRole("button", { name: "Yes, let Sanna Keel go" }).click();
    await expect(row.getByText(/^left /)).toBeVisible();
    await sanna.getByLabel("Title", { exact: true }).fill("Sanna's title");
    await expect(sanna.getByRole("dialog", { name: "You are signed out here" })).toBeVisible();
    await expect(sanna.getByLabel("Title", { exact: true })).toHaveValue("Sanna's title");
    await accessible(sanna);
    const draft = (await (await owner.request.get(`${app.url}/api/jobs/${job}`)).json()) as { draft: { document: { title: string } } };
    expect(draft.draft.document.title).toBe("Odile's first");
    expect(await sanna.evaluate(() => JSON.stringify(window.localStorage))).toContain("Sanna's title");
    await desk.close();
  });

  test("a passkey is made, and signs in", async ({ browser }) => {
    await owner.goto(`${app.url}/account`);
    const client = await office.newCDPSession(owner);
    await client.send("WebAuthn.enable");
    await client.send("WebAuthn.addVirtualAuthenticator", { options: { protocol: "ctap2", transport: "internal", hasResidentKey: true, hasUserVerification: true, isUserVerified: true, automaticPresenceSimulation: true } });
    const passkeys = owner.getByRole("region", { name: "Passkeys" });
    await passkeys.getByLabel("What to call it").fill("office");
    await passkeys.getByRole("textbox", { name: "Your password" }).fill(password);
    await passkeys.getByRole("button", { name: "Make a passkey" }).click();
    await expect(passkeys.getByRole("list", { name: "Passkeys" }).getByText("office")).toBeVisible();
    await accessible(owner);
    await owner.getByRole("button", { name: /Odile Marrow/ }).click();
    await owner.getByRole("menuitem", { name: "Sign out" }).click();
    await owner.getByRole("button", { name: "Use a passkey" }).click();
    await expect(owner.getByRole("heading", { name: "Today", exact: true })).toBeVisible();
    // By its number there are none, and the page says why.
    const other = await (await browser.newContext()).newPage();
    await other.goto(app.url.replace("localhost", "127.0.0.1"));
    await expect(other.getByText("Passkeys belong to a name")).toBeVisible();
    await accessible(other);
    await other.context().close();
  });

  test("sign-out everywhere: a stolen cookie dies", async ({ browser }) => {
    const elsewhere = await browser.newContext();
    const page = await elsewhere.newPage();
    await page.goto(app.url);
    await signIn(page, "odile@harrow.example");
    await expect(page.getByRole("heading", { name: "Today", exact: true })).toBeVisible();
    const stolen = (await elsewhere.cookies()).map((c) => `${c.name}=${c.value}`).join("; ");
    expect((await fetch(`${app.url}/api/jobs`, { headers: { Cookie: stolen } })).status).toBe(200);
    await owner.goto(`${app.url}/account`);
    await owner.getByRole("button", { name: "Sign out everywhere but here" }).click();
    await expect(owner.getByRole("list", { name: "Where you are signed in" }).getByRole("listitem")).toHaveCount(1);
    expect((await fetch(`${app.url}/api/jobs`, { headers: { Cookie: stolen } })).status).toBe(401);
    await page.locator("[data-job]").getByRole("link", { name: /Odile's first/ }).click();
    await expect(page.getByRole("dialog", { name: "You are signed out here" })).toBeVisible();
    await signIn(page, "odile@harrow.example");
    await expect(page.getByLabel("Title", { exact: true })).toHaveValue("Odile's first");
    await elsewhere.close();
  });

  test("the bay's tablet is switched by PIN", async ({ browser }) => {
    const mine = await browser.newContext();
    const teo = await mine.newPage();
    await teo.goto(`${app.url}/account`);
    await signIn(teo, "teo");
    const part = teo.getByRole("region", { name: "PIN for the bay's tablet" });
    await part.getByLabel("PIN", { exact: true }).fill("1111");
    await part.getByRole("textbox", { name: "Your password" }).fill(password);
    await part.getByRole("button", { name: "Set the PIN" }).click();
    await expect(part.getByText("Such a PIN is tried first")).toBeVisible();
    await part.getByLabel("PIN", { exact: true }).fill("7302");
    await part.getByRole("button", { name: "Set the PIN" }).click();
    await expect(part.getByText("You have one.")).toBeVisible();
    await mine.close();

    const bay = await browser.newContext(phone);
    const tablet = await bay.newPage();
    await tablet.goto(`${app.url}/account`);
    await signIn(tablet, "odile@harrow.example");
    await tablet.getByRole("button", { name: "This is the bay's tablet" }).click();
    await expect(tablet.getByRole("heading", { name: "Who has the tablet?" })).toBeVisible();
    await accessible(tablet);
    expect((await bay.request.get(`${app.url}/api/jobs`)).status()).toBe(401);
    await tablet.getByRole("button", { name: /Teo Varga/ }).click();
    for (const d of "7303") await tablet.getByRole("button", { name: d, exact: true }).click();
    await tablet.getByRole("button", { name: "Take it" }).click();
    await expect(tablet.getByText("That is not the PIN.")).toBeVisible();
    for (const d of "7302") await tablet.getByRole("button", { name: d, exact: true }).click();
    await tablet.getByRole("button", { name: "Take it" }).click();
    await expect(tablet.getByRole("heading", { name: "Today", exact: true })).toBeVisible();
    await tablet.goto(`${app.url}/jobs/${job}/steps`);
    await tablet.getByRole("button", { name: "Done", exact: true }).click();
    await expect(tablet.getByRole("navigation", { name: "All steps" }).getByRole("button", { name: /Everything in hand.*Teo Varga/ })).toBeVisible();
    // What the bay does not do is not done there.
    expect((await bay.request.get(`${app.url}/api/account`)).status()).toBe(403);
    await tablet.getByRole("button", { name: /Teo Varga|TV/ }).first().click();
    await tablet.getByRole("menuitem", { name: "Put the tablet down" }).click();
    await expect(tablet.getByRole("heading", { name: "Who has the tablet?" })).toBeVisible();
    await bay.close();
  });

  test("a lost password is set anew by the owner's link", async ({ browser }) => {
    await owner.goto(`${app.url}/people`);
    const row = owner.getByRole("region", { name: "Who works here" }).getByRole("listitem").filter({ hasText: "Pim Aldous" });
    await row.getByRole("button", { name: "New password" }).click();
    const link = await owner.getByLabel("The link").inputValue();
    const page = await (await browser.newContext()).newPage();
    await page.goto(link);
    await page.getByRole("textbox", { name: "Password" }).fill("eleven dry otters");
    await page.getByRole("button", { name: "Set it, and sign in" }).click();
    await expect(page.getByRole("heading", { name: "Today", exact: true })).toBeVisible();
    await page.context().close();
  });
});
