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

const prefix = (job: string) => `epitrope:draft:${job}:`;

/** keep keeps a journal of a job; it says whether the browser does. */
export function keep(job: string, journal: Journal): boolean {
  return store(prefix(job) + windowName(), JSON.stringify(journal));
}

export function drop(job: string): void {
  store(prefix(job) + windowName(), null);
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
  const own = parse(recall(prefix(job) + windowName()));
  if (own) return own;
  for (const name of names()) {
    if (!name.startsWith(prefix(job))) continue;
    const journal = parse(recall(name));
    if (journal && now - journal.beat > silence) {
      store(name, null);
      keep(job, journal);
      return journal;
    }
  }
  return null;
}
