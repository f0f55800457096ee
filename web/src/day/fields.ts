import type { Field } from "../api/client";

/** The fields of a design that are worth comparing and sweeping, in working order. */
export const compared = [
  "pins.coupling", "pins.chargerA", "pins.startSize", "pins.auxSize", "pins.return", "aux.chemistry", "aux.capacityAh", "use.dailyAh", "use.drivenHours",
  "routes.startM", "alternator.label", "alternator.regulation", "day.pattern", "day.outsideC", "day.solarW", "day.trigger",
];

/** swept are those of them whose values make a map. */
export const swept = compared.filter((p) => p !== "alternator.label");

export const byPath = (fields: Field[], path: string): Field | undefined => fields.find((f) => f.path === path);
