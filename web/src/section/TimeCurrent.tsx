import type { Schemas } from "../api/client";
import { Tick } from "../ui/Tick";
import { across, bandPath, limitPath, picture, powers } from "./timeCurrent";
import css from "./panel.module.css";

const box = { width: 364, height: 232, left: 46, right: 8, top: 8, bottom: 30 };

/** TimeCurrent is how long a fuse lets a current flow, and how long its cable bears it. */
export function TimeCurrent({ curve }: { curve: Schemas["Curve"] }) {
  const { x, y } = picture(curve, box);
  const floor = box.height - box.bottom;
  return (
    <figure className={css.timeCurrent}>
      <figcaption>
        How long a current may flow: <b className={css.band}>{curve.label}</b> opens within the band, <b className={css.limit}>{curve.cable}</b> bears it up to the dashed line.
      </figcaption>
      <svg viewBox={`0 0 ${box.width} ${box.height}`} width={box.width} height={box.height} aria-hidden focusable="false">
        {powers(y.domain()).map((t) => (
          <Tick key={t} from={box.left} to={box.width - box.right} at={y(t)}>
            {duration(t)}
          </Tick>
        ))}
        {across(x).map((a) => (
          <Tick key={a} upright from={box.top} to={floor} at={x(a)}>
            {a >= 1000 ? `${a / 1000}k` : a}
          </Tick>
        ))}
        <text x={box.width - box.right} y={floor + 27} textAnchor="end">
          A
        </text>
        <path data-band className={css.bandArea} d={bandPath(curve, x, y)} />
        <path className={css.cableLimit} d={limitPath(curve, x, y)} />
        {curve.marks.map((m) => (
          <g key={m.text} className={css.currentMark}>
            <line x1={x(m.amps)} x2={x(m.amps)} y1={box.top} y2={floor} />
            <text transform={`translate(${x(m.amps) - 3} ${floor - 4}) rotate(-90)`}>{m.text}</text>
          </g>
        ))}
      </svg>
      <ul>
        {curve.says.map((s) => (
          <li key={s}>{s}</li>
        ))}
      </ul>
    </figure>
  );
}

function duration(s: number): string {
  return s >= 3600 ? `${Math.round(s / 3600)} h` : s >= 60 ? `${Math.round(s / 60)} min` : `${s} s`;
}
