import type { Schemas } from "../api/client";

export type Entry = Schemas["ProofEntry"];

/** Case is a complaint with all that was done about it. */
export interface Case {
  id: string;
  entries: Entry[];
  closed: boolean;
  /** It is of the installation that was found, not of the one that is designed. */
  found: boolean;
}

/** A complaint in words of its own, which says nothing of the circuit; and a look that found nothing. */
export const inWords = "words";
export const well = "well";

/** installedAt is where a job's trace keeps what is traced, what was found or what is designed. */
export const installedAt = (job: string): string => `traced:${job}`;
export const wasFound = "found";

/** What came of another part in a part's place. */
export const helped = "helped";
export const stayed = "stayed";

/** casesOf are the cases of a job, the newest last. */
export function casesOf(entries: Entry[]): Case[] {
  const list = new Map<string, Case>();
  for (const e of entries) {
    if (!e.case) continue;
    const of = list.get(e.case) ?? { id: e.case, entries: [], closed: false, found: e.found ?? false };
    of.entries.push(e);
    of.closed ||= e.kind === "closed";
    list.set(e.case, of);
  }
  return [...list.values()];
}

/**
 * evidenceOf is a case as the core takes it, with what is known of the installation from before: since when it is proven, and what was
 * read of it until then.
 */
export function evidenceOf(of: Case | undefined, entries: Entry[], signed: Schemas["Signed"][], now: number): Schemas["Evidence"] {
  const seen = (of?.entries ?? []).flatMap((e): Schemas["Observed"][] => {
    switch (e.kind) {
      case "complaint":
        return e.subject === inWords ? [] : [{ symptom: e.subject }];
      case "traced":
        return [{ reading: e.subject, entry: e.entry }];
      case "looked":
        return [{ look: e.subject, found: e.entry === well ? "" : e.entry }];
      case "swapped":
        return [{ swap: e.subject, helped: e.entry === helped }];
      case "mended":
        return [{ mended: e.subject }];
    }
    return [];
  });
  return { format: "epitrope-evidence", version: 1, seen, ...(of?.found ? {} : sinceProven(entries, signed, now)) };
}

/** sinceProven is what a signed proof says to whoever traces a fault later; nothing where none was signed. */
function sinceProven(entries: Entry[], signed: Schemas["Signed"][], now: number) {
  const times = signed.map((s) => Date.parse(s.at));
  if (times.length === 0) return {};
  const last = Math.max(...times);
  const read = new Map(entries.filter((e) => e.kind === "reading" && Date.parse(e.at) <= last).map((e) => [e.subject, e.entry]));
  const years = Math.max(0, Math.round((100 * (now - Math.min(...times))) / yearMS) / 100);
  return { years, baseline: [...read].map(([reading, text]) => ({ reading, text })) };
}

const yearMS = 365.25 * 24 * 3600_000;

/** minutesOf is how long a case took so far, from its first entry to its last. */
export function minutesOf(of: Case): number {
  const times = of.entries.map((e) => Date.parse(e.at));
  return times.length < 2 ? 0 : Math.round((Math.max(...times) - Math.min(...times)) / 60_000);
}
