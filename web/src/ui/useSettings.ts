import { useQuery } from "@tanstack/react-query";
import { useEffect } from "react";

import { answerIn, api, take, type Schemas } from "../api/client";
import { listOf, read, writeIn } from "./units";

/** The workshop's settings, as they are kept. */
export type Kept = Schemas["KeptSettings"];

/** asWorkshop has figures and words written as the workshop has it. */
export function asWorkshop(kept: Kept) {
  writeIn(kept.settings.units);
  answerIn(listOf(kept.settings.units));
}

/** useSettings are the workshop's settings; undefined until they are there. */
export function useSettings() {
  return useQuery({ queryKey: ["settings"], queryFn: () => take(api.GET("/api/settings")), staleTime: 60_000, retry: 20, retryDelay: 1500 });
}

/** useUnits has figures and words written in the units of the workshop, or in a job's own list of them while it is open. */
export function useUnits(own: string | undefined) {
  const { data } = useSettings();
  const units = own === undefined ? data?.settings.units : read(own);
  writeIn(units);
  answerIn(units ? listOf(units) : "");
  useEffect(() => {
    return () => {
      if (data) asWorkshop(data);
    };
  }, [data]);
}
