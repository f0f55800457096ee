import { useJob } from "../job/JobContext";
import { Painted } from "../make/Painted";
import css from "./trace.module.css";
import { useMade } from "../make/useMade";
import type { Traced } from "./useTrace";

/** Below this share nothing is shaded. */
const shadedFrom = 0.04;

/** Shaded is the drawing with what may be wrong shaded: the thicker, the likelier. */
export function Shaded({ found }: { found: Traced }) {
  const asked = useMade();
  const job = useJob();
  const suspected = new Map<string, number>();
  for (const s of found.suspects) {
    for (const at of s.places) {
      if (s.share >= shadedFrom) suspected.set(at, Math.max(s.share, suspected.get(at) ?? 0));
    }
  }
  if (!asked.answer || suspected.size === 0) return null;
  const named = [...suspected].sort((a, b) => b[1] - a[1]).flatMap(([id]) => found.places.find((p) => p.id === id)?.name ?? []);
  return (
    <section className={css.shaded} aria-label="Where the fault may be">
      <h2>Where the fault may be</h2>
      <div role="region" aria-label="Drawing, what may be wrong shaded" tabIndex={0}>
        <Painted drawing={asked.answer.folded} lit={new Set()} pick={(of) => job.pick(of)} suspected={suspected} />
      </div>
      <p className="soft">The thicker, the likelier: {named.slice(0, 5).join(", ")}.</p>
    </section>
  );
}
