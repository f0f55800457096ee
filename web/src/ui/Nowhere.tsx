import { Link } from "@tanstack/react-router";

import { Listing, Page } from "./Page";

/** Nowhere is what stands at an address that is none. */
export function Nowhere() {
  return (
    <Page says={null}>
      <Listing title="There is no such page" actions={null}>
        <p>
          <Link to="/">To the jobs</Link>
        </p>
      </Listing>
    </Page>
  );
}
