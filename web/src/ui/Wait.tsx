import { Alert, Button, Loader } from "@mantine/core";

/** Asked is an answer of the server, the last one until the next is there. */
export interface Asked<T> {
  answer: T | undefined;
  asking: boolean;
  failed: Error | null;
  again: () => void;
}

/** Wait stands in for an answer that is not there: it is asked for, or could not be had. */
export function Wait<T>({ asked, what }: { asked: Asked<T>; what: string }) {
  if (asked.failed) {
    return (
      <Alert color="ink" className="banner" title={`${what} could not be had`}>
        {asked.failed.message} <Button size="compact-sm" onClick={asked.again}>Try again</Button>
      </Alert>
    );
  }
  return (
    <p className="dayWait">
      <Loader size="sm" color="ink" aria-hidden /> {what} …
    </p>
  );
}
