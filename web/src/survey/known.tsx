import type { Dispatch } from "react";

import { valueAt } from "../job/document";
import type { Action, Edited } from "../job/history";
import { useJob } from "../job/JobContext";
import css from "./survey.module.css";

/** How an answer is known. */
export type How = "measured" | "book" | "told" | "assumed";

export const how: { value: How; label: string }[] = [
  { value: "measured", label: "measured" },
  { value: "book", label: "from the vehicle book" },
  { value: "told", label: "told" },
  { value: "assumed", label: "assumed" },
];

/** knownPath is where a document keeps how an answer is known. */
export const knownPath = (path: string): string => `known.${path.replaceAll(".", "/")}`;

/** marking is a dispatch that marks every answer given through it with how it is known. */
export function marking(dispatch: Dispatch<Action>, state: Edited, mark: How): Dispatch<Action> {
  return (action) => {
    if (action.type === "set" && !action.path.startsWith("known.")) {
      dispatch({ type: "setAll", values: { [action.path]: action.value, [knownPath(action.path)]: action.value === undefined ? undefined : mark } });
      return;
    }
    dispatch(action);
    if (action.type !== "type") return;
    const at = knownPath(action.path);
    const wanted = action.text.trim() === "" ? undefined : mark;
    if (valueAt(state.doc, at) !== wanted) dispatch({ type: "set", path: at, value: wanted });
  };
}

/** Known shows how an answer is known; touched, it goes to the next way. */
export function Known({ path }: { path: string }) {
  const { state, dispatch, mayChange } = useJob();
  const readOnly = !mayChange("known");
  if (valueAt(state.doc, path) === undefined) return null;
  const at = knownPath(path);
  const now = how.findIndex((h) => h.value === valueAt(state.doc, at));
  const next = how[(now + 1) % how.length] as (typeof how)[number];
  const label = how[now]?.label ?? "entered";
  return (
    <button
      type="button"
      className={css.known}
      data-known={how[now]?.value}
      disabled={readOnly}
      aria-label={`${label}; change to ${next.label}`}
      onClick={() => dispatch({ type: "setAll", values: { [at]: next.value } })}
    >
      {label}
    </button>
  );
}
