import { Button } from "@mantine/core";

import type { Schemas } from "../api/client";
import type { Value } from "../job/document";
import { useJob } from "../job/JobContext";
import { Working } from "../ui/Working";

const minus = (a: number): string => String(a).replace("-", "−");

/** Sizings are the ways to choose a charger's size, each against need, alternator, battery and cable. */
export function Sizings({ list }: { list: Schemas["Sizing"][] }) {
  const { dispatch, readOnly, plan } = useJob();
  const take = (s: Schemas["Sizing"]) =>
    dispatch({ type: "setAll", values: Object.fromEntries(Object.entries(s.changes).map(([path, value]) => [path, (value ?? undefined) as Value])) });
  return (
    <div className="sizings">
      <table>
        <thead>
          <tr>
            {["Charger", "Out", "In at worst", "Of the label", "Idle leaves", "Cruise leaves", "C1, F1", "Drop", "Puts a cycle back in", "Against it", "Take it"].map((h, i) => (
              <th key={i} scope="col">
                {h === "Take it" ? <span className="hidden">{h}</span> : h}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {list.map((s) => (
            <tr key={s.label} className={`${s.now ? "fitted" : ""} ${s.level}`}>
              <th scope="row">
                {s.label} {s.advised && <span className="standing good">advised</span>} {s.now && <span className="standing">fitted</span>}
              </th>
              <td>{s.givesA < s.outA ? `${s.givesA} of ${s.outA} A` : `${s.outA} A`}</td>
              <td>{s.inA} A</td>
              <td>{s.share} %</td>
              <td className={s.idleA < 0 ? "caution" : ""}>{minus(s.idleA)} A</td>
              <td className={s.cruiseA < 0 ? "caution" : ""}>{minus(s.cruiseA)} A</td>
              <td>
                {s.cable}, {s.fuseA} A
              </td>
              <td>{s.dropV.toFixed(2)} V</td>
              <td>{s.backH > 0 ? `${s.backH.toFixed(1)} h` : "–"}</td>
              <td className="against">{s.against.join("; ") || "nothing"}</td>
              <td>
                {!readOnly && !s.now && (
                  <Button size="compact-sm" variant="default" aria-label={`Take ${s.label}`} onClick={() => take(s)}>
                    Take
                  </Button>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <div className="sizingWorking">
        {["need", "half", "allowed", "accepts", "idle", "cruise"].flatMap((key) => plan.figures[key] ?? []).map((f) => (
          <Working key={f.name} figure={f} />
        ))}
      </div>
    </div>
  );
}
