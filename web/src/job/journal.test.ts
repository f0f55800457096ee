import "fake-indexeddb/auto";
import { afterEach, expect, test, vi } from "vitest";

import { db } from "../offline/db";
import * as journal from "./journal";
import type { Doc } from "./document";

afterEach(async () => {
  localStorage.clear();
  await (await db()).clear("drafts");
  journal.under("");
});

const typed = (title: string, beat = 0) => ({ base: 1, baseDoc: {} as Doc, doc: { title } as Doc, typing: {}, beat });

test("what somebody typed is theirs: nobody else finds it, and they do when they are back", async () => {
  journal.under("pim");
  journal.keep("job", typed("Pim's"));
  journal.under("teo");
  expect(await journal.find("job", 1_000_000)).toBeNull();
  journal.keep("job", typed("Teo's"));
  journal.drop("job");
  journal.under("pim");
  expect((await journal.find("job", 1_000_000))?.doc).toEqual({ title: "Pim's" });
});

test("a window takes over what another of the same person left, once it is quiet", async () => {
  journal.under("pim");
  localStorage.setItem("epitrope:draft:job:other.pim", JSON.stringify({ ...typed("left", 1000), person: "pim" }));
  expect(await journal.find("job", 1000 + journal.silence)).toBeNull();
  expect((await journal.find("job", 1001 + journal.silence))?.doc).toEqual({ title: "left" });
});

test("where the browser has no room to write at once, it is kept and found in the roomier place", async () => {
  const full = vi.spyOn(Storage.prototype, "setItem").mockImplementation(() => {
    throw new DOMException("full", "QuotaExceededError");
  });
  journal.under("pim");
  await vi.waitFor(() => expect(journal.keep("job", typed("long text"))).toBe(true));
  await vi.waitFor(async () => expect((await journal.find("job", 1_000_000))?.doc).toEqual({ title: "long text" }));
  full.mockRestore();
});
