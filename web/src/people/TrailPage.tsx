import { useInfiniteQuery } from "@tanstack/react-query";

import { api, take } from "../api/client";
import { Empty, Failed, Waiting } from "../ui/Wait";
import { WorkshopPage } from "../ui/WorkshopPage";
import { TrailList } from "./TrailList";

/** TrailPage is who did what over the whole workshop. */
export function TrailPage() {
  const trail = useInfiniteQuery({
    queryKey: ["trail"],
    queryFn: ({ pageParam }) => take(api.GET("/api/trail", { params: { query: pageParam ? { before: pageParam } : {} } })),
    initialPageParam: "",
    getNextPageParam: (page) => page.next ?? undefined,
  });
  const lines = trail.data?.pages.flatMap((p) => p.lines) ?? [];
  return (
    <WorkshopPage title="Who did what" says="kept as it happened; nothing in it can be changed">
      {trail.isPending && <Waiting what="Fetching the trail" />}
      {trail.isError && <Failed what="The trail" error={trail.error} again={() => void trail.refetch()} />}
      {trail.isSuccess && lines.length === 0 && <Empty>Nothing was done yet.</Empty>}
      <TrailList lines={lines} more={trail.hasNextPage ? () => void trail.fetchNextPage() : undefined} fetching={trail.isFetchingNextPage} />
    </WorkshopPage>
  );
}
