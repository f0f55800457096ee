import { Button } from "@mantine/core";
import { scaleLinear } from "d3-scale";
import { area } from "d3-shape";
import { useState } from "react";

import { api, asFile, take, whyNot, type Schemas } from "../api/client";
import { valueAt, type Value } from "../job/document";
import { useJob } from "../job/JobContext";
import { FileDrop } from "../ui/FileDrop";
import { biggestLog } from "../ui/readText";
import { Tick } from "../ui/Tick";
import { Wrong } from "../ui/Wait";
import { answersOf, easedV, numbersOf, type Judgement } from "./loggedTest";
import css from "./regulation.module.css";

const box = { width: 364, height: 188, left: 40, right: 8, top: 18, bottom: 28 };

const kind: Record<Judgement["class"], string> = {
  fixed: "Fixed",
  compensated: "Temperature-compensated",
  variable: "Variable",
  "not charging": "Not charging",
  "not seen to vary": "Not seen to vary",
  "cannot tell": "Cannot tell",
};

const sure: Record<Judgement["sure"], string> = { clear: "nothing else explains it", likely: "it fits best", open: "not proven" };

interface Read {
  name: string;
  tested: Schemas["Tested"];
}

/** LoggedTest reads a recording of the start battery and says how the alternator is regulated. */
export function LoggedTest() {
  const { state, dispatch, mayChange } = useJob();
  const readOnly = !mayChange("alternator");
  const [read, setRead] = useState<Read | null>(null);
  const [wrong, setWrong] = useState<string | null>(null);
  if (readOnly) return null;
  const open = async (file: File) => {
    try {
      setRead({ name: file.name, tested: await take(api.POST("/api/regulation", asFile(file))) });
      setWrong(null);
    } catch (error) {
      setRead(null);
      setWrong(`${file.name}: ${whyNot(error)}`);
    }
  };
  const answers = read && answersOf(read.tested, Number(valueAt(state.doc, "vehicle.systemVolts") ?? 12));
  return (
    <FileDrop label="Read a logged test" name="Recording of the start battery" endings={[".csv", ".txt", ".tsv"]} most={biggestLog} onRefused={setWrong} onFile={(file) => void open(file)}>
      {wrong && (
        <Wrong>{wrong}</Wrong>
      )}
      {!read && !wrong && <p className="soft">A table of time and start battery volts, fifteen to twenty minutes across idle, cruise and lift-off; rpm or speed if you have it.</p>}
      {read && <Judged read={read} answers={answers} take={(values) => dispatch({ type: "setAll", values })} />}
    </FileDrop>
  );
}

function Judged({ read, answers, take }: { read: Read; answers: Record<string, Value> | null; take: (values: Record<string, Value>) => void }) {
  const { judgement } = read.tested;
  return (
    <div className={css.judged} role="status" aria-label="What the test says">
      <p>
        <b>{kind[judgement.class]}</b>, {sure[judgement.sure]}. {judgement.why}
      </p>
      <Recording judgement={judgement} />
      {judgement.missing.length > 0 && <p>To be surer, record {judgement.missing.join("; ")}.</p>}
      {answers ? (
        <Button size="compact-sm" onClick={() => take(answers)}>
          Take as tested: {kind[judgement.class].toLowerCase()}
        </Button>
      ) : (
        <p>The log proves no kind of regulation, so the job stays as it was.</p>
      )}
      <ol className={css.findings}>
        {judgement.findings.map((f, i) => (
          <li key={i}>
            <b>{i + 1}</b> {minutes(f.fromS)}: {f.text}
          </li>
        ))}
      </ol>
      <p className="soft">{[read.name, ...judgement.taken].join(". ")}.</p>
    </div>
  );
}

/** Recording is the curve that was judged, with what was found in it. */
function Recording({ judgement }: { judgement: Judgement }) {
  const { curve } = judgement;
  const from = curve[0]?.atS ?? 0;
  const x = scaleLinear([from, curve.at(-1)?.atS ?? 1], [box.left, box.width - box.right]);
  const minute = scaleLinear(x.domain().map((s) => s / 60), x.range());
  const y = scaleLinear([Math.min(12, ...curve.map((s) => s.low)), Math.max(15.2, ...curve.map((s) => s.high))], [box.height - box.bottom, box.top]);
  const path = area<Schemas["Seen"]>()
    .x((s) => x(s.atS))
    .y0((s) => y(s.low) + 0.6)
    .y1((s) => y(s.high) - 0.6);
  const floor = box.height - box.bottom;
  return (
    <svg className={css.recording} viewBox={`0 0 ${box.width} ${box.height}`} width={box.width} height={box.height} aria-hidden focusable="false">
      {judgement.findings.map((f, i) => (
        <rect key={i} className={css.found} x={x(f.fromS)} y={box.top} width={Math.max(2, x(f.toS) - x(f.fromS))} height={floor - box.top} />
      ))}
      {y.ticks(5).map((v) => (
        <Tick key={v} from={box.left} to={box.width - box.right} at={y(v)}>
          {v}
        </Tick>
      ))}
      <text x={4} y={10}>
        V{judgement.system === 24 ? ", halved" : ""}
      </text>
      {minute.ticks(6).map((t) => (
        <text key={t} x={minute(t)} y={floor + 14} textAnchor="middle">
          {t}
        </text>
      ))}
      <text x={box.width - box.right} y={floor + 26} textAnchor="end">
        min
      </text>
      <line className={css.eased} x1={box.left} x2={box.width - box.right} y1={y(easedV)} y2={y(easedV)} />
      <text className={css.easedName} x={box.left + 4} y={y(easedV) - 4}>
        {easedV} V
      </text>
      <path className={css.recorded} d={path(curve) ?? ""} />
      {numbersOf(judgement, x).map((n) => (
        <text key={n.number} className={css.foundNumber} x={n.x} y={10} textAnchor="middle">
          {n.number}
        </text>
      ))}
    </svg>
  );
}

function minutes(s: number): string {
  return `${Math.floor(s / 60)}:${String(Math.floor(s % 60)).padStart(2, "0")}`;
}
