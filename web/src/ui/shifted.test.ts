import { expect, test } from "vitest";

import { clock, shifted } from "./shifted";

test("a week later, over the end of a month and of a leap February", () => {
  expect(shifted("2031-12-29", 7)).toBe("2032-01-05");
  expect(shifted("2032-02-26", 7)).toBe("2032-03-04");
  expect(shifted("2031-03-03", -7)).toBe("2031-02-24");
});

test("an hour of the day as a clock shows it", () => {
  expect(clock(8)).toBe("08:00");
  expect(clock(13.75)).toBe("13:45");
  expect(clock(9.999)).toBe("10:00");
});
