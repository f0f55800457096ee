import { Button, Tabs } from "@mantine/core";
import { useElementSize } from "@mantine/hooks";
import { useCallback, useMemo, useState } from "react";

import { useJob } from "../job/JobContext";
import { Sheet } from "../job/Sheet";
import { useStored } from "../ui/stored";
import { Wait } from "../ui/Wait";
import { Chances } from "./Chances";
import { Compare } from "./Compare";
import { Curves } from "./Curves";
import { rowsOf } from "./csv";
import { doing } from "./curves";
import { handOver } from "../ui/handOver";
import { number } from "../ui/units";
import { Moment } from "./Moment";
import { Scrubber } from "./Scrubber";
import { Setup } from "./Setup";
import { SweepMap } from "./SweepMap";
import { clock, indexAt, type Window } from "./time";
import { useTrial, type Trial } from "./useTrial";
import { Events, Verdicts } from "./Verdicts";
import css from "./day.module.css";

/** DaySheet is sheet 3: the installation through days of driving and parking. */
export default function DaySheet() {
  const { id, number: jobNumber, state } = useJob();
  const [window, setWindow] = useState<Window | null>(null);
  const asked = useTrial(state.doc, window);
  const { answer: trial, asking, failed } = asked;
  return (
    <Sheet name="day">
      {trial ? (
        <Run key={trial.days} trial={trial} running={asking} failed={failed} id={id} file={`day-${jobNumber}.csv`} zoomed={window} zoom={setWindow} />
      ) : (
        <Wait asked={asked} what="Running through the days" />
      )}
    </Sheet>
  );
}

interface RunProps {
  trial: Trial;
  running: boolean;
  failed: Error | null;
  id: string;
  file: string;
  /** The stretch that is looked at closely; null is all of it. */
  zoomed: Window | null;
  zoom: (w: Window | null) => void;
}

function Run({ trial, running, failed, id, file, zoomed, zoom }: RunProps) {
  const { plan } = useJob();
  const end = trial.days * 86400;
  const window = useMemo(() => zoomed ?? { from: 0, to: end }, [zoomed, end]);
  const [at, setAt] = useState(() => opening(trial));
  const { ref, width } = useElementSize();
  const index = indexAt(trial.series.t, at);
  const move = useCallback((t: number) => setAt(t), []);
  const show = (w: Window) => {
    zoom(w.to - w.from < end ? w : null);
    setAt((now) => Math.min(w.to, Math.max(w.from, now)));
  };
  const goTo = (t: number) => {
    if (t < window.from || t > window.to) zoom(null);
    setAt(t);
  };
  // What just happened, and at which part.
  const here = trial.events.findLast((e) => Math.abs(e.t - at) < 1.5);
  const s = trial.series;
  const value = (list: number[], digits: number) => number(list[index] ?? 0, digits);
  const coupling = plan.columns.some((c) => c.id === "coupling" && c.kind === "relay") ? `contact ${s.stage[index]}` : `charger ${s.stage[index] === "resting" ? "resting" : `in ${s.stage[index]}`}`;
  const says = `${doing(s.kind[index] ?? "")}: aux battery ${value(s.auxSOC, 0)} %, ${value(s.auxA, 0)} A at ${value(s.auxV, 1)} V; start battery ${value(s.busV, 1)} V; ${coupling}`;
  return (
    <div className={css.day} data-running={running}>
      <div className={css.dayHead} data-day-head>
        <span>
          <b>{trial.days} days</b>, {trial.driving}
        </span>
        <span className="soft" role="status">
          {failed ? "The server does not answer; this is the last run." : running ? "running …" : ""}
        </span>
        <span className="gap" />
        <Button size="compact-sm" variant="default" onClick={() => handOver(rowsOf(trial), file, "text/csv")}>
          CSV
        </Button>
      </div>
      <div className={css.dayMain}>
        <div className={css.dayLeft} ref={ref}>
          {width > 0 && (
            <>
              <Scrubber end={end} window={window} onWindow={show} at={at} onMove={move} events={trial.events} says={says} />
              <Moment trial={trial} index={index} width={width} lit={here?.part} />
              <p className={css.saysNow} data-says>
                <b>{clock(at)}</b> {here && <b className={css.event}>{here.text}; </b>}
                {says}
              </p>
              <Curves series={s} events={trial.events} window={window} width={width} at={at} index={index} onMove={move} />
            </>
          )}
        </div>
        <DayTabs trial={trial} at={at} goTo={goTo} id={id} />
      </div>
    </div>
  );
}

/** opening is where the cursor begins: at what is wrong, or well into the first charge. */
function opening(trial: Trial): number {
  const wrong = trial.verdicts.find((v) => v.level !== "good" && v.atS >= 0);
  const charges = trial.events.find((e) => e.id === "charger.on" || e.id === "join.closes");
  return wrong?.atS ?? Math.min(trial.days * 86400, (charges?.t ?? 0) + 1200);
}

function DayTabs({ trial, at, goTo, id }: { trial: Trial; at: number; goTo: (t: number) => void; id: string }) {
  // The tab stays when the job changes and the run is drawn anew.
  const [tab, pick] = useStored("dayTab", "verdict", "window");
  return (
    <Tabs value={tab} onChange={(t) => pick(t ?? "verdict")} className={css.dayTabs} data-day-tabs data-wide={tab === "map" || tab === "chance" || undefined} keepMounted={false} color="ink">
      <Tabs.List>
        <Tabs.Tab value="verdict">Verdict</Tabs.Tab>
        <Tabs.Tab value="setup">Driving</Tabs.Tab>
        <Tabs.Tab value="events">Events</Tabs.Tab>
        <Tabs.Tab value="compare">Compare</Tabs.Tab>
        <Tabs.Tab value="map">Map</Tabs.Tab>
        <Tabs.Tab value="chance">Chance</Tabs.Tab>
      </Tabs.List>
      <Tabs.Panel value="verdict">
        <Verdicts trial={trial} onMove={goTo} />
      </Tabs.Panel>
      <Tabs.Panel value="setup">
        <Setup />
      </Tabs.Panel>
      <Tabs.Panel value="events">
        <Events trial={trial} at={at} onMove={goTo} />
      </Tabs.Panel>
      <Tabs.Panel value="compare">
        <Compare id={id} />
      </Tabs.Panel>
      <Tabs.Panel value="map">
        <SweepMap id={id} />
      </Tabs.Panel>
      <Tabs.Panel value="chance">
        <Chances id={id} />
      </Tabs.Panel>
    </Tabs>
  );
}
