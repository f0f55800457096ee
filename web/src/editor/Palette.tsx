import "@mantine/spotlight/styles.layer.css";

import { Button } from "@mantine/core";
import { Spotlight, spotlight, type SpotlightActionData } from "@mantine/spotlight";
import type { Dispatch } from "react";

import type { Plan } from "../api/client";
import type { Doc } from "../job/document";
import type { Action } from "../job/history";
import { handOver } from "../ui/handOver";
import { sheets, type SheetKey } from "./sheets";

interface Props {
  go: (to: SheetKey) => void;
  dispatch: Dispatch<Action>;
  pick: (column: string) => void;
  ask: (question: string) => void;
  plan: Plan | null;
  doc: Doc;
  number: string;
  showKeys: () => void;
}

const exportFile = (doc: Doc, number: string) => handOver(JSON.stringify(doc, null, 2) + "\n", `job-${number}.json`, "application/json");

/** Palette finds a part, a question or a thing to do, by typing. */
export function Palette({ go, dispatch, pick, ask, plan, doc, number, showKeys }: Props) {
  const things: SpotlightActionData[] = [
    { id: "export", label: "Export the job as a file", onClick: () => exportFile(doc, number) },
    ...sheets.map((s) => ({ id: s.name, label: `SheetKey ${s.digit}: ${s.label.toLowerCase()}`, onClick: () => go(s.name) })),
    { id: "undo", label: "Undo", onClick: () => dispatch({ type: "undo" }) },
    { id: "redo", label: "Redo", onClick: () => dispatch({ type: "redo" }) },
    { id: "keys", label: "Keys", onClick: showKeys },
  ];
  const parts = (plan?.columns ?? []).map((c) => ({ id: `part-${c.id}`, label: `${c.name}: ${c.part.text}`, description: "part", onClick: () => pick(c.id) }));
  const questions = (plan?.questions ?? []).map((q) => ({ id: `ask-${q.id}`, label: q.ask, description: q.settled ? "settled" : "open", onClick: () => ask(q.id) }));
  return (
    <>
      <Button variant="subtle" size="compact-sm" onClick={spotlight.open}>
        Find or do /
      </Button>
      <Button variant="subtle" size="compact-sm" onClick={() => exportFile(doc, number)}>
        Export
      </Button>
      <Spotlight
        actions={[...things, ...parts, ...questions]}
        shortcut={["/", "mod + K"]}
        nothingFound="Nothing of that name"
        searchProps={{ placeholder: "Find or do", "aria-label": "Find or do" }}
        transitionProps={{ duration: 0 }}
        limit={12}
        scrollable
      />
    </>
  );
}
