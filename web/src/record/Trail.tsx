import { Button } from "@mantine/core";
import { useInfiniteQuery } from "@tanstack/react-query";
import { useState } from "react";

import { api, take } from "../api/client";
import { TrailList } from "../people/TrailList";
import { Failed, Waiting } from "../ui/Wait";

/** Trail is who did what on this job. */
export function Trail({ id }: { id: string }) {
  const [open, setOpen] = useState(false);
  const trail = useInfiniteQuery({
    queryKey: ["trail", id],
    queryFn: ({ pageParam }) => take(api.GET("/api/jobs/{id}/trail", { params: { path: { id }, query: pageParam ? { before: pageParam } : {} } })),
    initialPageParam: "",
    getNextPageParam: (page) => page.next ?? undefined,
    enabled: open,
  });
  return (
    <section aria-label="Who did what">
      <h2>Who did what</h2>
      <p className="soft">Edits, ticks, readings, photographs, waivers, signatures, what was issued and taken away. Kept as it happened.</p>
      {!open && (
        <Button variant="default" onClick={() => setOpen(true)}>
          Show it
        </Button>
      )}
      {open && trail.isPending && <Waiting what="Fetching the trail" />}
      {trail.isError && <Failed what="The trail" error={trail.error} again={() => void trail.refetch()} />}
      {trail.data && <TrailList lines={trail.data.pages.flatMap((p) => p.lines)} more={trail.hasNextPage ? () => void trail.fetchNextPage() : undefined} fetching={trail.isFetchingNextPage} />}
    </section>
  );
}
