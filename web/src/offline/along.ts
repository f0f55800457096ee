import { api, take, type Schemas } from "../api/client";
import { dropCore, fetchCore } from "./core";
import { db, type Along } from "./db";
import { heard } from "./heard";
import { fromDevice, keepFor, own } from "./travel";

const list = heard<Along[]>([]);
/** along are the jobs that were taken along onto this device. */
export const along = { now: list.now, listen: list.listen };

/** common are the addresses that every job needs, and those that lead to them. */
const common = ["/api/me", "/api/settings", own, "/api/parts", "/api/people", "/api/network", "/api/jobs", "/api/due", "/api/waiting"];

/** of are a job's own addresses. */
const of = (id: string) => ["", "/ticks", "/proof", "/comments", "/revisions", "/tasks"].map((rest) => `/api/jobs/${id}${rest}`);

let whose = "";
/** coming are the jobs that are just being taken along. */
const coming = new Set<string>();

/** wanted says whether an answer belongs to what was taken along. */
function wanted(path: string): boolean {
  const ids = [...list.now().map((a) => a.id), ...coming];
  return ids.length > 0 && (common.includes(path) || ids.some((id) => of(id).includes(path)));
}

/** begin reads what is on this device, for who is signed in. What somebody else took along goes, but from the bay's tablet. */
export async function begin(person: string, shared: boolean): Promise<void> {
  const before = await (await db()).get("kept", "/api/me");
  if (before && before.person !== person && !shared) await forget();
  whose = shared ? "" : person;
  keepFor(whose, wanted);
  list.set(await (await db()).getAll("along"));
}

/** bring fetches an answer, so that it is kept; it says how long it is. */
async function bring(path: string): Promise<number> {
  const answer = await api.GET(path as "/api/me", { parseAs: "text" });
  return String(answer.data ?? "").length;
}

/** takeAlong brings a job onto this device, with what it is worked on by, and its photographs. */
export async function takeAlong(id: string, ofDay = false): Promise<void> {
  coming.add(id); // from here on what is fetched of it is kept
  try {
    await Promise.all([fetchCore(), ...common.map(bring)]);
    await bringJob(id, ofDay);
  } finally {
    coming.delete(id);
  }
  void navigator.storage?.persist?.();
}

/** bringJob brings a job's own answers and its photographs. */
async function bringJob(id: string, ofDay: boolean): Promise<void> {
  const opened = await take(api.GET("/api/jobs/{id}", { params: { path: { id } } }));
  const doc = opened.draft.document as { title?: string };
  const now: Along = { id, number: opened.number, title: doc.title ?? "", at: new Date().toISOString(), ofDay, size: 0 };
  const sizes = await Promise.all(of(id).map(bring));
  now.size = sizes.reduce((sum, s) => sum + s, 0);
  await pictures(id);
  await workOut(opened.draft.document).catch(() => undefined); // then it is when it is opened
  await (await db()).put("along", now);
  list.set([...list.now().filter((a) => a.id !== id), now]);
}

/** workOut has the core on this device work out what a job opens with, so that it opens at once. */
async function workOut(document: Schemas["Opened"]["draft"]["document"]): Promise<void> {
  await fromDevice(new Request("/api/vocabulary")); // asked before it is known in which units
  await api.GET("/api/vocabulary", { fetch: fromDevice });
  await api.POST("/api/plan", { body: document, fetch: fromDevice });
}

/** pictures brings a job's photographs that are not here yet. */
async function pictures(id: string): Promise<void> {
  const record: Schemas["ProofRecord"] = await take(api.GET("/api/jobs/{id}/proof", { params: { path: { id } } }));
  for (const p of record.photos) {
    if (await (await db()).get("pictures", p.id)) continue;
    const response = await fetch(`/api/jobs/${id}/photos/${p.id}`);
    if (response.ok) await (await db()).put("pictures", { id: p.id, job: id, blob: await response.blob() });
  }
}

/** renew brings what was taken along up to date. */
export async function renew(): Promise<void> {
  if (list.now().length === 0) return;
  await Promise.all([fetchCore(), ...common.map(bring)]);
  for (const a of list.now()) await bringJob(a.id, a.ofDay).catch(() => undefined); // it stays as it was
}

/** letGo takes a job off this device; what waits to be sent stays. */
export async function letGo(id: string): Promise<void> {
  const all = await db();
  await all.delete("along", id);
  for (const path of of(id)) await all.delete("kept", path);
  for (const key of await all.getAllKeysFromIndex("pictures", "job", id)) await all.delete("pictures", key);
  list.set(await all.getAll("along"));
  if (list.now().length === 0) await forget();
}

/** forget takes all that was taken along off this device; what waits to be sent stays. */
export async function forget(): Promise<void> {
  const all = await db();
  await Promise.all([all.clear("along"), all.clear("kept"), all.clear("pictures"), all.clear("known"), dropCore()]);
  list.set([]);
}

/** takeDay takes the jobs along that stand in a bay today, and lets go of those of an earlier day. */
export async function takeDay(): Promise<void> {
  const today = new Date().toISOString().slice(0, 10);
  const week = await take(api.GET("/api/week", { params: { query: { of: today } } }));
  const now = new Set(week.bays.flatMap((b) => b.entries).filter((e) => e.from <= today && today <= e.until).map((e) => e.job));
  for (const a of list.now()) if (a.ofDay && !now.has(a.id)) await letGo(a.id);
  for (const id of now) if (!list.now().some((a) => a.id === id)) await takeAlong(id, true);
}
