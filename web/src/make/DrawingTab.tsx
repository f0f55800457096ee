import { Button } from "@mantine/core";
import { useParams } from "@tanstack/react-router";
import cx from "clsx";
import { useState } from "react";

import type { Schemas } from "../api/client";
import { useJob } from "../job/JobContext";
import { litBy } from "../job/picking";
import { Table, type TableColumn } from "../ui/Table";
import { Wait } from "../ui/Wait";
import { figure } from "../ui/units";
import css from "./make.module.css";
import { Thing } from "./Thing";
import { useMade } from "./useMade";

type Drawn = Schemas["Drawing"];

const wireColumns: TableColumn<Schemas["Made"]["wires"][number]>[] = [
  { key: "wire", head: "Wire", names: true, sort: (w) => w.number, cell: (w) => <Thing id={w.id} name={w.number} /> },
  { key: "from", head: "From", cell: (w) => `${w.from.name} ${w.from.terminal}` },
  { key: "to", head: "To", cell: (w) => `${w.to.name} ${w.to.terminal}` },
  { key: "size", head: "Size", sort: (w) => w.size, cell: (w) => w.size },
  { key: "colour", head: "Colour", cell: (w) => w.colour },
  { key: "cut", head: "Cut", set: "figure", sort: (w) => w.cutM, cell: (w) => figure(w.cutM, "m", 2) },
];

/** DrawingTab is the wiring drawing; a part or wire that is picked, there or in the list, is picked in both. */
export function DrawingTab() {
  const asked = useMade();
  const { id = "" } = useParams({ strict: false });
  const job = useJob();
  const picked = job.thing;
  const [whole, setWhole] = useState(false);
  if (!asked.answer) return <Wait asked={asked} what="Drawing" />;
  const { drawing, wires } = asked.answer;
  const near = litBy(job.plan, picked);
  return (
    <div>
      <p className="row">
        <Button size="compact-md" variant="default" onClick={() => setWhole(!whole)}>
          {whole ? "Large enough to read" : "The whole at once"}
        </Button>
        <a href={`/api/jobs/${id}/drawing.svg`}>This drawing as SVG, as it is saved</a>
        <span className="soft">What is picked here is picked in the lists, on the section and among the steps, and the other way round.</span>
      </p>
      <div className={css.drawing} role="region" aria-label="Drawing" tabIndex={0}>
        <Painted drawing={drawing} whole={whole} lit={near} pick={(of) => job.pick(of === picked ? null : of)} />
      </div>
      <Table
        caption="Wires"
        titled
        className={css.list}
        rows={wires}
        columns={wireColumns}
        keyOf={(w) => w.id}
        marked={(w) => near.has(w.id)}
      />
    </div>
  );
}

/** How large the drawing is shown, in pixels for each of its units, so that its smallest letters are read. */
const readable = 1.3;

interface Painting {
  drawing: Drawn;
  whole: boolean;
  lit: Set<string>;
  pick: (of: string) => void;
  /** How much speaks for something being wrong at a part or wire. */
  suspected?: Map<string, number>;
}

/** Painted paints the shapes that were laid out; nothing is placed here. */
export function Painted({ drawing, whole, lit, pick, suspected }: Painting) {
  return (
    <svg className={cx(css.wiring, lit.size > 0 && css.picking)} viewBox={`0 0 ${drawing.w} ${drawing.h}`} style={{ minWidth: whole ? 0 : drawing.w * readable }} role="img" aria-label="Wiring drawing; the list below reads it in order">
      {drawing.shapes.map((s, i) => {
        const at = s.at;
        const isLit = s.of !== undefined && lit.has(s.of);
        const share = s.of === undefined ? undefined : suspected?.get(s.of);
        const shade = share === undefined || s.kind === "text" ? undefined : ({ "--share": share } as React.CSSProperties);
        const look = { className: cx(css[s.class], isLit && css.lit, shade && css.suspect), style: shade, "data-suspect": shade ? "" : undefined, "data-shape": s.class, "data-lit": isLit || undefined };
        const onClick = s.of ? () => pick(s.of as string) : undefined;
        if (s.kind === "circle") return <circle key={i} {...look} cx={at[0]} cy={at[1]} r={at[2]} onClick={onClick} />;
        if (s.kind === "text")
          return (
            <text key={i} {...look} x={at[0]} y={at[1]} fontSize={s.size} textAnchor={s.start ? "start" : "middle"} onClick={onClick}>
              {s.text}
            </text>
          );
        const points = at.reduce((text, v, k) => text + v + (k % 2 === 0 ? "," : " "), "");
        return s.closed ? <polygon key={i} {...look} points={points} onClick={onClick} /> : <polyline key={i} {...look} points={points} onClick={onClick} />;
      })}
    </svg>
  );
}
