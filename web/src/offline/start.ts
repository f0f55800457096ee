import type { QueryClient } from "@tanstack/react-query";

import { along, begin, renew } from "./along";
import { importOld } from "./old";
import { away } from "./reach";
import { register } from "./shell";
import { load, onArrived, sendAs } from "./waits";

/** What was taken along is brought up to date so often, in ms. */
const renewEvery = 10 * 60_000;

/** start has this device keep what waits and what was taken along, and pages hear of it. */
export function start(queries: QueryClient) {
  register();
  onArrived(async (job, road, whole) => {
    if (whole) queries.setQueryData([road, job], whole);
    else await queries.invalidateQueries({ queryKey: [road === "photos" ? "proof" : road, job] });
    if (road === "comments") void queries.invalidateQueries({ queryKey: ["waiting"] });
  });
  void importOld().then(load);
  let was = false;
  away.listen(() => {
    if (was && !away.now()) void queries.invalidateQueries();
    was = away.now();
  });
  setInterval(() => {
    if (!away.now()) void renew();
  }, renewEvery);
}

/** comesIn says who is signed in here: nobody, where person is undefined; shared is the bay's tablet. */
export async function comesIn(person: string | undefined, shared: boolean): Promise<void> {
  sendAs(person);
  if (!person) return;
  try {
    await begin(person, shared);
    if (along.now().length > 0 && !away.now()) await renew();
  } catch {
    // this browser keeps nothing: the page of what is along says so
  }
}
