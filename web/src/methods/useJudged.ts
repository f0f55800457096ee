import { api, take, type Schemas } from "../api/client";
import { useAsked, useAskedEach } from "../job/useAsked";

type Driven = Schemas["Driven"];

/** Judged is every coupling, school and charger against the job. */
export type Judged = Schemas["Judged"];

/** Method is a coupling on the job, and what it comes to through time once that has been run. */
export type Method = Schemas["Consequence"] & { driven?: Driven | undefined; notDriven?: boolean };

/** useJudged holds every coupling, school and charger against the job. */
export const useJudged = () => useAsked("methods", (doc, signal) => take(api.POST("/api/methods", { body: doc, signal })));

/** useShelf holds the chargers of the workshop's parts book against the job. */
export const useShelf = () => useAsked("shelf", (doc, signal) => take(api.POST("/api/shelf", { body: doc, signal })));

/** useDriven runs each of the couplings through time, once they are judged; it says whether one is still under way. */
export function useDriven(methods: Schemas["Consequence"][], judged: boolean): { list: Method[]; driving: boolean } {
  const asked = useAskedEach("driven", methods.map((m) => m.method.kind), judged, (coupling, doc, signal) =>
    take(api.POST("/api/methods/{coupling}", { params: { path: { coupling: coupling as Schemas["Consequence"]["method"]["kind"] } }, body: doc, signal })),
  );
  return { list: methods.map((m, i) => ({ ...m, driven: asked[i]?.answer, notDriven: !!asked[i]?.failed })), driving: asked.some((a) => a.asking) };
}
