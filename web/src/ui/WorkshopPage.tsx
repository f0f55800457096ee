import { Link } from "@tanstack/react-router";
import type { ReactNode } from "react";

import { SchemeSwitch } from "./SchemeSwitch";

/** WorkshopPage is a page of the workshop's own, beside its jobs: a book, the week. */
export function WorkshopPage({ title, says, actions, children }: { title: string; says: string; actions: ReactNode; children: ReactNode }) {
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
      <main className="list partsPage">
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
