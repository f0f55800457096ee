import { Button } from "@mantine/core";

import { FieldInputs } from "../job/Fields";
import { fieldOf, useJob } from "../job/JobContext";
import { Across, RowList } from "../job/RowList";
import { newKey } from "../job/rows";
import { Table, type TableColumn } from "../ui/Table";
import { Working } from "../ui/Working";
import css from "./survey.module.css";

/** quick are the loads that are offered at a touch. */
const quick = ["fridge", "freezer", "lights", "pump", "fan", "heater", "laptop", "phones", "inverter"];

/** Loads is the list of what is used, a row to a load. */
export function Loads() {
  const job = useJob();
  const { dispatch, plan, mayChange } = job;
  const readOnly = !mayChange("loads");
  const kinds = fieldOf(job, "loads.x.kind")?.choices ?? [];
  const add = (kind: string) => dispatch({ type: "set", path: `loads.${newKey()}.kind`, value: kind });
  const loadOf = (key: string) => plan.needs.loads.find((l) => l.key === key);
  return (
    <section aria-label="Loads">
      {!readOnly && (
        <div className={css.quick} role="group" aria-label="Add a load">
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
      <RowList list="loads" nameOf={(key) => loadOf(key)?.label ?? "load"}>
        {(key) => {
          const load = loadOf(key);
          return (
            <>
              <FieldInputs brief paths={["kind", "name", "count", "watts", "amps", "hours", "duty", "standbyA"].map((name) => `loads.${key}.${name}`)} />
              <Across>
                {load ? (
                  <>
                    <b>{load.dayAh.toFixed(1)} Ah</b> a day, {load.amps.toFixed(2)} A each{load.assumed && <span className="assumed"> partly assumed</span>}
                  </>
                ) : (
                  "…"
                )}
              </Across>
            </>
          );
        }}
      </RowList>
    </section>
  );
}

interface BalanceLine {
  label: string;
  text: string;
}

const columns: TableColumn<BalanceLine>[] = [
  { key: "what", head: "What", names: true, cell: (r) => r.label },
  { key: "is", head: "Is", set: "right", cell: (r) => r.text },
];

/** NeedsPanel says whether the balance holds, and what would hold it. */
export function NeedsPanel() {
  const { plan } = useJob();
  const n = plan.needs;
  const rows: BalanceLine[] = [
    { label: "Used in a day", text: `${n.dailyAh.toFixed(0)} Ah` },
    { label: "To put back on a drive", text: `${n.cycleAh.toFixed(0)} Ah` },
    { label: "A drive can put back", text: `${n.putBackAh.toFixed(0)} Ah` },
    { label: "After a drive", text: `${n.after.toFixed(0)} %` },
    { label: "Before the next", text: `${n.before.toFixed(0)} %` },
    { label: "Lasts without driving", text: `${n.days.toFixed(1)} days` },
    { label: "Smallest bank", text: `${n.bankAh.toFixed(0)} Ah` },
    { label: "Smallest charger", text: n.chargerA > 0 ? `${n.chargerA} A` : "none on the shelf" },
  ];
  return (
    <section className={css.needs} data-level={n.level} aria-label="Balance">
      <h3>Balance</h3>
      <p className={css.says}>{n.says}</p>
      <Table bare caption="Balance" className={css.balance} rows={rows} columns={columns} keyOf={(r) => r.label} />
      <h3>Working</h3>
      {n.figures.flatMap((key) => plan.figures[key] ?? []).map((f) => (
        <Working key={f.name} figure={f} />
      ))}
    </section>
  );
}
