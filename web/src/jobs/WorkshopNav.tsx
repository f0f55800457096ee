import { Button, Menu } from "@mantine/core";
import { useMediaQuery } from "@mantine/hooks";
import { Link } from "@tanstack/react-router";

import css from "./jobs.module.css";

const pages = [
  ["/week", "Week"],
  ["/parts", "Parts book"],
  ["/vehicles", "Vehicle book"],
  ["/failures", "What fails"],
  ["/along", "On this device"],
  ["/people", "People"],
  ["/settings", "Settings"],
] as const;

/** WorkshopNav leads to the workshop's other pages: side by side, or behind one button where a thumb has no room for them. */
export function WorkshopNav() {
  const narrow = useMediaQuery("(max-width: 760px)", false, { getInitialValueInEffect: false });
  if (!narrow) {
    return (
      <nav aria-label="Workshop" className={css.books}>
        {pages.filter(([to]) => to !== "/along").map(([to, name]) => (
          <Link key={to} to={to}>
            {name}
          </Link>
        ))}
      </nav>
    );
  }
  return (
    <Menu position="bottom-end" width={220}>
      <Menu.Target>
        <Button variant="default" mih={44} px="sm">
          More
        </Button>
      </Menu.Target>
      <Menu.Dropdown>
        {pages.map(([to, name]) => (
          <Menu.Item key={to} mih={44} component={Link} to={to}>
            {name}
          </Menu.Item>
        ))}
      </Menu.Dropdown>
    </Menu>
  );
}
