import { Button } from "@mantine/core";
import { memo, type Dispatch } from "react";

import { useTakeAlong } from "../along/useTakeAlong";
import type { Action } from "../job/history";

interface Props {
  id: string;
  undo: boolean;
  redo: boolean;
  dispatch: Dispatch<Action>;
  find: () => void;
  exportJob: () => void;
  showKeys: () => void;
}

/** Acts are what the bar of an open job offers. */
export const Acts = memo(function Acts({ id, undo, redo, dispatch, find, exportJob, showKeys }: Props) {
  const along = useTakeAlong(id);
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
      <Button {...one} loading={along.busy} aria-pressed={along.is} onClick={along.act} title={along.failed ? "That did not work: the server does not answer, or this browser has no room." : along.is ? "This job is on this device; press to take it off again." : "Bring this job onto this device, to work without the server."}>
        {along.failed ? "Not taken along" : along.is ? "Taken along" : "Take along"}
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
