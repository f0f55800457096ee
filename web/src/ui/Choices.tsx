import { Chip } from "@mantine/core";

import css from "./Choices.module.css";

export interface Choice {
  value: string;
  label: string;
}

interface Props {
  /** What is asked. */
  legend: string;
  /** Whether that is seen, and where it stands. */
  legendAt?: "above" | "beside" | "nowhere";
  choices: Choice[];
  value: string;
  /** The choice that stands in for an answer. */
  assumed?: string;
  disabled?: boolean;
  onChoose: (value: string) => void;
  /** The choice that is on was touched again. */
  onSame?: () => void;
}

/** Choices are answers side by side, one of them on. */
export function Choices({ legend, legendAt = "above", choices, value, assumed, disabled, onChoose, onSame }: Props) {
  return (
    <Chip.Group value={value} onChange={onChoose}>
      <fieldset className={css.choices} data-legend={legendAt} disabled={disabled}>
        <legend className={legendAt === "nowhere" ? "hidden" : undefined}>{legend}</legend>
        {choices.map((c) => (
          <OneChoice key={c.value} value={c.value} assumed={c.value === assumed} onSame={c.value === value ? onSame : undefined}>
            {c.label}
          </OneChoice>
        ))}
      </fieldset>
    </Chip.Group>
  );
}

/** OneChoice is one of several answers that stand apart, within a Chip.Group. */
export function OneChoice({ value, assumed, disabled, onSame, children }: { value: string; assumed?: boolean; disabled?: boolean; onSame?: (() => void) | undefined; children: string }) {
  return (
    <Chip value={value} disabled={disabled} data-assumed={assumed || undefined} onClick={onSame}>
      {children}
      {assumed && <span className="assumed">assumed</span>}
    </Chip>
  );
}
