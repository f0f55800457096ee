import { useQuery } from "@tanstack/react-query";
import { Link } from "@tanstack/react-router";

import { api, take, type Schemas } from "../api/client";
import { useDates } from "../ui/useDates";
import { Wrong } from "../ui/Wait";
import { many } from "../ui/words";
import css from "./board.module.css";

/** Bays are what stands in each bay today, and what comes in the rest of the week. */
export function Bays() {
  const dates = useDates();
  const today = localDay();
  const week = useQuery({ queryKey: ["week", today], queryFn: () => take(api.GET("/api/week", { params: { query: { of: today } } })) });
  if (week.isError) return <Wrong>What the bays hold could not be fetched: {week.error.message}</Wrong>;
  if (!week.data) return null;
  const { bays } = week.data;
  const line = (e: Schemas["WeekEntry"], bay: string, when: string) => (
    <li key={e.job + bay}>
      <b>{bay || "no bay named"}</b>
      <span>
        <Link to="/jobs/$id/{-$sheet}" params={{ id: e.job, sheet: "steps" }}>
          {String(e.number).padStart(4, "0")} {e.title}
        </Link>{" "}
        <span className="soft">
          {when}, about {e.hours} h{e.waits > 0 && `, ${many(e.waits, "part", "parts")} to come`}
        </span>
        {e.clashes && <b className={css.clash}> clashes</b>}
      </span>
    </li>
  );
  const all = bays.flatMap((b) => b.entries.map((e) => ({ e, bay: b.bay })));
  const now = all.filter(({ e }) => e.from <= today && today <= e.until);
  const later = all.filter(({ e }) => e.from > today).sort((a, b) => a.e.from.localeCompare(b.e.from));
  return (
    <section aria-label="Bays" className={css.side}>
      <h2>In the bays today</h2>
      {now.length === 0 && <p className="soft">Nothing.</p>}
      <ul>{now.map(({ e, bay }) => line(e, bay, e.until === today ? "to the end of the day" : `until ${dates.day(e.until)}`))}</ul>
      {later.length > 0 && <h3>Later this week</h3>}
      <ul>{later.map(({ e, bay }) => line(e, bay, `from ${dates.day(e.from)}`))}</ul>
      <Link to="/week">The whole week</Link>
    </section>
  );
}

/** localDay is today where the browser is. */
function localDay(): string {
  const at = new Date();
  return `${at.getFullYear()}-${String(at.getMonth() + 1).padStart(2, "0")}-${String(at.getDate()).padStart(2, "0")}`;
}
