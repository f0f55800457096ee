import { Alert, Button, Loader } from "@mantine/core";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { Link } from "@tanstack/react-router";
import { useState } from "react";

import { api, take, whyNot, type Schemas } from "../api/client";
import { WorkshopPage } from "../ui/WorkshopPage";
import { shifted } from "../ui/shifted";

const weekday = new Intl.DateTimeFormat(undefined, { weekday: "short", day: "numeric", month: "short", timeZone: "UTC" });

/** WeekPage is the workshop's week: what stands in each bay, for how long, and what it waits for. */
export function WeekPage() {
  const [of, setOf] = useState<string | undefined>();
  const week = useQuery({ queryKey: ["week", of], queryFn: () => take(api.GET("/api/week", { params: { query: of ? { of } : {} } })), placeholderData: keepPreviousData });
  const w = week.data;
  const move = (days: number) => w && setOf(shifted(w.days[0] ?? "", days));
  return (
    <WorkshopPage
      title="Week"
      says="the workshop's week"
      book={false}
      actions={
        <>
          <Button variant="default" disabled={!w} onClick={() => move(-7)}>
            Week before
          </Button>
          <Button variant="default" disabled={!w} onClick={() => move(7)}>
            Week after
          </Button>
          <Button component="a" variant="default" href="/api/calendar.ics">
            iCalendar
          </Button>
        </>
      }
    >
      {week.isPending && <Loader role="status" aria-label="Loading" color="ink" />}
      {week.isError && (
        <Alert color="ink" title="The week could not be fetched">
          {whyNot(week.error)}
        </Alert>
      )}
      {w && (
        <div className="weekTable" role="region" aria-label="Bays" tabIndex={0}>
          <table>
            <thead>
              <tr>
                <th scope="col">Bay</th>
                {w.days.map((d) => (
                  <th key={d} scope="col">
                    {weekday.format(new Date(d))}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {w.bays.map((b) => (
                <tr key={b.bay}>
                  <th scope="row">{b.bay || "no bay named"}</th>
                  {w.days.map((d) => (
                    <td key={d}>
                      {b.entries
                        .filter((e) => e.from <= d && d <= e.until)
                        .map((e) => (
                          <Entry key={e.job} entry={e} first={e.from === d || d === w.days[0]} />
                        ))}
                    </td>
                  ))}
                </tr>
              ))}
            </tbody>
          </table>
          {w.bays.length === 0 && <p className="empty">Nothing stands in a bay this week. On a job&apos;s record, add a date “in the bay”; its days follow from its steps.</p>}
        </div>
      )}
    </WorkshopPage>
  );
}

function Entry({ entry, first }: { entry: Schemas["WeekEntry"]; first: boolean }) {
  return (
    <div className={`weekEntry ${entry.clashes ? "clash" : ""}`}>
      <Link to="/jobs/$id/{-$sheet}" params={{ id: entry.job, sheet: "steps" }}>
        {String(entry.number).padStart(4, "0")} {entry.title}
      </Link>
      {first && (
        <span className="soft">
          about {entry.hours} h{entry.waits > 0 && `, waits for ${entry.waits} parts`}
        </span>
      )}
      {entry.clashes && <b>clashes in this bay</b>}
    </div>
  );
}
