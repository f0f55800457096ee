import cx from "clsx";

import type { Schemas } from "../api/client";
import css from "./picture.module.css";

type Drawn = Schemas["Drawn"];

const wide = 360;
const side = 30;
const heights = { above: 22, plus: 66, minus: 122 };

/** Picture is the circuit as small as a telephone shows it, and where the probes or the clamp go. */
export function Picture({ picture, says }: { picture: Schemas["Picture"]; says: string }) {
  const x = (at: number) => side + (at * (wide - 2 * side)) / Math.max(1, picture.last);
  const red = picture.red;
  const black = picture.black;
  const near = (d: Drawn) => [red, black, picture.clamp].some((p) => p && p.line !== "above" && Math.abs(p.x - d.x) < 0.75);
  const named = (d: Drawn) => d.line !== "minus" && (picture.last < 8 || d.x === 0 || d.x === picture.last || d.line === "above") || near(d);
  const top = picture.parts.some((d) => d.line === "above") || red?.line === "above" ? 0 : 30;
  return (
    <svg className={css.picture} viewBox={`0 ${top} ${wide} ${152 - top}`} role="img" aria-label={says}>
      <line className={css.plus} x1={x(0)} x2={x(picture.last)} y1={heights.plus} y2={heights.plus} />
      <line className={css.minus} x1={x(0)} x2={x(picture.last)} y1={heights.minus} y2={heights.minus} />
      {picture.parts.map((d) => (
        <g key={d.id}>
          {d.line === "above" && <line className={css.signal} x1={x(d.x)} x2={x(d.x)} y1={heights.above + 8} y2={heights.plus - 12} />}
          <Symbol drawn={d} x={x(d.x)} y={heights[d.line]} />
          {named(d) && (
            <text className={css.name} x={x(d.x)} y={d.line === "minus" ? heights.minus + 22 : d.line === "above" ? 10 : heights.plus + 26} textAnchor={d.x === 0 ? "start" : d.x === picture.last ? "end" : "middle"} dx={d.x === 0 ? -side + 4 : d.x === picture.last ? side - 4 : 0}>
              {d.name}
            </text>
          )}
        </g>
      ))}
      {picture.clamp && <ellipse className={css.clamp} cx={x(picture.clamp.x)} cy={heights[picture.clamp.line]} rx="7" ry="15" />}
      {picture.clamp && <Tag x={x(picture.clamp.x)} y={heights[picture.clamp.line] - 22} kind="clamp" />}
      {black && <Probe x={x(black.x)} y={heights[black.line]} kind="black" below={black.line === "minus"} aside={red?.line === black.line && Math.abs(x(red.x) - x(black.x)) < 44} />}
      {red && <Probe x={x(red.x)} y={heights[red.line]} kind="red" below={red.line === "minus"} />}
    </svg>
  );
}

/** Symbol is a part as IEC 60617 draws it, where it has a symbol for it. */
function Symbol({ drawn, x, y }: { drawn: Drawn; x: number; y: number }) {
  const { kind, id, line } = drawn;
  if (id === "start" || id === "aux") {
    return (
      <g className={css.part}>
        <line x1={x} x2={x} y1={heights.plus} y2={heights.plus + 32} />
        <line x1={x - 11} x2={x + 11} y1={heights.plus + 32} y2={heights.plus + 32} />
        <line className={css.thick} x1={x - 5} x2={x + 5} y1={heights.plus + 38} y2={heights.plus + 38} />
        <line x1={x} x2={x} y1={heights.plus + 38} y2={heights.minus} />
      </g>
    );
  }
  if (line === "minus") return <circle className={css.part} cx={x} cy={y} r="3.5" />;
  if (kind === "fuse") {
    return (
      <g className={css.part}>
        <rect x={x - 9} y={y - 5} width="18" height="10" />
        <line x1={x - 9} x2={x + 9} y1={y} y2={y} />
      </g>
    );
  }
  return (
    <g className={css.part}>
      <rect x={x - 10} y={y - 11} width="20" height="22" />
      {(kind === "charger" || kind === "coupling") && <line x1={x - 10} x2={x + 10} y1={y + 11} y2={y - 11} />}
    </g>
  );
}

/** Probe is a ring; its word stands off the line, and further off where the other one's is beside it. */
function Probe({ x, y, kind, below, aside = false }: { x: number; y: number; kind: "red" | "black"; below: boolean; aside?: boolean }) {
  const off = aside ? 13 : 0;
  return (
    <g>
      <circle className={cx(css.probe, kind === "red" ? css.red : css.black)} cx={x} cy={y} r="7.5" />
      <Tag x={x} y={below ? y + 22 + off : y - 13 - off} kind={kind} />
    </g>
  );
}

/** Tag names a probe beside it: colour alone says nothing. */
function Tag({ x, y, kind }: { x: number; y: number; kind: string }) {
  const from = x < 50 ? "start" : x > wide - 50 ? "end" : "middle";
  return (
    <text className={css.tag} x={from === "start" ? Math.max(2, x - 14) : from === "end" ? Math.min(wide - 2, x + 14) : x} y={y} textAnchor={from}>
      {kind}
    </text>
  );
}
