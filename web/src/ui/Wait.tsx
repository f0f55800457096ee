import { Button, Loader } from "@mantine/core";
import type { ReactNode } from "react";

import { Banner } from "./Banner";
import css from "./Wait.module.css";

/** Asked is an answer of the server, the last one until the next is there. */
export interface Asked<T> {
  answer: T | undefined;
  asking: boolean;
  failed: Error | null;
  again: () => void;
}

/** Wait stands in for an answer that is not there: it is asked for, or could not be had. */
export function Wait<T>({ asked, what }: { asked: Asked<T>; what: string }) {
  return asked.failed ? <Failed what={what} error={asked.failed} again={asked.again} /> : <Waiting what={what} />;
}

/** Waiting says what is being fetched or worked out. */
export function Waiting({ what }: { what: string }) {
  return (
    <p className={css.waiting} role="status">
      <Loader size="sm" color="ink" aria-hidden /> {what} …
    </p>
  );
}

/** Failed says what could not be had, and why, and asks again. */
export function Failed({ what, error, again }: { what: string; error: Error; again?: () => void }) {
  return (
    <Banner role="alert" title={`${what} could not be had`}>
      {error.message}{" "}
      {again && (
        <Button size="compact-sm" onClick={again}>
          Try again
        </Button>
      )}
    </Banner>
  );
}

/** Empty says that there is nothing yet, and where it comes from. */
export function Empty({ children }: { children: ReactNode }) {
  return <p className={css.empty}>{children}</p>;
}

/** Told is what came of something that was done. */
export function Told({ children }: { children: ReactNode }) {
  return (
    <p className="row" role="status">
      {children}
    </p>
  );
}

/** Wrong is what could not be done, and why. */
export function Wrong({ children }: { children: ReactNode }) {
  return (
    <p className={css.wrong} role="alert">
      {children}
    </p>
  );
}
