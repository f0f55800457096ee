import { Tabs } from "@mantine/core";

import { api, take } from "../api/client";
import { useJob } from "../job/JobContext";
import { Sheet } from "../job/Sheet";
import { useAsked } from "../job/useAsked";
import { DrawingTab } from "../make/DrawingTab";
import { CheckList } from "../ui/CheckList";
import { useStored } from "../ui/stored";
import { Wait } from "../ui/Wait";
import { BeforeAfter } from "../found/BeforeAfter";
import { Chain } from "./Chain";
import { ExtrasTab } from "./ExtrasTab";
import { LiveMap } from "./LiveMap";
import { ModeTable } from "./ModeTable";
import { SettingsTab } from "./SettingsTab";
import css from "./wiring.module.css";

/** WiringSheet is sheet 4: the whole chain, every position of the switches, what stays live, and what was there before. */
export default function WiringSheet() {
  const [tab, pick] = useStored("wiringTab", "chain", "window");
  return (
    <Sheet name="wiring" fills>
    <Tabs value={tab} onChange={(t) => pick(t ?? "chain")} keepMounted={false} color="ink" className={css.tabs}>
      <h2 className="hidden">The installation as a whole</h2>
      <Tabs.List>
        <Tabs.Tab value="chain">Chain and checks</Tabs.Tab>
        <Tabs.Tab value="drawing">Drawing</Tabs.Tab>
        <Tabs.Tab value="modes">Modes</Tabs.Tab>
        <Tabs.Tab value="live">What stays live</Tabs.Tab>
        <Tabs.Tab value="settings">Settings</Tabs.Tab>
        <Tabs.Tab value="extras">Extras</Tabs.Tab>
        <Tabs.Tab value="found">Before and after</Tabs.Tab>
      </Tabs.List>
      <Tabs.Panel value="chain">
        <ChainAndChecks />
      </Tabs.Panel>
      <Tabs.Panel value="drawing">
        <DrawingTab />
      </Tabs.Panel>
      <Tabs.Panel value="modes">
        <Modes part="modes" />
      </Tabs.Panel>
      <Tabs.Panel value="live">
        <Modes part="live" />
      </Tabs.Panel>
      <Tabs.Panel value="settings">
        <SettingsTab />
      </Tabs.Panel>
      <Tabs.Panel value="extras">
        <ExtrasTab />
      </Tabs.Panel>
      <Tabs.Panel value="found">
        <BeforeAfter />
      </Tabs.Panel>
    </Tabs>
    </Sheet>
  );
}

const titles: Record<string, string> = { place: "The coupling's place", fit: "The battery's place", bank: "The bank", join: "Before both batteries are joined", extras: "Extras", answers: "Answers that do not go together" };

function ChainAndChecks() {
  const { plan } = useJob();
  return (
    <div className={css.chain}>
      <Chain links={plan.chain} bank={plan.bank} />
      <div>
        {Object.keys(titles).map((g) => (
          <CheckList key={g} title={titles[g]} checks={plan.checks.filter((c) => c.group === g)} figures={plan.figures} />
        ))}
      </div>
    </div>
  );
}

function Modes({ part }: { part: "modes" | "live" }) {
  const asked = useAsked("modes", (doc, signal) => take(api.POST("/api/modes", { body: doc, signal })));
  if (!asked.answer) return <Wait asked={asked} what="Going through every position" />;
  return part === "modes" ? <ModeTable modes={asked.answer} /> : <LiveMap modes={asked.answer} />;
}
