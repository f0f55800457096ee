import { useQuery } from "@tanstack/react-query";
import { Link } from "@tanstack/react-router";

import { api, take } from "../api/client";
import { Due } from "../ui/Due";
import { Wrong } from "../ui/Wait";
import css from "./jobs.module.css";

/** DueList is what of all jobs is overdue, or due within a month; nothing where nothing is. */
export function DueList() {
  const due = useQuery({ queryKey: ["due"], queryFn: () => take(api.GET("/api/due")) });
  if (due.isError) return <Wrong>What is due could not be fetched: {due.error.message}</Wrong>;
  if (!due.data?.length) return null;
  return (
    <section aria-label="Due" className={css.due}>
      <h2>Due</h2>
      <ul>
        {due.data.map((d) => (
          <li key={d.job + d.key}>
            <Due state={d.state} days={d.days} />
            <Link to="/jobs/$id/{-$sheet}" params={{ id: d.job, sheet: "record" }}>
              {d.what}
            </Link>
            <span className="soft">
              {String(d.number).padStart(4, "0")} {d.title}, {d.due}
            </span>
          </li>
        ))}
      </ul>
      <a href="/api/calendar.ics">All dates as iCalendar</a>
    </section>
  );
}
