import { Link } from "@tanstack/react-router";
import type { ReactNode } from "react";

import { SchemeSwitch } from "./SchemeSwitch";

/** WorkshopPage is a page of the workshop's own, beside its jobs: a book, the week. */
export function WorkshopPage({ title, says, actions, book = true, children }: { title: string; says: string; actions: ReactNode; /** its tables stand row by row on a phone */ book?: boolean; children: ReactNode }) {
  return (
    <div className="page">
      <header className="bar">
        <Link to="/" className="wordmark">
          Epitrope
        </Link>
        <span className="soft">{says}</span>
        <span className="gap" />
        <SchemeSwitch />
      </header>
      <main className={book ? "list partsPage" : "list"}>
        <div className="listHead">
          <h1>{title}</h1>
          <span className="gap" />
          {actions}
        </div>
        {children}
      </main>
    </div>
  );
}
