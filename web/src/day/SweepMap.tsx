import cx from "clsx";
import { Button, NativeSelect } from "@mantine/core";
import { useState } from "react";

import type { Schemas } from "../api/client";
import { useJob } from "../job/JobContext";
import { Table, type TableColumn } from "../ui/Table";
import type { Level } from "../ui/words";
import { byPath, swept } from "./fields";
import { TaskProgress } from "./TaskProgress";
import { useTask } from "./useTask";
import css from "./day.module.css";

/** SweepMap is a map over two fields of the design: which values meet the aims. */
export function SweepMap({ id }: { id: string }) {
  const { state, vocabulary } = useJob();
  const { task, busy, begin, refused, stop } = useTask(id, "sweep");
  const [across, setAcross] = useState("use.drivenHours");
  const [up, setUp] = useState("pins.chargerA");
  const fields = swept.flatMap((p) => byPath(vocabulary.fields, p) ?? []).map((f) => ({ value: f.path, label: f.label }));
  const ask = () => begin({ kind: "sweep", document: state.doc as unknown as Record<string, never>, sweep: { across: { path: across }, up: { path: up } } });
  return (
    <section aria-label="Map">
      <p className="soft">Every pair of two values, run through the same days.</p>
      <div className={cx("row", css.sweepAsk)}>
        <NativeSelect size="xs" label="Across" value={across} data={fields} onChange={(e) => setAcross(e.currentTarget.value)} />
        <NativeSelect size="xs" label="Up" value={up} data={fields} onChange={(e) => setUp(e.currentTarget.value)} />
        <Button size="compact-sm" disabled={busy || across === up} onClick={ask}>
          Run the map
        </Button>
      </div>
      <TaskProgress task={task} busy={busy} refused={refused} stop={stop} what="Map" />
      {task?.sweep && !busy && <Cells sweep={task.sweep} />}
    </section>
  );
}

/** levelOf is how good a cell is: by how many of the aims it meets. */
const levelOf = (cell: Schemas["SweepCell"], aims: number): Level | undefined => (!cell.done ? undefined : cell.score === aims ? "good" : cell.score >= aims - 1 ? "caution" : "bad");

function Cells({ sweep }: { sweep: Schemas["Sweep"] }) {
  const rows = sweep.up.values.map((_, i) => sweep.up.values.length - 1 - i); // upward, as the axis says
  const [picked, pick] = useState<number | null>(null);
  const here = picked === null ? undefined : sweep.cells[picked];
  const cellAt = (r: number, c: number) => sweep.cells[r * sweep.across.values.length + c] as Schemas["SweepCell"];
  const columns: TableColumn<{ r: number }>[] = [
    { key: "up", head: sweep.up.label, names: true, cell: ({ r }) => <span data-now={r === sweep.up.now || undefined}>{sweep.up.values[r]}</span> },
    ...sweep.across.values.map(
      (v, c): TableColumn<{ r: number }> => ({
        key: v,
        head: v,
        cell: ({ r }) => {
          if (r < 0) return <span data-now={c === sweep.across.now || undefined}>{v}</span>;
          const cell = cellAt(r, c);
          const now = r === sweep.up.now && c === sweep.across.now;
          return (
            <button
              type="button"
              data-level={levelOf(cell, sweep.aims)}
              data-now={now || undefined}
              onClick={() => pick(r * sweep.across.values.length + c)}
              aria-label={`${sweep.up.values[r]}, ${v}: ${cell.done ? `${cell.outcome.auxEnd.toFixed(0)} %, ${cell.unmet || "all aims met"}` : "not run"}${now ? ", as it is" : ""}`}
            >
              {cell.done ? `${cell.outcome.auxEnd.toFixed(0)} %` : "–"}
              <small>{!cell.done ? "" : cell.unmet ? `${cell.score}/${sweep.aims}` : "all"}</small>
            </button>
          );
        },
      }),
    ),
  ];
  return (
    <>
      <Table
        bare
        titled
        narrow="scroll"
        caption={`${sweep.up.label} by ${sweep.across.label}: charge of the aux battery at the end`}
        className={css.sweep}
        rows={[...rows.map((r) => ({ r })), { r: -1 }]}
        columns={columns}
        keyOf={({ r }) => String(r)}
      />
      <p className={css.legend}>
        <span data-level="good">all aims</span> <span data-level="caution">all but one</span> <span data-level="bad">fewer</span> <span data-now>as it is</span>
      </p>
      {here?.done && (
        <p data-cell-says>
          {here.unmet ? `Not met: ${here.unmet}. ` : "All aims met. "}
          Aux battery {here.outcome.auxEnd.toFixed(0)} % at the end, {here.outcome.auxLeast.toFixed(0)} % at its lowest; start battery {here.outcome.startLeast.toFixed(0)} %; alternator {here.outcome.windingC.toFixed(0)} °C.
        </p>
      )}
    </>
  );
}
