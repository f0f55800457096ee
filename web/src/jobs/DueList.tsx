import { Button } from "@mantine/core";
import { useInfiniteQuery } from "@tanstack/react-query";
import { Link } from "@tanstack/react-router";

import { api, take } from "../api/client";
import { Due } from "../ui/Due";
import { Wrong } from "../ui/Wait";
import { useDates } from "../ui/useDates";
import css from "./jobs.module.css";

/** DueList is what of all jobs is overdue, or due within a month; nothing where nothing is. */
export function DueList() {
  const dates = useDates();
  const due = useInfiniteQuery({
    queryKey: ["due"],
    queryFn: ({ pageParam, signal }) => take(api.GET("/api/due", { params: { query: pageParam ? { after: pageParam } : {} }, signal })),
    initialPageParam: "",
    getNextPageParam: (page) => page.next || undefined,
  });
  if (due.isError) return <Wrong>What is due could not be fetched: {due.error.message}</Wrong>;
  const rows = due.data?.pages.flatMap((p) => p.due) ?? [];
  if (rows.length === 0) return null;
  return (
    <section aria-label="Due" className={css.due}>
      <h2>Due</h2>
      <ul>
        {rows.map((d) => (
          <li key={d.job + d.key}>
            <Due state={d.state} days={d.days} />
            <Link to="/jobs/$id/{-$sheet}" params={{ id: d.job, sheet: "record" }}>
              {d.what}
            </Link>
            <span className="soft">
              {String(d.number).padStart(4, "0")} {d.title}, {dates.day(d.due)}
            </span>
          </li>
        ))}
      </ul>
      <div className="row">
        {due.hasNextPage && (
          <Button size="compact-sm" variant="default" loading={due.isFetchingNextPage} onClick={() => void due.fetchNextPage()}>
            More that is due
          </Button>
        )}
        <a href="/api/calendar.ics">Dates as iCalendar, to two years ahead</a>
      </div>
    </section>
  );
}
