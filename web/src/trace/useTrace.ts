import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useDeferredValue, useState } from "react";

import { api, take, type Schemas } from "../api/client";
import { uuid } from "../api/once";
import { valueAt } from "../job/document";
import { useJob } from "../job/JobContext";
import { useQueue } from "../job/useQueue";
import { useStored } from "../ui/stored";
import { useMe } from "../ui/useMe";
import { casesOf, evidenceOf, installedAt, wasFound, type Entry } from "./cases";

export type Traced = Schemas["Traced"];
export type Suspect = Schemas["Suspect"];
export type Test = Schemas["NextTest"];

/** useTrace is the tracing of a job's faults: its cases, the one that is looked at, and what may be wrong by it. */
export function useTrace() {
  const { id, state } = useJob();
  const me = useMe();
  const queue = useQueue<Entry, Schemas["ProofRecord"]>("proof", id, () => take(api.GET("/api/jobs/{id}/proof", { params: { path: { id } } })), (whole) => whole.entries);
  const cases = casesOf(queue.all);
  const [picked, pick] = useStored(`case:${id}`, "");
  const now = cases.find((c) => c.id === picked) ?? (picked === "new" ? undefined : cases.findLast((c) => !c.closed));
  const have = valueAt(state.doc, "have.coupling");
  const [chosen, choose] = useStored(installedAt(id), "");
  // What was found is what is in the vehicle until something was read of the new.
  const asFound = have !== undefined && have !== "none" && !queue.all.some((e) => e.kind === "reading");
  const found = now?.found ?? (chosen === "" ? asFound : chosen === wasFound);
  const [today] = useState(() => Date.now());
  const what = JSON.stringify({ document: state.doc, evidence: evidenceOf(now, queue.all, queue.whole?.signed ?? [], today), found });
  const asked = useDeferredValue(what);
  const means = useQuery({
    queryKey: ["trace", asked],
    queryFn: ({ signal }) => take(api.POST("/api/trace", { body: JSON.parse(asked) as never, signal })),
    placeholderData: keepPreviousData,
    staleTime: Infinity,
    gcTime: 60_000,
    retry: 2,
  });
  /** enter keeps something of a case; of a new one where there is none. */
  const enter = (kind: Entry["kind"], subject: string, entry: string, named: string, device = "", of = now?.id ?? uuid()) => {
    queue.add({ id: uuid(), kind, subject, entry, by: me?.person?.name ?? "", person: me?.person?.id, at: new Date().toISOString(), case: of, ...(device ? { with: device.slice(0, 120) } : {}), ...(found ? { found } : {}) }, named);
    pick(of);
  };
  return {
    id,
    cases,
    now,
    /** What is traced is what was found, not what is designed. */
    asFound: found,
    choose: (asFound: boolean) => choose(asFound ? wasFound : "designed"),
    pick,
    enter,
    unsent: queue.unsent,
    refused: queue.refused,
    failed: queue.failed,
    found: means.data,
    asking: means.isFetching || asked !== what,
    /** What is known is of before the last entry. */
    old: means.isPlaceholderData || asked !== what,
    wrong: means.error,
    again: () => void means.refetch(),
  };
}
