import { Link, useParams } from "@tanstack/react-router";
import type { ReactNode } from "react";

import type { Schemas } from "../api/client";
import { Table, type TableColumn } from "../ui/Table";
import { Wait } from "../ui/Wait";
import css from "./found.module.css";
import { GearSays, WireSays } from "./Says";
import { useRetrofit } from "./useRetrofit";

type Sketch = Schemas["Sketch"];
type Outcome = Schemas["Outcome"];

/** Line is one thing in which both differ. */
interface Line {
  label: string;
  before: ReactNode;
  after: ReactNode;
}

const design: [string, (s: Sketch) => ReactNode][] = [
  ["Coupling", (s) => s.coupling],
  ["Start run", (s) => s.start],
  ["Aux run", (s) => s.aux],
  ["Return", (s) => s.return],
  ["Early in bulk", (s) => s.early.fails ?? `${s.early.amps.toFixed(0)} A at ${s.early.volts.toFixed(1)} V`],
  ["At idle", (s) => s.idle.fails ?? `${s.idle.amps.toFixed(0)} A at ${s.idle.volts.toFixed(1)} V`],
  ["A day's use back after", (s) => (s.backH > 0 ? `${s.backH.toFixed(1)} h driving` : "not by driving")],
  ["Weakest in the chain", (s) => s.weakest],
];

const week: [string, (o: Outcome) => ReactNode][] = [
  ["Aux battery, the days as driven", (o) => `${o.auxLeast.toFixed(0)} to ${o.auxEnd.toFixed(0)} %`],
  ["Full first", (o) => (o.fullH < 0 ? "never" : `after ${o.fullH.toFixed(0)} h`)],
  ["Relay chatters", (o) => `${o.chatter} times`],
  ["Fuses opened", (o) => String(o.fusesOpened)],
];

const against: [string, (s: Sketch) => ReactNode][] = [
  ["Makes it unfit", (s) => <Lines list={s.stops} level="bad" />],
  ["Cautions", (s) => <Lines list={s.cautions} level="caution" />],
];

/** linesOf holds both against each other; what was found may not be known. */
function linesOf(a: Schemas["Retrofit"]): Line[] {
  const pair = <T,>(of: [string, (t: T) => ReactNode][], before: T | undefined, after: T): Line[] => of.map(([label, say]) => ({ label, before: before ? say(before) : "not known", after: say(after) }));
  return [...pair(design, a.before, a.after), ...pair(week, a.beforeWeek, a.afterWeek), ...pair(against, a.before, a.after)];
}

const columns: TableColumn<Line>[] = [
  { key: "what", head: "What", quiet: true, names: true, cell: (l) => l.label, className: css.about },
  { key: "before", head: "As found", cell: (l) => l.before },
  { key: "after", head: "New design", cell: (l) => l.after },
];

/** BeforeAfter holds what was found against the new design. */
export function BeforeAfter() {
  const asked = useRetrofit();
  const { id } = useParams({ strict: false });
  const a = asked.answer;
  if (!a) return <Wait asked={asked} what="Judging what was found" />;
  return (
    <div className={css.beforeAfter}>
      {a.missing.length > 0 && (
        <p className={css.missing}>
          As a whole it cannot be judged yet: {a.missing.join(", ")}.{" "}
          {id && (
            <Link to="/jobs/$id/{-$sheet}" params={{ id, sheet: "survey" }}>
              To the survey
            </Link>
          )}
        </p>
      )}
      <Table className={css.both} caption="What was found, and the new design" rows={linesOf(a)} columns={columns} keyOf={(l) => l.label} />
      <div className={css.fates}>
        <h3>What becomes of what was found</h3>
        {a.gear.length + a.wires.length === 0 && <p className="soft">Nothing was entered: what was found goes into the survey&apos;s last part.</p>}
        <ul>
          {a.gear.map((g) => (
            <li key={g.key}>
              <b>{g.name}</b>
              <GearSays gear={g} />
            </li>
          ))}
          {a.wires.map((w) => (
            <li key={w.key}>
              <b>{w.name}</b>
              <WireSays wire={w} />
            </li>
          ))}
        </ul>
      </div>
    </div>
  );
}

function Lines({ list, level }: { list: string[]; level: "bad" | "caution" }) {
  if (list.length === 0) return <span className={css.nothing}>nothing</span>;
  return (
    <ul className={css.lines} data-level={level}>
      {list.map((l) => (
        <li key={l}>{l}</li>
      ))}
    </ul>
  );
}
