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

/** keep keeps a journal of a job; it says whether the browser does. */
export function keep(job: string, journal: Journal): boolean {
  return store(own(job), JSON.stringify({ ...journal, ...(whose && { person: whose }) }));
}

export function drop(job: string): void {
  store(own(job), null);
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

/**
 * find returns this window's journal of a job, or takes over one that a window
 * left behind.
 */
export function find(job: string, now: number): Journal | null {
  const mine = parse(recall(own(job)));
  if (mine) return mine;
  for (const name of names()) {
    if (!name.startsWith(prefix(job))) continue;
    const journal = parse(recall(name));
    if (journal && (journal.person ?? "") === whose && now - journal.beat > silence) {
      store(name, null);
      keep(job, journal);
      return journal;
    }
  }
  return null;
}
