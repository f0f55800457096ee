import { useQuery } from "@tanstack/react-query";
import { useEffect, useMemo } from "react";

import { db } from "../offline/db";
import { useAway, useWaitsOf } from "../offline/useWaits";
import type { Photo } from "./usePhotos";

/** Photograph is one of a job's: from the server, or from this device while the server does not have it or does not answer. */
export function Photograph({ job, photo }: { job: string; photo: Photo }) {
  const away = useAway();
  const waits = useWaitsOf(job, "photos").find((w) => w.id === photo.id)?.blob;
  const kept = useQuery({ queryKey: ["picture", photo.id], queryFn: async () => (await (await db()).get("pictures", photo.id))?.blob ?? null, enabled: away && !waits, staleTime: Infinity }).data;
  const blob = waits ?? (away ? kept : null);
  const here = useMemo(() => (blob ? URL.createObjectURL(blob) : null), [blob]);
  useEffect(() => () => void (here && URL.revokeObjectURL(here)), [here]);
  const address = here ?? `/api/jobs/${job}/photos/${photo.id}`;
  const says = `${photo.tied}, taken by ${photo.by}${waits ? ", on this device alone" : ""}`;
  if (away && !here) return <span className="soft">a photograph that is on the server</span>;
  return (
    <a href={address} target="_blank" rel="noreferrer">
      <img src={address} alt={says} loading="lazy" data-waits={waits ? true : undefined} />
    </a>
  );
}
