import type { Problem } from "../api/client";
import { changed, same, withValue, type Doc, type Value } from "./document";

/**
 * Edited is the job as it is being edited: the document, what is being typed and
 * is not yet understood, and the way back and forth.
 */
export interface Edited {
  doc: Doc;
  /** Text in fields, by path, as typed. */
  typing: Record<string, string>;
  /** Text that was understood and is in the document, by path; it is not sent again. */
  taken: Record<string, string>;
  /** Fields that were left before their text was understood, by path. */
  left: Record<string, true>;
  /** What was wrong with a text, by path; it holds while the text is the same. */
  refused: Record<string, { text: string; problem: Problem }>;
  past: Doc[];
  future: Doc[];
  /** The path whose edits are being gathered into one step back. */
  gathering: string | null;
}

export type Action =
  | { type: "set"; path: string; value: Value }
  | { type: "setAll"; values: Record<string, Value> }
  | { type: "type"; path: string; text: string }
  | { type: "leave"; path: string }
  | { type: "read"; doc: Doc; sent: Record<string, string>; problems: Problem[] }
  | { type: "adopt"; doc: Doc }
  | { type: "replace"; doc: Doc }
  | { type: "undo" }
  | { type: "redo" };

/** furthest is how many steps back are kept. */
const furthest = 200;

export function start(doc: Doc, typing: Record<string, string> = {}): Edited {
  return { doc, typing, taken: {}, left: {}, refused: {}, past: [], future: [], gathering: null };
}

/** overlay is the document with what is being typed in it, but for what was refused or is in it. */
export function overlay(state: Edited): { doc: Doc; sent: Record<string, string> } {
  const sent: Record<string, string> = {};
  let doc = state.doc;
  for (const [path, text] of Object.entries(state.typing)) {
    if (state.refused[path]?.text === text || state.taken[path] === text) continue;
    sent[path] = text;
    doc = withValue(doc, path, text.trim() === "" ? undefined : text);
  }
  return { doc, sent };
}

function without<T>(record: Record<string, T>, path: string): Record<string, T> {
  const rest = { ...record };
  delete rest[path];
  return rest;
}

function step(state: Edited, doc: Doc, gathering: string | null): Edited {
  if (same(state.doc, doc)) return { ...state, doc, gathering: gathering ?? state.gathering };
  const gathered = gathering !== null && gathering === state.gathering;
  const past = gathered ? state.past : [...state.past, state.doc].slice(-furthest);
  return { ...state, doc, past, future: [], gathering };
}

export function reduce(state: Edited, action: Action): Edited {
  switch (action.type) {
    case "set":
      return setAll(state, { [action.path]: action.value });
    case "setAll":
      return setAll(state, action.values);
    case "type":
      return { ...state, typing: { ...state.typing, [action.path]: action.text }, left: without(state.left, action.path) };
    case "leave": {
      const { path } = action;
      const text = state.typing[path];
      if (text === undefined) return state;
      const gathering = state.gathering === path ? null : state.gathering;
      if (state.taken[path] === text) return { ...state, gathering, typing: without(state.typing, path), taken: without(state.taken, path) };
      // Not read yet, or refused: it stays until it is understood.
      return { ...state, left: { ...state.left, [path]: true } };
    }
    case "read":
      return read(state, action);
    case "adopt":
      return adopt(state, action.doc);
    case "replace":
      return step({ ...state, typing: untaken(state), taken: {} }, action.doc, null);
    case "undo": {
      const doc = state.past.at(-1);
      if (!doc) return state;
      return { ...state, doc, past: state.past.slice(0, -1), future: [state.doc, ...state.future], typing: {}, taken: {}, refused: {}, gathering: null };
    }
    case "redo": {
      const [doc, ...future] = state.future;
      if (!doc) return state;
      return { ...state, doc, past: [...state.past, state.doc], future, typing: {}, taken: {}, refused: {}, gathering: null };
    }
  }
}

/** setAll answers fields, as one step back; what was being typed in them is gone. */
function setAll(state: Edited, values: Record<string, Value>): Edited {
  let { doc, typing, taken, refused } = state;
  for (const [path, value] of Object.entries(values)) {
    doc = withValue(doc, path, value);
    typing = without(typing, path);
    taken = without(taken, path);
    refused = without(refused, path);
  }
  return step({ ...state, typing, taken, refused }, doc, null);
}

/** read takes the server's reading of what was sent: a document, or what is wrong. */
function read(state: Edited, action: Extract<Action, { type: "read" }>): Edited {
  const refused = { ...state.refused };
  for (const [path, text] of Object.entries(action.sent)) {
    const problem = action.problems.find((p) => p.field === path);
    if (problem) refused[path] = { text, problem };
    else delete refused[path];
  }
  if (action.problems.length > 0) return { ...state, refused };
  const paths = Object.keys(action.sent);
  let { typing, left } = state;
  const taken = { ...state.taken };
  let gathering = paths[0] ?? state.gathering;
  for (const path of paths) {
    if (!left[path]) {
      taken[path] = action.sent[path] as string;
      continue;
    }
    typing = without(typing, path);
    left = without(left, path);
    if (gathering === path) gathering = null;
  }
  const read = step({ ...state, refused, typing, left, taken }, action.doc, paths[0] ?? state.gathering);
  return { ...read, gathering };
}

/** untaken is what is being typed and is not in the document. */
const untaken = ({ typing, taken }: Edited) => Object.fromEntries(Object.entries(typing).filter(([path, text]) => taken[path] !== text));

/** unreadOf says whether a text that is being typed, and is in no document yet, is of what another window changed: whose holds can be said once it is read. */
export function unreadOf(state: Edited, changes: string[]): boolean {
  const { sent } = overlay(state);
  return changes.some((path) => path in sent);
}

/** adopt takes in another window's draft; what it changed is no longer as typed here, unless the text never was in the document. */
function adopt(state: Edited, doc: Doc): Edited {
  let { typing, taken } = state;
  for (const path of changed(state.doc, doc)) {
    if (typing[path] !== taken[path]) continue;
    typing = without(typing, path);
    taken = without(taken, path);
  }
  return { ...state, doc, typing, taken };
}
