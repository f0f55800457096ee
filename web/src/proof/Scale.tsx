import type { Schemas } from "../api/client";
import css from "./scale.module.css";

const wide = 360;

/** Scale is the band of a reading as a line: what is likely, what is possible, and what was read. */
export function Scale({ band, value, expect, level }: { band: Schemas["Bounds"]; value: number | undefined; expect: string; level: Schemas["Meaning"]["level"] | undefined }) {
  const [least = 0, most = 0] = band.possible;
  const [from = 0, to = 0] = band.likely;
  const span = Math.max(most - least, 1e-9);
  const low = least - 0.25 * span;
  const high = most + 0.25 * span;
  const x = (v: number) => 8 + ((wide - 16) * (Math.min(high, Math.max(low, v)) - low)) / (high - low);
  return (
    <svg className={css.scale} viewBox={`0 0 ${wide} 40`} role="img" aria-label={`Expected ${expect}`}>
      <rect className={css.all} x="8" width={wide - 16} y="14" height="9" />
      <rect className={css.possible} x={x(least)} width={x(most) - x(least)} y="14" height="9" />
      <rect className={css.likely} x={x(from)} width={x(to) - x(from)} y="14" height="9" />
      <text className={css.words} x={Math.min(wide - 90, Math.max(90, (x(from) + x(to)) / 2))} y="37" textAnchor="middle">
        expected {expect}
      </text>
      {value !== undefined && (
        <path className={level === "likely" ? css.good : level === "possible" ? css.near : css.bad} d={`M ${x(value)} 24 v -13 m -6 -9 h 12 l -6 9 z`} />
      )}
    </svg>
  );
}
