import { createRootRoute, createRoute, createRouter, Link, Outlet } from "@tanstack/react-router";

import { JobPage } from "./job/JobPage";
import { JobList } from "./jobs/JobList";
import { RevisionPage } from "./record/RevisionPage";

const root = createRootRoute({ component: Outlet, notFoundComponent: Nowhere });

const list = createRoute({ getParentRoute: () => root, path: "/", component: JobList });
const job = createRoute({
  getParentRoute: () => root,
  path: "/jobs/$id",
  component: function Job() {
    const { id } = job.useParams();
    return <JobPage key={id} id={id} sheet="section" />;
  },
});
const day = createRoute({
  getParentRoute: () => root,
  path: "/jobs/$id/day",
  component: function Day() {
    const { id } = day.useParams();
    return <JobPage key={id} id={id} sheet="day" />;
  },
});
const record = createRoute({
  getParentRoute: () => root,
  path: "/jobs/$id/record",
  component: function Record() {
    const { id } = record.useParams();
    return <JobPage key={id} id={id} sheet="record" />;
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

export const router = createRouter({ routeTree: root.addChildren([list, job, day, record, revision]) });

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
