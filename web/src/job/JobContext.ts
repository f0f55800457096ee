import { createContext, useContext, type Dispatch } from "react";

import type { Field, Plan, Schemas, Vocabulary } from "../api/client";
import type { Action, Edited } from "./history";
import { isList } from "./rows";

/** SheetName is a sheet as it is called, and found. */
export interface SheetName {
  name: string;
  digit: string;
  label: string;
  /** What it is called in an address; the section is the job's own. */
  address: string | undefined;
}

/** What every part of an open job needs. A revision is read only. */
export interface OpenJob {
  id: string;
  /** Its number in the workshop, as it is written. */
  number: string;
  /** The newest that was issued; 0 where none was. */
  revision: number;
  /** Not everything is on the server yet. */
  unsaved: boolean;
  issue: () => Promise<void>;
  /** The sheets of a job, as they are numbered; of a revision there are none. */
  sheets: SheetName[];
  plan: Plan;
  state: Edited;
  dispatch: Dispatch<Action>;
  vocabulary: Vocabulary;
  readOnly: boolean;
  /** The part or wire that is picked, wherever it is shown. */
  thing: string | null;
  /** The section's column of it. */
  picked: string | null;
  pick: (thing: string | null) => void;
  /** The state that the section shows; null shows all in which it charges. */
  shown: string | null;
  show: (state: string | null) => void;
  asked: string | null;
  ask: (question: string | null) => void;
}

export const JobContext = createContext<OpenJob | null>(null);

export function useJob(): OpenJob {
  const job = useContext(JobContext);
  if (!job) throw new Error("useJob outside of an open job");
  return job;
}

/** fieldOf is a field with the choices that this vehicle has; in a row of a list, with the row's own path. */
export function fieldOf(job: OpenJob, path: string): Field | undefined {
  const [list = "", key, name] = path.split(".");
  if (isList(list) && key && name) {
    const any = job.vocabulary.fields.find((f) => f.path === `${list}.*.${name}`);
    return any && { ...any, path };
  }
  const field = job.vocabulary.fields.find((f) => f.path === path);
  if (path !== "aux.place" || !field) return field;
  return { ...field, choices: job.vocabulary.places.filter((p) => p.kind === job.plan.vehicle.kind).map(({ value, label }) => ({ value, label })) };
}

export function factOf(plan: Plan, path: string): Schemas["Fact"] | undefined {
  return plan.facts.find((f) => f.path === path);
}
