import { Button } from "@mantine/core";

import type { Schemas } from "../api/client";
import { useJob } from "../job/JobContext";
import { Findings } from "../ui/CheckList";
import { Verdict } from "../ui/Verdict";
import type { Level } from "../ui/words";

const levels = { good: "good", caution: "caution", bad: "unsafe", open: "open" } as const;
const fates = { stays: "stays", goes: "goes", open: "open" } as const;

/** fateLevel is how good what becomes of something is: what goes is never shown as good. */
const fateLevel = (f: { fate: string; level: Level }): Level => (f.fate === "goes" && f.level === "good" ? "caution" : f.level);

export function GearSays({ gear }: { gear: Schemas["GearVerdict"] | undefined }) {
  if (!gear) return null;
  return (
    <Verdict word={fates[gear.fate]} level={fateLevel(gear)}>
      {gear.why}
    </Verdict>
  );
}

export function WireSays({ wire }: { wire: Schemas["WireVerdict"] | undefined }) {
  const { dispatch, readOnly } = useJob();
  const reuse = wire?.reuse;
  if (!wire) return null;
  return (
    <>
      <Findings list={wire.findings.map((f) => ({ key: f.id + f.text, word: levels[f.level], level: f.level, text: f.text }))} />
      <Verdict word={fates[wire.fate]} level={fateLevel(wire)}>
        {wire.why}{" "}
        {reuse?.path && !readOnly && (
          <Button size="compact-sm" variant="default" onClick={() => dispatch({ type: "set", path: reuse.path as string, value: reuse.value })}>
            {reuse.label}
          </Button>
        )}
      </Verdict>
    </>
  );
}
