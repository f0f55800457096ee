/** The sheets of a job, as they are numbered. */
export const sheets = [
  { name: "survey", digit: "0", label: "Survey" },
  { name: "section", digit: "1", label: "Section" },
  { name: "methods", digit: "2", label: "Methods" },
  { name: "day", digit: "3", label: "Day" },
  { name: "wiring", digit: "4", label: "Wiring" },
  { name: "cuts", digit: "5", label: "Cuts and parts" },
  { name: "steps", digit: "6", label: "Steps" },
  { name: "record", digit: "9", label: "Record" },
] as const;

export type Sheet = (typeof sheets)[number]["name"];

export function isSheet(name: string): name is Sheet {
  return sheets.some((s) => s.name === name);
}

/** addressOf is what a sheet is called in an address: the section is the job's own. */
export const addressOf = (sheet: Sheet): string | undefined => (sheet === "section" ? undefined : sheet);
