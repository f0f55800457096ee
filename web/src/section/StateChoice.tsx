import { NativeSelect } from "@mantine/core";

import { useShown } from "../job/JobContext";
import { shownState } from "./geometry";
import css from "./section.module.css";

/** StateChoice picks the state of the vehicle that the section shows, and says what happens in it. */
export function StateChoice() {
  const { plan, shown, show } = useShown();
  const state = shownState(plan, shown);
  const worst = plan.states.find((s) => s.worst);
  const says = state ? state.fails || state.says : worst && `${worst.label}, the worst: ${worst.fails || worst.says}`;
  return (
    <div className={css.stateChoice} data-state={state?.id ?? "charging"}>
      <NativeSelect label="State" size="xs" value={state?.id ?? ""} onChange={(e) => show(e.currentTarget.value || null)}>
        <option value="">all while charging</option>
        {plan.states.map((s) => (
          <option key={s.id} value={s.id}>
            {s.label}
          </option>
        ))}
      </NativeSelect>
      <p data-fails={state?.fails ? true : undefined}>{says}</p>
    </div>
  );
}
