import type { ReactNode } from "react";

import css from "./people.module.css";

/** Plate is a page before anybody is signed in: one thing to do, in a frame as a drawing's title block has it. */
export function Plate({ title, says, children }: { title: string; says?: ReactNode; children: ReactNode }) {
  return (
    <main className={css.plate}>
      <div className={css.frame}>
        <header>
          <span className={css.mark}>Epitrope</span>
          <span className="soft">charging from the alternator, planned and proven</span>
        </header>
        <section>
          <h1>{title}</h1>
          {says && <p className="soft">{says}</p>}
          {children}
        </section>
      </div>
    </main>
  );
}
