import { expect, test } from "vitest";

import { readFilter } from "./filter";

test("a filter is read as it is kept, and nothing else is one", () => {
  expect(readFilter("stage:bay")).toEqual({ stage: "bay" });
  expect(readFilter("weak:stop")).toEqual({ weak: "stop" });
  for (const none of ["", "stage:", "stage:nowhere", "stage:toString", "weak:none", "bay", "stop:weak"]) expect(readFilter(none)).toEqual({});
});
