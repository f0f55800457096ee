import { Link, useParams } from "@tanstack/react-router";
import { useEffect, useRef, type ReactNode } from "react";

import { useEdit, useShown } from "./JobContext";
import css from "./Sheet.module.css";

/** Sheet is the frame of a sheet: its name for those who do not see it, and under it the way to the others. */
export function Sheet({ name, fills, foot, children }: { /** what those who do not see it hear; a sheet with a title of its own has none */ name?: string; /** it fills the window by itself */ fills?: boolean; /** what stands at the foot beside the tabs, which it then brings itself */ foot?: ReactNode; children: ReactNode }) {
  return (
    <main className={css.sheet}>
      {name && <Heading name={name} />}
      {children}
      {foot ?? (
        <>
          {!fills && <span className="gap" />}
          <SheetTabs />
        </>
      )}
    </main>
  );
}

function Heading({ name }: { name: string }) {
  const { state } = useEdit();
  return (
    <h1 className="hidden">
      {state.doc.title || "Untitled job"}: {name}
    </h1>
  );
}

/** SheetTabs switches between the sheets of the job, as the digits do. */
export function SheetTabs() {
  const { id, sheets } = useShown();
  const { sheet } = useParams({ strict: false });
  const bar = useRef<HTMLElement>(null);
  useEffect(() => { // where the bar is wider than the window, the open sheet stands in its middle
    const open = bar.current?.querySelector<HTMLElement>("[data-status=active]");
    if (bar.current && open) bar.current.scrollLeft = open.offsetLeft - (bar.current.clientWidth - open.offsetWidth) / 2;
  }, [sheet]);
  return (
    <nav className={css.tabs} aria-label="Sheets" data-sheets ref={bar}>
      {sheets.map((s) => (
        <Link key={s.name} to="/jobs/$id/{-$sheet}" params={{ id, sheet: s.address }} activeOptions={{ exact: true }}>
          {s.digit} {s.label}
        </Link>
      ))}
    </nav>
  );
}
