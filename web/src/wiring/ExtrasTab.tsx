import { Fields } from "../job/Fields";
import { useJob } from "../job/JobContext";
import { CheckList } from "../ui/CheckList";
import css from "./wiring.module.css";

/** ExtrasTab is what is fitted besides the coupling, each with what is asked of it and its checks. */
export function ExtrasTab() {
  const { plan } = useJob();
  return (
    <div className={css.extras}>
      {plan.fittings.map((f) => (
        <section key={f.id} aria-label={f.title}>
          <h3>{f.title}</h3>
          <p className="soft">{f.says}</p>
          <Fields paths={f.asks} />
          <CheckList titled={false} title={`${f.title}: checks`} checks={plan.checks.filter((c) => f.checks.includes(c.id))} figures={plan.figures} />
        </section>
      ))}
    </div>
  );
}
