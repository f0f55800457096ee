import { Button, Textarea } from "@mantine/core";
import { useState } from "react";

import { api, asFile, take, whyNot, type Schemas } from "../api/client";
import { valueAt, type Value } from "../job/document";
import { FieldInputs } from "../job/Fields";
import { useJob } from "../job/JobContext";
import { FileDrop } from "../ui/FileDrop";
import { biggestLog } from "../ui/readText";
import { Wrong } from "../ui/Wait";
import css from "./day.module.css";

const asked = ["day.pattern", "use.drivenHours", "use.dailyAh", "day.days", "day.outsideC", "day.auxSOC", "day.startSOC", "day.solarW", "day.sunHours", "day.trigger"];

/** Setup is what the vehicle does in the trial, and in what. */
export function Setup() {
  const { state } = useJob();
  const own = valueAt(state.doc, "day.pattern") === "own";
  return (
    <div className={css.setup}>
      <FieldInputs paths={asked} />
      {own && <Own />}
      <TrackFile />
    </div>
  );
}

/** Own is a pattern of driving, written out. */
function Own() {
  const { state, dispatch, readOnly } = useJob();
  const wrong = state.refused["day.own"];
  const text = state.typing["day.own"] ?? String(valueAt(state.doc, "day.own") ?? "");
  const error = wrong && wrong.text === state.typing["day.own"] ? `${wrong.problem.wrong}. Allowed: ${wrong.problem.allowed}.` : undefined;
  return (
    <Textarea
      label="Driving, written out"
      description="park, lamps, key, crank, idle, town, highway, lift-off, joined, assist: each with how long; then, if you like, @ engine rpm, air 38 °C, load 5 A, sun 80 %"
      placeholder="park 8 h, crank 2 s, town 20 min, highway 1h30 @ 2600, park 14 h"
      autosize
      minRows={3}
      maxRows={8}
      readOnly={readOnly}
      value={text}
      error={error}
      onChange={(e) => dispatch({ type: "type", path: "day.own", text: e.currentTarget.value })}
      onBlur={() => dispatch({ type: "leave", path: "day.own" })}
    />
  );
}

interface Track {
  name: string;
  got: Schemas["Tracked"];
}

/** TrackFile takes a GPX track or a table of time and speed as the pattern of driving, once what was understood of it was seen. */
function TrackFile() {
  const { dispatch, readOnly } = useJob();
  const [track, setTrack] = useState<Track | null>(null);
  const [wrong, setWrong] = useState<string | null>(null);
  if (readOnly) return null;
  const read = async (file: File) => {
    setTrack(null);
    setWrong(null);
    try {
      const zone = Intl.DateTimeFormat().resolvedOptions().timeZone;
      setTrack({ name: file.name, got: await take(api.POST("/api/track", { params: { query: zone ? { zone } : {} }, ...asFile(file) })) });
    } catch (error) {
      setWrong(`${file.name}: ${whyNot(error)}`);
    }
  };
  return (
    <FileDrop label="Drive by a track" name="Track file" endings={[".gpx", ".csv", ".txt"]} most={biggestLog} onRefused={setWrong} onFile={(file) => void read(file)}>
      {wrong && <Wrong>{wrong}</Wrong>}
      {!track && !wrong && <p className="soft">GPX with time, or a table of time and speed or rpm.</p>}
      {track && <Understood track={track} take={(values) => dispatch({ type: "setAll", values })} />}
    </FileDrop>
  );
}

/** Understood is what a track comes to, before the job is driven by it. */
function Understood({ track, take }: { track: Track; take: (values: Record<string, Value>) => void }) {
  const { driving, hours, days, says } = track.got;
  const mean = days.reduce((sum, d) => sum + d.hours, 0) / Math.max(1, days.length);
  return (
    <div role="status" aria-label="What the track says">
      <p>
        {track.name}: {hours.toFixed(1)} h recorded.
        {days.length > 0 && ` With the engine running, by local day: ${days.map((d) => `${d.date} ${d.hours.toFixed(1)} h`).join(", ")}.`}
      </p>
      {says.length > 0 && <p className="soft">{says.map((s) => s.charAt(0).toUpperCase() + s.slice(1)).join(". ")}.</p>}
      <div className="row">
        <Button size="compact-sm" onClick={() => take({ "day.own": driving, "day.pattern": "own" })}>
          Drive the days by it
        </Button>
        {mean > 0 && (
          <Button size="compact-sm" variant="default" onClick={() => take({ "use.drivenHours": Number(mean.toFixed(2)) })}>
            Take {mean.toFixed(1)} h driven a day
          </Button>
        )}
      </div>
    </div>
  );
}
