import { Textarea } from "@mantine/core";
import { useState } from "react";

import { api, asFile, take, whyNot } from "../api/client";
import { valueAt } from "../job/document";
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

/** TrackFile takes a GPX track or a table of time and speed as the pattern of driving. */
function TrackFile() {
  const { dispatch, readOnly } = useJob();
  const [told, setTold] = useState<{ text: string; bad: boolean } | null>(null);
  if (readOnly) return null;
  const read = async (file: File) => {
    try {
      const got = await take(api.POST("/api/track", asFile(file)));
      dispatch({ type: "setAll", values: { "day.own": got.driving, "day.pattern": "own" } });
      setTold({ text: [`${file.name}: ${got.hours.toFixed(1)} h.`, ...got.says].join(" "), bad: false });
    } catch (error) {
      setTold({ text: whyNot(error), bad: true });
    }
  };
  return (
    <FileDrop label="Drive by a track" name="Track file" endings={[".gpx", ".csv", ".txt"]} most={biggestLog} onRefused={(text) => setTold({ text, bad: true })} onFile={(file) => void read(file)}>
      {told?.bad ? (
        <Wrong>{told.text}</Wrong>
      ) : (
        <p className="soft" role="status">
          {told?.text ?? "GPX with time, or a table of time and speed or rpm."}
        </p>
      )}
    </FileDrop>
  );
}
