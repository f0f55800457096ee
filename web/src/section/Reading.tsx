import { useShown } from "../job/JobContext";
import { severityWord } from "../ui/words";

/** Reading is the section in words, in reading order, for those who do not see it. */
export function Reading() {
  const { plan } = useShown();
  return (
    <div className="hidden" data-reading>
      <h2>The section in words</h2>
      <p>{plan.summary}</p>
      <ol>
        {plan.columns.map((c) => (
          <li key={c.id}>
            {c.name}: {c.part.text}
            {c.part.assumed ? ", assumed" : ""}; carries {c.carries.text}; loses {c.loses.text}; gets to {c.heat.text}
          </li>
        ))}
      </ol>
      <p>Joints: {plan.joints.map((j) => j.says).join("; ")}</p>
      <p>Return: {plan.returns.map((r) => (r.loses ? `${r.text}, loses ${r.loses}` : r.text)).join("; ")}</p>
      <ul>
        {plan.states.map((s) => (
          <li key={s.id}>
            {s.label}
            {s.worst ? ", the worst" : ""}: {s.says}; {s.inV} V at the coupling, {s.auxV} V at the aux battery. {s.fails}
          </li>
        ))}
      </ul>
      <ul>
        {plan.notes.map((n) => (
          <li key={n.id + n.text}>
            {severityWord[n.severity]}: {n.text}
          </li>
        ))}
      </ul>
    </div>
  );
}
