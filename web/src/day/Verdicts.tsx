import cx from "clsx";
import type { Schemas } from "../api/client";
import { Table, type TableColumn } from "../ui/Table";
import { Wrong } from "../ui/Wait";
import { clock } from "./time";
import type { Trial } from "./useTrial";
import css from "./day.module.css";

const word: Record<Schemas["Verdict"]["level"], string> = { good: "good", caution: "caution", bad: "stop" };

type Share = Trial["energy"][number];

const does: Record<Share["kind"], string> = { source: "gives", use: "takes", loss: "lost", stored: "" };

const energy: TableColumn<Share>[] = [
  { key: "what", head: "What", names: true, cell: (e) => e.label },
  { key: "does", head: "Does", set: "soft", cell: (e) => does[e.kind] },
  { key: "wh", head: "Energy", set: "right", cell: (e) => `${Math.round(e.wh).toLocaleString("en")} Wh` },
];

/** Verdicts are what the run says, worst first; one that has a moment goes to it. */
export function Verdicts({ trial, onMove }: { trial: Trial; onMove: (t: number) => void }) {
  return (
    <section className={css.verdicts} aria-label="Verdicts">
      {trial.stopped && <Wrong>{trial.stopped}</Wrong>}
      <ul>
        {trial.verdicts.map((v) => (
          <li key={v.id} data-level={v.level}>
            <b>{v.label}</b> <span className={css.level}>{word[v.level]}</span>
            <p>
              {v.text}
              {v.atS >= 0 && (
                <button type="button" className={css.goTo} aria-label={`Show ${v.label} at ${clock(v.atS)}`} onClick={() => onMove(v.atS)}>
                  show
                </button>
              )}
            </p>
          </li>
        ))}
      </ul>
      <h2>Aims</h2>
      <ul className={css.aims}>
        {trial.aims.map((a) => (
          <li key={a.id} data-level={a.met ? "good" : "bad"}>
            <b>{a.met ? "met" : "not met"}</b> {a.label}
          </li>
        ))}
      </ul>
      <h2>Energy</h2>
      <Table bare caption="Energy" className={css.energy} rows={trial.energy} columns={energy} keyOf={(e) => e.label} />
    </section>
  );
}

/** Events lists what happened, each to be gone to. */
export function Events({ trial, at, onMove }: { trial: Trial; at: number; onMove: (t: number) => void }) {
  const now = trial.events.findLastIndex((e) => e.t <= at + 0.01);
  return (
    <ol className={css.eventList} aria-label="Events">
      {trial.events.map((e, i) => (
        <li key={i} className={cx(i === now && css.lit)}>
          <button type="button" onClick={() => onMove(e.t)}>
            <span className="soft">{clock(e.t)}</span> {e.text}
          </button>
        </li>
      ))}
      {trial.events.length === 0 && <li className="soft">Nothing switched.</li>}
    </ol>
  );
}
