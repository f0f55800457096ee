import type { Schemas } from "../api/client";

/** LiveMap says what stays live, and from where, when one thing is off; and what to open to work somewhere. */
export function LiveMap({ modes }: { modes: Schemas["Modes"] }) {
  const wires = [...new Set(modes.live.flatMap((r) => [...r.live.map((w) => w.wire), ...r.dead]))];
  const order = modes.work.map((w) => w.place);
  wires.sort((a, b) => order.indexOf(a) - order.indexOf(b));
  return (
    <section className="liveMap" aria-label="Live map">
      <p>
        A contact that may be closed counts as closed. A feed point counts as live until the engine is off and the key out. <b>Measure before you touch.</b>
      </p>
      <div className="methodScroll" tabIndex={0} role="region" aria-label="What stays live">
        <table>
          <thead>
            <tr>
              <th scope="col">With this off</th>
              {wires.map((w) => (
                <th key={w} scope="col">
                  {w}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {modes.live.map((r) => (
              <tr key={r.off}>
                <th scope="row">{r.off}</th>
                {wires.map((w) => {
                  const live = r.live.find((x) => x.wire === w);
                  return (
                    <td key={w} className={live ? "live" : "dead"}>
                      {live ? (
                        <>
                          <b>live</b> from {live.from.join(", ")}
                        </>
                      ) : (
                        "dead"
                      )}
                    </td>
                  );
                })}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <h3>To work there, open all of these</h3>
      <ul className="workOn">
        {modes.work.map((w) => (
          <li key={w.place}>
            <b>{w.place}</b> {w.open.length > 0 ? w.open.join(" and ") : "cannot be made dead by these"} <span className="soft">(else live from {w.from.join(", ") || "nothing"})</span>
          </li>
        ))}
      </ul>
    </section>
  );
}
