import type { Note, Schemas } from "../api/client";

/** Level is how good something is; open where nobody has looked. */
export type Level = Schemas["Check"]["level"];

/** The words that stand beside a mark, so that colour never stands alone. */
export const severityWord: Record<Note["severity"] | Schemas["Listed"]["severity"], string> = {
  stop: "Stop",
  caution: "Caution",
  remark: "Note",
  none: "",
};

export const originWord: Record<string, string> = {
  surveyed: "answered",
  assumed: "assumed",
  pinned: "pinned",
  part: "device card",
  standard: "standard",
  practice: "common practice",
  memory: "from memory",
  computed: "computed",
};

/** many is a count with its noun: 1 job, 2 jobs. */
export const many = (count: number, one: string, more: string): string => `${count} ${count === 1 ? one : more}`;
