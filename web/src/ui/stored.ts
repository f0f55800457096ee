import { useCallback, useState } from "react";

/** Where a value is kept: in the browser, or in this window alone. */
export type Kept = "browser" | "window";

/** store is where a value is kept; null where the browser forbids it. */
function store(where: Kept): Storage | null {
  try {
    return where === "browser" ? window.localStorage : window.sessionStorage;
  } catch {
    return null;
  }
}

/** recall is what was kept under a name; null where nothing was, or where the browser forbids it. */
export function recall(name: string, where: Kept = "browser"): string | null {
  try {
    return store(where)?.getItem(name) ?? null;
  } catch {
    return null;
  }
}

/** keep keeps a text under a name, or takes it out; it says whether it is kept. A full store costs the copy alone. */
export function keep(name: string, text: string | null, where: Kept = "browser"): boolean {
  try {
    const at = store(where);
    if (!at) return false;
    if (text === null) at.removeItem(name);
    else at.setItem(name, text);
    return true;
  } catch {
    return false;
  }
}

/** names are all names under which something is kept. */
export function names(where: Kept = "browser"): string[] {
  try {
    const at = store(where);
    return at ? Array.from({ length: at.length }, (_, i) => at.key(i) ?? "").filter(Boolean) : [];
  } catch {
    return [];
  }
}

/** useStored is a text that is kept under a name; what was chosen holds even where it cannot be kept. */
export function useStored(name: string, first: string, where: Kept = "browser"): [string, (text: string) => void] {
  const [value, setValue] = useState(() => recall(name, where) ?? first);
  const set = useCallback(
    (text: string) => {
      setValue(text);
      keep(name, text === first ? null : text, where);
    },
    [name, first, where],
  );
  return [value, set];
}
