import { afterEach, expect, test } from "vitest";

import * as journal from "./journal";
import type { Doc } from "./document";

afterEach(() => {
  localStorage.clear();
  journal.under("");
});

const typed = (title: string, beat = 0) => ({ base: 1, baseDoc: {} as Doc, doc: { title } as Doc, typing: {}, beat });

test("what somebody typed is theirs: nobody else finds it, and they do when they are back", () => {
  journal.under("pim");
  journal.keep("job", typed("Pim's"));
  journal.under("teo");
  expect(journal.find("job", 1_000_000)).toBeNull();
  journal.keep("job", typed("Teo's"));
  journal.drop("job");
  journal.under("pim");
  expect(journal.find("job", 1_000_000)?.doc).toEqual({ title: "Pim's" });
});

test("a window takes over what another of the same person left, once it is quiet", () => {
  journal.under("pim");
  localStorage.setItem("epitrope:draft:job:other.pim", JSON.stringify({ ...typed("left", 1000), person: "pim" }));
  expect(journal.find("job", 1000 + journal.silence)).toBeNull();
  expect(journal.find("job", 1001 + journal.silence)?.doc).toEqual({ title: "left" });
});
