import type { ReactNode } from "react";

import css from "./Part.module.css";

/** Part is what belongs together on a page of the workshop. */
export function Part({ title, says, children }: { title: string; says?: string; children: ReactNode }) {
  return (
    <section aria-label={title} className={css.part}>
      <h2>{title}</h2>
      {says && <p className="soft">{says}</p>}
      {children}
    </section>
  );
}
