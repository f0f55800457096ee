import { Working } from "../ui/Working";
import type { Method } from "./useJudged";

const words = { "rules out": "rules it out", warns: "warns", favours: "speaks for it" } as const;
const order = ["rules out", "warns", "favours"];

/** Reasons says why a coupling stands where it stands, what would change that, and what it does when its signal fails. */
export function Reasons({ method: m }: { method: Method }) {
  const d = m.driven;
  const reasons = [...m.method.reasons].sort((a, b) => order.indexOf(a.effect) - order.indexOf(b.effect));
  return (
    <div className="reasons">
      <section aria-label="Reasons">
        <h3>By the rules</h3>
        <ul>
          {reasons.map((r) => (
            <li key={r.id} className={r.effect.replace(" ", "-")}>
              <b>{words[r.effect]}</b> {r.text} {r.unless && <i>Unless: {r.unless}</i>} <span className="ruleId">{r.id}, {r.mark}</span>
            </li>
          ))}
        </ul>
      </section>
      <section aria-label="What it comes to">
        <h3>As it would run</h3>
        <ul>
          <li>
            <b>cruise</b> {m.cruise.fails || m.cruise.says}
          </li>
          <li>
            <b>idle</b> {m.idle.fails || m.idle.says}
          </li>
          {d?.stopped && (
            <li className="warns">
              <b>not run to its end</b> {d.stopped}
            </li>
          )}
          {d && (
            <>
              <li>
                <b>signal dead</b> {d.fails.dead}.
              </li>
              <li>
                <b>left live</b> {d.fails.live}.
              </li>
            </>
          )}
          {!d && <li className="soft">{m.notDriven ? "Through time: the server does not answer." : "Through time: running …"}</li>}
          {m.worst && (
            <li className={m.severity === "stop" ? "rules-out" : "warns"}>
              <b>its weakest point</b> {m.worst}
            </li>
          )}
          {d?.aims.map((a) => (
            <li key={a.id} className={a.met ? "favours" : "warns"}>
              <b>{a.met ? "met" : "not met"}</b> {a.label}
            </li>
          ))}
        </ul>
      </section>
      <section aria-label="Cost and work">
        <h3>Cost and work, from memory</h3>
        <table className="bill">
          <tbody>
            {m.bill.lines.map((l) => (
              <tr key={l.what}>
                <th scope="row">{l.what}</th>
                <td>
                  {l.count} {l.unit}
                </td>
                <td>{l.cost > 0 ? `${l.cost} %` : ""}</td>
                <td>{l.hours > 0 ? `${l.hours} h` : ""}</td>
              </tr>
            ))}
            <tr className="sum">
              <th scope="row">of a 30 A charger&apos;s price, and hours</th>
              <td />
              <td>{m.bill.cost} %</td>
              <td>{m.bill.hours} h</td>
            </tr>
          </tbody>
        </table>
        <h3>Working</h3>
        {m.figures.map((f) => (
          <Working key={f.name + f.formula} figure={f} />
        ))}
      </section>
    </div>
  );
}
