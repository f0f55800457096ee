import { NativeSelect } from "@mantine/core";
import { useState } from "react";

import type { Schemas } from "../api/client";
import { Table, type TableColumn } from "../ui/Table";
import { TextButton } from "../ui/TextButton";
import { Working } from "../ui/Working";
import { LivePicture } from "./LivePicture";
import css from "./wiring.module.css";

/** signed is a current that may flow the other way, in words too. */
const signed = (a: number): string => (Math.abs(a) < 0.05 ? "0 A" : a < 0 ? `−${(-a).toFixed(1)} A, out` : `${a.toFixed(1)} A`);

type Row = Schemas["Modes"]["rows"][number];

const keyOf = (r: Row): string => [r.switch, r.key, r.engine, r.sun, r.mains].join(" ");

/** nameOf is a position in words. */
const nameOf = (r: Row): string =>
  [r.switch !== "–" && `Switch ${r.switch}`, `key ${r.key}`, `engine ${r.engine}`, r.sun === "yes" && "sun", r.mains === "yes" && "mains"].filter(Boolean).join(", ").replace(/^./, (c) => c.toUpperCase());

/** columnsOf are the columns of the mode table; the switch, sun and mains have one where there are any. */
function columnsOf(modes: Schemas["Modes"], show: (row: Row) => void): TableColumn<Row>[] {
  const list: (TableColumn<Row> | false)[] = [
    modes.rows.some((r) => r.switch !== "–") && { key: "switch", head: "Switch", set: "figure", cell: (r) => r.switch },
    {
      key: "key",
      head: "Key",
      set: "figure",
      cell: (r) => (
        <TextButton onClick={() => show(r)}>
          {r.key}
          <span className="hidden">: show {nameOf(r)} in the picture</span>
        </TextButton>
      ),
    },
    { key: "engine", head: "Engine", set: "figure", cell: (r) => r.engine },
    modes.rows.some((r) => r.sun === "yes") && { key: "sun", head: "Sun", set: "figure", cell: (r) => r.sun },
    modes.rows.some((r) => r.mains === "yes") && { key: "mains", head: "Mains", set: "figure", cell: (r) => r.mains },
    { key: "batteries", head: "Batteries", set: "figure", cell: (r) => (r.unknown ? "not known" : r.joined ? "joined" : "apart") },
    { key: "aux", head: "Into the aux battery", set: "figure", cell: (r) => signed(r.auxA) },
    { key: "start", head: "Out of the start battery", set: "figure", cell: (r) => `${r.startA < 0.005 ? "0" : r.startA < 1 ? r.startA.toFixed(2) : r.startA.toFixed(0)} A` },
    { key: "lamp", head: "Lamp", set: "figure", cell: (r) => r.lamp },
    {
      key: "follows",
      head: "What follows",
      className: css.follows,
      cell: (r) => {
        const figure = r.figure ? modes.figures[r.figure] : undefined;
        return (
          <>
            {r.verdict !== "normal" && <b className={css[r.verdict]}>{r.verdict}. </b>}
            {r.why} {r.interlock && <i>Prevented by: {r.interlock}</i>}
            {figure && <Working figure={figure} />}
          </>
        );
      },
    },
  ];
  return list.filter((c) => c !== false);
}

/** ModeTable is every position of the switches, the key, the engine and the sun, and what the circuit does then. */
export function ModeTable({ modes }: { modes: Schemas["Modes"] }) {
  const forbidden = modes.rows.filter((r) => r.verdict === "forbidden").length;
  const [at, show] = useState("");
  const shown = modes.rows.find((r) => keyOf(r) === at) ?? modes.rows.find((r) => r.engine === "running") ?? modes.rows[0];
  return (
    <section aria-label="Mode table">
      <p>
        {modes.rows.length} positions, solved one by one; <b className={forbidden > 0 ? css.forbidden : undefined}>{forbidden === 0 ? "none" : forbidden} forbidden</b>. Currents with a rested start battery, the aux battery part discharged.
      </p>
      {modes.forgotten && (
        <p>
          <b>If the coupling's signal is left live:</b> {modes.forgotten.says}
        </p>
      )}
      {modes.stops.length > 0 && (
        <details open>
          <summary>Who can stop or start whom</summary>
          <ul>
            {modes.stops.map((s) => (
              <li key={s.by + s.of}>
                <b>{s.by}</b> {s.does} <b>{s.of}</b>. {s.how}
              </li>
            ))}
          </ul>
        </details>
      )}
      {shown && (
        <>
          <NativeSelect className={css.position} label="Position" data={modes.rows.map((r) => ({ value: keyOf(r), label: nameOf(r) }))} value={keyOf(shown)} onChange={(e) => show(e.currentTarget.value)} />
          <LivePicture live={shown.live} says={nameOf(shown)} />
        </>
      )}
      <Table
        className={css.modes}
        narrow="scroll"
        caption="Every position"
        rows={modes.rows}
        columns={columnsOf(modes, (r) => show(keyOf(r)))}
        keyOf={keyOf}
        marked={(r) => r === shown}
        verdict={(r) => r.verdict}
        begins={(r, before) => before !== undefined && before.switch !== r.switch}
      />
    </section>
  );
}
