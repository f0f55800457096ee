import { Alert, type AlertProps } from "@mantine/core";

import css from "./Banner.module.css";

/** Banner says, across the page, what is the matter with all that is under it. */
export function Banner(props: AlertProps) {
  return <Alert color="ink" className={css.banner} closeButtonLabel="Close" {...props} />;
}
