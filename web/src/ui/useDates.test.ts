import { expect, it } from "vitest";

import { dates, written } from "./useDates";

it.each([
  ["2 Jan 2006", "7 Mar 2027"],
  ["02/01/2006", "07/03/2027"],
  ["01/02/2006", "03/07/2027"],
  ["2006-01-02", "2027-03-07"],
])("writes a day as %s", (style, want) => {
  expect(written(2027, 3, 7, style)).toBe(want);
  expect(dates(style).day("2027-03-07")).toBe(want);
  expect(dates(style).moment(new Date(2027, 2, 7, 9, 5).toISOString())).toBe(`${want}, 09:05`);
  expect(dates(style).since(new Date(2027, 2, 7, 9, 5).toISOString())).toBe(want);
});

it("leaves what is no date, and says the time of today", () => {
  expect(dates("2 Jan 2006").day("")).toBe("");
  expect(dates("2 Jan 2006").since(new Date().toISOString())).toMatch(/^\d\d:\d\d$/);
});
