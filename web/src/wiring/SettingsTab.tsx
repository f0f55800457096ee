import { Button } from "@mantine/core";

import { valueAt, type Value } from "../job/document";
import { Cures } from "../job/Cures";
import { FieldInput } from "../job/FieldInput";
import { fieldOf, useJob } from "../job/JobContext";
import { usePartsBook } from "../parts/usePartsBook";
import { emptied, keysOf, newKey } from "../job/rows";
import { severityWord } from "../ui/words";

const joined = { open: "left open, insulated", ground: "to ground", battery: "to battery plus, over 1 A" } as const;

/** SettingsTab is the charger's configuration card: how it is set for this battery, and what the battery really gets. */
export function SettingsTab() {
  const job = useJob();
  const { plan, dispatch, readOnly } = job;
  const s = plan.settings;
  const notes = plan.notes.filter((n) => n.id.startsWith("profile."));
  if (!s.charger) return <p className="soft">There is no charger to set: the aux battery gets what the alternator gives.</p>;
  return (
    <div className="settingsTab">
      <section aria-label="Configuration card">
        <h3>
          {s.card}, for {s.wants.battery}
        </h3>
        <p>
          Set by {s.way}. The battery wants {s.wants.lowV} to {s.wants.highV} V and float {s.wants.floatV}; it is harmed above {s.wants.harmV} V and takes at most {s.wants.rateA} A
          {s.wants.coldC > -40 ? `, nothing below ${s.wants.coldC} °C` : ""}.
        </p>
        {notes.map((n) => (
          <div key={n.id} className={`panelNote ${n.severity}`}>
            <b>{severityWord[n.severity]}.</b> {n.text} <span className="soft">{n.why}</span> <Cures note={n} />
          </div>
        ))}
        <table>
          <thead>
            <tr>
              <th scope="col">Setting</th>
              <th scope="col">Absorption</th>
              <th scope="col">Float</th>
              <th scope="col">By temperature</th>
              <th scope="col">How</th>
              <th scope="col">
                <span className="hidden">Set it</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {s.list.map((l) => (
              <tr key={l.id} className={l.id === s.now ? "fitted" : ""}>
                <th scope="row">
                  {l.label} {l.id === s.right && <span className="standing good">for this battery</span>} {l.id === s.now && <span className="standing">set</span>}
                </th>
                <td>{l.absorptionV.toFixed(1)} V</td>
                <td>{l.floatV > 0 ? `${l.floatV.toFixed(1)} V` : "rests"}</td>
                <td>{l.compensated ? "yes" : "no"}</td>
                <td className="how">{l.how || "not said"}</td>
                <td>
                  {!readOnly && l.id !== s.now && (
                    <Button size="compact-sm" variant="default" aria-label={`It is set so: ${l.label}`} onClick={() => dispatch({ type: "set", path: "profile.setting", value: l.id === s.right ? undefined : l.id })}>
                      It is set so
                    </Button>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
        <p>
          <b>Across the battery at the end of absorption: {s.getsV.toFixed(2)} V.</b>
        </p>
        {s.leads.length > 0 && (
          <>
            <h3>Each configuration lead, measured at handover</h3>
            <ul>
              {s.leads.map((l) => (
                <li key={l.lead}>
                  <b>Lead {l.lead}</b> {joined[l.joined]}: a meter against minus shows {l.reads}
                </li>
              ))}
            </ul>
          </>
        )}
        <div className="surveyFields">
          {["profile.broken", "profile.disable"].flatMap((p) => fieldOf(job, p) ?? []).map((f) => (
            <FieldInput key={f.path} field={f} />
          ))}
        </div>
      </section>
      <section aria-label="By temperature and card">
        <h3>What it holds by the battery&apos;s temperature</h3>
        <table>
          <tbody>
            {s.temps.map((t) => (
              <tr key={t.c}>
                <th scope="row">{String(t.c).replace("-", "−")} °C</th>
                <td>{t.volts.toFixed(2)} V</td>
                <td className="soft">
                  wanted {t.wants.toFixed(2)} V{t.clamped ? ", held back" : ""}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
        <OwnCard />
      </section>
    </div>
  );
}

/** OwnCard is the card of the charger that is really fitted, setting by setting. */
function OwnCard() {
  const job = useJob();
  const { state, dispatch, readOnly } = job;
  const keys = keysOf(state.doc, "settings");
  const chargers = usePartsBook().data?.parts.filter((p) => p.job) ?? [];
  const price = valueAt(state.doc, "card.price");
  return (
    <>
      <h3>Its own card</h3>
      <p className="soft">Without one it is a usual charger, assumed. Take one from the parts book, or enter what its sheet says, at 12 V.</p>
      {!readOnly && chargers.length > 0 && (
        <div className="row">
          {chargers.map((c) => (
            <Button key={c.key} size="compact-sm" variant="default" onClick={() => c.job && dispatch({ type: "setAll", values: Object.fromEntries(Object.entries(c.job).map(([path, value]) => [path, (value ?? undefined) as Value])) })}>
              Take {c.item.name}
            </Button>
          ))}
        </div>
      )}
      {price !== undefined && (
        <p>
          Priced {String(price)} {valueAt(state.doc, "card.currency") as string} on {valueAt(state.doc, "card.pricedOn") as string}.
        </p>
      )}
      <div className="surveyFields">
        {["card.name", "card.outputA", "card.efficiency", "card.cutOutV", "card.maxFuseA", "card.standbyA", "card.maxAmbientC", "card.detectOnV", "card.detectOffV", "card.way"].flatMap((p) => fieldOf(job, p) ?? []).map((f) => (
          <FieldInput key={f.path} field={f} />
        ))}
      </div>
      <ul className="rowsList">
        {keys.map((key) => (
          <li key={key} data-setting={key}>
            {["name", "for", "absorptionV", "floatV", "compensated", "leadA", "leadB", "how"].flatMap((n) => fieldOf(job, `settings.${key}.${n}`) ?? []).map((f) => (
              <FieldInput key={f.path} field={f} brief />
            ))}
            {!readOnly && (
              <Button size="compact-sm" variant="subtle" onClick={() => dispatch({ type: "setAll", values: emptied(state.doc, "settings", key) })}>
                Remove
              </Button>
            )}
          </li>
        ))}
      </ul>
      {!readOnly && (
        <Button variant="default" size="compact-md" onClick={() => dispatch({ type: "set", path: `settings.${newKey()}.name`, value: `setting ${keys.length + 1}` })}>
          Add a setting
        </Button>
      )}
    </>
  );
}
