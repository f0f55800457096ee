import type { Schemas } from "../api/client";
import { useWaitsOf } from "../offline/useWaits";
import { useMe } from "../ui/useMe";

export type Photo = Schemas["Photo"];

/** usePhotos are a job's photographs: those that the server has, and behind them those that wait on this device. */
export function usePhotos(job: string, kept: Photo[]): Photo[] {
  const me = useMe();
  const there = new Set(kept.map((p) => p.id));
  const here = useWaitsOf(job, "photos").filter((w) => !w.refused && !there.has(w.id));
  return [...kept, ...here.map((w) => ({ id: w.id, tied: String(w.body.tied), by: me?.person?.name ?? "", at: w.at, digest: "", width: 0, height: 0 }))];
}
