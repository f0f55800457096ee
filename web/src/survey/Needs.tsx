import { Button } from "@mantine/core";

import { FieldInput } from "../job/FieldInput";
import { fieldOf, useJob } from "../job/JobContext";
import { emptied, keysOf, newKey } from "../job/rows";
import { Working } from "../ui/Working";

/** quick are the loads that are offered at a touch. */
const quick = ["fridge", "freezer", "lights", "pump", "fan", "heater", "laptop", "phones", "inverter"];

/** Loads is the list of what is used, a row to a load. */
export function Loads() {
  const job = useJob();
  const { state, dispatch, plan, readOnly } = job;
  const kinds = fieldOf(job, "loads.x.kind")?.choices ?? [];
  const add = (kind: string) => dispatch({ type: "set", path: `loads.${newKey()}.kind`, value: kind });
  const keys = keysOf(state.doc, "loads");
  return (
    <section className="loads" aria-label="Loads">
      {!readOnly && (
        <div className="quick" role="group" aria-label="Add a load">
          {quick.map((id) => (
            <Button key={id} variant="default" size="compact-sm" onClick={() => add(id)}>
              + {kinds.find((k) => k.value === id)?.label ?? id}
            </Button>
          ))}
          <Button variant="default" size="compact-sm" onClick={() => add("other")}>
            + something else
          </Button>
        </div>
      )}
      <ul className="rowsList">
        {keys.map((key) => {
          const load = plan.needs.loads.find((l) => l.key === key);
          return (
            <li key={key} aria-label={load?.label ?? "load"}>
              {["kind", "name", "count", "watts", "amps", "hours", "duty", "standbyA"].flatMap((name) => fieldOf(job, `loads.${key}.${name}`) ?? []).map((f) => (
                <FieldInput key={f.path} field={f} brief />
              ))}
              <p className="rowSum">
                {load ? (
                  <>
                    <b>{load.dayAh.toFixed(1)} Ah</b> a day, {load.amps.toFixed(2)} A each{load.assumed && <span className="assumed"> partly assumed</span>}
                  </>
                ) : (
                  "…"
                )}
              </p>
              {!readOnly && (
                <Button size="compact-sm" variant="subtle" aria-label={`Remove ${load?.label ?? "load"}`} onClick={() => dispatch({ type: "setAll", values: emptied(state.doc, "loads", key) })}>
                  Remove
                </Button>
              )}
            </li>
          );
        })}
      </ul>
    </section>
  );
}

/** NeedsPanel says whether the balance holds, and what would hold it. */
export function NeedsPanel() {
  const { plan } = useJob();
  const n = plan.needs;
  const rows: [string, string][] = [
    ["Used in a day", `${n.dailyAh.toFixed(0)} Ah`],
    ["To put back on a drive", `${n.cycleAh.toFixed(0)} Ah`],
    ["A drive can put back", `${n.putBackAh.toFixed(0)} Ah`],
    ["After a drive", `${n.after.toFixed(0)} %`],
    ["Before the next", `${n.before.toFixed(0)} %`],
    ["Lasts without driving", `${n.days.toFixed(1)} days`],
    ["Smallest bank", `${n.bankAh.toFixed(0)} Ah`],
    ["Smallest charger", n.chargerA > 0 ? `${n.chargerA} A` : "none on the shelf"],
  ];
  return (
    <section className={`needsPanel ${n.level}`} aria-label="Balance">
      <h3>Balance</h3>
      <p className="says">{n.says}</p>
      <table>
        <tbody>
          {rows.map(([label, text]) => (
            <tr key={label}>
              <th scope="row">{label}</th>
              <td>{text}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <h3>Working</h3>
      {n.figures.flatMap((key) => plan.figures[key] ?? []).map((f) => (
        <Working key={f.name} figure={f} />
      ))}
    </section>
  );
}
