import { Refused, type Problem } from "../api/client";
import { ahead, behind } from "./ahead";
import { db, type Road, type Waits } from "./db";
import { heard } from "./heard";
import { lose, tally } from "./marker";
import { away } from "./reach";
import { roads } from "./roads";

/** again is how long to wait before what did not arrive is sent again, in ms. */
const again = 3000;

const list = heard<Waits[]>([]);
/** waits are the entries that the server does not have, in their order, and those that it cannot keep. */
export const waits = { now: list.now, listen: list.listen };

type Heard = (job: string, road: Road, whole: unknown) => Promise<unknown> | void;
let arrived: Heard = () => undefined;

/** onArrived hears of entries that arrived, before they leave the row; whole is what the server answered, or undefined where another window heard it. */
export function onArrived(hears: Heard) {
  arrived = hears;
}

const windows = typeof BroadcastChannel === "undefined" ? null : new BroadcastChannel("epitrope:waits");
windows?.addEventListener("message", ({ data }: MessageEvent<{ job?: string; road?: Road }>) => {
  void Promise.resolve(data.job && data.road ? arrived(data.job, data.road, undefined) : undefined).finally(load);
});

/** load reads the row as this browser keeps it; what is in this window alone stays behind it. */
export async function load(): Promise<void> {
  try {
    const kept = await (await db()).getAll("waits");
    const ids = new Set(kept.map((w) => w.id));
    list.set([...kept, ...list.now().filter((w) => (w.loose || w.seq === undefined) && !ids.has(w.id))]);
    lose(kept.length);
    tally(list.now().length);
  } catch {
    // it keeps nothing: what is entered stays in this window
  }
}

/** wait puts an entry at the end of the row: it is in this window at once, and on this device as soon as the browser has written it. */
export async function wait(entry: Waits): Promise<void> {
  list.set([...list.now(), entry]);
  ahead(entry);
  let kept: Waits;
  try {
    const seq = await (await db()).add("waits", entry);
    kept = { ...entry, seq };
    behind(entry.id);
  } catch {
    kept = { ...entry, loose: true }; // it may still be written ahead: then the next window takes it in
  }
  list.set(list.now().map((w) => (w.id === entry.id ? kept : w)));
  tally(list.now().length);
  windows?.postMessage({});
  void drain();
}

/** drop takes entries out of the row. */
export async function drop(gone: Waits[]): Promise<void> {
  const ids = new Set(gone.map((w) => w.id));
  for (const w of gone) behind(w.id);
  try {
    const tx = (await db()).transaction("waits", "readwrite");
    for (const w of gone) if (w.seq !== undefined) await tx.store.delete(w.seq);
    await tx.done;
  } catch {
    // where nothing is kept there is nothing to take out
  }
  list.set(list.now().filter((w) => !ids.has(w.id)));
  tally(list.now().length);
}

/** refuse notes why the server cannot keep an entry: it stays to be read. */
async function refuse(w: Waits, problems: Problem[]): Promise<void> {
  const kept = { ...w, refused: problems };
  try {
    if (w.seq !== undefined) await (await db()).put("waits", kept);
  } catch {
    // it stays in this window
  }
  list.set(list.now().map((one) => (one.id === w.id ? kept : one)));
}

let whose: string | undefined;
/** sendAs says who is signed in here: what somebody else entered waits until they are back. */
export function sendAs(person: string | undefined) {
  whose = person;
  void drain();
}

/** mine says whether an entry may be sent from here now. */
export const mine = (w: Waits) => !w.person || w.person === whose;

/** next are the entries that are sent next: the first that may be, with those right behind it on the same road. */
export function next(all: Waits[], may: (w: Waits) => boolean): Waits[] {
  const ready = all.filter((w) => !w.refused && may(w));
  const first = ready[0];
  if (!first) return [];
  const end = ready.findIndex((w) => w.job !== first.job || w.road !== first.road);
  return ready.slice(0, Math.min(end < 0 ? ready.length : end, roads[first.road].most));
}

let timer: ReturnType<typeof setTimeout> | undefined;
let busy = false;
let asked = false;

/** drain sends what waits, in its order, from one window at a time. */
export async function drain(): Promise<void> {
  asked = true;
  if (busy) return;
  busy = true;
  clearTimeout(timer);
  try {
    while (asked && whose) {
      asked = false; // who asks meanwhile is heard after this round
      await alone(send);
    }
  } finally {
    busy = false;
  }
  if (next(list.now(), mine).length > 0) timer = setTimeout(() => void drain(), again);
}

/** alone does something unless another window does it. */
async function alone(work: () => Promise<void>): Promise<void> {
  const locks = typeof navigator === "undefined" ? undefined : navigator.locks;
  if (!locks) return work();
  await locks.request("epitrope:send", { ifAvailable: true }, (lock) => (lock ? work() : undefined));
}

async function send(): Promise<void> {
  for (let batch = next(list.now(), mine); batch.length > 0; batch = next(list.now(), mine)) {
    const { job, road } = batch[0] as Waits;
    try {
      const answer = await roads[road].send(job, batch);
      const bad = new Map(answer.refused.map((r) => [r.id, r.problems]));
      await arrived(job, road, answer.whole);
      for (const w of batch) if (bad.has(w.id)) await refuse(w, bad.get(w.id) ?? []);
      await drop(batch.filter((w) => !bad.has(w.id)));
      windows?.postMessage({ job, road });
    } catch (error) {
      if (!(error instanceof Refused) || passing(error)) return;
      const { problems, detail } = error.refusal;
      for (const w of batch) await refuse(w, problems.length > 0 ? problems : [{ field: "", value: "", wrong: detail, allowed: "" }]);
    }
  }
}

/** passing says whether a refusal says nothing of what was sent: signed out, too many at once, a server or database that is away. */
function passing({ refusal }: Refused): boolean {
  return refusal.status >= 500 || [401, 408, 429].includes(refusal.status);
}

away.listen(() => {
  if (!away.now()) void drain();
});

