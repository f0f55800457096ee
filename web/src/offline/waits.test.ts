import "fake-indexeddb/auto";
import { beforeEach, expect, test, vi } from "vitest";

import { Refused, type Refusal } from "../api/client";
import { takeIn } from "./ahead";
import { db, type Waits } from "./db";
import { read } from "./marker";
import { roads } from "./roads";
import { drain, drop, load, next, onArrived, sendAs, wait, waits } from "./waits";

const entry = (id: string, more: Partial<Waits> = {}): Waits => ({ id, road: "ticks", job: "j", person: "pim", named: id, at: "2031-01-01T00:00:00Z", body: { id }, ...more });
const refusal = (status: number): Refusal => ({ type: "about:blank", title: "", status, detail: "no", problems: [] }) as unknown as Refusal;

beforeEach(async () => {
  sendAs(undefined);
  await (await db()).clear("waits");
  await drop(waits.now());
  onArrived(() => undefined);
  vi.restoreAllMocks();
});

test("the next batch is the first run of one job on one road that may be sent, no longer than the road takes", () => {
  const all = [entry("a", { person: "teo" }), entry("b"), entry("c"), entry("d", { road: "proof" }), entry("e"), entry("f", { refused: [] })];
  const may = (w: Waits) => w.person === "pim";
  expect(next(all, may).map((w) => w.id)).toEqual(["b", "c"]);
  expect(next(all.slice(3), may).map((w) => w.id)).toEqual(["d"]);
  expect(next([entry("p", { road: "photos" }), entry("q", { road: "photos" })], may).map((w) => w.id)).toEqual(["p"]);
  expect(next([entry("f", { refused: [] })], may)).toEqual([]);
});

test("what waits arrives in its order, also where the server was away in between, and outlives the window", async () => {
  const sent: string[] = [];
  let there = false;
  const send = (_: string, list: Waits[]) => {
    if (!there) return Promise.reject(new Error("away"));
    sent.push(...list.map((w) => w.id));
    return Promise.resolve({ refused: [], whole: {} });
  };
  vi.spyOn(roads.ticks, "send").mockImplementation(send);
  vi.spyOn(roads.proof, "send").mockImplementation(send);
  sendAs("pim");
  for (const [id, road] of [["a", "ticks"], ["b", "ticks"], ["c", "proof"], ["d", "ticks"]] as const) await wait(entry(id, { road }));
  await drain();
  expect(sent).toEqual([]);
  await load(); // as a window that opens now
  expect(waits.now().map((w) => w.id)).toEqual(["a", "b", "c", "d"]);
  expect(read(document.cookie)?.count).toBe(4);
  there = true;
  await vi.waitFor(async () => {
    await drain();
    expect(waits.now()).toEqual([]);
  });
  expect(sent).toEqual(["a", "b", "c", "d"]);
  expect(read(document.cookie)).toBeNull();
});

test("what the server cannot keep stays to be read, and holds up nothing; what says nothing of an entry refuses none", async () => {
  let status = 503;
  vi.spyOn(roads.ticks, "send").mockImplementation((_, list) => Promise.resolve({ refused: list.filter((w) => w.id === "bad").map((w) => ({ id: w.id, problems: [{ field: "step", value: "x", wrong: "is not known", allowed: "one of its steps" }] })), whole: {} }));
  vi.spyOn(roads.photos, "send").mockImplementation(() => Promise.reject(new Refused(refusal(status))));
  await wait(entry("bad"));
  await wait(entry("good"));
  await wait(entry("photo", { road: "photos" }));
  sendAs("pim");
  await vi.waitFor(() => expect(waits.now().map((w) => [w.id, w.refused?.[0]?.wrong])).toEqual([["bad", "is not known"], ["photo", undefined]]));
  status = 413;
  await vi.waitFor(async () => {
    await drain();
    expect(waits.now().find((w) => w.id === "photo")?.refused?.[0]?.wrong).toBe("no");
  });
  await load();
  expect(waits.now().map((w) => w.refused?.length)).toEqual([1, 1]);
});

test("nobody sends what somebody else entered", async () => {
  const send = vi.spyOn(roads.ticks, "send").mockResolvedValue({ refused: [], whole: {} });
  await wait(entry("a", { person: "teo" }));
  sendAs("pim");
  await drain();
  expect(send).not.toHaveBeenCalled();
  sendAs("teo");
  await vi.waitFor(() => expect(waits.now()).toEqual([]));
});

test("where the browser keeps nothing an entry is in this window, says so, and is sent all the same", async () => {
  const kept = await db();
  const add = vi.spyOn(kept, "add").mockRejectedValue(new DOMException("full", "QuotaExceededError"));
  await wait(entry("a"));
  expect(waits.now()[0]?.loose).toBe(true);
  add.mockRestore();
  await load();
  expect(waits.now().map((w) => w.id)).toEqual(["a"]);
  vi.spyOn(roads.ticks, "send").mockResolvedValue({ refused: [], whole: {} });
  sendAs("pim");
  await vi.waitFor(() => expect(waits.now()).toEqual([]));
});

test("a window that is closed before the entry is written loses nothing: the next one takes it in, once and in order", async () => {
  const kept = await db();
  const add = vi.spyOn(kept, "add").mockRejectedValue(new DOMException("closed", "AbortError"));
  await wait(entry("second", { at: "2031-01-02T00:00:00Z" }));
  await wait(entry("first", { at: "2031-01-01T00:00:00Z" }));
  add.mockRestore();
  localStorage.setItem("ticks:00000000-0000-0000-0000-000000000009", JSON.stringify([{ id: "older", at: "2030-01-01T00:00:00Z" }]));
  localStorage.setItem("something else", "{");
  await takeIn();
  await takeIn();
  expect((await kept.getAll("waits")).map((w) => w.id)).toEqual(["older", "first", "second"]);
  expect(Object.keys(localStorage)).toEqual(["something else"]);
});

test("the mark outlives what it marks", () => {
  expect(read("a=b; epitrope_waits=3_1924905600000")).toEqual({ count: 3, since: "2030-12-31T00:00:00.000Z" });
  for (const none of ["", "epitrope_waits=", "epitrope_waits=0_1", "epitrope_waits=x_1", "other_epitrope_waits=3_1"]) expect(read(none)).toBeNull();
});
