import { Button } from "@mantine/core";

import type { Schemas } from "../api/client";
import { Cures } from "../job/Cures";
import { valueAt, type Value } from "../job/document";
import { FieldInputs, Fields } from "../job/Fields";
import { useJob } from "../job/JobContext";
import { AddRow, RowList } from "../job/RowList";
import { keysOf } from "../job/rows";
import { usePartsBook } from "../parts/usePartsBook";
import { NoteBox } from "../ui/NoteBox";
import { Standing } from "../ui/Standing";
import { Table, type TableColumn } from "../ui/Table";
import { figure } from "../ui/units";
import { AllCharging, OtherSources } from "./AllCharging";
import css from "./wiring.module.css";

const card = ["name", "outputA", "efficiency", "cutOutV", "maxFuseA", "standbyA", "maxAmbientC", "detectOnV", "detectOffV", "way"].map((n) => `card.${n}`);
const setting = ["name", "for", "absorptionV", "floatV", "compensated", "leadA", "leadB", "how"];

const temps: TableColumn<Schemas["Settings"]["temps"][number]>[] = [
  { key: "c", head: "Battery", names: true, cell: (t) => figure(t.c, "°C", 0) },
  { key: "volts", head: "Holds", cell: (t) => `${t.volts.toFixed(2)} V` },
  { key: "wants", head: "Wanted", set: "soft", cell: (t) => `wanted ${t.wants.toFixed(2)} V${t.clamped ? ", held back" : ""}` },
];

/** SettingsTab is the charger's configuration card: how it is set for this battery, and what the battery really gets. */
export function SettingsTab() {
  const { plan, dispatch, readOnly } = useJob();
  const s = plan.settings;
  const notes = plan.notes.filter((n) => n.id.startsWith("profile."));
  const columns: TableColumn<Schemas["Settings"]["list"][number]>[] = [
    {
      key: "setting",
      head: "Setting",
      names: true,
      cell: (l) => (
        <>
          {l.label}{" "}
          {l.id === s.right && (
            <Standing inline level="good">
              for this battery
            </Standing>
          )}{" "}
          {l.id === s.now && <Standing inline>set</Standing>}
        </>
      ),
    },
    { key: "absorption", head: "Absorption", set: "figure", cell: (l) => `${l.absorptionV.toFixed(1)} V` },
    { key: "float", head: "Float", set: "figure", cell: (l) => (l.floatV > 0 ? `${l.floatV.toFixed(1)} V` : "rests") },
    { key: "compensated", head: "By temperature", set: "figure", cell: (l) => (l.compensated ? "yes" : "no") },
    { key: "how", head: "How", cell: (l) => l.how || "not said" },
    {
      key: "set",
      head: "Set it",
      quiet: true,
      cell: (l) =>
        !readOnly &&
        l.id !== s.now && (
          <Button size="compact-sm" variant="default" aria-label={`It is set so: ${l.label}`} onClick={() => dispatch({ type: "set", path: "profile.setting", value: l.id === s.right ? undefined : l.id })}>
            It is set so
          </Button>
        ),
    },
  ];
  if (!s.charger)
    return (
      <>
        <AllCharging />
        <p className="soft">The coupling has no charger to set: the aux battery gets what the alternator gives.</p>
        <OtherSources />
      </>
    );
  return (
    <>
    <AllCharging />
    <div className={css.settings}>
      <section aria-label="Configuration card">
        <h3>
          {s.card}, for {s.wants.battery}
        </h3>
        <p>
          Set by {s.way}. The battery wants {s.wants.lowV} to {s.wants.highV} V and float {s.wants.floatV}; it is harmed above {s.wants.harmV} V and takes at most {s.wants.rateA} A
          {s.wants.coldC === undefined ? "" : `, nothing below ${figure(s.wants.coldC, "°C", 0)}`}.
        </p>
        {notes.map((n) => (
          <NoteBox key={n.id} note={n}>
            <Cures note={n} />
          </NoteBox>
        ))}
        <Table caption="Settings of the card" rows={s.list} columns={columns} keyOf={(l) => l.id} marked={(l) => l.id === s.now} />
        <p>
          <b>Across the battery at the end of absorption: {s.getsV.toFixed(2)} V.</b>
        </p>
        {s.leads.length > 0 && (
          <>
            <h3>Each configuration lead, measured at handover</h3>
            <ul>
              {s.leads.map((l) => (
                <li key={l.lead}>
                  <b>Lead {l.lead}</b> {l.joined}: a meter against minus shows {l.reads}
                </li>
              ))}
            </ul>
          </>
        )}
        <Fields paths={["profile.broken", "profile.disable", "profile.fed", "card.probe"]} />
        <OtherSources />
      </section>
      <section aria-label="By temperature and card">
        <h3>What the charger holds by the battery&apos;s temperature</h3>
        <Table bare caption="What the charger holds by temperature" rows={s.temps} columns={temps} keyOf={(t) => String(t.c)} />
        <OwnCard />
      </section>
    </div>
    </>
  );
}

/** OwnCard is the card of the charger that is really fitted, setting by setting. */
function OwnCard() {
  const { state, dispatch, readOnly } = useJob();
  const chargers = usePartsBook().data?.parts.filter((p) => p.item.kind === "charger") ?? [];
  const price = valueAt(state.doc, "card.price");
  return (
    <>
      <h3>The charger's own card</h3>
      <p className="soft">Without a card the charger is taken for a usual one. Take one from the parts book, or enter what its sheet says, at 12 V.</p>
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
      <Fields paths={card} />
      <RowList list="settings">{(key) => <FieldInputs brief paths={setting.map((n) => `settings.${key}.${n}`)} />}</RowList>
      <AddRow list="settings" name="name" value={`setting ${keysOf(state.doc, "settings").length + 1}`}>
        Add a setting
      </AddRow>
    </>
  );
}
