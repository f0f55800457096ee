import type { Schemas } from "../api/client";
import { clock } from "./time";
import type { Trial } from "./useTrial";

const word: Record<Schemas["Verdict"]["level"], string> = { good: "good", caution: "caution", bad: "stop" };

/** Verdicts are what the run says, worst first; one that has a moment goes to it. */
export function Verdicts({ trial, onMove }: { trial: Trial; onMove: (t: number) => void }) {
  return (
    <section className="verdicts" aria-label="Verdicts">
      {trial.stopped && <p className="bad">{trial.stopped}</p>}
      <ul>
        {trial.verdicts.map((v) => (
          <li key={v.id} className={v.level}>
            <b>{v.label}</b> <span className="level">{word[v.level]}</span>
            <p>
              {v.text}
              {v.atS >= 0 && (
                <button type="button" className="goTo" aria-label={`Show ${v.label} at ${clock(v.atS)}`} onClick={() => onMove(v.atS)}>
                  show
                </button>
              )}
            </p>
          </li>
        ))}
      </ul>
      <h2 className="small">Aims</h2>
      <ul className="aims">
        {trial.aims.map((a) => (
          <li key={a.id} className={a.met ? "good" : "bad"}>
            <b>{a.met ? "met" : "not met"}</b> {a.label}
          </li>
        ))}
      </ul>
      <h2 className="small">Energy</h2>
      <table className="energy">
        <tbody>
          {trial.energy.map((s) => (
            <tr key={s.label} className={s.kind}>
              <th scope="row">{s.label}</th>
              <td>{s.kind === "source" ? "gives" : s.kind === "use" ? "takes" : s.kind === "loss" ? "lost" : "kept"}</td>
              <td>{Math.round(s.wh).toLocaleString("en")} Wh</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

/** Events lists what happened, each to be gone to. */
export function Events({ trial, at, onMove }: { trial: Trial; at: number; onMove: (t: number) => void }) {
  const now = trial.events.findLastIndex((e) => e.t <= at + 0.01);
  return (
    <ol className="eventList" aria-label="Events">
      {trial.events.map((e, i) => (
        <li key={i} className={i === now ? "lit" : ""}>
          <button type="button" className="plain" onClick={() => onMove(e.t)}>
            <span className="soft">{clock(e.t)}</span> {e.text}
          </button>
        </li>
      ))}
      {trial.events.length === 0 && <li className="soft">Nothing switched.</li>}
    </ol>
  );
}
