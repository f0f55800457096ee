import { UnstyledButton, type UnstyledButtonProps } from "@mantine/core";
import type { ComponentPropsWithoutRef } from "react";

import css from "./TextButton.module.css";

/** TextButton is a button that reads as text: the name of a thing, which picks it. */
export function TextButton(props: UnstyledButtonProps & ComponentPropsWithoutRef<"button">) {
  return <UnstyledButton className={css.text} {...props} />;
}
