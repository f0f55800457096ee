import cx from "clsx";
import type { Column } from "../api/client";
import { useShown } from "../job/JobContext";
import { layOut, line, middle, rounded, vehicleScale, type Box, type Span, type XY } from "./geometry";
import css from "./section.module.css";
import { scaleBar } from "../ui/units";

const height = 196;
/** ground is where the vehicle stands on the sheet, in px. */
const ground = 160;

/** Drawing is the run on the vehicle's side view, with leaders to the columns. */
export function Drawing({ width, spans }: { width: number; spans: Map<string, Span> }) {
  const { plan, picked, pick } = useShown();
  const box = { x: 240, y: 12, w: width - 340, h: ground - 12 };
  const scale = vehicleScale(plan.vehicle, box);
  const within = { left: Math.max(scale.x(0) - 4, 234), right: scale.x(plan.vehicle.lengthM) - 6 };
  const l = layOut(plan, scale, within);
  const lit = (id: string) => picked === id && css.lit;
  return (
    <svg data-drawing width={width} height={height} aria-hidden focusable="false">
      <defs>
        <pattern id="steel" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <line x1="0" y1="0" x2="0" y2="7" className={css.hatch} />
        </pattern>
      </defs>
      <g className={css.vehicle}>
        {plan.vehicle.outlines.map((o, i) => (
          <path key={i} d={rounded(o.map((p) => ({ x: scale.x(p.x), y: scale.y(p.y) })), 16)} />
        ))}
        {plan.vehicle.wheels.map((w) => (
          <circle key={w.x} cx={scale.x(w.x)} cy={ground - 20} r={20} />
        ))}
      </g>
      <line className={css.groundLine} x1={within.left - 12} x2={within.right + 12} y1={ground} y2={ground} />
      <ScaleBar x={within.right + 18} y={ground} pxPerM={scale.pxPerM} />
      {plan.columns.map((c) => {
        const hook = l.hooks.get(c.id);
        const span = spans.get(c.id);
        if (!hook || !span) return null;
        const foot = middle(span);
        return <path key={c.id} className={cx(css.leader, lit(c.id))} d={line([hook, { x: hook.x, y: ground + 8 }, { x: foot, y: height - 4 }, { x: foot, y: height }])} />;
      })}
      {l.returns.map((r) => (
        <g key={r.id} className={r.kind === "chassis" ? css.chassis : css.return}>
          {r.kind === "chassis" ? <Steel points={r.points} /> : <path d={line(r.points)} />}
        </g>
      ))}
      {l.earths.map((e) => (
        <g key={e.id} className={css.earth}>
          <circle cx={e.at.x} cy={e.at.y} r={4} />
          <text x={e.at.x + 7} y={e.at.y + 14}>
            {e.id}
          </text>
        </g>
      ))}
      {l.trigger && (
        <g className={css.signal}>
          <path d={line(l.trigger)} />
          {l.feedPoint && <circle cx={l.feedPoint.x} cy={l.feedPoint.y} r={3} />}
          {l.feedPoint && (
            <text x={l.feedPoint.x + 8} y={l.feedPoint.y - 5}>
              T1 engine-running signal
            </text>
          )}
        </g>
      )}
      <g className={css.feed}>
        {l.lead.length > 0 && <path d={line(l.lead)} className={cx(lit("lead"))} />}
        {[...l.feeds].map(([id, points]) => (
          <path key={id} d={line(points)} className={cx(lit(id))} onClick={() => pick(id)} />
        ))}
      </g>
      {plan.columns.map((c) => {
        const part = l.parts.get(c.id);
        return part && <Symbol key={c.id} column={c} box={part} lit={picked === c.id} onPick={() => pick(c.id)} />;
      })}
    </svg>
  );
}

function Steel({ points }: { points: XY[] }) {
  const [a, b] = [points[0] as XY, points[1] as XY];
  const left = Math.min(a.x, b.x);
  const wide = Math.abs(a.x - b.x);
  return (
    <>
      <rect x={left} y={a.y} width={wide} height={7} fill="url(#steel)" />
      <line x1={left} x2={left + wide} y1={a.y} y2={a.y} />
    </>
  );
}

function ScaleBar({ x, y, pxPerM }: { x: number; y: number; pxPerM: number }) {
  const { metres, says } = scaleBar();
  return (
    <g className={css.scaleBar}>
      <path d={`M${x} ${y - 4}v4h${pxPerM * metres}v-4`} />
      <text x={x} y={y - 9}>
        {says}
      </text>
    </g>
  );
}

/** Symbol is a part on the drawing, after IEC 60617. */
function Symbol({ column, box, lit, onPick }: { column: Column; box: Box; lit: boolean; onPick: () => void }) {
  const { x, y, w, h } = box;
  const mid = y + h / 2;
  return (
    <g className={cx(css.symbol, lit && css.lit)} data-symbol onClick={onPick}>
      {column.kind === "alternator" ? (
        <>
          <circle cx={x + w / 2} cy={mid} r={w / 2} />
          <text x={x + w / 2} y={mid + 4} textAnchor="middle">
            G
          </text>
        </>
      ) : (
        <rect x={x} y={y} width={w} height={h} />
      )}
      {column.kind === "battery" && (
        <>
          <text x={x + 7} y={mid + 1}>
            +
          </text>
          <text x={x + w - 14} y={mid + 1}>
            −
          </text>
        </>
      )}
      {column.kind === "fuse" && <line x1={x} x2={x + w} y1={mid} y2={mid} />}
      {column.kind === "charger" && <line x1={x} x2={x + w} y1={y + h} y2={y} />}
      {column.kind === "relay" && <path d={`M${x + 5} ${mid}h6l12 -8M${x + w - 5} ${mid}h-6`} />}
      {column.kind === "splitter" && <path d={[mid - 6, mid + 6].map((at) => `M${x + 4} ${at}h8m0 -4v8l9 -4zm9 0v8m0 -4h8`).join("")} />}
      {column.kind === "switch" && <path d={`M${x + 2} ${mid}h3l${w - 10} -7M${x + w - 2} ${mid}h-3M${x + w / 2} ${mid - 4}v${-h / 2 + 2}m-4 0h8`} />}
      {column.kind === "outlet" && <circle cx={x + w / 2} cy={mid} r={Math.min(w, h) / 3} />}
      {column.kind === "plug" && <path d={`M${x + 3} ${y + 5}l4 6l-4 6M${x + 8} ${y + 5}l4 6l-4 6`} />}
    </g>
  );
}
