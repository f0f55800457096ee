import { Modal } from "@mantine/core";

import { sheets } from "./sheets";
import css from "./editor.module.css";

const keys: [string, string][] = [
  ...sheets.map((s): [string, string] => [s.digit, s.label.toLowerCase()]),
  ["← →", "pick the part before or after"],
  ["Esc", "close the part"],
  ["Q", "answer the next question"],
  ["N", "go to the next note's part"],
  ["S", "show the next state"],
  ["Space", "on the day: play, stop"],
  ["← →", "on the day: move; with Shift, event by event"],
  ["Z", "undo; with Shift, redo"],
  ["/", "find or do"],
  ["?", "this list"],
];

/** Keys lists the single-key shortcuts. */
export default function Keys({ onClose }: { onClose: () => void }) {
  return (
    <Modal opened onClose={onClose} title="Keys" closeButtonProps={{ "aria-label": "Close" }}>
      <dl className={css.keys}>
        {keys.map(([key, what]) => (
          <div key={key}>
            <dt>
              <kbd>{key}</kbd>
            </dt>
            <dd>{what}</dd>
          </div>
        ))}
      </dl>
    </Modal>
  );
}
