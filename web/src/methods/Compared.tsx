import cx from "clsx";
import { useState } from "react";

import { Standing } from "../ui/Standing";
import { Table, type TableColumn } from "../ui/Table";
import { TextButton } from "../ui/TextButton";
import css from "./methods.module.css";
import { deciding, rows, verdict, type Row } from "./rows";
import type { Method } from "./useJudged";

export interface ComparedProps {
  list: Method[];
  at: Method;
  look: (kind: string) => void;
}

/** Compared is a column to a coupling, what is best first, in the figures that decide this job; the rest on request. */
export function Compared({ list, at, look }: ComparedProps) {
  const [all, setAll] = useState(false);
  const shown = all ? rows : deciding(list);
  const columns: TableColumn<Row>[] = [
    { key: "what", head: "What", quiet: true, names: true, cell: (r) => r.label },
    ...list.map(
      (m): TableColumn<Row> => ({
        key: m.method.kind,
        head: (
          <span data-of={m.method.kind}>
            <button type="button" data-method={m.method.kind} onClick={() => look(m.method.kind)} aria-pressed={m === at}>
              {m.method.label}
            </button>
            <Stands method={m} />
          </span>
        ),
        className: cx(m.fitted && css.fitted, m === at && css.looked),
        level: (r) => r.level?.(m),
        cell: (r) => r.of(m),
      }),
    ),
  ];
  return (
    <>
      <Table className={css.table} narrow="scroll" caption="Couplings side by side" rows={shown} columns={columns} keyOf={(r) => r.label} />
      <p className={css.more}>
        <TextButton onClick={() => setAll(!all)}>{all ? "Only the figures that decide this job" : `All ${rows.length} figures`}</TextButton>
      </p>
    </>
  );
}

/** Stands is how a method stands among the others. */
export function Stands({ method: m, inline }: { method: Method; inline?: boolean }) {
  return (
    <Standing inline={inline ?? false} level={m.method.ruledOut ? "bad" : m.method.chosen ? "good" : undefined}>
      {verdict(m)}
    </Standing>
  );
}
