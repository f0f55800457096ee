import { Alert, Button, NativeSelect, TextInput } from "@mantine/core";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState, type ReactNode } from "react";

import { api, Refused, take, whyNot, type Problem, type Schemas } from "../api/client";
import { BookFile } from "../ui/BookFile";
import { WorkshopPage } from "../ui/WorkshopPage";
import { usePartsBook } from "./usePartsBook";

/** shown are the columns of the list; all others are in the form. */
const shown = ["kind", "name", "rating A", "size", "price", "stock", "remark"];

export function PartsPage() {
  const book = usePartsBook();
  const queries = useQueryClient();
  const refresh = () => queries.invalidateQueries({ queryKey: ["parts"] });
  const [entry, setEntry] = useState<Record<string, string> | null>(null);
  const [says, setSays] = useState("");

  const remove = useMutation({
    mutationFn: (part: Schemas["BookPart"]) => take(api.DELETE("/api/parts", { params: { query: { key: part.key } } })).then(() => part),
    onSuccess: (part) => {
      setSays(`“${part.item.name}” is out of the book. Jobs that use it keep it.`);
      void refresh();
    },
    onError: (error) => setSays(whyNot(error)),
  });
  const heads = book.data?.heads ?? [];
  return (
    <WorkshopPage
      title="Parts book"
      says="the workshop's parts"
      actions={
        <>
          <Button component="a" variant="default" href="/api/parts.csv" download="parts.csv">
            Export
          </Button>
          <Button onClick={() => setEntry({})}>Add a part</Button>
        </>
      }
    >
      <BookFile
        kept="partsToMend"
        name="Parts file"
        hint="Comma-separated, one part a line, heads as exported. A line is used whole or not at all."
        says={(n) => `${n} ${n === 1 ? "part is" : "parts are"} in the book.`}
        send={(csv) => take(api.POST("/api/parts", { body: { csv } }))}
        onRead={refresh}
      />
      {says && (
        <p className="told" role="status">
          {says}
        </p>
      )}
      {book.isError && (
        <Alert color="ink" title="The parts could not be fetched">
          {whyNot(book.error)}
        </Alert>
      )}
      {entry && <Entry key={JSON.stringify(entry)} heads={heads} kinds={book.data?.kinds ?? []} start={entry} onDone={() => setEntry(null)} onKept={refresh} />}
      {book.data?.parts.length === 0 && !entry && <p className="empty">No parts yet. Add one, or read a file. Until then plans use cards of parts as they are commonly sold.</p>}
      {(book.data?.parts.length ?? 0) > 0 && (
        <table>
          <thead>
            <tr>
              {shown.map((h) => (
                <th key={h} scope="col">
                  {h}
                </th>
              ))}
              <th scope="col">
                <span className="hidden">Change</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {book.data?.parts.map((part) => {
              const cell = (h: string) => part.cells[heads.indexOf(h)] ?? "";
              return (
                <tr key={part.key}>
                  {shown.map((h) => (h === "name" ? <th key={h} scope="row">{cell(h)}</th> : <td key={h}>{told[h]?.(cell) ?? cell(h)}</td>))}
                  <td className="does">
                    <Button size="compact-sm" variant="default" aria-label={`Change ${part.item.name}`} onClick={() => setEntry(Object.fromEntries(heads.map((h) => [h, cell(h)])))}>
                      Change
                    </Button>
                    <Button size="compact-sm" variant="subtle" aria-label={`Take out ${part.item.name}`} onClick={() => remove.mutate(part)}>
                      Take out
                    </Button>
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      )}
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
  kinds: string[];
  start: Record<string, string>;
  onDone: () => void;
  onKept: () => unknown;
}

/** Entry is one part, typed. */
function Entry({ heads, kinds, start, onDone, onKept }: EntryProps) {
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
  const set = (head: string, text: string) => setCells({ ...cells, [head]: text });
  return (
    <form
      className="partEntry"
      aria-label="Part"
      onSubmit={(e) => {
        e.preventDefault();
        put.mutate();
      }}
    >
      <div className="surveyFields">
        {heads.map((h) =>
          h === "kind" ? (
            <NativeSelect key={h} label={h} data={kinds} value={cells.kind} error={wrong(h)} onChange={(e) => set(h, e.currentTarget.value)} />
          ) : (
            <TextInput key={h} label={h} value={cells[h] ?? ""} error={wrong(h)} onChange={(e) => set(h, e.currentTarget.value)} />
          ),
        )}
      </div>
      {problems.filter((p) => !heads.includes(p.field)).map((p) => (
        <p key={p.wrong} className="bad">
          {p.wrong}
        </p>
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
