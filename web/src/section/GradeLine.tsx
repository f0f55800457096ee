import cx from "clsx";
import type { Schemas } from "../api/client";
import { useShown } from "../job/JobContext";
import { Tick } from "../ui/Tick";
import { broken, drawn, gradeLine, gradeScale, line, type Grade, type Span, type XY } from "./geometry";
import css from "./section.module.css";

const height = 148;

/** GradeLine is the volts falling along the run: a band from the best state to the worst. */
export function GradeLine({ width, spans, gutter }: { width: number; spans: Map<string, Span>; gutter: number }) {
  const { plan, shown } = useShown();
  const states = drawn(plan, shown);
  const alone = states.length === 1 && shown !== null;
  const volts = [...states.flatMap((s) => s.points.flatMap((p) => [p.inV, p.outV])), ...plan.marks.flatMap((m) => [m.low, m.high])];
  const grade = gradeScale(volts, 12, height - 10);
  const lines = states.map((s) => ({ state: s, points: gradeLine(s, spans, grade) }));
  const best = lines[0];
  const worst = lines.find((l) => l.state.worst);
  const early = lines.find((l) => l.state.id === "early");
  const right = width - 20;
  const coupling = spans.get("coupling") as Span;
  return (
    <svg data-grade width={width} height={height} aria-hidden focusable="false">
      {grade.ticks.map((v) => (
        <Tick key={v} from={gutter} to={right} at={grade.y(v)} gap={8}>
          {v.toFixed(grade.ticks.some((t) => t * 2 !== Math.round(t * 2)) ? 2 : 1)} V
        </Tick>
      ))}
      {plan.marks.map((m) => {
        const span = spans.get(m.column) as Span;
        if (m.kind === "wanted") {
          return (
            <g key={m.text} className={css.wanted}>
              <rect x={span.left} width={span.right - span.left} y={grade.y(m.high)} height={Math.max(2, grade.y(m.low) - grade.y(m.high))} />
              <text x={span.right - 4} y={grade.y(m.high) - 4} textAnchor="end">
                {m.text}
              </text>
            </g>
          );
        }
        return (
          <g key={m.text} className={css.limit}>
            <line x1={span.left} x2={span.right + 6} y1={grade.y(m.low)} y2={grade.y(m.low)} />
            <text x={span.right + 8} y={beside(plan.marks, m, grade) + 4}>
              {m.text}
            </text>
          </g>
        );
      })}
      {lines.length > 1 && <path className={css.band} d={band(lines.map((l) => l.points))} />}
      {lines.map(({ state, points }) => (
        <path key={state.id} data-volts={state.id} className={cx(css.volts, (state === best?.state) && css.best, state.worst && css.worst)} d={broken(points, state.apart ? coupling : null)} />
      ))}
      {plan.joints.map((j) => {
        const at = (worst ?? best)?.points.findLast((p) => Math.abs(p.x - (spans.get(j.after) as Span).right) < 1);
        return at && <circle key={j.id} className={css.jointMark} cx={at.x} cy={at.y} r={2.6} />;
      })}
      {best && (
        <text className={css.stateName} x={gutter + 6} y={(best.points[0] as XY).y - 6}>
          {best.state.label}
        </text>
      )}
      {below(lines.slice(1)).map(({ line: l, y }) => (
        <text key={l.state.id} className={css.stateName} x={gutter + 6} y={y}>
          {l.state.label}
          {l.state.sags ? ": the start battery makes up the rest" : ""}
        </text>
      ))}
      {early && (
        <text className={css.stateName} x={right - 4} y={(early.points.at(-1) as XY).y + 14} textAnchor="end">
          early in bulk: {early.state.auxV.toFixed(1)} V, {early.state.outA.toFixed(0)} A
        </text>
      )}
      {worst && !alone && (
        <text className={css.worstSays} x={coupling.left - 6} y={low(worst.points, coupling.left) + 17} textAnchor="end">
          {worst.state.inV.toFixed(2)} V, {worst.state.says}{worst === best ? "" : ": the worst"}
        </text>
      )}
      {plan.states.filter((s) => s.fails && s.worst).map((s) => (
        <text key={s.id} className={css.fails} x={gutter + 6} y={height - 14}>
          {s.label}: {s.fails}
        </text>
      ))}
    </svg>
  );
}

interface Drawn {
  state: Schemas["State"];
  points: XY[];
}

/** beside is where a limit's name stands: beside it, but never on the name of the limit above. */
function beside(marks: Schemas["Mark"][], mark: Schemas["Mark"], grade: Grade): number {
  const above = marks.filter((m) => m.kind === "limit" && m.column === mark.column && m.low > mark.low).map((m) => grade.y(m.low) + 13);
  return Math.max(grade.y(mark.low), ...above);
}

/** below names lines under their left ends, in order, so that no names overlap; lines that start alike are named once. */
function below(lines: Drawn[]): { line: Drawn; y: number }[] {
  const named: { line: Drawn; y: number }[] = [];
  const left = (l: Drawn) => (l.points[0] as XY).y;
  for (const l of lines.filter((l) => l.state.id !== "early").sort((a, b) => left(a) - left(b))) {
    const last = named.at(-1);
    named.push({ line: l, y: Math.max(left(l) + 13, last ? last.y + 13 : 0) });
  }
  return named;
}

/** band is the area between the highest and the lowest of several lines over the same places. */
function band(lines: XY[][]): string {
  const first = lines[0] as XY[];
  const edge = (pick: (...v: number[]) => number) => first.map((p, i) => ({ x: p.x, y: pick(...lines.map((l) => (l[i] as XY).y)) }));
  return `${line(edge(Math.min))}${line(edge(Math.max).reverse()).replace("M", "L")}Z`;
}

function low(points: XY[], x: number): number {
  return points.filter((p) => Math.abs(p.x - x) < 1).reduce((y, p) => Math.max(y, p.y), 0);
}
