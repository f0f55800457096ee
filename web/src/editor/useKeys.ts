import { useHotkeys } from "@mantine/hooks";
import type { Dispatch } from "react";

import type { Plan } from "../api/client";
import type { Action } from "../job/history";
import { sheets, type SheetKey } from "./sheets";

interface Doing {
  sheet: SheetKey;
  plan: Plan | null;
  picked: string | null;
  pick: (column: string | null) => void;
  shown: string | null;
  show: (state: string | null) => void;
  ask: (question: string | null) => void;
  dispatch: Dispatch<Action>;
  go: (to: SheetKey) => void;
  find: () => void;
  showKeys: () => void;
}

/** useKeys are the single-key shortcuts, as listed under "?". */
export function useKeys({ sheet, plan, picked, pick, shown, show, ask, dispatch, go, find, showKeys }: Doing): void {
  const move = (by: number) => {
    if (!plan || sheet !== "section") return;
    const at = plan.columns.findIndex((c) => c.id === picked);
    const next = plan.columns[at < 0 ? (by > 0 ? 0 : plan.columns.length - 1) : at + by];
    if (next) {
      pick(next.id);
      document.querySelector<HTMLElement>(`[data-part="${next.id}"]`)?.focus();
    }
  };
  const note = () => {
    if (!plan || plan.notes.length === 0) return;
    const at = plan.notes.findIndex((n) => n.column === picked);
    pick(plan.notes[(at + 1) % plan.notes.length]?.column ?? null);
  };
  const state = () => {
    const ids = [null, ...(plan?.states ?? []).map((s) => s.id)];
    show(ids[(ids.indexOf(shown) + 1) % ids.length] ?? null);
  };
  const question = () => {
    const open = plan?.questions.find((q) => !q.settled);
    ask(open?.id ?? null);
    document.querySelector<HTMLElement>("[data-question] input, [data-question] select")?.focus();
  };
  useHotkeys([
    ...sheets.map((s): [string, () => void] => [s.digit, () => go(s.name)]),
    ["ArrowRight", () => move(1)],
    ["ArrowLeft", () => move(-1)],
    ["Escape", () => pick(null)],
    ["N", note],
    ["S", state],
    ["Q", question],
    ["Z", () => dispatch({ type: "undo" })],
    ["shift+Z", () => dispatch({ type: "redo" })],
    ["mod+Z", () => dispatch({ type: "undo" })],
    ["mod+shift+Z", () => dispatch({ type: "redo" })],
    ["/", find],
    ["mod+K", find],
    ["shift+?", showKeys],
    ["?", showKeys],
  ]);
}
