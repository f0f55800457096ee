import { Button, NumberInput } from "@mantine/core";
import { scaleLinear } from "d3-scale";
import { area, line } from "d3-shape";
import { useState } from "react";

import type { Schemas } from "../api/client";
import { useJob } from "../job/JobContext";
import { Table, type TableColumn } from "../ui/Table";
import { Tick } from "../ui/Tick";
import { TaskProgress } from "./TaskProgress";
import { useTask } from "./useTask";
import css from "./day.module.css";

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
      <div className={css.tolerances}>
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

type Band = Schemas["Spread"]["bands"][number];

const bands = (runs: number): TableColumn<Band>[] => [
  { key: "what", head: `${runs} runs`, names: true, cell: (b) => b.label },
  { key: "low", head: "one in ten below", set: "figure", cell: (b) => `${b.low} ${b.unit}` },
  { key: "mid", head: "middle", set: "figure", cell: (b) => `${b.mid} ${b.unit}` },
  { key: "high", head: "one in ten above", set: "figure", cell: (b) => `${b.high} ${b.unit}` },
];

function Spread({ spread }: { spread: Schemas["Spread"] }) {
  const end = spread.hours.at(-1) ?? 1;
  const x = scaleLinear([0, end], [42, 352]);
  const y = scaleLinear([0, 100], [96, 6]);
  const all = spread.hours.map((_, i) => i);
  const band = area<number>().x((i) => x(spread.hours[i] as number)).y0((i) => y(spread.socLow[i] as number)).y1((i) => y(spread.socHigh[i] as number))(all);
  const mid = line<number>().x((i) => x(spread.hours[i] as number)).y((i) => y(spread.socMid[i] as number))(all);
  return (
    <>
      <ul className={css.chances} aria-label="How sure each aim is">
        {spread.chances.map((c) => (
          <li key={c.id}>
            <span className={css.chanceBar} aria-hidden>
              <span data-level={c.met === c.of ? "good" : c.met > 0.9 * c.of ? "caution" : "bad"} style={{ width: `${(100 * c.met) / c.of}%` }} />
            </span>
            <b>{c.text}</b> {c.label}
          </li>
        ))}
      </ul>
      <svg className={css.comparedChart} viewBox="0 0 360 112" aria-hidden focusable="false">
        {[0, 50, 100].map((v) => (
          <Tick key={v} from={42} to={352} at={y(v)} gap={4}>
            {v} %
          </Tick>
        ))}
        <path className={css.bandArea} d={band ?? ""} />
        <path className={css.compared} d={mid ?? ""} />
      </svg>
      <p className="soft">Charge of the aux battery: the middle run, and the band that eight in ten stay within.</p>
      <Table caption={`How values were spread over ${spread.runs} runs`} className={css.comparison} rows={spread.bands} columns={bands(spread.runs)} keyOf={(b) => b.id} />
    </>
  );
}
