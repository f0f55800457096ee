import type { QueryClient } from "@tanstack/react-query";

import { takeIn } from "./ahead";
import { along, begin, renew } from "./along";
import { listen, type Changed } from "./events";
import { away } from "./reach";
import { register } from "./shell";
import { load, onArrived, sendAs } from "./waits";

/** What was taken along is brought up to date so often, in ms. */
const renewEvery = 10 * 60_000;

/** asks are the questions whose answers a change touches, as queries are called; a job's own come with its id. */
const asks: Record<Exclude<Changed["what"], "anything">, string[]> = {
  job: ["job", "jobs", "due", "week", "tasks", "board", "opened"],
  revision: ["job", "revisions", "jobs", "board", "log"],
  ticks: ["ticks", "board", "log"],
  proof: ["proof", "waiting", "board", "log", "failures"],
  countersigns: ["ticks", "proof", "waiting", "board"],
  comments: ["comments", "waiting", "board"],
  tasks: ["tasks"],
  settings: ["settings"],
  parts: ["parts"],
  here: ["here"],
};
/** lists are the questions that are about no job alone. */
const lists = new Set(["jobs", "due", "week", "waiting", "board", "failures", "settings", "parts"]);

/** start has this device keep what waits and what was taken along, and pages hear of it. */
export function start(queries: QueryClient) {
  register();
  onArrived(async (job, road, whole) => {
    if (whole) queries.setQueryData([road, job], whole);
    else await queries.invalidateQueries({ queryKey: [road === "photos" ? "proof" : road, job] });
    if (road === "comments") void queries.invalidateQueries({ queryKey: ["waiting"] });
  });
  void takeIn().catch(() => undefined).then(load); // what cannot be taken in stays where it is
  hear = ({ what, job }) => {
    if (what === "anything") void queries.invalidateQueries({ predicate: (q) => q.queryKey[0] !== "me" });
    else for (const name of asks[what] ?? []) void queries.invalidateQueries({ queryKey: lists.has(name) || !job ? [name] : [name, job] });
  };
  let was = false;
  away.listen(() => {
    if (was && !away.now()) void queries.invalidateQueries();
    was = away.now();
  });
  setInterval(() => {
    if (!away.now()) void renew().catch(() => undefined); // tried again
  }, renewEvery);
}

let hear: (c: Changed) => void = () => undefined;

/** comesIn says who is signed in here: nobody, where person is undefined; shared is the bay's tablet. */
export async function comesIn(person: string | undefined, shared: boolean): Promise<void> {
  sendAs(person);
  if (!person) return;
  listen((c) => hear(c));
  try {
    await begin(person, shared);
    if (along.now().length > 0 && !away.now()) await renew();
  } catch {
    // this browser keeps nothing: the page of what is along says so
  }
}
