/// <reference lib="webworker" />
import "../../core/wasm_exec.js";

/** What Go's own script and the core set up in this worker. */
declare const Go: new () => { importObject: WebAssembly.Imports; run(instance: WebAssembly.Instance): Promise<void> };
interface Core {
  begin(own: string): string;
  ask(question: string, sent: string): { status: number; text: string };
}

interface Message {
  module?: string;
  core?: string;
  own?: string;
  n?: number;
  question?: string;
  sent?: string;
  forget?: number;
}

const epitrope = {} as Core;
(self as unknown as { epitrope: Core }).epitrope = epitrope;

/** start runs the core: from this device where it is kept here. */
async function start(module: string, core: string): Promise<void> {
  const kept = await caches.match(module, { cacheName: core });
  const go = new Go();
  const { instance } = await WebAssembly.instantiateStreaming(kept ?? fetch(module), go.importObject);
  void go.run(instance); // it sets up what it answers before it first rests
}

let started: Promise<void>;
/** Questions whose askers have left: they are not worked out. */
const forgotten = new Set<number>();
const rest = () => new Promise((resolve) => setTimeout(resolve));

self.addEventListener("message", ({ data }: MessageEvent<Message>) => void take(data));

async function take({ module, core, own, n, question, sent, forget }: Message): Promise<void> {
  if (module && core) {
    started = start(module, core);
    return;
  }
  if (forget !== undefined) {
    forgotten.add(forget);
    return;
  }
  try {
    await started;
    if (own !== undefined) {
      const wrong = epitrope.begin(own);
      if (wrong) throw new Error(wrong);
      return;
    }
    await rest(); // so that it is known who has left meanwhile
    if (n === undefined || forgotten.delete(n)) return;
    self.postMessage({ n, ...epitrope.ask(question ?? "", sent ?? "") });
  } catch (error) {
    if (n !== undefined) self.postMessage({ n, status: 503, text: String(error) });
  }
}
