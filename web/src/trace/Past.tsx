import { Button } from "@mantine/core";

import { useMay } from "../ui/useMe";
import type { Case } from "./cases";
import css from "./trace.module.css";
import type { Traced, useTrace } from "./useTrace";

/** Past is a way past the coupling until the proper mend: one touch away, and tagged. */
export function Past({ trace, found, of }: { trace: ReturnType<typeof useTrace>; found: Traced; of: Case }) {
  const installs = useMay()("install");
  const { why, steps, tag } = found.bypass;
  const done = of.entries.some((e) => e.kind === "bypass");
  return (
    <details className={css.past} open={done || undefined}>
      <summary>{done ? "Bridged for now" : "Get the battery charging for now, past the coupling"}</summary>
      {why ? (
        <p>No: {why}.</p>
      ) : (
        <>
          <ol>
            {steps.map((s) => (
              <li key={s}>{s}</li>
            ))}
          </ol>
          <p className={css.tag}>{tag}</p>
          {installs && !of.closed && !done && (
            <Button variant="default" onClick={() => trace.enter("bypass", "coupling", tag, "Bridged past the coupling")}>
              It is bridged, and tagged so
            </Button>
          )}
        </>
      )}
    </details>
  );
}
