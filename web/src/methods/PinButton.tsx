import { Button } from "@mantine/core";

import { useJob } from "../job/JobContext";
import type { Method } from "./useJudged";

/** PinButton pins a coupling, or lets the plan choose again. */
export function PinButton({ method: m }: { method: Method }) {
  const { dispatch, state, readOnly } = useJob();
  if (readOnly) return null;
  const pinned = state.doc.pins?.coupling === m.method.kind;
  return (
    <Button size="compact-md" variant={pinned ? "filled" : "default"} onClick={() => dispatch({ type: "set", path: "pins.coupling", value: pinned ? undefined : m.method.kind })}>
      {pinned ? "Unpin" : "Pin"}
      <span className="hidden">&nbsp;the {m.method.label}</span>
    </Button>
  );
}
