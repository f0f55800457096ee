import { Link, useParams } from "@tanstack/react-router";

import type { Schemas } from "../api/client";
import { Wait } from "../ui/Wait";
import { fateClass, WireSays } from "./Says";
import { useRetrofit } from "./useRetrofit";

type Sketch = Schemas["Sketch"];
type Outcome = Schemas["Outcome"];

const lines: [string, (s: Sketch) => string][] = [
  ["Coupling", (s) => s.coupling],
  ["Start run", (s) => s.start],
  ["Aux run", (s) => s.aux],
  ["Return", (s) => s.return],
  ["At cruise", (s) => s.cruise.fails ?? `${s.cruise.amps.toFixed(0)} A at ${s.cruise.volts.toFixed(1)} V`],
  ["At idle", (s) => s.idle.fails ?? `${s.idle.amps.toFixed(0)} A at ${s.idle.volts.toFixed(1)} V`],
  ["A day's use back after", (s) => (s.backH > 0 ? `${s.backH.toFixed(1)} h driving` : "not by driving")],
  ["Weakest in its chain", (s) => s.weakest],
];

const week: [string, (o: Outcome) => string][] = [
  ["Aux battery, the days as driven", (o) => `${o.auxLeast.toFixed(0)} to ${o.auxEnd.toFixed(0)} %`],
  ["Full first", (o) => (o.fullH < 0 ? "never" : `after ${o.fullH.toFixed(0)} h`)],
  ["Relay chatters", (o) => `${o.chatter} times`],
  ["Fuses opened", (o) => String(o.fusesOpened)],
];

/** BeforeAfter holds what was found against the new design. */
export function BeforeAfter() {
  const asked = useRetrofit();
  const { id } = useParams({ strict: false });
  const a = asked.answer;
  if (!a) return <Wait asked={asked} what="Judging what was found" />;
  return (
    <div className="beforeAfter">
      {a.missing.length > 0 && (
        <p className="caution">
          As a whole it cannot be judged yet: {a.missing.join(", ")}.{" "}
          {id && (
            <Link to="/jobs/$id/{-$sheet}" params={{ id, sheet: "survey" }}>
              To the survey
            </Link>
          )}
        </p>
      )}
      <table>
        <thead>
          <tr>
            <th scope="col">
              <span className="hidden">What</span>
            </th>
            <th scope="col">As found</th>
            <th scope="col">New design</th>
          </tr>
        </thead>
        <tbody>
          {lines.map(([label, of]) => (
            <tr key={label}>
              <th scope="row">{label}</th>
              <td>{a.before ? of(a.before) : "not known"}</td>
              <td>{of(a.after)}</td>
            </tr>
          ))}
          {week.map(([label, of]) => (
            <tr key={label}>
              <th scope="row">{label}</th>
              <td>{a.beforeWeek ? of(a.beforeWeek) : "not known"}</td>
              <td>{of(a.afterWeek)}</td>
            </tr>
          ))}
          <tr>
            <th scope="row">Makes it unfit</th>
            <td>{a.before ? <Lines list={a.before.stops} level="bad" /> : "not known"}</td>
            <td>
              <Lines list={a.after.stops} level="bad" />
            </td>
          </tr>
          <tr>
            <th scope="row">Cautions</th>
            <td>{a.before ? <Lines list={a.before.cautions} level="caution" /> : "not known"}</td>
            <td>
              <Lines list={a.after.cautions} level="caution" />
            </td>
          </tr>
        </tbody>
      </table>
      <div className="fates">
        <h3>What becomes of what was found</h3>
        {a.gear.length + a.wires.length === 0 && <p className="soft">Nothing was entered: the survey&apos;s last part takes it in.</p>}
        <ul>
          {a.gear.map((g) => (
            <li key={g.key}>
              <b>{g.name}</b>
              <p className={`verdictLine ${fateClass(g)}`}>
                <b>{g.fate}</b> {g.why}
              </p>
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

function Lines({ list, level }: { list: string[]; level: string }) {
  if (list.length === 0) return <span className="good">nothing</span>;
  return (
    <ul>
      {list.map((l) => (
        <li key={l} className={level}>
          {l}
        </li>
      ))}
    </ul>
  );
}
