import { useJob } from "../job/JobContext";
import { gradeLine, gradeScale, line, solved, type Span, type XY } from "./geometry";

const height = 148;

/** GradeLine is the volts falling along the run: a band from the best state to the worst. */
export function GradeLine({ width, spans, gutter }: { width: number; spans: Map<string, Span>; gutter: number }) {
  const { plan } = useJob();
  const states = solved(plan);
  const volts = [...states.flatMap((s) => s.points.flatMap((p) => [p.inV, p.outV])), ...plan.marks.flatMap((m) => [m.low, m.high])];
  const grade = gradeScale(volts, 12, height - 10);
  const lines = states.map((s) => ({ state: s, points: gradeLine(s, spans, grade) }));
  const best = lines[0];
  const worst = lines.find((l) => l.state.worst);
  const right = width - 20;
  const coupling = spans.get("coupling") as Span;
  return (
    <svg className="grade" width={width} height={height} aria-hidden focusable="false">
      {grade.ticks.map((v) => (
        <g key={v} className="tick">
          <line x1={gutter} x2={right} y1={grade.y(v)} y2={grade.y(v)} />
          <text x={gutter - 8} y={grade.y(v) + 4} textAnchor="end">
            {v.toFixed(grade.ticks.some((t) => t * 2 !== Math.round(t * 2)) ? 2 : 1)} V
          </text>
        </g>
      ))}
      {plan.marks.map((m) => {
        const span = spans.get(m.column) as Span;
        if (m.kind === "wanted") {
          return (
            <g key={m.text} className="wanted">
              <rect x={span.left} width={span.right - span.left} y={grade.y(m.high)} height={Math.max(2, grade.y(m.low) - grade.y(m.high))} />
              <text x={span.right - 4} y={grade.y(m.high) - 4} textAnchor="end">
                {m.text}
              </text>
            </g>
          );
        }
        return (
          <g key={m.text} className="limit">
            <line x1={span.left - 6} x2={span.right + 6} y1={grade.y(m.low)} y2={grade.y(m.low)} />
            <text x={span.right + 8} y={grade.y(m.low) + 4}>
              {m.text}
            </text>
          </g>
        );
      })}
      {lines.length > 1 && <path className="band" d={band(lines.map((l) => l.points))} />}
      {lines.map(({ state, points }) => (
        <path key={state.id} className={`volts ${state === best?.state ? "best" : ""} ${state.worst ? "worst" : ""}`} d={line(points)} />
      ))}
      {best && <text className="stateName best" x={gutter + 6} y={(best.points[0] as XY).y - 6}>{best.state.label}</text>}
      {worst && worst !== best && (
        <text className="stateName worst" x={gutter + 6} y={(worst.points[0] as XY).y + 14}>
          {worst.state.label}
        </text>
      )}
      {worst && (
        <text className="worstSays" x={coupling.left - 8} y={low(worst.points, coupling.left) + 16} textAnchor="end">
          {worst.state.inV.toFixed(2)} V, {worst.state.says}: the worst
        </text>
      )}
      {plan.states.filter((s) => s.fails).slice(0, 1).map((s) => (
        <text key={s.id} className="fails" x={gutter + 6} y={height - 14}>
          {s.label}: {s.fails}
        </text>
      ))}
    </svg>
  );
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
