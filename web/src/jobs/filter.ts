import type { Schemas } from "../api/client";

export type Stage = Schemas["BoardStage"]["stage"];

/** stageWord is how a job stands, in a few words; what it waits for, mostly. */
export const stageWord: Record<Stage, string> = {
  complaint: "complained of",
  signature: "waits for a signature",
  reading: "waits for readings",
  part: "waits for parts",
  bay: "waits for a bay",
  answer: "waits for an answer",
  done: "signed for",
};

/** Filter is which jobs are listed; it stays until it is taken off. */
export interface Filter {
  stage?: Stage;
  weak?: "stop" | "caution";
}

/** readFilter reads a filter as it is kept: “stage:bay”, “weak:stop”. */
export function readFilter(kept: string): Filter {
  const [of, is = ""] = kept.split(":");
  if (of === "stage" && Object.hasOwn(stageWord, is)) return { stage: is as Stage };
  if (of === "weak" && (is === "stop" || is === "caution")) return { weak: is };
  return {};
}
