import cx from "clsx";
import { useMemo } from "react";

import type { Column } from "../api/client";
import { useJob } from "../job/JobContext";
import { Tick } from "../ui/Tick";
import { columnSpans, gradeScale, line, middle, type Span, type XY } from "../section/geometry";
import { voltsReach } from "./curves";
import type { Trial } from "./useTrial";
import css from "./day.module.css";

const gutter = 62;
const runHeight = 50;
const gradeHeight = 92;
/** Nearer than this, in px, the alternator's amps would lie on the start battery's; the curves show them too. */
const labelRoom = 90;

/** Moment is the run and its grade line at the cursor: what flows where, and the volts it leaves. */
export function Moment({ trial, index, width, lit }: { trial: Trial; index: number; width: number; lit: string | undefined }) {
  const { plan } = useJob();
  const s = trial.series;
  const narrow = width < 620;
  const columns = plan.columns.filter((c) => trial.columns.includes(c.id) && !(narrow && ["lead", "fuse", "plug"].includes(c.kind)));
  const spans = columnSpans(columns, gutter, Math.max(width - 14, 300));
  const volts = s.grade[index] ?? [];
  const at = (id: string): [number, number] => {
    const i = trial.columns.indexOf(id);
    return [volts[2 * i] ?? 0, volts[2 * i + 1] ?? 0];
  };
  const reach = useMemo(() => voltsReach(s.grade), [s.grade]);
  const scale = gradeScale([Math.max(reach.low, 8 * (plan.marks[0]?.low ?? 14) > 160 ? 16 : 8), reach.high], 6, gradeHeight - 6);
  const stage = s.stage[index] as string;
  const apart = stage === "open" || stage === "resting";
  const points = (list: Column[]): XY[] =>
    list.flatMap((c) => {
      const span = spans.get(c.id) as Span;
      const [a, b] = at(c.id);
      return [{ x: span.left, y: scale.y(a) }, { x: span.right, y: scale.y(b) }];
    });
  const split = columns.findIndex((c) => c.id === "coupling");
  const before = columns.slice(0, split);
  const after = columns.slice(split + 1);
  const paths = apart ? [points(before), points(after)] : [points(columns)];
  const flows = { machine: s.machineA[index] as number, into: s.inA[index] as number, couple: s.coupleA[index] as number, aux: s.auxA[index] as number, start: s.startA[index] as number };
  return (
    <div className={css.moment} data-moment={index} aria-hidden>
      <svg width={width} height={runHeight + gradeHeight} focusable="false">
        <RunLine columns={columns} spans={spans} flows={flows} stage={stage} apart={apart} lit={lit} narrow={narrow} />
        {scale.ticks.map((v) => (
          <Tick key={v} from={gutter} to={width - 14} at={runHeight + scale.y(v)} gap={6}>
            {v} V
          </Tick>
        ))}
        <g transform={`translate(0 ${runHeight})`}>
          {paths.map((p, i) => (
            <path key={i} className={css.volts} d={line(p)} />
          ))}
        </g>
        {apartEnough(columns, spans, narrow).map((c) => {
          const span = spans.get(c.id) as Span;
          const [, out] = at(c.id);
          return (
            <text key={c.id} className={css.momentVolts} x={middle(span)} y={runHeight + Math.max(scale.y(out) - 6, 11)} textAnchor="middle">
              {out.toFixed(2)} V
            </text>
          );
        })}
      </svg>
    </div>
  );
}

/** The kinds of parts whose volts are written, what matters most first; and how far apart two of them have to be to be read. */
const written = ["battery", "charger", "relay", "alternator"];
const voltsRoom = 58;

/** apartEnough are the columns whose volts are written: none on another's. */
function apartEnough(columns: Column[], spans: Map<string, Span>, narrow: boolean): Column[] {
  const list: Column[] = [];
  const at = (c: Column) => middle(spans.get(c.id) as Span);
  for (const kind of narrow ? written.slice(0, -1) : written) {
    list.push(...columns.filter((c) => c.kind === kind && list.every((o) => Math.abs(at(o) - at(c)) >= voltsRoom)));
  }
  return list;
}

interface Flows {
  machine: number;
  into: number;
  couple: number;
  aux: number;
  start: number;
}

/** RunLine is the run as one line, as thick as what flows in it. */
function RunLine({ columns, spans, flows, stage, apart, lit, narrow }: { narrow: boolean; lit: string | undefined; stage: string; columns: Column[]; spans: Map<string, Span>; flows: Flows; apart: boolean }) {
  const y = 32;
  const thick = (amps: number) => Math.max(1, Math.min(9, Math.sqrt(Math.abs(amps))));
  const mid = (id: string) => middle(spans.get(id) as Span);
  // A machine of the run's own feeds it without the start battery.
  const begin = spans.has("start") ? "start" : "alternator";
  const flow = (from: number, to: number, amps: number) => <line key={from} className={cx(Math.abs(amps) < 0.5 && css.still)} x1={from} x2={to} y1={y} y2={y} style={{ strokeWidth: thick(amps) }} />;
  const gap = apart ? 26 : 13; // what is apart does not touch the coupling
  const sides = { front: apart ? 0 : flows.into, back: apart ? 0 : flows.couple };
  return (
    <g className={css.runLine}>
      {begin === "start" && flow(mid("alternator"), mid("start"), flows.machine)}
      {flow(mid(begin), mid("coupling") - gap, sides.front)}
      {flow(mid("coupling") + gap, mid("aux"), sides.back)}
      {columns.filter((c) => ["alternator", "battery", "charger", "relay", "fuse"].includes(c.kind)).map((c) => (
        <g key={c.id} className={cx(css.stop, lit === c.id && css.lit)}>
          {c.kind === "alternator" ? <circle cx={mid(c.id)} cy={y} r={8} /> : <rect x={mid(c.id) - (c.kind === "fuse" ? 8 : 13)} y={y - (c.kind === "fuse" ? 4 : 8)} width={c.kind === "fuse" ? 16 : 26} height={c.kind === "fuse" ? 8 : 16} />}
          {c.kind === "alternator" && (
            <text x={mid(c.id)} y={y + 4} textAnchor="middle">
              G
            </text>
          )}
          <text x={mid(c.id)} y={13} textAnchor="middle">
            {!narrow ? c.name : c.kind === "alternator" ? "" : c.kind === "battery" ? (c.id === "start" ? "Start" : "Aux") : c.name}
            {c.id === "coupling" && apart ? `, ${stage}` : ""}
          </text>
        </g>
      ))}
      {begin === "start" && mid("start") - mid("alternator") >= labelRoom && <Amps x={(mid("alternator") + mid("start")) / 2} amps={flows.machine} />}
      {!apart && <Amps x={(mid(begin) + mid("coupling")) / 2} amps={flows.into} />}
      {!apart && <Amps x={(mid("coupling") + mid("aux")) / 2} amps={flows.couple} />}
      {begin === "start" && <Amps x={mid("start")} amps={flows.start} to="into" />}
      <Amps x={mid("aux")} amps={flows.aux} to="into" />
    </g>
  );
}

function Amps({ x, amps, to }: { x: number; amps: number; to?: string }) {
  const value = Math.abs(amps).toFixed(0);
  if (value === "0") return null;
  const arrow = to ? (amps > 0 ? "in " : "out ") : amps > 0 ? "→ " : "← ";
  return (
    <text className={css.amps} x={x} y={49} textAnchor="middle">
      {arrow}
      {value} A
    </text>
  );
}
