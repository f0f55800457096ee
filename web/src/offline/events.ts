import type { Schemas } from "../api/client";
import { heard } from "./heard";
import { lost, reached } from "./reach";

export type Changed = Schemas["Changed"];

/** A stream of which nothing was heard for so long is taken to be gone, in ms: the server says every 15 s that it is there. */
const silence = 25_000;

const state = heard(false);
/** live says whether pages hear of changes as they happen; otherwise they ask now and then. */
export const live = { now: state.now, listen: state.listen };

let told: (c: Changed) => void = () => undefined;
let begun = false;
let timer: ReturnType<typeof setTimeout> | undefined;
const windows = typeof BroadcastChannel === "undefined" ? null : new BroadcastChannel("epitrope:changes");

function hear(c: Changed | null) {
  state.set(true);
  clearTimeout(timer);
  timer = setTimeout(() => state.set(false), silence);
  if (c) told(c);
}

windows?.addEventListener("message", ({ data }: MessageEvent<Changed | null>) => hear(data));

/** listen hears what changes in the workshop. One window of a browser listens for all of them: an address takes few lines at once. */
export function listen(tell: (c: Changed) => void) {
  told = tell;
  if (begun || typeof EventSource === "undefined") return;
  begun = true;
  if (navigator.locks) void navigator.locks.request("epitrope:changes", () => new Promise(() => open()));
  else open();
}

function open() {
  const stream = new EventSource("/api/events");
  const relay = (c: Changed | null) => {
    reached();
    windows?.postMessage(c);
    hear(c);
  };
  stream.addEventListener("change", ({ data }: MessageEvent<string>) => relay(JSON.parse(data) as Changed));
  stream.addEventListener("still", () => relay(null));
  stream.addEventListener("error", () => {
    state.set(false);
    if (stream.readyState !== EventSource.CLOSED) {
      lost();
      return; // the browser opens it again by itself
    }
    told({ what: "anything" }); // refused: whoever is signed out learns it by asking
    setTimeout(open, 5000);
  });
}
