import { Button } from "@mantine/core";
import { useParams } from "@tanstack/react-router";
import { useState } from "react";

import type { Schemas } from "../api/client";
import { useJob } from "../job/JobContext";
import { litBy } from "../job/picking";
import { Table, type TableColumn } from "../ui/Table";
import { Wait } from "../ui/Wait";
import { figure } from "../ui/units";
import css from "./make.module.css";
import { Painted } from "./Painted";
import { Thing } from "./Thing";
import { useMade } from "./useMade";
import { usePanZoom } from "./usePanZoom";
import { isWhole } from "./view";

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
  const [unfolded, unfold] = useState(false);
  const drawing = asked.answer?.[unfolded ? "drawing" : "folded"];
  const look = usePanZoom(drawing?.w ?? 1, drawing?.h ?? 1);
  if (!asked.answer || !drawing) return <Wait asked={asked} what="Drawing" />;
  const { wires } = asked.answer;
  const folds = asked.answer.folded.parts.length < asked.answer.drawing.parts.length;
  const near = litBy(job.plan, picked);
  const pick = (of: string) => !look.hasDragged() && job.pick(of === picked ? null : of);
  return (
    <div>
      <p className="row">
        <Button size="compact-md" variant="default" onClick={look.nearer} title="+; or the wheel, or two fingers">
          Nearer
        </Button>
        <Button size="compact-md" variant="default" disabled={isWhole(look.view, look.of)} onClick={look.further} title="−">
          Further
        </Button>
        <Button size="compact-md" variant="default" disabled={isWhole(look.view, look.of)} onClick={look.all}>
          The whole
        </Button>
        {folds && (
          <Button size="compact-md" variant="default" aria-pressed={unfolded} onClick={() => unfold(!unfolded)}>
            {unfolded ? "All loads as one" : "Each load"}
          </Button>
        )}
        <a href={`/api/jobs/${id}/drawing.svg`}>This drawing as SVG, as it is saved</a>
        <span className="soft">What is picked here is picked in the lists, on the section and among the steps, and the other way round.</span>
      </p>
      <div className={css.drawing} data-near={!isWhole(look.view, look.of) || undefined} role="region" aria-label="Drawing" tabIndex={0} {...look.frame}>
        <Painted drawing={drawing} view={look.view} lit={near} pick={pick} />
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
