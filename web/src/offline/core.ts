import module from "../../core/along.wasm?url";

/** Answered is an answer of the core: a status as HTTP has it, and the answer as JSON or what was wrong. */
export interface Answered {
  status: number;
  text: string;
}

/** build names the core's code: by its content. */
export const build = module;

/** core is where the core's code is kept on this device. */
const core = "epitrope-core";

let worker: Worker | undefined;
let owns = "";
let count = 0;
const asked = new Map<number, (a: Answered) => void>();

/** fetchCore brings the core's code onto this device, unless it is there, and takes away what is out of date. */
export async function fetchCore(): Promise<void> {
  const cache = await caches.open(core);
  if (await cache.match(module)) return;
  await cache.add(module);
  for (const old of await cache.keys()) if (!old.url.endsWith(module)) await cache.delete(old);
}

/** dropCore takes the core's code off this device. */
export async function dropCore(): Promise<void> {
  worker?.terminate();
  worker = undefined;
  await caches.delete(core);
}

/** hasCore says whether the core's code is on this device. */
export async function hasCore(): Promise<boolean> {
  return typeof caches !== "undefined" && (await caches.match(module, { cacheName: core })) !== undefined;
}

/** begun starts the core with what the workshop has of its own, as JSON. */
function begun(own: string): Worker {
  if (!worker) {
    worker = new Worker(new URL("./core.worker.ts", import.meta.url), { type: "module" });
    worker.addEventListener("message", ({ data }: MessageEvent<{ n: number } & Answered>) => {
      asked.get(data.n)?.(data);
      asked.delete(data.n);
    });
    worker.postMessage({ module, core });
    owns = "";
  }
  if (owns !== own) {
    worker.postMessage({ own });
    owns = own;
  }
  return worker;
}

/** ask has the core on this device answer a question to the API. */
export function ask(own: string, question: Record<string, unknown>, sent: string, signal: AbortSignal): Promise<Answered> {
  return new Promise((resolve, reject) => {
    const n = ++count;
    const at = begun(own);
    asked.set(n, resolve);
    signal.addEventListener("abort", () => {
      if (asked.delete(n)) at.postMessage({ forget: n });
      reject(signal.reason as Error);
    });
    at.postMessage({ n, question: JSON.stringify(question), sent });
  });
}
