import { Button } from "@mantine/core";
import { useMediaQuery } from "@mantine/hooks";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { Link } from "@tanstack/react-router";
import { useState } from "react";

import { api, take, type Schemas } from "../api/client";
import { shifted } from "../ui/shifted";
import { useDates } from "../ui/useDates";
import { Table, type TableColumn } from "../ui/Table";
import { Empty, Failed, Waiting } from "../ui/Wait";
import { WorkshopPage } from "../ui/WorkshopPage";
import css from "./week.module.css";

const weekday = new Intl.DateTimeFormat("en", { weekday: "short", timeZone: "UTC" });

/** WeekPage is the workshop's week: what stands in each bay, for how long, and what it waits for. */
export function WeekPage() {
  const [of, setOf] = useState<string | undefined>();
  const week = useQuery({ queryKey: ["week", of], queryFn: () => take(api.GET("/api/week", { params: { query: of ? { of } : {} } })), placeholderData: keepPreviousData });
  const w = week.data;
  const dates = useDates();
  const narrow = useMediaQuery("(max-width: 760px)", false, { getInitialValueInEffect: false });
  const move = (days: number) => w && setOf(shifted(w.days[0] ?? "", days));
  return (
    <WorkshopPage
      title="Week"
      says="the workshop's week"
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
      {week.isPending && <Waiting what="Fetching the week" />}
      {week.isError && <Failed what="The week" error={week.error} again={() => void week.refetch()} />}
      {w && w.bays.length === 0 && <Empty>Nothing stands in a bay this week. On a job&apos;s record, add a date “in the bay”; its days follow from its steps.</Empty>}
      {w && w.bays.length > 0 && narrow && <Days week={w} />}
      {w && !narrow && <Table className={css.week} narrow="scroll" caption="Bays" rows={w.bays} columns={columnsOf(w.days, dates.day)} keyOf={(b) => b.bay} />}
    </WorkshopPage>
  );
}

/** Days are the week on a phone: a day below the other, with what stands in the bays then. */
function Days({ week }: { week: Schemas["Week"] }) {
  const dates = useDates();
  return (
    <ol className={css.days}>
      {week.days.map((d) => {
        const there = week.bays.flatMap((b) => b.entries.filter((e) => e.from <= d && d <= e.until).map((e) => ({ bay: b.bay, e })));
        return (
          <li key={d}>
            <h2>
              {weekday.format(new Date(d))} {dates.day(d)}
            </h2>
            {there.length === 0 && <p className="soft">nothing</p>}
            {there.map(({ bay, e }) => (
              <div key={bay + e.job} className={css.inBay}>
                <b>{bay || "no bay named"}</b>
                <Entry entry={e} first={e.from === d || d === week.days[0]} />
              </div>
            ))}
          </li>
        );
      })}
    </ol>
  );
}

/** columnsOf is a column to a day, with what stands in each bay then. */
function columnsOf(days: string[], day: (stored: string) => string): TableColumn<Schemas["Week"]["bays"][number]>[] {
  return [
    { key: "bay", head: "Bay", names: true, cell: (b) => b.bay || "no bay named" },
    ...days.map((d) => ({
      key: d,
      head: `${weekday.format(new Date(d))} ${day(d)}`,
      cell: (b: Schemas["Week"]["bays"][number]) => b.entries.filter((e) => e.from <= d && d <= e.until).map((e) => <Entry key={e.job} entry={e} first={e.from === d || d === days[0]} />),
    })),
  ];
}

function Entry({ entry, first }: { entry: Schemas["WeekEntry"]; first: boolean }) {
  return (
    <div className={css.entry} data-clashes={entry.clashes || undefined}>
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
