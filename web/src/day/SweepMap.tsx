import { Button, NativeSelect } from "@mantine/core";
import { useState } from "react";

import type { Schemas } from "../api/client";
import { useJob } from "../job/JobContext";
import { byPath, swept } from "./fields";
import { TaskProgress } from "./TaskProgress";
import { useTask } from "./useTask";

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
      <div className="row sweepAsk">
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

function Cells({ sweep }: { sweep: Schemas["Sweep"] }) {
  const columns = sweep.across.values.length;
  const rows = sweep.up.values.map((_, i) => sweep.up.values.length - 1 - i); // upward, as the axis says
  const [picked, pick] = useState<number | null>(null);
  const here = picked === null ? undefined : sweep.cells[picked];
  return (
    <>
      <div className="tableScroll">
        <table className="sweep">
          <caption>
            {sweep.up.label} by {sweep.across.label}: charge of the aux battery at the end
          </caption>
          <tbody>
            {rows.map((r) => (
              <tr key={r}>
                <th scope="row" className={r === sweep.up.now ? "now" : ""}>
                  {sweep.up.values[r]}
                </th>
                {sweep.across.values.map((v, c) => {
                  const i = r * columns + c;
                  const cell = sweep.cells[i] as Schemas["SweepCell"];
                  const now = r === sweep.up.now && c === sweep.across.now;
                  const level = !cell.done ? "undone" : cell.score === sweep.aims ? "good" : cell.score >= sweep.aims - 1 ? "caution" : "bad";
                  return (
                    <td key={v} className={`${level} ${now ? "now" : ""} ${cell.best ? "best" : ""}`}>
                      <button type="button" onClick={() => pick(i)} aria-label={`${sweep.up.values[r]}, ${v}: ${cell.done ? `${cell.outcome.auxEnd.toFixed(0)} %, ${cell.unmet || "all aims met"}` : "not run"}${now ? ", as it is" : ""}`}>
                        {cell.done ? `${cell.outcome.auxEnd.toFixed(0)} %` : "–"}
                        <small>{!cell.done ? "" : cell.unmet ? `${cell.score}/${sweep.aims}` : "all"}</small>
                      </button>
                    </td>
                  );
                })}
              </tr>
            ))}
            <tr>
              <td />
              {sweep.across.values.map((v, c) => (
                <th key={v} scope="col" className={c === sweep.across.now ? "now" : ""}>
                  {v}
                </th>
              ))}
            </tr>
          </tbody>
        </table>
      </div>
      <p className="legend">
        <span className="good">all aims</span> <span className="caution">all but one</span> <span className="bad">fewer</span> <span className="nowKey">as it is</span>
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
