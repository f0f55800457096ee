import type { Schemas } from "../api/client";

/** Chain shows everything in series against the same worst current, the weakest named. */
export function Chain({ links, bank }: { links: Schemas["Link"][]; bank: Schemas["BankShare"][] }) {
  const weakest = links.find((l) => l.weakest);
  return (
    <section className="chain" aria-label="Chain">
      <h3>What the current passes, from front to back</h3>
      {weakest && (
        <p>
          The weakest: <b>{weakest.name}</b>, at {weakest.share.toFixed(0)} % of what it bears.
        </p>
      )}
      <table>
        <thead>
          <tr>
            <th scope="col">Element</th>
            <th scope="col">Carries</th>
            <th scope="col">Bears</th>
            <th scope="col">Share</th>
            <th scope="col">What it bears, and why</th>
          </tr>
        </thead>
        <tbody>
          {links.map((l) => (
            <tr key={l.name} className={`${l.level} ${l.weakest ? "weakest" : ""}`}>
              <th scope="row">{l.name}</th>
              <td>{l.amps.toFixed(0)} A</td>
              <td>{l.bearsA.toFixed(0)} A</td>
              <td className="share">
                <span className="shareBar" style={{ width: `${Math.min(100, l.share)}%` }} />
                <span>{l.share.toFixed(0)} %{l.level === "bad" ? ", too much" : l.level === "caution" ? ", at its limit" : ""}</span>
              </td>
              <td className="soft">{l.why}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {bank.length > 0 && (
        <>
          <h3>Each battery of the bank</h3>
          <table>
            <tbody>
              {bank.map((b) => (
                <tr key={b.battery}>
                  <th scope="row">battery {b.battery}</th>
                  <td>{b.share.toFixed(1)} % of the current</td>
                  <td>{b.pathMilliohm.toFixed(2)} mΩ in its path</td>
                </tr>
              ))}
            </tbody>
          </table>
        </>
      )}
    </section>
  );
}
