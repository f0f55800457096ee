import { useParams } from "@tanstack/react-router";

import { Nowhere } from "../ui/Nowhere";
import { JobPage } from "./JobPage";
import { isSheet } from "./sheets";

/** JobRoute is the job and the sheet that an address names. */
export function JobRoute() {
  const { id = "", sheet = "section" } = useParams({ strict: false });
  return isSheet(sheet) ? <JobPage key={id} id={id} sheet={sheet} /> : <Nowhere />;
}
