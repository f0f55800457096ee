import { Button, useComputedColorScheme, useMantineColorScheme } from "@mantine/core";

export function SchemeSwitch() {
  const { setColorScheme } = useMantineColorScheme();
  const dark = useComputedColorScheme("light") === "dark";
  return (
    <Button variant="subtle" size="compact-sm" onClick={() => setColorScheme(dark ? "light" : "dark")}>
      {dark ? "Light" : "Dark"}
    </Button>
  );
}
