import { createRootRoute, createRoute, createRouter, lazyRouteComponent, Outlet } from "@tanstack/react-router";

import { DayAlong } from "./along/DayAlong";
import { isSheet, sheetOf } from "./editor/sheets";
import { Door } from "./people/Door";
import { Nowhere } from "./ui/Nowhere";
import { Waiting } from "./ui/Wait";

const root = createRootRoute({
  component: () => (
    <Door>
      <DayAlong />
      <Outlet />
    </Door>
  ),
  notFoundComponent: Nowhere,
});

/** page is a page that is loaded when it is opened. */
const page = <P extends string>(path: P, component: ReturnType<typeof lazyRouteComponent>) => createRoute({ getParentRoute: () => root, path, component });

// One route for all sheets, so that what is open stays open, with its steps back, when the sheet changes.
const job = createRoute({
  getParentRoute: () => root,
  path: "/jobs/$id/{-$sheet}",
  // The sheet is loaded beside the editor, not after it.
  beforeLoad: ({ params: { sheet = "section" } }) => {
    if (isSheet(sheet)) void sheetOf(sheet).load();
  },
  component: lazyRouteComponent(() => import("./editor/JobRoute"), "JobRoute"),
});

const pages = [
  page("/", lazyRouteComponent(() => import("./jobs/FrontPage"), "FrontPage")),
  page("/jobs/$id/revisions/$number", lazyRouteComponent(() => import("./record/RevisionPage"), "RevisionPage")),
  page("/week", lazyRouteComponent(() => import("./week/WeekPage"), "WeekPage")),
  page("/parts", lazyRouteComponent(() => import("./parts/PartsPage"), "PartsPage")),
  page("/settings", lazyRouteComponent(() => import("./settings/SettingsPage"), "SettingsPage")),
  page("/account", lazyRouteComponent(() => import("./people/AccountPage"), "AccountPage")),
  page("/people", lazyRouteComponent(() => import("./people/PeoplePage"), "PeoplePage")),
  page("/trail", lazyRouteComponent(() => import("./people/TrailPage"), "TrailPage")),
  page("/join", lazyRouteComponent(() => import("./people/Join"), "Join")),
  page("/reset", lazyRouteComponent(() => import("./people/Join"), "Reset")),
  page("/trust", lazyRouteComponent(() => import("./people/Trust"), "Trust")),
  page("/handed", lazyRouteComponent(() => import("./people/Handed"), "Handed")),
  page("/along", lazyRouteComponent(() => import("./along/AlongPage"), "AlongPage")),
  page("/failures", lazyRouteComponent(() => import("./failures/FailuresPage"), "FailuresPage")),
  page("/vehicles", lazyRouteComponent(() => import("./vehicles/VehiclesPage"), "VehiclesPage")),
] as const;

export const router = createRouter({ routeTree: root.addChildren([job, ...pages]), defaultPendingComponent: () => <Waiting what="Opening" /> });

declare module "@tanstack/react-router" {
  interface Register {
    router: typeof router;
  }
}
