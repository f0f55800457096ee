import { createTheme, defaultVariantColorsResolver, type MantineColorsTuple } from "@mantine/core";

import looks from "./looks.module.css";

const ink: MantineColorsTuple = ["#f1f3f2", "#dfe4e2", "#bcc6c3", "#97a6a2", "#788a86", "#647773", "#4d5f5c", "#384846", "#283635", "#1f2c2c"];

/** The house theme: ink on paper; colour only where it means something. How components look stands here and in the module beside it. */
export const theme = createTheme({
  fontFamily: "'Archivo Variable', sans-serif",
  headings: { fontFamily: "'Archivo Variable', sans-serif", fontWeight: "650" },
  colors: { ink },
  primaryColor: "ink",
  primaryShade: { light: 9, dark: 2 },
  variantColorResolver: (input) => {
    const colors = defaultVariantColorsResolver(input);
    return input.variant === "filled" ? { ...colors, background: "var(--ink)", hover: "var(--ink)", color: "var(--paper)" } : colors;
  },
  defaultRadius: 2,
  cursorType: "pointer",
  components: {
    Button: { classNames: { root: looks.button } },
    Input: { classNames: { input: looks.input } },
    InputWrapper: { classNames: { description: looks.description, error: looks.error } },
    Tabs: { classNames: { list: looks.tabs, tab: looks.tab, tabLabel: looks.tabLabel } },
    Chip: { classNames: { label: looks.chipLabel, input: looks.chipInput, iconWrapper: looks.chipIcon } },
  },
});
