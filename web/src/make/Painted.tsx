import cx from "clsx";

import type { Schemas } from "../api/client";
import css from "./make.module.css";
import { whole, type View } from "./view";

interface Props {
  drawing: Schemas["Drawing"];
  lit: Set<string>;
  pick: (of: string) => void;
  /** The part of it that is seen; all of it where none is given. */
  view?: View;
  /** How much speaks for something being wrong at a part or wire. */
  suspected?: Map<string, number>;
  /** What is live, of parts and wires; what is not is faint. */
  live?: Set<string> | undefined;
  says?: string;
}

/** Painted paints the shapes that were laid out; nothing is placed here. */
export function Painted({ drawing, lit, pick, view = whole(drawing.w, drawing.h), suspected, live, says = "Wiring drawing; the list below reads it in order" }: Props) {
  return (
    <svg className={cx(css.wiring, lit.size > 0 && css.picking, live && css.lives)} viewBox={`${view.x} ${view.y} ${view.w} ${view.h}`} role="img" aria-label={says} style={{ "--wide": drawing.w / drawing.h } as React.CSSProperties}>
      {drawing.shapes.map((s, i) => {
        const at = s.at;
        const isLit = s.of !== undefined && lit.has(s.of);
        const share = s.of === undefined ? undefined : suspected?.get(s.of);
        const shade = share === undefined || s.kind === "text" ? undefined : ({ "--share": share } as React.CSSProperties);
        const isLive = s.of !== undefined && live?.has(s.of);
        const look = { className: cx(css[s.class], isLit && css.lit, shade && css.suspect, isLive && css.live), style: shade, "data-suspect": shade ? "" : undefined, "data-live": isLive || undefined, "data-shape": s.class, "data-lit": isLit || undefined };
        const onClick = s.of ? () => pick(s.of as string) : undefined;
        if (s.kind === "circle") return <circle key={i} {...look} cx={at[0]} cy={at[1]} r={at[2]} onClick={onClick} />;
        if (s.kind === "text")
          return (
            <text key={i} {...look} x={at[0]} y={at[1]} fontSize={s.size} textAnchor={s.start ? "start" : "middle"} onClick={onClick}>
              {s.text}
            </text>
          );
        const points = at.reduce((text, v, k) => text + v + (k % 2 === 0 ? "," : " "), "");
        return s.closed ? <polygon key={i} {...look} points={points} onClick={onClick} /> : <polyline key={i} {...look} points={points} onClick={onClick} />;
      })}
    </svg>
  );
}
