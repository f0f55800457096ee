import { Button, Menu } from "@mantine/core";
import { useMediaQuery } from "@mantine/hooks";
import { Link, useNavigate, useParams } from "@tanstack/react-router";

import { useShown } from "./JobContext";
import css from "./Sheet.module.css";

/** SheetTabs switches between the sheets of the job, as the digits do; on a phone the open sheet's name opens the others. */
export function SheetTabs() {
  const narrow = useMediaQuery("(max-width: 760px)", false, { getInitialValueInEffect: false });
  return narrow ? <Thumb /> : <Tabs />;
}

function Tabs() {
  const { id, sheets } = useShown();
  return (
    <nav className={css.tabs} aria-label="Sheets" data-sheets>
      {sheets.map((s) => (
        <Link key={s.name} to="/jobs/$id/{-$sheet}" params={{ id, sheet: s.address }} activeOptions={{ exact: true }}>
          {s.digit} {s.label}
        </Link>
      ))}
    </nav>
  );
}

/** Thumb is the sheet before, the open one with the list of all, and the one after, each in a thumb's reach. */
function Thumb() {
  const { id, sheets } = useShown();
  const { sheet } = useParams({ strict: false });
  const navigate = useNavigate();
  const at = sheets.findIndex((s) => s.address === sheet);
  const open = sheets[at];
  if (!open) return null;
  const beside = (by: number) => {
    const s = sheets[at + by];
    return s ? (
      <Link to="/jobs/$id/{-$sheet}" params={{ id, sheet: s.address }} aria-label={`${s.digit} ${s.label}`}>
        {by < 0 ? `‹ ${s.digit}` : `${s.digit} ›`}
      </Link>
    ) : (
      <span />
    );
  };
  return (
    <nav className={css.thumb} aria-label="Sheets" data-sheets>
      {beside(-1)}
      <Menu position="top" width={260}>
        <Menu.Target>
          <Button mih={44} fullWidth aria-label={`Sheets, ${open.digit} ${open.label} is open`}>
            {open.digit} {open.label} ▴
          </Button>
        </Menu.Target>
        <Menu.Dropdown>
          {sheets.map((s) => (
            <Menu.Item key={s.name} mih={44} fw={s === open ? 700 : undefined} onClick={() => void navigate({ to: "/jobs/$id/{-$sheet}", params: { id, sheet: s.address } })}>
              {s.digit} {s.label}
            </Menu.Item>
          ))}
        </Menu.Dropdown>
      </Menu>
      {beside(1)}
    </nav>
  );
}
