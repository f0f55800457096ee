import css from "./Tick.module.css";

/** Tick is a line of a chart's scale with its figure: level, or upright with the figure below. */
export function Tick({ from, to, at, upright, gap = 5, children }: { from: number; to: number; at: number; upright?: boolean; gap?: number; children: string | number | (string | number)[] }) {
  return (
    <g className={css.tick}>
      {upright ? <line x1={at} x2={at} y1={from} y2={to} /> : <line x1={from} x2={to} y1={at} y2={at} />}
      {upright ? (
        <text x={at} y={to + 14} textAnchor="middle">
          {children}
        </text>
      ) : (
        <text x={from - gap} y={at + 4} textAnchor="end">
          {children}
        </text>
      )}
    </g>
  );
}
