import cx from "clsx";
import type { Column, Schemas } from "../api/client";
import { useShown } from "../job/JobContext";
import { shownState, type Span } from "./geometry";
import css from "./section.module.css";

type RowKey = "part" | "carries" | "loses" | "heat";
const rows: { key: RowKey; name: string; alone: string }[] = [
  { key: "part", name: "Part", alone: "Part" },
  { key: "carries", name: "Carries of limit", alone: "Carries" },
  { key: "loses", name: "Loses", alone: "Loses" },
  { key: "heat", name: "Gets to", alone: "Gets to at most" },
];

const mark: Record<string, string> = { good: "", caution: " ▲", bad: " ■" };
export const levelWord: Record<string, string> = { good: "", caution: "caution", bad: "stop" };

/** Rows are the figures under the grade line, a column to a part. */
export function Rows({ spans, gutter }: { spans: Map<string, Span>; gutter: number }) {
  const { plan, shown } = useShown();
  const state = shownState(plan, shown);
  return (
    <div className={css.rows} aria-hidden>
      {rows.map((r) => (
        <div key={r.key} className={css.rowLine}>
          <span className={css.rowName} style={{ width: gutter - 12 }}>
            {state ? r.alone : r.name}
          </span>
          {plan.columns.map((c) => (
            <CellAt key={c.id} column={c} row={r.key} span={spans.get(c.id) as Span} state={state} />
          ))}
        </div>
      ))}
      <div className={css.rowLine}>
        <span className={css.rowName} style={{ width: gutter - 12 }}>
          Joints lose
        </span>
        {plan.joints.map((j) => (
          <span key={j.id} className={cx(css.cell, css.joint)} data-joint={j.id} style={{ left: (spans.get(j.after) as Span).right - 40, width: 80 }} title={j.says}>
            {j.text}
          </span>
        ))}
      </div>
      {(["front", "back"] as const).map((side) => (
        <div key={side} className={cx(css.rowLine, css.covers)}>
          <span className={css.rowName} style={{ width: gutter - 12 }}>
            Fused from {side}
          </span>
          {plan.covers.filter((c) => c.side === side).map((c) => (
            <Bar key={c.fuse} cover={c} spans={spans} />
          ))}
        </div>
      ))}
      <div className={cx(css.rowLine, css.returns)}>
        <span className={css.rowName} style={{ width: gutter - 12 }}>
          Return
        </span>
        <Returns segments={plan.returns} spans={spans} />
      </div>
    </div>
  );
}

/** cellOf is a figure of a part: of its worst, or of the one state that is shown. */
export function cellOf(column: Column, row: RowKey, state: Schemas["State"] | undefined): Schemas["Cell"] {
  const there = state?.points.find((p) => p.column === column.id);
  if (!there || (row !== "carries" && row !== "loses")) return column[row];
  return { text: there[row], level: "good" };
}

function CellAt({ column, row, span, state }: { column: Column; row: RowKey; span: Span; state: Schemas["State"] | undefined }) {
  const cell = cellOf(column, row, state);
  return (
    <span className={cx(css.cell, css[row])} data-level={cell.text === "–" ? undefined : cell.level} data-cell={`${column.id}.${row}`} style={{ left: span.left, width: span.right - span.left }} title={`${column.name}: ${cell.text}${cell.assumed ? ", assumed" : ""} ${levelWord[cell.level]}`}>
      <span className={cell.assumed ? "taken" : undefined}>{cell.text}</span>
      {mark[cell.level]}
    </span>
  );
}

/** tip is the width of the bare stretch before a fuse, in px: not to scale. */
const tip = 16;

function Bar({ cover, spans }: { cover: Schemas["Cover"]; spans: Map<string, Span> }) {
  const from = spans.get(cover.from) as Span;
  const to = spans.get(cover.to) as Span;
  const front = cover.side === "front";
  return (
    <>
      <span className={css.bare} style={front ? { left: from.left, width: tip } : { left: to.right - tip, width: tip }} title={cover.bare} />
      <span className={css.bareText} style={front ? { right: `calc(100% - ${from.left - 6}px)` } : { left: to.right + 6 }}>
        {cover.bare}
      </span>
      <span className={css.cover} data-level={cover.level} data-cover={cover.fuse} style={{ left: from.left + (front ? tip : 0), width: to.right - from.left - tip }} title={cover.text}>
        {cover.text}
      </span>
    </>
  );
}

function Returns({ segments, spans }: { segments: Schemas["Segment"][]; spans: Map<string, Span> }) {
  // Segments that start under the same column share its span.
  return segments.map((s) => {
    const from = spans.get(s.from) as Span;
    const to = spans.get(s.to) as Span;
    const left = Math.min(from.left, to.left);
    const right = Math.max(from.right, to.right);
    const before = segments.find((o) => o !== s && (spans.get(o.to) as Span).right > left && (spans.get(o.from) as Span).left < left);
    const start = before && s.kind !== "chassis" ? (spans.get(s.from) as Span).left : left;
    const after = segments.find((o) => o !== s && (spans.get(o.from) as Span).left < right && (spans.get(o.from) as Span).left > left);
    const end = after ? (spans.get(after.from) as Span).left : right;
    return (
      <span key={s.id} className={css.segment} data-kind={s.kind} style={{ left: start, width: end - start }} title={s.text}>
        <span>{s.text}</span>
      </span>
    );
  });
}
