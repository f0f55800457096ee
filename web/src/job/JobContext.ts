import { createContext, createElement, useContext, type Dispatch, type ReactNode } from "react";

import type { Field, Plan, Schemas, Vocabulary } from "../api/client";
import { valueAt, type Doc } from "./document";
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

/** Shown is what an open job shows: its plan, and where one looks. It is the same from one key to the next plan. */
export interface Shown {
  id: string;
  /** Its number in the workshop, as it is written. */
  number: string;
  /** The newest that was issued; 0 where none was. */
  revision: number;
  /** The sheets of a job, as they are numbered; of a revision there are none. */
  sheets: readonly SheetName[];
  plan: Plan;
  vocabulary: Vocabulary;
  /** What is decided is not decided here: it is a revision, or whoever is signed in does not design. */
  readOnly: boolean;
  /** mayChange says whether whoever is signed in may change the answer at a path: who surveys changes what is there. */
  mayChange: (path: string) => boolean;
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

/** Edit is the job as it is being edited: it changes with every key. A revision is read only. */
export interface Edit {
  state: Edited;
  /** Not everything is on the server yet. */
  unsaved: boolean;
  /** The version that the server has of it. */
  version: number;
  issue: () => Promise<void>;
}

/** OpenJob is all that a part of an open job may need. */
export type OpenJob = Shown & Edit & { dispatch: Dispatch<Action> };

const ShownContext = createContext<Shown | null>(null);
const EditContext = createContext<Edit | null>(null);
const DispatchContext = createContext<Dispatch<Action>>(() => undefined);

/** JobProvider opens a job to what is in it. */
export function JobProvider({ shown, edit, dispatch, children }: { shown: Shown; edit: Edit; dispatch: Dispatch<Action>; children: ReactNode }) {
  const edits = createElement(EditContext.Provider, { value: edit }, createElement(DispatchProvider, { value: dispatch }, children));
  return createElement(ShownContext.Provider, { value: shown }, edits);
}

/** DispatchProvider lets what is in it answer in a way of its own. */
export const DispatchProvider = DispatchContext.Provider;

/** useShown is what an open job shows; who asks for no more is not drawn anew with every key. */
export function useShown(): Shown {
  const shown = useContext(ShownContext);
  if (!shown) throw new Error("useShown outside of an open job");
  return shown;
}

/** useEdit is the job as it is being edited. */
export function useEdit(): Edit {
  const edit = useContext(EditContext);
  if (!edit) throw new Error("useEdit outside of an open job");
  return edit;
}

/** useDispatch is how the job is answered. */
export const useDispatch = (): Dispatch<Action> => useContext(DispatchContext);

/** useJob is all of it. */
export function useJob(): OpenJob {
  return { ...useShown(), ...useEdit(), dispatch: useDispatch() };
}

/** fieldOf is a field with the choices that this vehicle has; in a row of a list, with the row's own path. One that is not asked of this job is none. */
export function fieldOf(job: Pick<OpenJob, "vocabulary" | "state" | "plan">, path: string): Field | undefined {
  const [list = "", key, name] = path.split(".");
  const inRow = isList(list) && key && name;
  const field = job.vocabulary.fields.find((f) => f.path === (inRow ? `${list}.*.${name}` : path));
  if (!field || !isAsked(job.state.doc, field, inRow ? key : undefined)) return undefined;
  if (inRow) return { ...field, path };
  if (path !== "aux.place") return field;
  return { ...field, choices: job.vocabulary.places.filter((p) => p.kind === job.plan.vehicle.kind).map(({ value, label }) => ({ value, label })) };
}

/** isAsked is whether a field is asked, as another one is answered. */
function isAsked(doc: Doc, field: Field, key: string | undefined): boolean {
  const { when } = field;
  if (!when) return true;
  const other = valueAt(doc, key ? when.path.replace("*", key) : when.path);
  return when.is ? when.is.includes(String(other)) : Number(other ?? 0) > (when.above ?? 0);
}

export function factOf(plan: Plan, path: string): Schemas["Fact"] | undefined {
  return plan.facts.find((f) => f.path === path);
}
