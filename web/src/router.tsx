import { createRootRoute, createRoute, createRouter, lazyRouteComponent, Link, Outlet } from "@tanstack/react-router";

import { isSheet } from "./editor/sheets";
import { Listing, Page } from "./ui/Page";
import { Waiting } from "./ui/Wait";

const root = createRootRoute({ component: Outlet, notFoundComponent: Nowhere });

/** page is a page that is loaded when it is opened. */
const page = <P extends string>(path: P, component: ReturnType<typeof lazyRouteComponent>) => createRoute({ getParentRoute: () => root, path, component });

const JobPage = lazyRouteComponent(() => import("./editor/JobPage"), "JobPage");
const RevisionPage = lazyRouteComponent(() => import("./record/RevisionPage"), "RevisionPage");

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

const pages = [
  page("/", lazyRouteComponent(() => import("./jobs/JobList"), "JobList")),
  page("/week", lazyRouteComponent(() => import("./week/WeekPage"), "WeekPage")),
  page("/parts", lazyRouteComponent(() => import("./parts/PartsPage"), "PartsPage")),
  page("/vehicles", lazyRouteComponent(() => import("./vehicles/VehiclesPage"), "VehiclesPage")),
] as const;

export const router = createRouter({ routeTree: root.addChildren([job, revision, ...pages]), defaultPendingComponent: () => <Waiting what="Opening" /> });

declare module "@tanstack/react-router" {
  interface Register {
    router: typeof router;
  }
}

function Nowhere() {
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
