import "@mantine/spotlight/styles.layer.css";

import { Spotlight, spotlight, type SpotlightActionData } from "@mantine/spotlight";
import { useEffect, type Dispatch } from "react";

import type { Plan } from "../api/client";
import type { Action } from "../job/history";
import { sheets, type SheetKey } from "./sheets";

interface Props {
  /** How often it was asked for: each time it opens. */
  wanted: number;
  go: (to: SheetKey) => void;
  dispatch: Dispatch<Action>;
  pick: (column: string) => void;
  ask: (question: string) => void;
  plan: Plan | null;
  exportJob: () => void;
  showKeys: () => void;
}

/** Finder finds a part, a question or a thing to do, by typing. It is loaded when it is first asked for. */
export default function Finder({ wanted, go, dispatch, pick, ask, plan, exportJob, showKeys }: Props) {
  useEffect(() => spotlight.open(), [wanted]);
  const things: SpotlightActionData[] = [
    { id: "export", label: "Export the job as a file", onClick: exportJob },
    ...sheets.map((s) => ({ id: s.name, label: `Sheet ${s.digit}: ${s.label.toLowerCase()}`, onClick: () => go(s.name) })),
    { id: "undo", label: "Undo", onClick: () => dispatch({ type: "undo" }) },
    { id: "redo", label: "Redo", onClick: () => dispatch({ type: "redo" }) },
    { id: "keys", label: "Keys", onClick: showKeys },
  ];
  const parts = (plan?.columns ?? []).map((c) => ({ id: `part-${c.id}`, label: `${c.name}: ${c.part.text}`, description: "part", onClick: () => pick(c.id) }));
  const questions = (plan?.questions ?? []).map((q) => ({ id: `ask-${q.id}`, label: q.ask, description: q.settled ? "settled" : "open", onClick: () => ask(q.id) }));
  return (
    <Spotlight
      actions={[...things, ...parts, ...questions]}
      shortcut={null}
      nothingFound="Nothing of that name"
      searchProps={{ placeholder: "Find or do", "aria-label": "Find or do" }}
      transitionProps={{ duration: 0 }}
      limit={12}
      scrollable
    />
  );
}
