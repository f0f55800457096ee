import { NativeSelect } from "@mantine/core";
import { useState } from "react";

import type { Schemas } from "../api/client";
import { Table, type TableColumn } from "../ui/Table";
import { LivePicture } from "./LivePicture";
import css from "./wiring.module.css";

type Off = Schemas["Modes"]["live"][number];

/** columnsOf is a column to a wire: live from where, or dead, with each thing off. */
const columnsOf = (wires: string[]): TableColumn<Off>[] => [
  { key: "off", head: "With this off", names: true, set: "figure", cell: (r) => r.off },
  ...wires.map((w): TableColumn<Off> => ({
    key: w,
    head: w,
    cell: (r) => {
      const live = r.live.find((x) => x.wire === w);
      return live ? (
        <>
          <b>live</b> from {live.from.join(", ")}
        </>
      ) : (
        <span className="soft">dead</span>
      );
    },
  })),
];

/** LiveMap says what stays live, and from where, when one thing is off; and what to open to work somewhere. */
export function LiveMap({ modes }: { modes: Schemas["Modes"] }) {
  const wires = [...new Set(modes.live.flatMap((r) => [...r.live.map((w) => w.wire), ...r.dead]))];
  const [off, show] = useState("");
  const shown = modes.live.find((r) => r.off === off) ?? modes.live.at(-1);
  const order = modes.work.map((w) => w.place);
  wires.sort((a, b) => order.indexOf(a) - order.indexOf(b));
  return (
    <section aria-label="Live map">
      <p>
        A contact that may be closed counts as closed. A feed point counts as live until the engine is off and the key out. <b>Measure before you touch.</b>
      </p>
      {shown && (
        <>
          <NativeSelect className={css.position} label="With this off" data={modes.live.map((r) => r.off)} value={shown.off} onChange={(e) => show(e.currentTarget.value)} />
          <LivePicture live={shown.on} says={`With ${shown.off}`} />
        </>
      )}
      <Table className={css.live} narrow="scroll" caption="What stays live" rows={modes.live} columns={columnsOf(wires)} keyOf={(r) => r.off} marked={(r) => r === shown} />
      <h3>To work there, open all of these</h3>
      <ul className={css.workOn}>
        {modes.work.map((w) => (
          <li key={w.place}>
            <b>{w.place}</b> {w.open.length > 0 ? w.open.join(" and ") : "cannot be made dead by these"} <span className="soft">(else live from {w.from.join(", ") || "nothing"})</span>
          </li>
        ))}
      </ul>
    </section>
  );
}
