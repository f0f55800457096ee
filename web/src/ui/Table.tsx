import { createSortedRowModel, rowSortingFeature, sortFn_basic, tableFeatures, useTable, type ColumnDef } from "@tanstack/react-table";
import cx from "clsx";
import { useMemo, type ReactNode } from "react";

import css from "./Table.module.css";
import type { Level } from "./words";

/** TableColumn is one column: its head, and what stands in it. */
export interface TableColumn<R> {
  key: string;
  head: ReactNode;
  /** Its head is for those who do not see. */
  quiet?: boolean;
  cell: (row: R) => ReactNode;
  /** It names its row. */
  names?: boolean;
  /** What rows are put in order by, where that helps. */
  sort?: (row: R) => number | string;
  /** How good what stands in it is. */
  level?: (row: R) => Level | undefined;
  /** How it is set: figures do not break, text may. */
  set?: "text" | "figure" | "right" | "soft";
  className?: string;
}

interface Props<R> {
  caption: string;
  /** The caption is seen too. */
  titled?: boolean;
  rows: R[];
  columns: TableColumn<R>[];
  keyOf: (row: R) => string;
  /** Rows that stand out: what is fitted, picked. */
  marked?: (row: R) => boolean;
  level?: (row: R) => Level | undefined;
  /** What is said of a row, where that is no level. */
  verdict?: (row: R) => string | undefined;
  /** Whether there is a line above a row, as where a new matter begins. */
  begins?: (row: R, before: R | undefined) => boolean;
  /** On a phone a row becomes a card; a table that is read across scrolls. */
  narrow?: "cards" | "scroll";
  /** Without heads, where each row says itself what it is. */
  bare?: boolean;
  className?: string;
}

const features = tableFeatures({ rowSortingFeature, sortedRowModel: createSortedRowModel(), sortFns: { basic: sortFn_basic } });

/** Table is every table of the house: a caption, heads that sort where that helps, and rows that are cards on a phone. */
export function Table<R extends object>({ caption, titled, rows, columns, keyOf, marked, level, verdict, begins, narrow = "cards", bare, className }: Props<R>) {
  const order = useMemo(() => columns.map((c): ColumnDef<typeof features, R> => ({ id: c.key, accessorFn: c.sort ?? (() => 0), enableSorting: !!c.sort, sortFn: "basic", sortDescFirst: false })), [columns]);
  const table = useTable({ features, columns: order, data: rows });
  const list = table.getRowModel().rows.map((r) => r.original);
  const body = (
    <table className={cx(css.table, narrow === "cards" && css.cards, className)}>
      <caption className={titled ? css.caption : "hidden"}>{caption}</caption>
      {!bare && (
        <thead>
          <tr>
            {columns.map((c) => {
              const sorted = table.getColumn(c.key);
              const now = c.sort && sorted?.getIsSorted();
              const head = c.quiet ? <span className="hidden">{c.head}</span> : c.head;
              return (
                <th key={c.key} scope="col" className={c.className} data-set={c.set} aria-sort={now ? (now === "asc" ? "ascending" : "descending") : undefined}>
                  {c.sort ? (
                    <button type="button" className={css.sorts} onClick={sorted?.getToggleSortingHandler()}>
                      {head}
                      <span aria-hidden>{now === "asc" ? " ↑" : now === "desc" ? " ↓" : ""}</span>
                    </button>
                  ) : (
                    head
                  )}
                </th>
              );
            })}
          </tr>
        </thead>
      )}
      <tbody>
        {list.map((row, i) => (
          <tr key={keyOf(row)} data-row={keyOf(row)} data-level={level?.(row)} data-verdict={verdict?.(row)} data-marked={marked?.(row) || undefined} data-begins={begins?.(row, list[i - 1]) || undefined}>
            {columns.map((c) => {
              const head = !bare && !c.quiet && typeof c.head === "string" ? c.head : undefined;
              const about = { className: c.className, "data-set": c.set, "data-level": c.level?.(row) };
              return c.names ? (
                <th key={c.key} scope="row" {...about}>
                  {c.cell(row)}
                </th>
              ) : (
                <td key={c.key} data-head={head} {...about}>
                  {c.cell(row)}
                </td>
              );
            })}
          </tr>
        ))}
      </tbody>
    </table>
  );
  if (narrow === "cards") return body;
  return (
    <div className={css.scrolls} tabIndex={0} role="region" aria-label={caption}>
      {body}
    </div>
  );
}
