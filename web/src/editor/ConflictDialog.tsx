import { Button, Modal } from "@mantine/core";
import { useState } from "react";

import type { Field } from "../api/client";
import type { Conflict } from "../job/document";
import { Choices } from "../ui/Choices";

/** ConflictDialog asks, field by field, whose change holds. Both are shown. */
export default function ConflictDialog({ conflicts, fields, decide }: { conflicts: Conflict[]; fields: Field[]; decide: (mine: Set<string>) => void }) {
  const [mine, setMine] = useState(() => new Set(conflicts.map((c) => c.path)));
  const choose = (path: string, keep: boolean) =>
    setMine((now) => {
      const next = new Set(now);
      if (keep) next.add(path);
      else next.delete(path);
      return next;
    });
  return (
    <Modal opened onClose={() => undefined} withCloseButton={false} title="Changed in two windows" size="lg">
      <p>Both changed the same. Which holds? The other stays in the saves.</p>
      {conflicts.map((c) => {
        const field = fields.find((f) => f.path === c.path);
        const show = (v: Conflict["mine"]) => (v === undefined ? "not answered" : (field?.choices.find((o) => o.value === String(v))?.label ?? `${v} ${field?.unit ?? ""}`));
        return (
          <Choices
            key={c.path}
            legend={field?.label ?? c.path}
            choices={[
              { value: "mine", label: `this window: ${show(c.mine)}` },
              { value: "theirs", label: `the other: ${show(c.theirs)}` },
            ]}
            value={mine.has(c.path) ? "mine" : "theirs"}
            onChoose={(whose) => choose(c.path, whose === "mine")}
          />
        );
      })}
      <Button mt="md" onClick={() => decide(mine)}>
        Go on with these
      </Button>
    </Modal>
  );
}
