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
  /** When its window last said that it is alive, in ms. */
  beat: number;
}

/** silence is how long a window may be quiet before its journal is taken over, in ms. */
export const silence = 15_000;

function windowName(): string {
  let name = sessionStorage.getItem("epitrope:window");
  if (!name) {
    name = Math.random().toString(36).slice(2);
    sessionStorage.setItem("epitrope:window", name);
  }
  return name;
}

const prefix = (job: string) => `epitrope:draft:${job}:`;

export function keep(job: string, journal: Journal): void {
  localStorage.setItem(prefix(job) + windowName(), JSON.stringify(journal));
}

export function drop(job: string): void {
  localStorage.removeItem(prefix(job) + windowName());
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
  const own = parse(localStorage.getItem(prefix(job) + windowName()));
  if (own) return own;
  for (let i = 0; i < localStorage.length; i++) {
    const key = localStorage.key(i);
    if (!key?.startsWith(prefix(job))) continue;
    const journal = parse(localStorage.getItem(key));
    if (journal && now - journal.beat > silence) {
      localStorage.removeItem(key);
      keep(job, journal);
      return journal;
    }
  }
  return null;
}
