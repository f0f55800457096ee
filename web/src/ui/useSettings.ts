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

/** vocabularyOf asks for the fields of a job with their words in units, as a list of them. */
export const vocabularyOf = (units: string) => ({ queryKey: ["vocabulary", units], queryFn: () => take(api.GET("/api/vocabulary")), staleTime: Infinity });

/** useUnits has figures and words written in the units of the workshop, or in a job's own list of them while it is open; it
 * returns the list. */
export function useUnits(own: string | undefined): string {
  const { data } = useSettings();
  const units = own === undefined ? data?.settings.units : read(own);
  const list = units ? listOf(units) : "";
  writeIn(units);
  answerIn(list);
  useEffect(() => {
    return () => {
      if (data) asWorkshop(data);
    };
  }, [data]);
  return list;
}
