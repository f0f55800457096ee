import { Button, Menu } from "@mantine/core";
import { useMediaQuery } from "@mantine/hooks";
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

interface Act {
  says: string;
  act: () => void;
  off?: boolean;
  pressed?: boolean;
  busy?: boolean;
  title?: string;
}

/** Acts are what the bar of an open job offers: side by side, or behind one button where a thumb has no room for them. */
export const Acts = memo(function Acts({ id, undo, redo, dispatch, find, exportJob, showKeys }: Props) {
  const along = useTakeAlong(id);
  const narrow = useMediaQuery("(max-width: 1100px)", false, { getInitialValueInEffect: false });
  const acts: Act[] = [
    { says: "Undo", off: !undo, act: () => dispatch({ type: "undo" }) },
    { says: "Redo", off: !redo, act: () => dispatch({ type: "redo" }) },
    { says: "Find or do /", act: find },
    {
      says: along.failed ? "Not taken along" : along.is ? "Taken along" : "Take along",
      act: along.act,
      pressed: along.is,
      busy: along.busy,
      title: along.failed ? "The server does not answer, or this browser has no room." : along.is ? "This job is on this device; press to take it off again." : "Bring this job onto this device, to work without the server.",
    },
    { says: "Export", act: exportJob },
  ];
  if (narrow) {
    return (
      <Menu position="bottom-end" width={220}>
        <Menu.Target>
          <Button variant="default" mih={44} px="sm">
            More
          </Button>
        </Menu.Target>
        <Menu.Dropdown>
          {acts.map((a) => (
            <Menu.Item key={a.says} mih={44} disabled={a.off} closeMenuOnClick={a.pressed === undefined} onClick={a.act}>
              {a.busy ? `${a.says} …` : a.says}
            </Menu.Item>
          ))}
        </Menu.Dropdown>
      </Menu>
    );
  }
  return (
    <>
      {acts.map((a) => (
        <Button key={a.title ? "along" : a.says} variant="subtle" size="compact-sm" disabled={a.off} loading={a.busy} aria-pressed={a.pressed} title={a.title} onClick={a.act}>
          {a.says}
        </Button>
      ))}
      <Button variant="subtle" size="compact-sm" onClick={showKeys}>
        Keys ?
      </Button>
    </>
  );
});
