import type { Schemas } from "../api/client";

const count = (days: number): string => (days === 1 ? "1 day" : `${days} days`);

/** dueWords says how a date stands. */
export function dueWords(state: Schemas["DateState"]["state"], days: number): string {
  switch (state) {
    case "overdue":
      return `overdue by ${count(-days)}`;
    case "done":
      return "done";
    case "undated":
      return "no date yet";
    default:
      return days === 0 ? "due today" : `in ${count(days)}`;
  }
}
