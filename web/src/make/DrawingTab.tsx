import { Button } from "@mantine/core";
import { useParams } from "@tanstack/react-router";
import { useState } from "react";

import type { Schemas } from "../api/client";
import { useJob } from "../job/JobContext";
import { litBy } from "../job/picking";
import { Wait } from "../ui/Wait";
import { useMade } from "./useMade";

type Drawn = Schemas["Drawing"];

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
    <div className="drawingTab">
      <p className="row">
        <Button size="compact-md" variant="default" onClick={() => setWhole(!whole)}>
          {whole ? "Large enough to read" : "The whole at once"}
        </Button>
        <a href={`/api/jobs/${id}/drawing.svg`}>This drawing as SVG, as it is saved</a>
        <span className="soft">What is picked here is picked in the lists, on the section and among the steps, and the other way round.</span>
      </p>
      <div className="drawingSheet" role="region" aria-label="Drawing" tabIndex={0}>
        <Painted drawing={drawing} whole={whole} lit={near} pick={(of) => job.pick(of === picked ? null : of)} />
      </div>
      <table className="wireList">
        <caption>Wires</caption>
        <thead>
          <tr>
            <th scope="col">Wire</th>
            <th scope="col">From</th>
            <th scope="col">To</th>
            <th scope="col">Size</th>
            <th scope="col">Colour</th>
            <th scope="col">Cut</th>
          </tr>
        </thead>
        <tbody>
          {wires.map((w) => (
            <tr key={w.id} className={near.has(w.id) ? "fitted" : ""}>
              <th scope="row">
                <button type="button" className="plainButton" aria-pressed={picked === w.id} onClick={() => job.pick(picked === w.id ? null : w.id)}>
                  {w.number}
                </button>
              </th>
              <td>
                {w.from.name} {w.from.terminal}
              </td>
              <td>
                {w.to.name} {w.to.terminal}
              </td>
              <td>{w.size}</td>
              <td>{w.colour}</td>
              <td>{w.cutM.toFixed(2)} m</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

/** How large the drawing is shown, in pixels for each of its units, so that its smallest letters are read. */
const readable = 1.3;

/** Painted paints the shapes that were laid out; nothing is placed here. */
function Painted({ drawing, whole, lit, pick }: { drawing: Drawn; whole: boolean; lit: Set<string>; pick: (of: string) => void }) {
  return (
    <svg className={`wiring ${lit.size > 0 ? "picking" : ""}`} viewBox={`0 0 ${drawing.w} ${drawing.h}`} style={{ minWidth: whole ? 0 : drawing.w * readable }} role="img" aria-label="Wiring drawing; the list below reads it in order">
      {drawing.shapes.map((s, i) => {
        const at = s.at;
        const className = `${s.class} ${s.of && lit.has(s.of) ? "lit" : ""}`;
        const onClick = s.of ? () => pick(s.of as string) : undefined;
        if (s.kind === "circle") return <circle key={i} className={className} cx={at[0]} cy={at[1]} r={at[2]} onClick={onClick} />;
        if (s.kind === "text")
          return (
            <text key={i} className={className} x={at[0]} y={at[1]} fontSize={s.size} textAnchor={s.start ? "start" : "middle"} onClick={onClick}>
              {s.text}
            </text>
          );
        const points = at.reduce((text, v, k) => text + v + (k % 2 === 0 ? "," : " "), "");
        return s.closed ? <polygon key={i} className={className} points={points} onClick={onClick} /> : <polyline key={i} className={className} points={points} onClick={onClick} />;
      })}
    </svg>
  );
}
