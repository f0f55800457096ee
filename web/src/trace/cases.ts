import type { Schemas } from "../api/client";

export type Entry = Schemas["ProofEntry"];

/** Case is a complaint with all that was done about it. */
export interface Case {
  id: string;
  entries: Entry[];
  closed: boolean;
}

/** A complaint in words of its own, which says nothing of the circuit; and a look that found nothing. */
export const inWords = "words";
export const well = "well";

/** casesOf are the cases of a job, the newest last. */
export function casesOf(entries: Entry[]): Case[] {
  const list = new Map<string, Case>();
  for (const e of entries) {
    if (!e.case) continue;
    const of = list.get(e.case) ?? { id: e.case, entries: [], closed: false };
    of.entries.push(e);
    of.closed ||= e.kind === "closed";
    list.set(e.case, of);
  }
  return [...list.values()];
}

/** evidenceOf is a case as the core takes it. */
export function evidenceOf(of: Case | undefined): Schemas["Evidence"] {
  const seen = (of?.entries ?? []).flatMap((e): Schemas["Observed"][] => {
    switch (e.kind) {
      case "complaint":
        return e.subject === inWords ? [] : [{ symptom: e.subject }];
      case "traced":
        return [{ reading: e.subject, entry: e.entry }];
      case "looked":
        return [{ look: e.subject, found: e.entry === well ? "" : e.entry }];
      case "mended":
        return [{ mended: e.subject }];
    }
    return [];
  });
  return { format: "epitrope-evidence", version: 1, seen };
}

/** minutesOf is how long a case took so far, from its first entry to its last. */
export function minutesOf(of: Case): number {
  const times = of.entries.map((e) => Date.parse(e.at));
  return times.length < 2 ? 0 : Math.round((Math.max(...times) - Math.min(...times)) / 60_000);
}
