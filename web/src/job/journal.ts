import { db } from "../offline/db";
import { keep as store, names, recall } from "../ui/stored";
import type { Doc } from "./document";

/**
 * Journal is what is not yet on the server, kept in the browser: a reload, a crash
 * or a lost network loses nothing typed.
 */
export interface Journal {
  base: number;
  baseDoc: Doc;
  doc: Doc;
  typing: Record<string, string>;
  /** The name under which its window saves: what that saved, its answer lost, is no conflict. */
  by?: string;
  /** Whose it is. */
  person?: string;
  /** When its window last said that it is alive, in ms. */
  beat: number;
}

/** silence is how long a window may be quiet before its journal is taken over, in ms. */
export const silence = 15_000;

/** unkept is what this window is called where the browser forbids to keep it. */
const unkept = Math.random().toString(36).slice(2);

function windowName(): string {
  const name = recall("epitrope:window", "window") ?? unkept;
  store("epitrope:window", name, "window");
  return name;
}

/** whose is whom the journals of this window are, so that nobody saves what somebody else typed. */
let whose = "";

/** under has journals kept and found under somebody's name. */
export function under(person: string): void {
  whose = person;
}

const own = (job: string) => prefix(job) + windowName() + (whose && `.${whose}`);
const prefix = (job: string) => `epitrope:draft:${job}:`;

/** A journal is kept twice: at once where the browser writes at once, and where it has more room and takes nothing away by itself. */
let mirrored = false;
function mirror(name: string, text: string | null) {
  db()
    .then(async (kept) => {
      if (text === null) await kept.delete("drafts", name);
      else await kept.put("drafts", text, name);
    })
    .then(() => (mirrored = true))
    .catch(() => (mirrored = false));
}

/** keep keeps a journal of a job; it says whether the browser does. */
export function keep(job: string, journal: Journal): boolean {
  const text = JSON.stringify({ ...journal, ...(whose && { person: whose }) });
  mirror(own(job), text);
  return store(own(job), text) || mirrored;
}

export function drop(job: string): void {
  mirror(own(job), null);
  store(own(job), null);
}

/** unsaved are the jobs, by id, of which edits are kept in this browser. */
export function unsaved(): string[] {
  const ids = names().flatMap((name) => /^epitrope:draft:([^:]+):/.exec(name)?.[1] ?? []);
  return [...new Set(ids)];
}

function parse(text: string | null): Journal | null {
  if (!text) return null;
  try {
    const journal = JSON.parse(text) as Journal;
    return typeof journal.base === "number" && journal.doc && journal.baseDoc ? journal : null;
  } catch {
    return null;
  }
}

/** find returns this window's journal of a job, or takes over one that a window left behind. */
export async function find(job: string, now: number): Promise<Journal | null> {
  return findWritten(job, now) ?? (await findMirrored(job, now));
}

/** findMirrored finds one where the browser kept it in the roomier place alone. */
async function findMirrored(job: string, now: number): Promise<Journal | null> {
  try {
    const kept = await db();
    for (const name of await kept.getAllKeys("drafts")) {
      if (!name.startsWith(prefix(job))) continue;
      const journal = parse((await kept.get("drafts", name)) ?? null);
      if (!journal || (journal.person ?? "") !== whose || (name !== own(job) && now - journal.beat <= silence)) continue;
      if (name !== own(job)) await kept.delete("drafts", name);
      keep(job, journal);
      return journal;
    }
  } catch {
    // it keeps nothing there
  }
  return null;
}

function findWritten(job: string, now: number): Journal | null {
  const mine = parse(recall(own(job)));
  if (mine) return mine;
  for (const name of names()) {
    if (!name.startsWith(prefix(job))) continue;
    const journal = parse(recall(name));
    if (journal && (journal.person ?? "") === whose && now - journal.beat > silence) {
      store(name, null);
      mirror(name, null);
      keep(job, journal);
      return journal;
    }
  }
  return null;
}
