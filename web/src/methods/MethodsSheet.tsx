import { Tabs } from "@mantine/core";
import { useMediaQuery } from "@mantine/hooks";
import { useRef, useState } from "react";

import { Sheet } from "../job/Sheet";
import { useStored } from "../ui/stored";
import { Wait, type Asked } from "../ui/Wait";
import { Cards } from "./Cards";
import { Compared } from "./Compared";
import css from "./methods.module.css";
import { Reasons } from "./Reasons";
import { ranked } from "./rows";
import { RuledOut } from "./RuledOut";
import { Schools } from "./Schools";
import { Shelf } from "./Shelf";
import { Sizings } from "./Sizings";
import { useDriven, useJudged, type Judged, type Method } from "./useJudged";

/** MethodsSheet is sheet 2: the couplings that stand, side by side in what decides this job, with why beside them. */
export default function MethodsSheet() {
  const judged = useJudged();
  return <Sheet name="methods">{judged.answer ? <Side judged={judged} answer={judged.answer} /> : <Wait asked={judged} what="Trying every coupling" />}</Sheet>;
}

function Side({ judged, answer }: { judged: Asked<Judged>; answer: Judged }) {
  const [looked, look] = useState<string | null>(null);
  const narrow = useMediaQuery("(max-width: 900px)", false, { getInitialValueInEffect: false });
  const { asking, failed } = judged;
  const driven = useDriven(answer.methods, !asking);
  const list = ranked(driven.list);
  const at = list.find((m) => m.method.kind === looked) ?? list.find((m) => m.fitted) ?? (list[0] as Method);
  // What is ruled out is a line, unless it is fitted or looked at.
  const stand = list.filter((m) => !m.method.ruledOut || m.fitted || m === at);
  const out = list.filter((m) => m.method.ruledOut);
  return (
    <div className={css.whole} data-asking={asking || driven.driving}>
      <h2 className="hidden">Couplings</h2>
      <p className={css.head}>
        <b>Which coupling.</b> Each was sized, solved and driven as if it were fitted.{" "}
        <span className="soft" role="status">
          {failed ? "The server does not answer; this is the last answer." : asking ? "working it out …" : driven.driving ? "running each through time …" : ""}
        </span>
      </p>
      <div className={css.side}>
        <div className={css.compared}>
          {narrow ? <Cards list={stand} at={at} look={look} /> : <Compared list={stand} at={at} look={look} />}
          <RuledOut list={out} at={at} look={look} />
        </div>
        {!narrow && <Reasons key={at.method.kind} method={at} />}
      </div>
      <Besides answer={answer} />
    </div>
  );
}

/** Besides is what else is asked of a method: its size, what is on the shelf, where the trade differs. */
function Besides({ answer }: { answer: Judged }) {
  const [tab, pick] = useStored("methodsTab", "sizes", "window");
  const tabs = useRef<HTMLDivElement>(null);
  /** show opens a tab, and brings what it holds into sight. */
  const show = (t: string | null) => {
    pick(t ?? "sizes");
    requestAnimationFrame(() => tabs.current?.scrollIntoView({ block: "start" }));
  };
  return (
    <Tabs ref={tabs} value={tab} onChange={show} keepMounted={false} color="ink" className={css.tabs}>
      <Tabs.List>
        <Tabs.Tab value="sizes">Charger size</Tabs.Tab>
        <Tabs.Tab value="shelf">From the shelf</Tabs.Tab>
        <Tabs.Tab value="schools">Where the trade differs</Tabs.Tab>
      </Tabs.List>
      <Tabs.Panel value="sizes">
        <Sizings list={answer.sizings} />
      </Tabs.Panel>
      <Tabs.Panel value="shelf">
        <Shelf />
      </Tabs.Panel>
      <Tabs.Panel value="schools">
        <Schools list={answer.schools} />
      </Tabs.Panel>
    </Tabs>
  );
}
