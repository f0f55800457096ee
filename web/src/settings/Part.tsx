import type { ReactNode } from "react";

import css from "./settings.module.css";

/** Part is settings that belong together. */
export function Part({ title, says, children }: { title: string; says?: string; children: ReactNode }) {
  return (
    <section aria-label={title} className={css.part}>
      <h2>{title}</h2>
      {says && <p className="soft">{says}</p>}
      {children}
    </section>
  );
}
