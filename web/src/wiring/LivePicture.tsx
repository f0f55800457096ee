import { useJob } from "../job/JobContext";
import { Painted } from "../make/Painted";
import { useMade } from "../make/useMade";
import { Wait } from "../ui/Wait";
import css from "./wiring.module.css";

/** LivePicture is the circuit with what is live drawn thick, and what is dead faint; live are wires and parts by their ids. */
export function LivePicture({ live, says }: { live: string[]; says: string }) {
  const asked = useMade();
  const job = useJob();
  if (!asked.answer) return <Wait asked={asked} what="Drawing" />;
  const { folded: drawing, wires } = asked.answer;
  const on = new Set(live.includes(drawing.auxBattery) ? [...live, ...drawing.withAux] : live);
  const named = wires.filter((w) => on.has(w.id)).map((w) => w.number);
  return (
    <figure className={css.picture}>
      <div role="region" aria-label={says} tabIndex={0}>
        <Painted drawing={drawing} lit={new Set()} live={on} pick={(of) => job.pick(of)} says={`${says}: live are ${named.join(", ") || "none of its wires"}`} />
      </div>
      <figcaption>
        <b>{says}.</b> Thick is live{named.length > 0 ? `: ${named.join(", ")}` : ": none of its wires"}. Faint is dead. <span className="soft">Measure before you touch.</span>
      </figcaption>
    </figure>
  );
}
