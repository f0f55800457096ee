import type { Figure, Schemas } from "../api/client";
import { Working } from "../ui/Working";

/** signed is a current that may flow the other way, in words too. */
const signed = (a: number): string => (Math.abs(a) < 0.05 ? "0 A" : a < 0 ? `−${(-a).toFixed(1)} A, out` : `${a.toFixed(1)} A`);

/** ModeTable is every position of the switches, the key, the engine and the sun, and what the circuit does then. */
export function ModeTable({ modes }: { modes: Schemas["Modes"] }) {
  const forbidden = modes.rows.filter((r) => r.verdict === "forbidden").length;
  const sun = modes.rows.some((r) => r.sun === "yes");
  const switched = modes.rows.some((r) => r.switch !== "–");
  return (
    <section className="modeTable" aria-label="Mode table">
      <p>
        {modes.rows.length} positions, solved one by one; <b className={forbidden > 0 ? "bad" : ""}>{forbidden === 0 ? "none" : forbidden} forbidden</b>. Currents with a rested start battery, the aux battery part discharged.
      </p>
      {modes.forgotten && (
        <p>
          <b>If its signal is left live:</b> {modes.forgotten.says}
        </p>
      )}
      {modes.forgotten?.figure && modes.figures[modes.forgotten.figure] && <Working figure={modes.figures[modes.forgotten.figure] as Figure} />}
      {modes.stops.length > 0 && (
        <details open>
          <summary>Who can stop or start whom</summary>
          <ul>
            {modes.stops.map((s) => (
              <li key={s.by + s.of}>
                <b>{s.by}</b> {s.does} <b>{s.of}</b>. {s.how}
              </li>
            ))}
          </ul>
        </details>
      )}
      <div className="methodScroll" tabIndex={0} role="region" aria-label="Every position">
        <table>
          <thead>
            <tr>
              {switched && <th scope="col">Switch</th>}
              <th scope="col">Key</th>
              <th scope="col">Engine</th>
              {sun && <th scope="col">Sun</th>}
              <th scope="col">Batteries</th>
              <th scope="col">Into the aux battery</th>
              <th scope="col">Out of the start battery</th>
              <th scope="col">Lamp</th>
              <th scope="col">What follows</th>
            </tr>
          </thead>
          <tbody>
            {modes.rows.map((r, i) => {
              const figure = r.figure ? modes.figures[r.figure] : undefined;
              return (
                <tr key={i} className={`${r.verdict} ${i > 0 && modes.rows[i - 1]?.switch !== r.switch ? "first" : ""}`}>
                    {switched && <td>{r.switch}</td>}
                    <td>{r.key}</td>
                    <td>{r.engine}</td>
                    {sun && <td>{r.sun}</td>}
                    <td>{modes.coupling === "second" ? "apart" : r.joined ? "joined" : "apart"}</td>
                    <td>{signed(r.auxA)}</td>
                    <td>{r.startA < 0.005 ? "0" : r.startA < 1 ? r.startA.toFixed(2) : r.startA.toFixed(0)} A</td>
                    <td>{r.lamp}</td>
                    <td>
                      {r.verdict !== "normal" && <b className={r.verdict === "forbidden" ? "bad" : "caution"}>{r.verdict}. </b>}
                      {r.why} {r.interlock && <i>Prevented by: {r.interlock}</i>}
                      {figure && <Working figure={figure} />}
                    </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      </div>
    </section>
  );
}
