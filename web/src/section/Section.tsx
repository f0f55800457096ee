import cx from "clsx";
import { useElementSize, useMediaQuery } from "@mantine/hooks";
import { Suspense } from "react";

import type { Note } from "../api/client";
import { useShown } from "../job/JobContext";
import { Drawing } from "./Drawing";
import { columnSpans, middle } from "./geometry";
import { GradeLine } from "./GradeLine";
import { Flag } from "./Notes";
import { PartPanel, useFetched } from "./opened";
import { Reading } from "./Reading";
import { Rows } from "./Rows";
import { StateChoice } from "./StateChoice";
import { Upright } from "./Upright";
import css from "./section.module.css";

/** gutter is the room for the rows' names, in px. */
const gutter = 116;
const margin = 20;

/** Section is sheet 1: the run on the vehicle, its levels and its rows, on one line. */
export function Section() {
  useFetched();
  const narrow = useMediaQuery("(max-width: 760px)", false, { getInitialValueInEffect: false });
  return narrow ? <Upright /> : <Wide />;
}

function Wide() {
  const { plan, picked, pick } = useShown();
  const { ref, width } = useElementSize();
  const spans = columnSpans(plan.columns, gutter, Math.max(width - margin, 700));
  const open = plan.columns.find((c) => c.id === picked);
  const span = open && spans.get(open.id);
  // With nothing picked, the weakest part stands out.
  const weak = plan.notes.find((n) => n.severity !== "remark");
  const lifted = span ?? (weak && spans.get(weak.column));
  const panelLeft = span && middle(span) > width / 2;
  const flags = new Map<string, number[]>();
  plan.notes.forEach((n, i) => flags.set(n.column, [...(flags.get(n.column) ?? []), i]));

  return (
    <div className={css.section} ref={ref} data-worst={plan.states.find((s) => s.worst)?.id}>
      <Reading />
      {width > 0 && (
        <>
          {lifted && <div className={cx(css.lifted, !(span) && css.weak)} style={{ left: lifted.left - 2, width: lifted.right - lifted.left + 4 }} aria-hidden />}
          <StateChoice />
          <Drawing width={width} spans={spans} />
          <div className={css.heads} role="group" aria-label="Parts">
            {plan.columns.map((c) => {
              const s = spans.get(c.id);
              return (
                s && (
                  <button
                    key={c.id}
                    type="button"
                    className={css.head}
                    data-part={c.id}
                    aria-pressed={picked === c.id}
                    style={{ left: s.left, width: s.right - s.left }}
                    onClick={() => pick(picked === c.id ? null : c.id)}
                  >
                    {(flags.get(c.id) ?? []).map((i) => (
                      <Flag key={i} number={i + 1} note={plan.notes[i] as Note} />
                    ))}
                    {c.name}
                    {c.choice?.pinned && <span className={css.pin}> pinned</span>}
                  </button>
                )
              );
            })}
          </div>
          <GradeLine width={width} spans={spans} gutter={gutter} />
          <Rows spans={spans} gutter={gutter} />
          {open && span && (
            <div className={css.opened} style={panelLeft ? { right: width - span.left + 8 } : { left: span.right + 8 }}>
              <Suspense>
                <PartPanel column={open} />
              </Suspense>
            </div>
          )}
        </>
      )}
    </div>
  );
}
