import { readdirSync, readFileSync } from "node:fs";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";

import { ask } from "../ask";
import { expect, test, url } from "../test";

const root = join(dirname(fileURLToPath(import.meta.url)), "../..");
const assets = readdirSync(join(root, "web/dist/assets"));
const built = (name: RegExp) => `/assets/${assets.find((a) => name.test(a))}`;

/** jobs are the documents of testdata, all of them or a part. */
const jobs = readdirSync(join(root, "testdata"), { recursive: true, encoding: "utf8" })
  .filter((name) => /^(jobs|arranged|demo)\/.*\.json$/.test(name))
  .sort()
  .filter((_, i) => process.env.EPITROPE_CHECK === "all" || i % 18 === 0);

interface Answered {
  status: number;
  text: string;
  ms: number;
}

/** near is how far figures may be apart that no place prints: sums are added up in another order on some processors. */
const near = 1e-11;

/** differs are the places at which two answers are not the same: words and choices to the last character, figures far beyond what is printed. */
function differs(ours: unknown, server: unknown, at: string): string[] {
  if (typeof ours === "number" && typeof server === "number" && Math.abs(ours - server) <= near * Math.max(1, Math.abs(server))) return [];
  if (typeof ours === "object" && typeof server === "object" && ours !== null && server !== null) {
    const keys = new Set([...Object.keys(ours), ...Object.keys(server)]);
    return [...keys].flatMap((k) => differs((ours as Record<string, unknown>)[k], (server as Record<string, unknown>)[k], `${at}.${k}`));
  }
  return ours === server ? [] : [`${at}: ${JSON.stringify(ours)} and not ${JSON.stringify(server)}`];
}

test("the core in the browser answers to the last printed digit as the server does", async ({ page }) => {
  test.setTimeout(1_200_000);
  await page.goto(`${url()}/`);
  const own = await (await ask(`${url()}/api/workshop`)).text();
  await page.evaluate(
    ({ worker, module, own }) => {
      const core = new Worker(worker, { type: "module" });
      const answers = new Map<number, (a: unknown) => void>();
      core.addEventListener("message", ({ data }: MessageEvent<{ n: number }>) => answers.get(data.n)?.(data));
      core.postMessage({ module, core: "none" });
      core.postMessage({ own });
      let n = 0;
      (window as unknown as { core: unknown }).core = (path: string, sent: string) =>
        new Promise((resolve) => {
          const began = performance.now();
          answers.set(++n, (a) => resolve({ ...(a as object), ms: performance.now() - began }));
          core.postMessage({ n, question: JSON.stringify({ path, today: new Date().toISOString().slice(0, 10) }), sent });
        });
    },
    { worker: built(/^core\.worker-.*\.js$/), module: built(/^along-.*\.wasm\.br$/).replace(/\.br$/, ""), own },
  );
  const here = (path: string, sent: string) => page.evaluate(([path, sent]) => (window as unknown as { core: (p: string, s: string) => Promise<Answered> }).core(path as string, sent as string), [path, sent]);
  const there = async (path: string, sent: string) => (await ask(url() + path, { method: "POST", headers: { "Content-Type": "application/json" }, body: sent })).text();
  const plans: number[] = [];
  for (const name of jobs) {
    const document = readFileSync(join(root, "testdata", name), "utf8");
    const both = async (path: string, sent: string): Promise<string> => {
      const [ours, server] = await Promise.all([here(path, sent), there(path, sent)]);
      expect(ours.status, `${name} ${path}: ${ours.text.slice(0, 200)}`).toBe(200);
      if (path === "/api/plan") plans.push(ours.ms);
      expect(differs(JSON.parse(ours.text), JSON.parse(server), name + path)).toEqual([]);
      return server;
    };
    await both("/api/plan", document);
    const entries: { id: string; kind: string; subject: string; entry: string; by: string; at: string }[] = [];
    const proof = () => JSON.stringify({ document: JSON.parse(document) as unknown, entries, done: [], photos: {} });
    const asked = JSON.parse(await both("/api/proof", proof())) as { readings: { id: string; unit: string; of?: string }[] };
    // One reading that is far out, so that verdict, causes and the next reading are said as well.
    const first = asked.readings.find((r) => r.unit === "V" && !r.of);
    if (!first) continue; // nothing is read while a stop stands
    entries.push({ id: "3f0b6e6e-0000-4000-8000-000000000001", kind: "reading", subject: first.id, entry: "9.87 V", by: "", at: "2031-01-01T00:00:00Z" });
    await both("/api/proof", proof());
    const seen = [{ symptom: "no-charge" }, { reading: first.id, entry: "9.87 V" }];
    if (process.env.EPITROPE_CHECK === "all" || jobs.indexOf(name) % 3 === 0) // it takes some seconds there
      await both("/api/trace", JSON.stringify({ document: JSON.parse(document) as unknown, evidence: { format: "epitrope-evidence", version: 1, seen } }));
    await both("/api/modes", document);
    await both("/api/make", document);
  }
  plans.sort((a, b) => a - b);
  console.log(`${jobs.length} jobs; a plan in the browser: median ${plans[plans.length >> 1]?.toFixed(0)} ms, 90 % within ${plans[Math.floor(plans.length * 0.9)]?.toFixed(0)} ms`);
});
