import { Button } from "@mantine/core";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useNavigate } from "@tanstack/react-router";
import { useState } from "react";

import { api, take, whyNot, type Schemas } from "../api/client";
import { FailedOn } from "../failures/FailedOn";
import { BookFile } from "../ui/BookFile";
import { useDates } from "../ui/useDates";
import { Table, type TableColumn } from "../ui/Table";
import { useMay } from "../ui/useMe";
import { Empty, Failed, Told, Waiting } from "../ui/Wait";
import { WorkshopPage } from "../ui/WorkshopPage";
import css from "./vehicles.module.css";

type Answer = Schemas["Model"]["answers"][number];

/** whole stands for all answers of a model. */
const whole = "*";

/** parts of the book, by the section of an answer, in the order they are read. */
const sections: Record<string, string> = {
  vehicle: "Vehicle", alternator: "Alternator", startBattery: "Start battery", routes: "Routes", bays: "Places", feeds: "Feed points", points: "Earth points, grommets, fasteners",
};

/** VehiclesPage is the vehicle book: by model, what was found on it. */
export function VehiclesPage() {
  const book = useQuery({ queryKey: ["vehicles"], queryFn: () => take(api.GET("/api/vehicles")) });
  const queries = useQueryClient();
  const dates = useDates();
  const refresh = () => queries.invalidateQueries({ queryKey: ["vehicles"] });
  const navigate = useNavigate();
  const may = useMay();
  const [says, setSays] = useState("");
  const [mended, mend] = useState<string | null>(null);
  const takeOut = useMutation({
    mutationFn: (q: { model: string; path: string; told: string }) => take(api.DELETE("/api/vehicles", { params: { query: { model: q.model, path: q.path } } })).then(() => q),
    onSuccess: (q) => {
      setSays(`${q.told} is out of the book. Jobs that took it over keep it.`);
      void refresh();
    },
    onError: (error) => setSays(whyNot(error)),
  });
  const begin = useMutation({
    mutationFn: (m: Schemas["Model"]) =>
      take(api.POST("/api/jobs", { body: { ...m.document, title: m.model, known: { ...Object.fromEntries(m.answers.filter((a) => !["feeds", "points"].includes(a.path.split(".")[0] ?? "")).map((a) => [a.path.replaceAll(".", "/"), "book"])) } } as never })),
    onSuccess: (opened) => navigate({ to: "/jobs/$id/{-$sheet}", params: { id: opened.id } }),
    onError: (error) => setSays(whyNot(error)),
  });
  const columnsOf = (m: Schemas["Model"], section: string): TableColumn<Answer>[] => [
    {
      key: "label",
      head: "What",
      names: true,
      cell: (a) => (
        <>
          {a.label}
          {["feeds", "points"].includes(section) && <span className="soft"> {a.path.split(".")[1]}</span>}
        </>
      ),
    },
    {
      key: "is",
      head: "Is",
      cell: (a) => (
        <>
          {a.shown} {a.known && <span className="soft">{a.known}</span>}
        </>
      ),
    },
    {
      key: "does",
      head: "Take out",
      set: "right",
      cell: (a) =>
        mended === m.model && (
          <Button size="compact-sm" variant="subtle" aria-label={`Take out ${a.label} of ${m.model}`} onClick={() => takeOut.mutate({ model: m.model, path: a.path, told: `“${a.label}, ${a.shown}”` })}>
            Take out
          </Button>
        ),
    },
  ];
  return (
    <WorkshopPage
      title="Vehicle book"
      says="what was found, by model"
      actions={
        <>
          <Button component="a" variant="default" href="/api/vehicles.csv" download="vehicles.csv">
            Export
          </Button>
        </>
      }
    >
      <BookFile
        kept="vehiclesToMend"
        name="Vehicle file"
        hint="Comma-separated, one answer a line: model, answer to, answer. A line is used whole or not at all."
        says={(n) => `${n} ${n === 1 ? "answer is" : "answers are"} in the book.`}
        send={(csv, preview) => take(api.POST("/api/vehicles", { params: { query: { preview } }, body: { csv } }))}
        onRead={refresh}
      />
      {says && <Told>{says}</Told>}
      {book.isPending && <Waiting what="Fetching the vehicles" />}
      {book.isError && <Failed what="The vehicles" error={book.error} again={() => void book.refetch()} />}
      {book.data?.length === 0 && <Empty>No vehicles yet. On a job&apos;s survey, name its model and put what was found into the book; or read a file.</Empty>}
      {book.data?.map((m) => (
        <section key={m.model} className={css.model} aria-label={m.model}>
          <div className="row">
            <h2>{m.model}</h2>
            <span className="soft">
              {m.finds} {m.finds === 1 ? "find" : "finds"}, last {dates.since(m.lastAt)}
            </span>
            <span className="gap" />
            {may("design") && (
            <Button size="compact-md" onClick={() => begin.mutate(m)} aria-label={`New job on it: ${m.model}`}>
              New job on it
            </Button>
            )}
            {may("books") && (
            <>
            <Button size="compact-md" variant="default" aria-pressed={mended === m.model} aria-label={`Mend ${m.model}`} onClick={() => mend(mended === m.model ? null : m.model)}>
              Mend
            </Button>
            <Button size="compact-md" variant="subtle" aria-label={`Take out ${m.model}`} onClick={() => takeOut.mutate({ model: m.model, path: whole, told: `“${m.model}”` })}>
              Take out
            </Button>
            </>
            )}
          </div>
          <div className={css.answers}>
            {Object.entries(sections).map(([section, title]) => {
              const answers = m.answers.filter((a) => a.path.startsWith(section + ".") && a.path !== "vehicle.model");
              if (answers.length === 0) return null;
              return <Table key={section} className={css.section} titled bare caption={title} rows={answers} columns={columnsOf(m, section)} keyOf={(a) => a.path} />;
            })}
          </div>
          <FailedOn model={m.model} />
        </section>
      ))}
    </WorkshopPage>
  );
}
