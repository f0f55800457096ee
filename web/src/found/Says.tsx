import { Button } from "@mantine/core";

import type { Schemas } from "../api/client";
import { useJob } from "../job/JobContext";

const levels = { good: "good", caution: "caution", bad: "unsafe", open: "open" } as const;
const fates = { stays: "stays", goes: "goes", open: "open" } as const;

/** fateClass colours what becomes of something: what goes is never shown as good. */
export const fateClass = (f: { fate: string; level: string }): string => (f.fate === "goes" && f.level === "good" ? "caution" : f.level);

export function GearSays({ gear }: { gear: Schemas["GearVerdict"] | undefined }) {
  if (!gear) return null;
  return (
    <p className={`verdictLine ${fateClass(gear)}`}>
      <b>{fates[gear.fate]}</b> {gear.why}
    </p>
  );
}

export function WireSays({ wire }: { wire: Schemas["WireVerdict"] | undefined }) {
  const { dispatch, readOnly } = useJob();
  const reuse = wire?.reuse;
  if (!wire) return null;
  return (
    <>
      <ul className="checkList">
        {wire.findings.map((f) => (
          <li key={f.id + f.text} className={f.level}>
            <b>{levels[f.level]}</b> {f.text}
          </li>
        ))}
      </ul>
      <p className={`verdictLine ${fateClass(wire)}`}>
        <b>{fates[wire.fate]}</b> {wire.why}{" "}
        {reuse?.path && !readOnly && (
          <Button size="compact-sm" variant="default" onClick={() => dispatch({ type: "set", path: reuse.path as string, value: reuse.value })}>
            {reuse.label}
          </Button>
        )}
      </p>
    </>
  );
}
