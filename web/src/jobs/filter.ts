import type { Schemas } from "../api/client";

export type Stage = Schemas["BoardStage"]["stage"];

/** words are how one job, or several, stand. */
const words: Record<Stage, [one: string, more: string]> = {
  complaint: ["complained of", "complained of"],
  signature: ["waits for a signature", "wait for a signature"],
  reading: ["waits for readings", "wait for readings"],
  part: ["waits for parts", "wait for parts"],
  bay: ["waits for a bay", "wait for a bay"],
  answer: ["waits for an answer", "wait for an answer"],
  done: ["signed for", "signed for"],
};

/** stageWord is how so many jobs stand, in a few words; what they wait for, mostly. */
export const stageWord = (stage: Stage, count = 1): string => words[stage][count === 1 ? 0 : 1];

/** Filter is which jobs are listed; it stays until it is taken off. */
export interface Filter {
  stage?: Stage;
  weak?: "stop" | "caution";
}

/** readFilter reads a filter as it is kept: “stage:bay”, “weak:stop”. */
export function readFilter(kept: string): Filter {
  const [of, is = ""] = kept.split(":");
  if (of === "stage" && Object.hasOwn(words, is)) return { stage: is as Stage };
  if (of === "weak" && (is === "stop" || is === "caution")) return { weak: is };
  return {};
}
