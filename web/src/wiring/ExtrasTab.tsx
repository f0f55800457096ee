import { Fields } from "../job/Fields";
import { useJob } from "../job/JobContext";
import { valueAt, type Doc } from "../job/document";
import type { Plan } from "../api/client";
import { CheckList } from "../ui/CheckList";
import css from "./wiring.module.css";

/** Extra is a thing that may be fitted: what is asked first, and what then. */
interface Extra {
  title: string;
  says: string;
  first: string;
  then: string[];
  /** whether it is fitted, so that the rest is asked */
  has: (doc: Doc, plan: Plan) => boolean;
  /** whether it can be on this job at all */
  fits?: (plan: Plan) => boolean;
  /** the ids of its checks begin so */
  checks: string[];
}

const answered = (path: string, not: string) => (doc: Doc) => ![undefined, not].includes(valueAt(doc, path) as string | undefined);
const yes = (path: string) => (doc: Doc) => valueAt(doc, path) === "yes";
const joins = (plan: Plan) => ["changeover", "contactor", "selector", "vsr", "highcurrent"].includes(plan.coupling);
const hasTrailer = (plan: Plan) => plan.columns.some((c) => c.id === "x1");
const lithium = (plan: Plan) => plan.checks.some((c) => c.id.startsWith("extra.management"));

const extras: Extra[] = [
  {
    title: "Isolator Q1",
    says: "Where a box is to be unplugged or worked on.",
    first: "extras.isolator",
    then: ["extras.isolatorA", "extras.isolatorFirst"],
    has: answered("extras.isolator", "none"),
    checks: ["extra.isolator."],
  },
  {
    title: "Monitor and shunt R1",
    says: "It counts only what passes it.",
    first: "extras.monitor",
    then: ["extras.shuntA", "extras.shuntMV", "extras.shuntAll"],
    has: yes("extras.monitor"),
    checks: ["extra.shunt."],
  },
  {
    title: "Low-voltage disconnect Q3",
    says: "Between the battery and its loads, with a fuse of its own: F4 and the feed H1 are sized once it is known what the loads take.",
    first: "extras.disconnect",
    then: ["extras.opensV", "extras.closesV", "extras.peakA", "extras.disconnectA", "extras.cuts"],
    has: yes("extras.disconnect"),
    checks: ["extra.disconnect."],
  },
  {
    title: "Bonding lead B1",
    says: "Rubber mounts and paint isolate trays, canopies and bodies.",
    first: "extras.bond",
    then: ["extras.bondSize", "extras.bondM"],
    has: yes("extras.bond"),
    checks: ["extra.bond."],
  },
  {
    title: "Emergency start",
    says: "What would flow is computed; the fuse says whether it survives.",
    first: "wants.emergencyStart",
    then: ["schools.emergency", "startBattery.restV", "aux.restV"],
    has: yes("wants.emergencyStart"),
    fits: joins,
    checks: ["join."],
  },
  { title: "Winch W1", says: "A winch takes what a starter takes, for minutes.", first: "vehicle.winch", then: ["extras.winchA", "extras.winchFrom", "extras.winchMin"], has: yes("vehicle.winch"), checks: ["extra.winch."] },
  {
    title: "Management system",
    says: "It may open at any time; its charge-disable output should stop the charger first.",
    first: "extras.managementA",
    then: ["profile.disable", "extras.outputA"],
    has: () => true,
    fits: lithium,
    checks: ["extra.management.", "extra.output."],
  },
  {
    title: "13-pin socket",
    says: "For small loads: 9 is permanent and comes back by 13, 10 is switched and comes back by 11.",
    first: "extras.socketA",
    then: ["extras.socketContact", "extras.socketM", "extras.socketReturn"],
    has: (doc) => Number(valueAt(doc, "extras.socketA") ?? 0) > 0,
    fits: hasTrailer,
    checks: ["extra.socket."],
  },
  { title: "Solar", says: "Beside the charger, or through it.", first: "day.solarW", then: ["day.sunHours", "solar.through", "solar.priority"], has: (doc) => Number(valueAt(doc, "day.solarW") ?? 0) > 0, checks: [] },
];

/** ExtrasTab is what is fitted besides the coupling, each with what is asked of it and its checks. */
export function ExtrasTab() {
  const { plan, state } = useJob();
  return (
    <div className={css.extras}>
      {extras
        .filter((e) => e.fits?.(plan) ?? true)
        .map((e) => (
          <section key={e.title} aria-label={e.title}>
            <h3>{e.title}</h3>
            <p className="soft">{e.says}</p>
            <Fields paths={[e.first, ...(e.has(state.doc, plan) ? e.then : [])]} />
            <CheckList titled={false} title={`${e.title}: checks`} checks={plan.checks.filter((c) => e.checks.some((id) => c.id.startsWith(id)))} figures={plan.figures} />
          </section>
        ))}
    </div>
  );
}
