import type { Schemas } from "../api/client";
import css from "./Due.module.css";
import { dueWords } from "./due";

/** Due says how a date stands. */
export function Due({ state, days }: { state: Schemas["DateState"]["state"]; days: number }) {
  return (
    <b className={css.due} data-state={state}>
      {dueWords(state, days)}
    </b>
  );
}
