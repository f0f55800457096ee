import { names, recall, type Kept } from "../ui/stored";

/** Item is something that this browser keeps for the application. */
export interface Item {
  name: string;
  where: Kept;
  what: string;
  /** In characters. */
  size: number;
  /** It waits for the server, or for a person: it is not forgotten by a touch. */
  waits: boolean;
}

/** kinds say what is kept under a name, by how it begins. */
const kinds: { begins: string; what: string; waits?: boolean }[] = [
  { begins: "epitrope:draft:", what: "what was typed on a job and is not on the server yet", waits: true },
  { begins: "ticks:", what: "steps that were ticked and are not on the server yet", waits: true },
  { begins: "proof:", what: "readings and what was said at gates, not on the server yet", waits: true },
  { begins: "partsToMend", what: "lines of a parts file that wait to be mended", waits: true },
  { begins: "vehiclesToMend", what: "lines of a vehicle file that wait to be mended", waits: true },
  { begins: "comment:", what: "a question or an answer that is being written", waits: true },
  { begins: "signIn", what: "what you sign in with, without the password" },
  { begins: "epitrope:last", what: "who was signed in here last, by a number" },
  { begins: "compare-", what: "designs to be compared on a job's day" },
  { begins: "mantine-color-scheme-value", what: "light or dark" },
  { begins: "wiringTab", what: "the tab that was open on the wiring" },
  { begins: "methodsTab", what: "the tab that was open on the methods" },
  { begins: "dayTab", what: "the tab that was open on the day" },
  { begins: "surveyAt", what: "where the survey was open" },
  { begins: "surveyHow", what: "how answers are known that are entered now" },
];

/** items are all that is kept, what waits first. */
export function items(): Item[] {
  const list = (["browser", "window"] as const).flatMap((where) =>
    names(where).flatMap((name): Item[] => {
      const kind = kinds.find((k) => name.startsWith(k.begins));
      const text = recall(name, where) ?? "";
      return kind && !(kind.waits && isNothing(text)) ? [{ name, where, what: kind.what, size: text.length, waits: kind.waits ?? false }] : [];
    }),
  );
  return list.sort((a, b) => Number(b.waits) - Number(a.waits) || a.what.localeCompare(b.what));
}

/** isNothing is a list with nothing in it, as what was sent leaves it. */
const isNothing = (text: string): boolean => text === "" || text === "[]";
