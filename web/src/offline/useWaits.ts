import { useSyncExternalStore } from "react";

import type { Road } from "./db";
import { live } from "./events";
import { taken } from "./marker";
import { away } from "./reach";
import { along } from "./along";
import { waits } from "./waits";

/** useWaits are all entries that the server does not have. */
export const useWaits = () => useSyncExternalStore(waits.listen, waits.now);

/** useWaitsOf are those of one job on one road. */
export const useWaitsOf = (job: string, road: Road) => useWaits().filter((w) => w.job === job && w.road === road);

/** useAlong are the jobs on this device. */
export const useAlong = () => useSyncExternalStore(along.listen, along.now);

/** useAway says whether the server does not answer. */
export const useAway = () => useSyncExternalStore(away.listen, away.now);

/** useBeat is how often what may have changed is asked for, in ms: seldom while pages hear of it by themselves. */
export const useBeat = (often: number) => (useSyncExternalStore(live.listen, live.now) ? Math.max(often, 60_000) : often);

/** useTaken is what the browser took away before the server had it. */
export const useTaken = () => useSyncExternalStore(taken.listen, taken.now);
