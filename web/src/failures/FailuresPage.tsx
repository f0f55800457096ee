import { TextInput } from "@mantine/core";
import { useDebouncedValue } from "@mantine/hooks";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { Link } from "@tanstack/react-router";
import { useState } from "react";

import { api, take, type Schemas } from "../api/client";
import { Table, type TableColumn } from "../ui/Table";
import { useDates } from "../ui/useDates";
import { Empty, Failed, Waiting } from "../ui/Wait";
import { many } from "../ui/words";
import { WorkshopPage } from "../ui/WorkshopPage";
import css from "./failures.module.css";

type Group = Schemas["FailedPart"];

/** pause gathers the keys of a search, in ms. */
const pause = 150;

/** FailuresPage answers what fails in the workshop's work: by part, model and age, with every case behind it. */
export function FailuresPage() {
  const [typed, setTyped] = useState("");
  const [search] = useDebouncedValue(typed.trim(), pause);
  const failed = useQuery({
    queryKey: ["failures", search],
    queryFn: ({ signal }) => take(api.GET("/api/failures", { params: { query: search ? { search } : {} }, signal })),
    placeholderData: keepPreviousData,
  });
  const dates = useDates();
  const columns: TableColumn<Group>[] = [
    { key: "part", head: "Part", names: true, cell: (g) => [g.part, g.model].filter(Boolean).join(", ") },
    { key: "says", head: "What was wrong with the newest", cell: (g) => g.says },
    { key: "count", head: "Times", set: "right", cell: (g) => g.count },
    { key: "vehicles", head: "In vehicles", set: "right", cell: (g) => g.vehicles },
    { key: "age", head: "Age when it failed", cell: age },
    { key: "last", head: "Last", cell: (g) => dates.since(g.lastAt) },
  ];
  return (
    <WorkshopPage title="What fails" says="by part, model and age, over all jobs of the workshop">
      <TextInput className={css.search} type="search" label="Find" placeholder="part, model, fault, vehicle, job" maxLength={200} value={typed} onChange={(e) => setTyped(e.currentTarget.value)} />
      {failed.isPending && <Waiting what="Counting" />}
      {failed.isError && <Failed what="What failed" error={failed.error} again={() => void failed.refetch()} />}
      {failed.data?.groups.length === 0 && (
        <Empty>{search ? `Nothing that failed has “${search}” in its part, model, fault, vehicle or job.` : "Nothing has failed yet. What is mended on sheet 8, Trace, and what is changed in the logbook of sheet 9 is counted here."}</Empty>
      )}
      {failed.data && failed.data.groups.length > 0 && (
        <>
          <p className="soft">
            The workshop has signed for {failed.data.proven === 0 ? "no job yet" : many(failed.data.proven, "job", "jobs")}. Ages count from the first signature; of what was never signed for here, no age is known.
          </p>
          <Table caption="What fails" rows={failed.data.groups} columns={columns} keyOf={(g) => [g.part, g.model, g.fault].join("|")} />
          <h2>The newest</h2>
          <ol className={css.newest}>
            {failed.data.newest.map((f, i) => (
              <li key={f.job + f.at + String(i)}>
                <span className="soft">{dates.moment(f.at)}</span>
                <span>
                  <b>{f.says}</b>
                  {f.years !== undefined && <span className="soft">, after {years(f.years)}</span>}
                  <br />
                  <Link to="/jobs/$id/{-$sheet}" params={{ id: f.job, sheet: "record" }}>
                    {String(f.number).padStart(4, "0")} {f.title || "Untitled job"}
                  </Link>
                  {f.vehicle && <span className="soft">, {f.vehicle}</span>}
                </span>
              </li>
            ))}
          </ol>
        </>
      )}
    </WorkshopPage>
  );
}

/** years is an age as it is told: in months while it is young. */
function years(of: number): string {
  const months = Math.round(of * 12);
  if (months < 1) return "less than a month";
  if (months < 24) return `${months} ${months === 1 ? "month" : "months"}`;
  return `${Math.round(of)} years`;
}

/** age is how old such parts were when they failed. */
function age(g: Group): string {
  if (g.years === undefined || g.youngest === undefined || g.oldest === undefined) return "not known";
  if (years(g.youngest) === years(g.oldest)) return years(g.years);
  return `${years(g.youngest)} to ${years(g.oldest)}, half within ${years(g.years)}`;
}
