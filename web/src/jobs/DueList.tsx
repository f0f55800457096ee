import { useQuery } from "@tanstack/react-query";
import { Link } from "@tanstack/react-router";

import { api, take } from "../api/client";
import { dueWords } from "../ui/due";

/** DueList is what of all jobs is overdue, or due within a month; nothing where nothing is. */
export function DueList() {
  const due = useQuery({ queryKey: ["due"], queryFn: () => take(api.GET("/api/due")) });
  if (due.isError) return <p role="alert">What is due could not be fetched: {due.error.message}</p>;
  if (!due.data?.length) return null;
  return (
    <section aria-label="Due" className="dueList">
      <h2>Due</h2>
      <ul>
        {due.data.map((d) => (
          <li key={d.job + d.key} className={`due ${d.state}`}>
            <b>{dueWords(d.state, d.days)}</b>
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
