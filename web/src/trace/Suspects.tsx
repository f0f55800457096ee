import { Button } from "@mantine/core";

import { useMay } from "../ui/useMe";
import { type Case } from "./cases";
import css from "./trace.module.css";
import type { Suspect, Traced, useTrace } from "./useTrace";

/** Below this share nobody mends on it. */
const mendsFrom = 0.4;

/** Suspects are what may be wrong, with shares no finer than they are known. */
export function Suspects({ trace, found, of }: { trace: ReturnType<typeof useTrace>; found: Traced; of: Case }) {
  const installs = useMay()("install");
  return (
    <section className={css.suspects} aria-label="What may be wrong">
      <h2>What may be wrong</h2>
      <ol>
        {found.suspects.map((s) => (
          <li key={s.id}>
            <Share of={s.share} />
            <div>
              <b>{[s.says, ...s.or].join("; or ")}</b>
              <p>{s.mend}.</p>
              {s.endangers && <p className={css.danger}>Danger: {s.endangers}.</p>}
              {installs && !of.closed && s.share >= mendsFrom && s.id !== found.found && <Mend suspect={s} trace={trace} />}
            </div>
          </li>
        ))}
        <li>
          <Share of={found.none} />
          <div>Something that is not known here{found.none > 0.5 && ": look at everything between what is alive and what is dead, and at what was added since the survey"}</div>
        </li>
        <li>
          <Share of={found.sound} />
          <div>Nothing is wrong now{found.sound > 0.5 && ": the fault comes and goes, or the complaint has another reason"}</div>
        </li>
      </ol>
      {found.doubted.length > 0 && (
        <p className={css.doubt} role="status">
          Take again: {found.doubted.map((id) => found.readings.find((r) => r.id === id)?.what ?? id).join("; ")}. That reading does not go with the rest.
        </p>
      )}
    </section>
  );
}

/** Mend says that a fault was mended; of several, each by itself. */
export function Mend({ suspect: s, trace }: { suspect: Suspect; trace: ReturnType<typeof useTrace> }) {
  return (
    <div className={css.row}>
      {s.faults.map((f, i) => (
        <Button key={f} variant="default" onClick={() => trace.enter("mended", f, s.proves.join(" ") || "mended", `Mended: ${s.says}`)}>
          {s.faults.length > 1 ? `Mended: ${s.names[i] ?? f}` : "Mended"}
        </Button>
      ))}
    </div>
  );
}

/** Share is how much speaks for something, as a word and a bar: a tenth more or less is no difference. */
function Share({ of }: { of: number }) {
  const word = of < 0.02 ? "hardly" : of < 0.1 ? "perhaps" : of >= 0.975 ? "over 95 %" : `${5 * Math.round(20 * of)} %`;
  return (
    <span className={css.share}>
      {word}
      <span className={css.bar} aria-hidden style={{ "--share": of } as React.CSSProperties} />
    </span>
  );
}
