import type { ReactNode } from "react";

import { useEdit } from "./JobContext";
import css from "./Sheet.module.css";
import { SheetTabs } from "./SheetTabs";

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
