import { createRootRoute, createRoute, createRouter, Link, Outlet } from "@tanstack/react-router";

import { JobPage } from "./editor/JobPage";
import { isSheet } from "./editor/sheets";
import { JobList } from "./jobs/JobList";
import { PartsPage } from "./parts/PartsPage";
import { RevisionPage } from "./record/RevisionPage";
import { VehiclesPage } from "./vehicles/VehiclesPage";
import { WeekPage } from "./week/WeekPage";

const root = createRootRoute({ component: Outlet, notFoundComponent: Nowhere });

const list = createRoute({ getParentRoute: () => root, path: "/", component: JobList });
// One route for all sheets, so that what is open stays open, with its steps back, when the sheet changes.
const job = createRoute({
  getParentRoute: () => root,
  path: "/jobs/$id/{-$sheet}",
  component: function Job() {
    const { id, sheet = "section" } = job.useParams();
    return isSheet(sheet) ? <JobPage key={id} id={id} sheet={sheet} /> : <Nowhere />;
  },
});
const revision = createRoute({
  getParentRoute: () => root,
  path: "/jobs/$id/revisions/$number",
  component: function Revision() {
    const { id, number } = revision.useParams();
    return <RevisionPage id={id} number={Number(number)} />;
  },
});

const parts = createRoute({ getParentRoute: () => root, path: "/parts", component: PartsPage });

const vehicles = createRoute({ getParentRoute: () => root, path: "/vehicles", component: VehiclesPage });
const week = createRoute({ getParentRoute: () => root, path: "/week", component: WeekPage });

export const router = createRouter({ routeTree: root.addChildren([list, job, revision, parts, vehicles, week]) });

declare module "@tanstack/react-router" {
  interface Register {
    router: typeof router;
  }
}

function Nowhere() {
  return (
    <main className="page">
      <h1>There is no such page</h1>
      <p>
        <Link to="/">To the jobs</Link>
      </p>
    </main>
  );
}
