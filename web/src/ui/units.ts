import { scaleLinear } from "d3-scale";

import type { Schemas } from "../api/client";

/** Units are those that figures are written in; what is stored stays in metres, mm and °C. */
export type Units = Schemas["Units"];

const metric: Units = { area: "mm2", length: "m", temperature: "C", torque: "Nm" };

/** The words for units, as a list of them is written: "awg,ft,F,lbft". */
export const listOf = (u: Units): string => [u.area, u.length, u.temperature, u.torque].join(",");

/** read is a list of units. */
export function read(list: string): Units {
  const has = (word: string) => list.toLowerCase().split(/[ ,]+/).includes(word);
  return {
    area: has("awg") ? "awg" : has("auto") ? "auto" : "mm2",
    length: has("ft") ? "ft" : "m",
    temperature: has("f") ? "F" : "C",
    torque: has("lbft") ? "lbft" : "Nm",
  };
}

let now = metric;

/** writeIn has figures written in other units from now on; who shows them is drawn anew with the next answer. */
export function writeIn(units: Units | undefined) {
  now = units ?? metric;
}

/** current are the units that figures are written in. */
export const current = (): Units => now;

const inch = 0.0254;
const quarters = ["", "¼", "½", "¾"];

function quarter(v: number): string {
  const whole = Math.trunc(v);
  const part = quarters[Math.round(4 * (v - whole)) % 4] ?? "";
  return whole === 0 && part !== "" ? part : `${whole}${part}`;
}

/** feet writes metres: to the inch, or to a quarter of it where they have two decimals or more. */
function feet(metres: number, digits: number): string {
  const step = digits > 1 ? 0.25 : 1;
  const inches = Math.round(metres / inch / step) * step;
  if (inches < 24) return `${quarter(inches)} in`;
  const ft = Math.trunc(inches / 12);
  const rest = inches - 12 * ft;
  return rest > 0 ? `${ft} ft ${quarter(rest)} in` : `${ft} ft`;
}

/** inches writes mm: in quarters of an inch where that is near, the small in hundredths. */
function inches(mm: number, digits: number): string {
  const v = mm / 25.4;
  if (digits > 0 || mm < 20) return `${v.toFixed(2)} in`;
  if (Math.abs(Math.round(v) - v) <= 0.025 * v) return `${Math.round(v)} in`;
  if (Math.abs(Math.round(4 * v) / 4 - v) <= 0.05 * v) return `${quarter(Math.round(4 * v) / 4)} in`;
  return `${v.toFixed(1)} in`;
}

/** number is a value as shown, with a true minus sign. */
export const number = (v: number, digits: number): string => v.toFixed(digits).replace(/^-0(\.0*)?$/, (z) => z.slice(1)).replace("-", "−");

const plain = (v: number, unit: string, digits: number) => `${number(v, digits)} ${unit}`.trim();

/** figure writes a value of the core's in the units that are read, with a number of digits. */
export function figure(v: number, unit: string, digits: number, u: Units = now): string {
  if (unit === "m" && u.length === "ft") return feet(v, digits);
  if (unit === "mm" && u.length === "ft") return inches(v, digits);
  if (unit === "°C" && u.temperature === "F") return plain(v * 1.8 + 32, "°F", digits);
  return plain(v, unit, digits);
}

/** otherwise says whether what has a unit in the core is written in another. */
export const otherwise = (unit: string): boolean =>
  (now.length === "ft" && (unit === "m" || unit === "mm")) || (now.temperature === "F" && (unit === "°C" || unit === "K")) || (now.torque === "lbft" && unit === "N·m") || (now.area === "awg" && unit === "mm²");

/** counted is so many of a thing, or so much of one that is measured. */
export const counted = (count: number, unit: string): string => (unit === "m" ? figure(count, unit, (String(count).split(".")[1] ?? "").length || 1) : `${count} ${unit}`.trim());

/** round are values of the core's between two, about as many as are wanted, that are round in the units that are read. */
export function round(from: number, to: number, unit: string, count: number): number[] {
  if (unit !== "°C" || now.temperature !== "F") return scaleLinear([from, to], [0, 1]).ticks(count);
  return scaleLinear([from * 1.8 + 32, to * 1.8 + 32], [0, 1]).ticks(count).map((f) => (f - 32) / 1.8);
}

/** scaleBar is a length that is round in the units that are read, about half a metre. */
export const scaleBar = (): { metres: number; says: string } => (now.length === "ft" ? { metres: 24 * inch, says: "2 ft" } : { metres: 0.5, says: "0.5 m" });

/** asTyped writes an answer as somebody would type it, to no fewer digits than it has. */
export function asTyped(v: number, unit: string): string {
  const digits = (String(v).split(".")[1] ?? "").length;
  if (unit === "m" && now.length === "ft") return feet(v, 2);
  if (unit === "mm" && now.length === "ft") return `${Number((v / 25.4).toFixed(2))} in`;
  if (unit === "°C" && now.temperature === "F") return plain(v * 1.8 + 32, "°F", Math.max(digits - 1, 0));
  return `${v} ${unit}`;
}

/** bare is the unit that a number without one is in, where that is not the core's. */
const bare = (unit: string): string => (now.length === "ft" && unit === "m" ? "ft" : now.length === "ft" && unit === "mm" ? "in" : now.temperature === "F" && unit === "°C" ? "°F" : "");

/** What is put behind a bare number is set off by this space, so that it is not shown as typed. */
const meantBy = "\u00a0";

/** meant is a text as it is meant: a bare number is in the unit that the field is shown in. */
export function meant(text: string, unit: string): string {
  const by = bare(unit);
  return by !== "" && /^\s*[-−+]?[\d.,]+\s*$/.test(text) ? `${text.trim()}${meantBy}${by}` : text;
}

/** typed is a meant text as it was typed. */
export const typed = (text: string): string => text.split(meantBy)[0] ?? text;
