import { Button, Tabs } from "@mantine/core";
import cx from "clsx";
import { useRef, useState } from "react";

import { useJob } from "../job/JobContext";
import { Sheet } from "../job/Sheet";
import { Standing } from "../ui/Standing";
import { useStored } from "../ui/stored";
import { Table, type TableColumn } from "../ui/Table";
import { Wait, type Asked } from "../ui/Wait";
import css from "./methods.module.css";
import { Reasons } from "./Reasons";
import { ranked, rows, verdict, type Row } from "./rows";
import { Schools } from "./Schools";
import { Shelf } from "./Shelf";
import { Sizings } from "./Sizings";
import { useDriven, useJudged, type Judged, type Method } from "./useJudged";

/** MethodsSheet is sheet 2: every coupling side by side, with reasons, ratings and the trade's disagreements. */
export default function MethodsSheet() {
  const judged = useJudged();
  return <Sheet name="methods">{judged.answer ? <Side judged={judged} answer={judged.answer} /> : <Wait asked={judged} what="Trying every coupling" />}</Sheet>;
}

function Side({ judged, answer }: { judged: Asked<Judged>; answer: Judged }) {
  const [looked, look] = useState<string | null>(null);
  const [tab, pick] = useStored("methodsTab", "reasons", "window");
  const tabs = useRef<HTMLDivElement>(null);
  const { asking, failed } = judged;
  const driven = useDriven(answer.methods, !asking);
  const list = ranked(driven.list);
  const at = list.find((m) => m.method.kind === looked) ?? list.find((m) => m.fitted) ?? (list[0] as Method);
  /** show opens a tab, and brings what it holds into sight. */
  const show = (t: string | null) => {
    pick(t ?? "reasons");
    requestAnimationFrame(() => tabs.current?.scrollIntoView({ block: "start" }));
  };
  return (
    <div data-asking={asking || driven.driving}>
      <h2 className="hidden">Couplings side by side</h2>
      <p className={css.head}>
        <b>Every coupling on this job.</b> Each is sized, solved and driven as if it were fitted; hours and the rule of thumb from memory, to compare.{" "}
        <span className="soft" role="status">
          {failed ? "The server does not answer; this is the last answer." : asking ? "working it out …" : driven.driving ? "running each through time …" : ""}
        </span>
      </p>
      <MethodTable list={list} at={at} look={look} />
      <Tabs ref={tabs} value={tab} onChange={show} keepMounted={false} color="ink" className={css.tabs}>
        <Tabs.List>
          <Tabs.Tab value="reasons">{at.method.label}: why</Tabs.Tab>
          <Tabs.Tab value="sizes">Charger size</Tabs.Tab>
          <Tabs.Tab value="shelf">From the shelf</Tabs.Tab>
          <Tabs.Tab value="schools">Where the trade differs</Tabs.Tab>
        </Tabs.List>
        <Tabs.Panel value="reasons">
          <Reasons method={at} />
        </Tabs.Panel>
        <Tabs.Panel value="sizes">
          <Sizings list={answer.sizings} />
        </Tabs.Panel>
        <Tabs.Panel value="shelf">
          <Shelf />
        </Tabs.Panel>
        <Tabs.Panel value="schools">
          <Schools list={answer.schools} />
        </Tabs.Panel>
      </Tabs>
    </div>
  );
}

/** MethodTable is a column to a coupling, what is best first. */
function MethodTable({ list, at, look }: { list: Method[]; at: Method; look: (kind: string) => void }) {
  const columns: TableColumn<Row>[] = [
    { key: "what", head: "What", quiet: true, names: true, cell: (r) => (r.label === "" ? <span className="hidden">Choose this method</span> : r.label) },
    ...list.map(
      (m): TableColumn<Row> => ({
        key: m.method.kind,
        head: (
          <>
            <button type="button" data-method={m.method.kind} onClick={() => look(m.method.kind)} aria-pressed={m === at}>
              {m.method.label}
            </button>
            <Standing level={m.method.ruledOut ? "bad" : m.method.chosen ? "good" : undefined}>{verdict(m)}</Standing>
          </>
        ),
        className: cx(m.fitted && css.fitted, m === at && css.looked),
        level: (r) => r.level?.(m),
        cell: (r) => (r.label === "" ? <PinButton method={m} /> : r.of(m)),
      }),
    ),
  ];
  return <Table className={css.table} narrow="scroll" caption="Couplings side by side" rows={[...rows, pinning]} columns={columns} keyOf={(r) => r.label} />;
}

/** pinning is the last row: what fits a coupling. */
const pinning: Row = { label: "", of: () => "" };

/** PinButton pins a coupling, or lets the plan choose again. */
function PinButton({ method: m }: { method: Method }) {
  const { dispatch, state, readOnly } = useJob();
  if (readOnly) return null;
  const pinned = state.doc.pins?.coupling;
  if (pinned === m.method.kind) {
    return (
      <Button size="compact-sm" onClick={() => dispatch({ type: "set", path: "pins.coupling", value: undefined })} aria-label={`Unpin the ${m.method.label}`}>
        Unpin
      </Button>
    );
  }
  return (
    <Button size="compact-sm" variant="default" onClick={() => dispatch({ type: "set", path: "pins.coupling", value: m.method.kind })} aria-label={`Pin the ${m.method.label}`}>
      Pin
    </Button>
  );
}
