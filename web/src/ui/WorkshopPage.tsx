import type { ReactNode } from "react";

import { Listing, Page } from "./Page";

/** WorkshopPage is a page of the workshop's own, beside its jobs: a book, the week. */
export function WorkshopPage({ title, says, actions, children }: { title: string; says: string; actions?: ReactNode; children: ReactNode }) {
  return (
    <Page says={<span className="soft">{says}</span>}>
      <Listing title={title} actions={actions}>
        {children}
      </Listing>
    </Page>
  );
}
