import type { Schemas } from "../api/client";

/** A job document. Its fields are reached by path, as the vocabulary names them. */
export type Doc = Schemas["Document"];

export type Value = string | number | undefined;

type Tree = { [key: string]: Tree | string | number | undefined };

/** valueAt reads the field at a path; undefined where it is not answered. */
export function valueAt(doc: Doc, path: string): Value {
  let at: Tree | string | number | undefined = doc as unknown as Tree;
  for (const key of path.split(".")) {
    if (typeof at !== "object") return undefined;
    at = at[key];
  }
  return typeof at === "object" ? undefined : at;
}

/** withValue is the document with the field at a path set, or taken out. */
export function withValue(doc: Doc, path: string, value: Value): Doc {
  const keys = path.split(".");
  const last = keys.pop() as string;
  const copy = { ...(doc as unknown as Tree) };
  let at = copy;
  for (const key of keys) {
    const inner = { ...((at[key] as Tree | undefined) ?? {}) };
    at[key] = inner;
    at = inner;
  }
  if (value === undefined || value === "") delete at[last];
  else at[last] = value;
  return copy as unknown as Doc;
}

/** leaves lists the answered fields by path. */
export function leaves(doc: Doc): Map<string, Value> {
  const found = new Map<string, Value>();
  const walk = (prefix: string, tree: Tree) => {
    for (const [key, value] of Object.entries(tree)) {
      if (typeof value === "object") walk(`${prefix}${key}.`, value);
      else if (value !== undefined) found.set(prefix + key, value);
    }
  };
  walk("", doc as unknown as Tree);
  return found;
}

/** same says whether two documents answer the same. */
export function same(a: Doc, b: Doc): boolean {
  return changed(a, b).length === 0;
}

/** changed lists the paths in which two documents differ. */
export function changed(from: Doc, to: Doc): string[] {
  const before = leaves(from);
  const after = leaves(to);
  return [...new Set([...before.keys(), ...after.keys()])].filter((p) => before.get(p) !== after.get(p)).sort();
}

/** Conflict is a field that both changed, differently. */
export interface Conflict {
  path: string;
  mine: Value;
  theirs: Value;
}

/**
 * merge puts what changed from base to mine on top of theirs. Fields that only one
 * side changed are taken from that side; a field that both changed differently is
 * a conflict, and stays as theirs until somebody decides.
 */
export function merge(base: Doc, mine: Doc, theirs: Doc): { merged: Doc; conflicts: Conflict[] } {
  const theyChanged = new Set(changed(base, theirs));
  const conflicts: Conflict[] = [];
  let merged = theirs;
  for (const path of changed(base, mine)) {
    const value = valueAt(mine, path);
    if (!theyChanged.has(path)) merged = withValue(merged, path, value);
    else if (valueAt(theirs, path) !== value) conflicts.push({ path, mine: value, theirs: valueAt(theirs, path) });
  }
  return { merged, conflicts };
}
