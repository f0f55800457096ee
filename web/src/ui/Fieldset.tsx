import type { ReactNode } from "react";

import css from "./Fieldset.module.css";

/** Fieldset is fields side by side, as many as there is room for. */
export function Fieldset({ children }: { children: ReactNode }) {
  return <div className={css.fields}>{children}</div>;
}
