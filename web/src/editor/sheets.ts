import { createElement, lazy, memo, type ComponentType } from "react";

import type { SheetName } from "../job/JobContext";

/**
 * sheet lists a sheet: what it is called in an address and by a key, and what is loaded when it is
 * opened. One that is there already is drawn at once.
 */
function sheet<K extends string>(name: K, digit: string, label: string, loadPage: () => Promise<{ default: ComponentType }>) {
  let there: ComponentType | null = null;
  const load = () => loadPage().then((m) => ((there = m.default), m));
  const Later = lazy(load);
  const Page = memo(() => createElement(there ?? Later));
  return { name, digit, label, address: name === "section" ? undefined : name, load, Page };
}

/** The sheets of a job, as they are numbered. A new one is a folder, and a line here. */
export const sheets = [
  sheet("survey", "0", "Survey", () => import("../survey/SurveySheet")),
  sheet("section", "1", "Section", () => import("../section/SectionSheet")),
  sheet("methods", "2", "Methods", () => import("../methods/MethodsSheet")),
  sheet("day", "3", "Day", () => import("../day/DaySheet")),
  sheet("wiring", "4", "Wiring", () => import("../wiring/WiringSheet")),
  sheet("cuts", "5", "Cuts and parts", () => import("../make/CutsSheet")),
  sheet("steps", "6", "Steps", () => import("../steps/StepsSheet")),
  sheet("proof", "7", "Proof", () => import("../proof/ProofSheet")),
  sheet("trace", "8", "Trace", () => import("../trace/TraceSheet")),
  sheet("record", "9", "Record", () => import("../record/Record")),
  sheet("browser", "B", "This browser", () => import("../browser/BrowserSheet")),
] as const satisfies (SheetName & { Page: ComponentType })[];

export type SheetKey = (typeof sheets)[number]["name"];

/** sheetOf is the sheet of a name. */
export const sheetOf = (name: SheetKey) => sheets.find((s) => s.name === name) ?? sheets[1];

export function isSheet(name: string): name is SheetKey {
  return sheets.some((s) => s.name === name);
}

/** addressOf is what a sheet is called in an address: the section is the job's own. */
export const addressOf = (name: SheetKey): string | undefined => sheetOf(name).address;
