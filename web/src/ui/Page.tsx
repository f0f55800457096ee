import { Link } from "@tanstack/react-router";
import type { ReactNode } from "react";

import css from "./Page.module.css";
import { OnDevice } from "./OnDevice";
import { SchemeSwitch } from "./SchemeSwitch";
import { Who } from "./Who";

interface Props {
  /** What stands in the bar beside the name, up to the gap. */
  says: ReactNode;
  /** What may be done, behind the gap. */
  acts?: ReactNode;
  /** The name leads to the jobs, but on their own page. */
  home?: boolean;
  children: ReactNode;
}

/** Page is every page: its bar with the name of the house, and what is under it. */
export function Page({ says, acts, home, children }: Props) {
  return (
    <div className={css.page}>
      <header className={css.bar}>
        {home ? (
          <span className={css.wordmark}>Epitrope</span>
        ) : (
          <Link to="/" className={css.wordmark} aria-label="Epitrope, to the jobs">
            Epitrope
          </Link>
        )}
        {says}
        <span className={css.gap} />
        <OnDevice />
        {acts}
        <span className="wideOnly">
          <SchemeSwitch />
        </span>
        <Who />
      </header>
      {children}
    </div>
  );
}

/** Listing is a page's list: its title, what may be done with it, and its lines. */
export function Listing({ title, actions, children }: { title: string; actions: ReactNode; children: ReactNode }) {
  return (
    <main className={css.list}>
      <div className={css.head}>
        <h1>{title}</h1>
        <span className="gap" />
        {actions}
      </div>
      {children}
    </main>
  );
}
