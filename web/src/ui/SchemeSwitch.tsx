import { Button, useComputedColorScheme, useMantineColorScheme } from "@mantine/core";
import { memo } from "react";

/** SchemeSwitch changes between day and dark. */
export const SchemeSwitch = memo(function SchemeSwitch() {
  const { setColorScheme } = useMantineColorScheme();
  const dark = useComputedColorScheme("light") === "dark";
  return (
    <Button variant="subtle" size="compact-sm" onClick={() => setColorScheme(dark ? "light" : "dark")}>
      {dark ? "Light" : "Dark"}
    </Button>
  );
});
