import { Button } from "@mantine/core";
import { useState } from "react";

import type { Schemas } from "../api/client";
import { useStored } from "../ui/stored";
import css from "./keypad.module.css";

type AskedReading = Schemas["AskedReading"];

/** unitsOf are the units that a reading is entered in, the usual first. */
const unitsOf = (r: AskedReading): string[] => ({ V: r.drop ? ["mV", "V"] : ["V", "mV"], A: ["A", "mA"], Ω: ["Ω", "mΩ"], K: ["K"], seen: [] })[r.unit];

/** Keypad enters a reading with a thumb or the keys; the text may bring its own unit. */
export function Keypad({ job, reading: r, enter }: { job: string; reading: AskedReading; enter: (text: string) => void }) {
  const units = unitsOf(r);
  const [text, setText] = useStored(`typed:${job}:${r.id}`, "", "window");
  const [unit, setUnit] = useState(units[0] ?? "");
  const press = (key: string) => {
    if (key === "±") setText(/^[-−]/.test(text) ? text.slice(1) : `-${text}`);
    else setText(key === "." && /[.,]/.test(text) ? text : text + key);
  };
  const plain = /^[-−+]?[\d.,\s]+$/.test(text.trim());
  const send = (before = "") => {
    if (text.trim() === "") return;
    enter(before + (plain ? `${text.trim()} ${unit}` : text.trim()));
    setText("");
  };
  const key = (k: string) => (
    <button type="button" key={k} aria-label={k === "±" ? "change the sign" : k === "." ? "point" : k} onClick={() => press(k)}>
      {k}
    </button>
  );
  return (
    <form
      className={css.keypad}
      onSubmit={(e) => {
        e.preventDefault();
        send();
      }}
    >
      <div className={css.shown}>
        <input aria-label={`${r.what}, read`} inputMode="none" autoComplete="off" maxLength={40} value={text} onChange={(e) => setText(e.currentTarget.value)} placeholder="–" />
        <span className={css.units} role="group" aria-label="Unit">
          {units.map((u) => (
            <button type="button" key={u} aria-pressed={u === unit} onClick={() => setUnit(u)}>
              {u}
            </button>
          ))}
        </span>
      </div>
      <div className={css.keys}>
        {["7", "8", "9"].map(key)}
        <button type="button" className={css.word} onClick={() => setText(text.slice(0, -1))}>
          Rub out
        </button>
        {["4", "5", "6", "±"].map(key)}
        {["1", "2", "3"].map(key)}
        {r.unit === "Ω" ? (
          <button type="button" className={css.word} onClick={() => enter("OL")}>
            OL, open
          </button>
        ) : (
          <button type="button" className={css.word} onClick={() => (text.trim() === "" ? enter("jumps") : send("jumps "))}>
            {r.id === "lets-go" ? "Never" : text.trim() === "" ? "Jumps" : "Jumps to this"}
          </button>
        )}
        {["0", "."].map(key)}
        <Button type="submit" size="lg" className={css.enter} disabled={text.trim() === ""}>
          Enter
        </Button>
      </div>
    </form>
  );
}
