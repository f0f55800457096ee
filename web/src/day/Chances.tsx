import { Button, NumberInput } from "@mantine/core";
import { scaleLinear } from "d3-scale";
import { area, line } from "d3-shape";
import { useState } from "react";

import type { Schemas } from "../api/client";
import { useJob } from "../job/JobContext";
import { TaskProgress } from "./TaskProgress";
import { useTask } from "./useTask";

type Tolerances = Schemas["Tolerances"];

const usual: Tolerances = { runs: 300, seed: 1, lengthPercent: 10, jointLowMilliohm: 0.1, jointHighMilliohm: 1, outsideK: 10, regulationV: 0.2, hoursPercent: 30, loadsPercent: 20 };

const asked: { key: keyof Tolerances; label: string; step: number }[] = [
  { key: "runs", label: "Runs", step: 50 },
  { key: "lengthPercent", label: "Lengths ± %", step: 5 },
  { key: "jointLowMilliohm", label: "Joints from mΩ", step: 0.1 },
  { key: "jointHighMilliohm", label: "Joints to mΩ", step: 0.1 },
  { key: "outsideK", label: "Outside ± K", step: 5 },
  { key: "regulationV", label: "Regulation ± V", step: 0.1 },
  { key: "hoursPercent", label: "Hours driven ± %", step: 5 },
  { key: "loadsPercent", label: "Loads ± %", step: 5 },
  { key: "seed", label: "Seed", step: 1 },
];

/** Chances is the design as it may really turn out: how sure each aim is. */
export function Chances({ id }: { id: string }) {
  const { state } = useJob();
  const { task, busy, begin, refused, stop } = useTask(id, "spread");
  const [tolerances, setTolerances] = useState<Tolerances>(task?.spread?.tolerances ?? usual);
  return (
    <section aria-label="Chance">
      <p className="soft">Lengths, joints, weather, driving and loads are never quite as planned. Some hundred installations within these bounds, each on its own days:</p>
      <div className="tolerances">
        {asked.map((a) => (
          <NumberInput key={a.key} size="xs" label={a.label} step={a.step} min={0} value={tolerances[a.key]} onChange={(v) => setTolerances({ ...tolerances, [a.key]: Number(v) })} />
        ))}
      </div>
      <Button size="compact-sm" disabled={busy} onClick={() => begin({ kind: "spread", document: state.doc as unknown as Record<string, never>, spread: tolerances })}>
        Run {tolerances.runs} times
      </Button>
      <TaskProgress task={task} busy={busy} refused={refused} stop={stop} what="Chance" />
      {task?.spread && !busy && task.spread.runs > 0 && <Spread spread={task.spread} />}
    </section>
  );
}

function Spread({ spread }: { spread: Schemas["Spread"] }) {
  const end = spread.hours.at(-1) ?? 1;
  const x = scaleLinear([0, end], [42, 352]);
  const y = scaleLinear([0, 100], [96, 6]);
  const all = spread.hours.map((_, i) => i);
  const band = area<number>().x((i) => x(spread.hours[i] as number)).y0((i) => y(spread.socLow[i] as number)).y1((i) => y(spread.socHigh[i] as number))(all);
  const mid = line<number>().x((i) => x(spread.hours[i] as number)).y((i) => y(spread.socMid[i] as number))(all);
  return (
    <>
      <ul className="chances">
        {spread.chances.map((c) => (
          <li key={c.id}>
            <span className="chanceBar" aria-hidden>
              <span className={c.met === c.of ? "good" : c.met > 0.9 * c.of ? "caution" : "bad"} style={{ width: `${(100 * c.met) / c.of}%` }} />
            </span>
            <b>{c.text}</b> {c.label}
          </li>
        ))}
      </ul>
      <svg className="comparedChart" viewBox="0 0 360 112" aria-hidden focusable="false">
        {[0, 50, 100].map((v) => (
          <g key={v} className="tick">
            <line x1={42} x2={352} y1={y(v)} y2={y(v)} />
            <text x={38} y={y(v) + 4} textAnchor="end">
              {v} %
            </text>
          </g>
        ))}
        <path className="bandArea" d={band ?? ""} />
        <path className="compared own" d={mid ?? ""} />
      </svg>
      <p className="soft">Charge of the aux battery: the middle run, and the band that eight in ten stay within.</p>
      <table className="comparison">
        <caption className="hidden">How values were spread over {spread.runs} runs</caption>
        <thead>
          <tr>
            <th scope="col">{spread.runs} runs</th>
            <th scope="col">one in ten below</th>
            <th scope="col">middle</th>
            <th scope="col">one in ten above</th>
          </tr>
        </thead>
        <tbody>
          {spread.bands.map((b) => (
            <tr key={b.id}>
              <th scope="row">{b.label}</th>
              <td>{b.low} {b.unit}</td>
              <td>{b.mid} {b.unit}</td>
              <td>{b.high} {b.unit}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}
