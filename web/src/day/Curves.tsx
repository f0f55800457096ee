import cx from "clsx";
import { useViewportSize } from "@mantine/hooks";
import { scaleLinear } from "d3-scale";
import { memo, useMemo, type PointerEvent } from "react";

import type { Schemas } from "../api/client";
import { Tick } from "../ui/Tick";
import { figure, round } from "../ui/units";
import { charts, cut, pathOf, scaleOf, shownCurves, stretches, valuesOf, type Chart, type Linear, type Series } from "./curves";
import { clock, firstHour, type Window } from "./time";
import css from "./day.module.css";

/** Room beside the curves for the scale and for the values at the cursor, in px. */
const left = 56;
const right = 126;
const strip = 22;
/** … and below them, where they are narrow. */
const valuesLine = 24;

interface Props {
  series: Series;
  events: Schemas["Event"][];
  window: Window;
  width: number;
  at: number;
  index: number;
  onMove: (t: number) => void;
}

/** Curves are the run's charts over one time, with one cursor. */
export function Curves({ series, events, window, width, at, index, onMove }: Props) {
  const narrow = width < 620;
  const screen = useViewportSize();
  // The four charts share what the window has left.
  const share = (screen.height - 408) / 4;
  const height = !narrow ? Math.min(150, Math.max(84, share)) : screen.width > 760 ? Math.min(120, Math.max(72, share - valuesLine)) : 92;
  const x = useMemo(() => scaleLinear([window.from, window.to], [left, Math.max(left + 60, width - (narrow ? 14 : right))]), [window, width, narrow]);
  const move = (e: PointerEvent<HTMLDivElement>) => {
    if (e.type === "pointermove" && e.buttons === 0 && e.pointerType !== "mouse") return;
    if (e.type === "pointermove" && e.buttons === 0) return;
    const box = e.currentTarget.getBoundingClientRect();
    onMove(Math.min(window.to, Math.max(window.from, x.invert(e.clientX - box.left))));
  };
  const cursor = x(at);
  return (
    <div className={css.curves} onPointerDown={move} onPointerMove={move} style={{ width }} data-curves>
      <Doing series={series} window={window} width={width} x={x} />
      {charts.map((c) => (
        <div key={c.id} className={css.chartRow}>
          <ChartLines chart={c} series={series} window={window} width={width} height={height} x={x} />
          <Values chart={c} series={series} index={index} narrow={narrow} />
        </div>
      ))}
      <EventMarks events={events} window={window} width={width} x={x} onMove={onMove} />
      {cursor >= left - 1 && <div className={css.cursor} style={{ left: cursor }} aria-hidden />}
    </div>
  );
}

/** ChartLines are drawn once for a window; the cursor moves over them. */
const ChartLines = memo(function ChartLines({ chart, series, window, width, height, x }: { chart: Chart; series: Series; window: Window; width: number; height: number; x: Linear }) {
  const range = cut(series.t, window);
  const y = scaleOf(chart, series, range, height);
  const [from, to] = x.range() as [number, number];
  return (
    <svg className={css.chart} width={width} height={height} aria-hidden focusable="false" data-chart={chart.id}>
      <clipPath id={`in-${chart.id}`}>
        <rect x={from} y={0} width={to - from} height={height} />
      </clipPath>
      {round(...(y.domain() as [number, number]), chart.unit, 3).map((v) => (
        <Tick key={v} from={from} to={to} at={y(v)} gap={6}>
          {figure(v, chart.unit, 0)}
        </Tick>
      ))}
      <g clipPath={`url(#in-${chart.id})`}>
        {[...shownCurves(chart, series)].reverse().map((c) => (
          <path key={c.key} className={css[c.className]} d={pathOf(series, c.key, x, y, range)} />
        ))}
      </g>
    </svg>
  );
});

/** Values are what the curves of a chart have at the cursor. */
function Values({ chart, series, index, narrow }: { chart: Chart; series: Series; index: number; narrow: boolean }) {
  return (
    <ul className={cx(css.values, narrow && css.under)} aria-label={chart.label}>
      {shownCurves(chart, series).map((c) => (
        <li key={c.key} className={css[c.className]} data-value={c.key}>
          <span>{c.name}</span> <b>{figure(valuesOf(series, c.key)[index] as number, chart.unit, c.digits)}</b>
        </li>
      ))}
    </ul>
  );
}

/** Doing is a strip of what the vehicle does, with midnight marked. */
const Doing = memo(function Doing({ series, window, width, x }: { series: Series; window: Window; width: number; x: Linear }) {
  const perPx = (window.to - window.from) / Math.max(1, width);
  const hours = (window.to - window.from) / 3600;
  const step = hours > 60 ? 24 : hours > 14 ? 6 : hours > 5 ? 2 : 1;
  const marks: number[] = [];
  for (let h = Math.ceil((window.from / 3600 + firstHour) / step) * step; h * 3600 <= window.to + firstHour * 3600; h += step) marks.push((h - firstHour) * 3600);
  return (
    <svg className={css.doing} width={width} height={strip + 18} aria-hidden focusable="false">
      {stretches(series, window, perPx).map((s) => (
        <rect key={s.from} className={css[s.kind]} x={x(s.from)} width={Math.max(1, x(s.to) - x(s.from))} y={16} height={strip - 6} />
      ))}
      {marks.map((t) => (
        <text key={t} x={x(t)} y={11} textAnchor="middle">
          {step === 24 ? `day ${Math.floor((t + firstHour * 3600) / 86400) + 1}` : clock(t).slice(-5)}
        </text>
      ))}
    </svg>
  );
});

/** EventMarks are the events of a window; a click goes to one. */
function EventMarks({ events, window, width, x, onMove }: { events: Schemas["Event"][]; window: Window; width: number; x: Linear; onMove: (t: number) => void }) {
  const shown = events.filter((e) => e.t >= window.from && e.t <= window.to);
  return (
    <svg className={css.eventMarks} width={width} height={18} aria-hidden focusable="false">
      <text x={left - 6} y={13} textAnchor="end">
        events
      </text>
      {shown.map((e, i) => (
        <path key={i} className={css[e.id.replace(/\..*/, "")]} d={`M${x(e.t)} 2l4 7l-4 7l-4 -7z`} onPointerDown={(p) => { p.stopPropagation(); onMove(e.t); }}>
          <title>{`${clock(e.t)}: ${e.text}`}</title>
        </path>
      ))}
    </svg>
  );
}
