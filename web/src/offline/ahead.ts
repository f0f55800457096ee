import { db, type Road, type Waits } from "./db";

/** An entry is written here at once, before the roomier store has it: a window that is closed in that moment loses nothing. */
const name = (id: string) => `epitrope:ahead:${id}`;

/** ahead writes an entry at once; a photograph is too large for that. */
export function ahead(entry: Waits) {
  if (entry.blob) return;
  try {
    localStorage.setItem(name(entry.id), JSON.stringify(entry));
  } catch {
    // the roomier store is enough, where there is one
  }
}

/** behind takes it out again, once the roomier store has it. */
export function behind(id: string) {
  try {
    localStorage.removeItem(name(id));
  } catch {
    // it was not written either
  }
}

/** older are the entries of one job as an earlier version kept them. */
function older(key: string, text: string): Waits[] {
  const [, road, job] = /^(ticks|proof):([0-9a-f-]{36})$/.exec(key) ?? [];
  if (!road || !job) return [];
  const list = JSON.parse(text) as { id: string; person?: string; at: string }[];
  return list.map((body) => ({ id: body.id, road: road as Road, job, person: body.person, named: road === "ticks" ? "a step" : "a reading", at: body.at, body: { ...body } }));
}

/** takeIn puts into the row what was written ahead of it, and what an earlier version left to be sent. */
export async function takeIn(): Promise<void> {
  const all = await db();
  const there = new Set((await all.getAll("waits")).map((w) => w.id));
  const found: { key: string; list: Waits[] }[] = [];
  for (const key of Object.keys(localStorage)) {
    const text = localStorage.getItem(key) ?? "";
    if (key.startsWith(name(""))) found.push({ key, list: [JSON.parse(text) as Waits] });
    else found.push({ key, list: older(key, text) });
  }
  found.sort((a, b) => ((a.list[0]?.at ?? "") < (b.list[0]?.at ?? "") ? -1 : 1));
  for (const { key, list } of found.filter((f) => f.list.length > 0)) {
    for (const entry of list) if (!there.has(entry.id)) await all.add("waits", entry);
    localStorage.removeItem(key);
  }
}
