import type { Figure } from "../api/client";
import css from "./Working.module.css";
import { otherwise } from "./units";
import { originWord } from "./words";

/** Working shows how a figure came about, in the trade's own notation. */
export function Working({ figure }: { figure: Figure }) {
  return (
    <details className={css.working} data-working>
      <summary>
        <span>{figure.name}</span>
        <b>{figure.text}</b>
      </summary>
      {figure.formula && (
        <p className={css.formula} data-formula>
          {figure.formula}
          <br />
          {figure.formula.split("=")[0]}= {figure.filled} = {otherwise(figure.unit) ? `${figure.value} ${figure.unit}, ${figure.text}` : figure.text}
        </p>
      )}
      <ul>
        {figure.inputs.map((input, i) => (
          <li key={i}>
            {input.letter && <i>{input.letter}</i>} {input.text}, {input.name}: {input.why} <span className={css.origin} data-origin={input.origin}>{originWord[input.origin]}</span>
          </li>
        ))}
      </ul>
      <p className="soft">
        {figure.decidedBy && <>{figure.decidedBy}. </>}
        {figure.source && <>Source: {figure.source}. </>}
        Before rounding: {String(figure.unrounded)} {figure.unit}
      </p>
    </details>
  );
}
