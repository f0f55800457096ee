import { expect, test } from "vitest";

import { dueWords } from "./due";

test("how a date stands, in words", () => {
  expect(dueWords("overdue", -1)).toBe("overdue by 1 day");
  expect(dueWords("overdue", -12)).toBe("overdue by 12 days");
  expect(dueWords("soon", 0)).toBe("due today");
  expect(dueWords("soon", 1)).toBe("in 1 day");
  expect(dueWords("later", 40)).toBe("in 40 days");
  expect(dueWords("done", -3)).toBe("done");
  expect(dueWords("undated", 0)).toBe("no date yet");
});
