import cx from "clsx";
import { useElementSize } from "@mantine/hooks";
import { Suspense } from "react";

import { Cures } from "../job/Cures";
import { useShown } from "../job/JobContext";
import { Flag, Notes } from "./Notes";
import { rounded, vehicleScale } from "./geometry";
import { PartPanel } from "./opened";
import { Reading } from "./Reading";
import { cellOf, levelWord } from "./Rows";
import { severityWord } from "../ui/words";
import { shownState } from "./geometry";
import { StateChoice } from "./StateChoice";
import drawing from "./section.module.css";
import css from "./upright.module.css";

/** Grade is a part's piece of the grade line, which goes down the page beside the run: to the left are fewer volts. */
function Grade({ from, to }: { from: number; to: number }) {
  return (
    <svg className={css.grade} viewBox="0 0 100 100" preserveAspectRatio="none" aria-hidden focusable="false">
      <polyline points={`${from},0 ${from},25 ${to},75 ${to},100`} vectorEffect="non-scaling-stroke" />
    </svg>
  );
}

/** Upright is the section on a phone: the run goes down the page, a part to a row. */
export function Upright() {
  const { plan, picked, pick, shown } = useShown();
  const alone = shownState(plan, shown);
  const there = alone ?? plan.states.find((s) => s.worst);
  const voltsAt = (id: string) => there?.points.find((p) => p.column === id);
  const all = there?.points.flatMap((p) => [p.inV, p.outV]) ?? [];
  const [low, high] = [Math.min(...all), Math.max(...all)];
  /** x is where a voltage stands across the grade line, in percent. */
  const x = (volts: number) => 6 + (88 * (volts - low)) / Math.max(high - low, 0.1);
  const weakest = plan.notes[0];
  const failing = plan.states.find((s) => s.fails && s.worst);
  return (
    <div className={css.upright}>
      <Reading />
      {weakest && (
        <div className={css.weakest}>
          <Flag number={1} note={weakest} /> <b>{severityWord[weakest.severity]}.</b> {weakest.text} <Cures note={weakest} />
        </div>
      )}
      <Silhouette />
      <StateChoice />
      {failing && !alone && (
        <p className={css.uprightState}>
          <b>{failing.label}</b>: {failing.fails}
        </p>
      )}
      {all.length > 0 && (
        <p className={css.scale} aria-hidden>
          {low.toFixed(1)} <span>volts</span> {high.toFixed(1)} V
        </p>
      )}
      <ol className={css.run}>
        {plan.columns.map((c) => {
          const v = voltsAt(c.id);
          const open = picked === c.id;
          return (
            <li key={c.id} className={cx(open && css.open)}>
              <button type="button" aria-expanded={open} data-part={c.id} onClick={() => pick(open ? null : c.id)}>
                <span className={css.bead} data-kind={c.kind} aria-hidden />
                <span>
                  {plan.notes.map((n, i) => n.column === c.id && <Flag key={i} number={i + 1} note={n} />)}
                  <b>{c.name}</b> <span className={c.part.assumed ? "taken" : undefined}>{c.part.text}</span>
                  {c.part.assumed && <span className="assumed"> assumed</span>}
                  {c.choice?.pinned && <span className={drawing.pin}> pinned</span>}
                </span>
                <span className={css.uprightVolts}>{v ? `${v.outV.toFixed(2)} V` : ""}</span>
                {v && <Grade from={x(v.inV)} to={x(v.outV)} />}
                <span className={css.uprightFigures}>
                  {(["carries", "loses", "heat"] as const).map((row) => {
                    const cell = cellOf(c, row, alone);
                    return (
                      cell.text !== "–" && (
                        <span key={row} data-level={cell.level}>
                          {row === "heat" ? "gets to" : row} {cell.text} {levelWord[cell.level]}
                        </span>
                      )
                    );
                  })}
                </span>
              </button>
              {open && (
                <Suspense>
                  <PartPanel column={c} />
                </Suspense>
              )}
              {plan.joints.filter((j) => j.after === c.id).map((j) => (
                <p key={j.id} className={css.uprightJoint}>
                  {j.says}
                </p>
              ))}
            </li>
          );
        })}
      </ol>
      <dl className={css.uprightCovers}>
        {plan.covers.map((c) => (
          <div key={c.fuse} data-level={c.level}>
            <dt>Fused from {c.side}</dt>
            <dd>{c.text}</dd>
          </div>
        ))}
        <div>
          <dt>Return</dt>
          <dd>{plan.returns.map((r) => r.text).join(" · ")}</dd>
        </div>
      </dl>
      <Notes />
    </div>
  );
}

function Silhouette() {
  const { plan } = useShown();
  const { ref, width } = useElementSize();
  const scale = vehicleScale(plan.vehicle, { x: 8, y: 4, w: Math.max(width - 16, 100), h: 76 });
  return (
    <div ref={ref} className={css.silhouette}>
      <svg width={width} height={92} aria-hidden focusable="false">
        <g className={drawing.vehicle}>
          {plan.vehicle.outlines.map((o, i) => (
            <path key={i} d={rounded(o.map((p) => ({ x: scale.x(p.x), y: scale.y(p.y) })), 8)} />
          ))}
          {plan.vehicle.wheels.map((w) => (
            <circle key={w.x} cx={scale.x(w.x)} cy={78} r={9} />
          ))}
        </g>
        <g className={drawing.feed}>
          <path d={`M${scale.x(plan.columns[0]?.at.x ?? 0)} 62H${scale.x(plan.columns.at(-1)?.at.x ?? 0)}`} />
        </g>
        {plan.columns.filter((c) => c.kind !== "cable" && c.kind !== "lead").map((c) => (
          <circle key={c.id} className={css.dot} cx={scale.x(c.at.x)} cy={62} r={4} />
        ))}
      </svg>
    </div>
  );
}
