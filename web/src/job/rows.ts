import { leaves, type Doc, type Value } from "./document";

/** The lists of a document: their rows have names. */
const lists = ["loads", "joints", "gear", "found", "feeds", "settings", "points", "dates", "taps", "bank", "fitted"] as const;

export type List = (typeof lists)[number];

export function isList(name: string): name is List {
  return (lists as readonly string[]).includes(name);
}

/** newKey names a row so that rows stay in the order of time, and two people who add one at once do not meet. */
export function newKey(now: number = Date.now(), chance: number = Math.random()): string {
  return now.toString(36) + Math.floor(chance * 36 ** 4).toString(36).padStart(4, "0");
}

/** keysOf are the names of a list's rows, in order. */
export function keysOf(doc: Doc, list: List): string[] {
  const rows = (doc as unknown as Record<string, Record<string, unknown> | undefined>)[list] ?? {};
  return Object.keys(rows)
    .filter((key) => Object.keys(rows[key] as object).length > 0)
    .sort();
}

/** emptied takes a row out: every answer in it. */
export function emptied(doc: Doc, list: List, key: string): Record<string, Value> {
  const prefix = `${list}.${key}.`;
  return Object.fromEntries([...leaves(doc).keys()].filter((p) => p.startsWith(prefix)).map((p) => [p, undefined]));
}
