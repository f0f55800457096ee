import { Button } from "@mantine/core";
import { memo, type Dispatch } from "react";

import type { Action } from "../job/history";

interface Props {
  undo: boolean;
  redo: boolean;
  dispatch: Dispatch<Action>;
  find: () => void;
  exportJob: () => void;
  showKeys: () => void;
}

/** Acts are what the bar of an open job offers. */
export const Acts = memo(function Acts({ undo, redo, dispatch, find, exportJob, showKeys }: Props) {
  const one = { variant: "subtle", size: "compact-sm" } as const;
  return (
    <>
      <Button {...one} disabled={!undo} onClick={() => dispatch({ type: "undo" })}>
        Undo
      </Button>
      <Button {...one} disabled={!redo} onClick={() => dispatch({ type: "redo" })}>
        Redo
      </Button>
      <Button {...one} onClick={find}>
        Find or do /
      </Button>
      <Button {...one} onClick={exportJob}>
        Export
      </Button>
      <Button {...one} className="wideOnly" onClick={showKeys}>
        Keys ?
      </Button>
    </>
  );
});
