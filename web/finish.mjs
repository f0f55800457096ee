// Finishes what Vite built: packs the core once and well, and tells the service worker what the application is made of.
import { createHash } from "node:crypto";
import { readdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { brotliCompressSync, constants } from "node:zlib";

const dist = new URL("dist/", import.meta.url);
const assets = readdirSync(new URL("assets/", dist)).sort();

for (const name of assets.filter((n) => n.endsWith(".wasm"))) {
  const file = new URL(`assets/${name}`, dist);
  const whole = readFileSync(file);
  const { BROTLI_PARAM_QUALITY, BROTLI_PARAM_LGWIN, BROTLI_PARAM_SIZE_HINT } = constants;
  writeFileSync(new URL(`${file.href}.br`), brotliCompressSync(whole, { params: { [BROTLI_PARAM_QUALITY]: 9, [BROTLI_PARAM_LGWIN]: 24, [BROTLI_PARAM_SIZE_HINT]: whole.length } }));
  rmSync(file);
}

// The shell is all but the core, which comes with the first job that is taken along.
const shell = ["/", "/icon.svg", "/manifest.json", ...assets.filter((n) => !n.endsWith(".wasm")).map((n) => `/assets/${n}`)];
const digest = createHash("sha256");
for (const path of shell) digest.update(readFileSync(new URL(path === "/" ? "index.html" : `.${path}`, dist)));
const worker = readFileSync(new URL("src/offline/serviceWorker.js", import.meta.url), "utf8");
writeFileSync(new URL("sw.js", dist), worker.replace('"SHELL"', JSON.stringify(shell)).replace('"BUILD"', JSON.stringify(digest.digest("hex").slice(0, 12))));
