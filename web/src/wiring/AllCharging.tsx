import type { Schemas } from "../api/client";
import { Fields } from "../job/Fields";
import { useJob } from "../job/JobContext";
import { CheckList } from "../ui/CheckList";
import { Table, type TableColumn } from "../ui/Table";
import css from "./wiring.module.css";

type Source = Schemas["Source"];

const volts = (v: number | undefined, none = "not said") => (v === undefined ? none : v === 0 ? "rests" : `${v.toFixed(1)} V`);

const sources: TableColumn<Source>[] = [
  { key: "name", head: "Charged by", names: true, cell: (s) => s.name, level: (s) => (s.level === "open" ? undefined : s.level) },
  { key: "absorption", head: "Absorption", set: "figure", cell: (s) => volts(s.absorptionV) },
  { key: "float", head: "Float", set: "figure", cell: (s) => volts(s.floatV, s.id === "alternator" ? "none" : undefined) },
  { key: "compensated", head: "By temperature", set: "figure", cell: (s) => s.compensated || (s.id === "alternator" ? "as its regulator" : "not said") },
  { key: "cold", head: "In frost stopped by", cell: (s) => s.coldStop || "need not be" },
  { key: "set", head: "Set at", cell: (s) => s.setAt || "not said" },
  { key: "read", head: "Read back", cell: (s) => s.readBack },
];

const monitor: TableColumn<Schemas["MonitorLine"]>[] = [
  { key: "name", head: "Monitor", names: true, cell: (l) => l.name, level: (l) => (l.level === "open" ? undefined : l.level) },
  { key: "is", head: "Set to", set: "figure", cell: (l) => l.is || "not said" },
  { key: "wants", head: "Wanted", cell: (l) => l.wants },
];

const asked = (section: string) => ["absorptionV", "floatV", "compensated", "probe", "disable", "how"].map((n) => `${section}.${n}`);

/** AllCharging is everything that charges the aux battery, and the monitor that counts it: how each is set, whether they agree, how the setting is read back. */
export function AllCharging() {
  const { plan } = useJob();
  const c = plan.charging;
  return (
    <section className={css.all} aria-label="All that charges">
      <h3>All that charges this battery</h3>
      <Table caption="All that charges this battery" rows={c.sources} columns={sources} keyOf={(s) => s.id} />
      {c.monitor.length > 0 && <Table caption="The monitor's settings" rows={c.monitor} columns={monitor} keyOf={(l) => l.name} />}
      <CheckList title="What is so with them" titled={false} checks={plan.checks.filter((k) => k.group === "charging")} />
    </section>
  );
}

/** OtherSources asks how all but the coupling's charger is set. */
export function OtherSources() {
  const { plan } = useJob();
  return (
    <section aria-label="Mains, solar, monitor">
      <h3>Mains charger</h3>
      <Fields brief paths={["mains.outputA", ...asked("mains")]} />
      <h3>Solar regulator</h3>
      <Fields brief paths={asked("solar")} />
      {plan.charging.monitor.length > 0 && (
        <>
          <h3>Monitor</h3>
          <Fields brief paths={["capacityAh", "fullV", "tailPct", "efficiency", "how"].map((n) => `monitor.${n}`)} />
        </>
      )}
    </section>
  );
}
