import { Button, NativeSelect, TextInput } from "@mantine/core";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState, type ReactNode } from "react";

import { api, Refused, take, whyNot, type Problem, type Schemas } from "../api/client";
import { BookFile } from "../ui/BookFile";
import { Fieldset } from "../ui/Fieldset";
import { Table, type TableColumn } from "../ui/Table";
import { useMay } from "../ui/useMe";
import { Empty, Failed, Told, Waiting, Wrong } from "../ui/Wait";
import { WorkshopPage } from "../ui/WorkshopPage";
import css from "./parts.module.css";
import { usePartsBook } from "./usePartsBook";

/** shown are the columns of the list; all others are in the form. */
const shown = ["kind", "name", "rating A", "size", "price", "stock", "remark"];

type BookPart = Schemas["BookPart"];

/** order is what a cell is put in order by: its figure where it begins with one. */
const order = (text: string): number | string => (Number.isNaN(Number.parseFloat(text)) ? text.toLowerCase() : Number.parseFloat(text));

/** PartsPage is the workshop's parts: what they are, cost, and how many are there. */
export function PartsPage() {
  const book = usePartsBook();
  const queries = useQueryClient();
  const refresh = () => queries.invalidateQueries({ queryKey: ["parts"] });
  const [entry, setEntry] = useState<Record<string, string> | null>(null);
  const [says, setSays] = useState("");
  const keeps = useMay()("books");

  const remove = useMutation({
    mutationFn: (part: BookPart) => take(api.DELETE("/api/parts", { params: { query: { key: part.key } } })).then(() => part),
    onSuccess: (part) => {
      setSays(`“${part.item.name}” is out of the book. Jobs that use it keep it.`);
      void refresh();
    },
    onError: (error) => setSays(whyNot(error)),
  });
  const heads = book.data?.heads ?? [];
  const cell = (part: BookPart, head: string): string => part.cells[heads.indexOf(head)] ?? "";
  const does: TableColumn<BookPart> = {
    key: "does",
    head: "Change",
    quiet: true,
    set: "right",
    cell: (part) => (
      <>
        <Button size="compact-sm" variant="default" aria-label={`Change ${part.item.name}`} onClick={() => setEntry(Object.fromEntries(heads.map((h) => [h, cell(part, h)])))}>
          Change
        </Button>
        <Button size="compact-sm" variant="subtle" aria-label={`Take out ${part.item.name}`} onClick={() => remove.mutate(part)}>
          Take out
        </Button>
      </>
    ),
  };
  const columns: TableColumn<BookPart>[] = [
    ...shown.map((h): TableColumn<BookPart> => ({ key: h, head: h, names: h === "name", sort: (p) => order(cell(p, h)), cell: (p) => told[h]?.((head) => cell(p, head)) ?? cell(p, h) })),
    ...(keeps ? [does] : []),
  ];
  return (
    <WorkshopPage
      title="Parts book"
      says="the workshop's parts"
      actions={
        <>
          <Button component="a" variant="default" href="/api/parts.csv" download="parts.csv">
            Export
          </Button>
          {keeps && <Button onClick={() => setEntry({})}>Add a part</Button>}
        </>
      }
    >
      <BookFile
        kept="partsToMend"
        name="Parts file"
        hint="Comma-separated, one part a line, heads as exported. A line is used whole or not at all."
        says={(n) => `${n} ${n === 1 ? "part is" : "parts are"} in the book.`}
        send={(csv, preview) => take(api.POST("/api/parts", { params: { query: { preview } }, body: { csv } }))}
        onRead={refresh}
      />
      {says && <Told>{says}</Told>}
      {book.isPending && <Waiting what="Fetching the parts" />}
      {book.isError && <Failed what="The parts" error={book.error} again={() => void book.refetch()} />}
      {entry && <Entry key={JSON.stringify(entry)} heads={heads} about={book.data?.for ?? []} kinds={book.data?.kinds ?? []} start={entry} onDone={() => setEntry(null)} onKept={refresh} />}
      {book.data?.parts.length === 0 && !entry && <Empty>No parts yet. Add one, or read a file. Until then plans use cards of parts as they are commonly sold.</Empty>}
      {(book.data?.parts.length ?? 0) > 0 && <Table className={css.book} caption="Parts" rows={book.data?.parts ?? []} columns={columns} keyOf={(p) => p.key} />}
    </WorkshopPage>
  );
}

/** told says how a cell is shown, where it is not shown as it is written. */
const told: Record<string, (cell: (head: string) => string) => ReactNode> = {
  "rating A": (cell) => cell("rating A") && `${cell("rating A")} A`,
  price: (cell) => dated(cell("price") && `${Number(cell("price")).toFixed(2)} ${cell("currency")}`.trim(), cell("priced on")),
  stock: (cell) => dated(cell("stock") && `${cell("stock")} in stock`, cell("counted on")),
};

/** dated is a figure with the day it was true. */
function dated(text: string, day: string) {
  if (!text) return "";
  return (
    <>
      {text} <span className="soft">{day}</span>
    </>
  );
}

interface EntryProps {
  heads: string[];
  /** The kinds that each of the heads is about; none for all. */
  about: string[][];
  kinds: string[];
  start: Record<string, string>;
  onDone: () => void;
  onKept: () => unknown;
}

/** Entry is one part, typed. */
function Entry({ heads, about, kinds, start, onDone, onKept }: EntryProps) {
  const [cells, setCells] = useState<Record<string, string>>({ kind: "charger", ...start });
  const [problems, setProblems] = useState<Problem[]>([]);
  const put = useMutation({
    mutationFn: () => take(api.PUT("/api/parts", { body: cells })),
    onSuccess: () => {
      onKept();
      onDone();
    },
    onError: (error) => setProblems(error instanceof Refused ? error.refusal.problems : [{ field: "", value: "", wrong: whyNot(error), allowed: "" }]),
  });
  const wrong = (head: string) => {
    const p = problems.find((x) => x.field === head);
    return p && `${p.wrong}; allowed: ${p.allowed}`;
  };
  /** asked says whether a column is about such a part, or holds something of it. */
  const asked = (head: string, kinds: string[]) => kinds.length === 0 || kinds.includes(cells.kind ?? "") || (cells[head] ?? "") !== "" || problems.some((p) => p.field === head);
  const set = (head: string, text: string) => setCells({ ...cells, [head]: text });
  return (
    <form
      className={css.entry}
      aria-label="Part"
      onSubmit={(e) => {
        e.preventDefault();
        put.mutate();
      }}
    >
      <Fieldset>
        {heads.filter((h, i) => asked(h, about[i] ?? [])).map((h) =>
          h === "kind" ? (
            <NativeSelect key={h} label={h} data={kinds} value={cells.kind} error={wrong(h)} onChange={(e) => set(h, e.currentTarget.value)} />
          ) : (
            <TextInput key={h} label={h} value={cells[h] ?? ""} error={wrong(h)} onChange={(e) => set(h, e.currentTarget.value)} />
          ),
        )}
      </Fieldset>
      {problems.filter((p) => !heads.includes(p.field)).map((p) => (
        <Wrong key={p.wrong}>{p.wrong}</Wrong>
      ))}
      <div className="row">
        <Button type="submit" loading={put.isPending}>
          Keep
        </Button>
        <Button variant="subtle" onClick={onDone}>
          Leave it
        </Button>
      </div>
    </form>
  );
}
