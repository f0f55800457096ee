import { Button, NativeSelect } from "@mantine/core";
import { useHotkeys } from "@mantine/hooks";
import { useEffect, useRef, useState } from "react";

import type { Schemas } from "../api/client";
import { clock, type Window, windows } from "./time";
import css from "./day.module.css";

interface Props {
  end: number;
  window: Window;
  onWindow: (w: Window) => void;
  at: number;
  onMove: (t: number) => void;
  events: Schemas["Event"][];
  says: string;
}

/** playS is how long playing a window through takes. */
const playS = 24;

/** Scrubber moves the cursor: by a slider, by keys, by playing. */
export function Scrubber({ end, window, onWindow, at, onMove, events, says }: Props) {
  const [playing, setPlaying] = useState(false);
  const now = useRef(at);
  useEffect(() => {
    now.current = at;
  }, [at]);
  useEffect(() => {
    if (!playing) return;
    let frame = 0;
    let last = performance.now();
    const step = (time: number) => {
      const next = now.current + ((window.to - window.from) * (time - last)) / (playS * 1000);
      last = time;
      if (next >= window.to) {
        onMove(window.to);
        setPlaying(false);
        return;
      }
      onMove(next);
      frame = requestAnimationFrame(step);
    };
    frame = requestAnimationFrame(step);
    return () => cancelAnimationFrame(frame);
  }, [playing, window, onMove]);

  const play = () => {
    if (!playing && now.current >= window.to - 1) onMove(window.from);
    setPlaying(!playing);
  };
  const nudge = (by: number) => onMove(Math.min(window.to, Math.max(window.from, at + by)));
  const event = (by: 1 | -1) => {
    const list = events.filter((e) => e.t >= window.from && e.t <= window.to).sort((a, b) => a.t - b.t);
    const to = by > 0 ? list.find((e) => e.t > at + 0.5) : list.findLast((e) => e.t < at - 0.5);
    if (to) onMove(to.t);
  };
  const small = (window.to - window.from) / 400;
  useHotkeys([
    ["space", play],
    ["ArrowRight", () => nudge(small)],
    ["ArrowLeft", () => nudge(-small)],
    ["shift+ArrowRight", () => event(1)],
    ["shift+ArrowLeft", () => event(-1)],
  ]);
  const list = windows(end);
  const chosen = list.findIndex((w) => w.window.from === window.from && w.window.to === window.to);
  return (
    <div className={css.scrubber}>
      <Button size="compact-sm" onClick={play} aria-pressed={playing}>
        {playing ? "Pause" : "Play"}
      </Button>
      <Button size="compact-sm" variant="default" onClick={() => event(-1)} aria-label="Event before">
        ◂
      </Button>
      <Button size="compact-sm" variant="default" onClick={() => event(1)} aria-label="Next event">
        ▸
      </Button>
      <input type="range" aria-label="Moment" min={window.from} max={window.to} step={Math.max(1, Math.round(small))} value={at} aria-valuetext={`${clock(at)}: ${says}`} onChange={(e) => onMove(Number(e.currentTarget.value))} />
      <output data-clock data-at={at.toFixed(2)}>{clock(at)}</output>
      <NativeSelect size="xs" aria-label="Shown" value={String(Math.max(0, chosen))} data={list.map((w, i) => ({ value: String(i), label: w.label }))} onChange={(e) => onWindow((list[Number(e.currentTarget.value)] ?? list[0])?.window ?? window)} />
    </div>
  );
}
