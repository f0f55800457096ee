import { Button, Tabs } from "@mantine/core";
import { useState } from "react";

import { useJob } from "../job/JobContext";
import { Wait } from "../ui/Wait";
import { Reasons } from "./Reasons";
import { ranked, rows, verdict } from "./rows";
import { Schools } from "./Schools";
import { Sizings } from "./Sizings";
import { useDriven, useJudged, type Method } from "./useJudged";

/** MethodsSheet is sheet 2: every coupling side by side, with reasons, ratings and the trade's disagreements. */
export function MethodsSheet() {
  const judged = useJudged();
  const [looked, look] = useState<string | null>(null);
  const [tab, setTab] = useState<string | null>(() => sessionStorage.getItem("methodsTab") ?? "reasons");
  const { answer, asking, failed } = judged;
  const driven = useDriven(answer?.methods ?? [], !asking);
  if (!answer) return <Wait asked={judged} what="Trying every coupling" />;
  const list = ranked(driven.list);
  const at = list.find((m) => m.method.kind === looked) ?? list.find((m) => m.fitted) ?? (list[0] as Method);
  const pick = (t: string | null) => {
    setTab(t);
    if (t) sessionStorage.setItem("methodsTab", t);
  };
  return (
    <div className="methodsSheet" data-asking={asking || driven.driving}>
      <h2 className="hidden">Couplings side by side</h2>
      <p className="methodsHead">
        <b>Every coupling on this job.</b> Each is sized, solved and driven as if it were fitted; prices and hours from memory, to compare.{" "}
        <span className="soft" role="status">
          {failed ? "The server does not answer; this is the last answer." : asking ? "working it out …" : driven.driving ? "running each through time …" : ""}
        </span>
      </p>
      <MethodTable list={list} at={at} look={look} />
      <Tabs value={tab} onChange={pick} keepMounted={false} color="ink" className="methodTabs">
        <Tabs.List>
          <Tabs.Tab value="reasons">{at.method.label}: why</Tabs.Tab>
          <Tabs.Tab value="sizes">Charger size</Tabs.Tab>
          <Tabs.Tab value="schools">Where the trade differs</Tabs.Tab>
        </Tabs.List>
        <Tabs.Panel value="reasons">
          <Reasons method={at} />
        </Tabs.Panel>
        <Tabs.Panel value="sizes">
          <Sizings list={answer.sizings} />
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
  return (
    <div className="methodScroll" tabIndex={0} role="region" aria-label="Couplings side by side">
      <table className="methodTable">
        <thead>
          <tr>
            <th scope="col">
              <span className="hidden">What</span>
            </th>
            {list.map((m) => (
              <th key={m.method.kind} scope="col" className={columnClass(m, at)} data-method={m.method.kind}>
                <button type="button" onClick={() => look(m.method.kind)} aria-pressed={m === at}>
                  {m.method.label}
                </button>
                <span className={`standing ${standing(m)}`}>{verdict(m)}</span>
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((r) => (
            <tr key={r.label}>
              <th scope="row">{r.label}</th>
              {list.map((m) => (
                <td key={m.method.kind} className={`${columnClass(m, at)} ${r.level?.(m) ?? ""}`}>
                  {r.of(m)}
                </td>
              ))}
            </tr>
          ))}
          <tr>
            <th scope="row">
              <span className="hidden">Fit it</span>
            </th>
            {list.map((m) => (
              <td key={m.method.kind} className={columnClass(m, at)}>
                <PinButton method={m} />
              </td>
            ))}
          </tr>
        </tbody>
      </table>
    </div>
  );
}

const columnClass = (m: Method, at: Method): string => `${m.fitted ? "fitted" : ""} ${m === at ? "looked" : ""}`;

const standing = (m: Method): string => (m.method.ruledOut ? "bad" : m.method.chosen ? "good" : "");

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
