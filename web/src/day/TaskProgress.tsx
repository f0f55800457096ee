import { Button, Progress } from "@mantine/core";

import { Wrong } from "../ui/Wait";
import type { Task } from "./useTask";
import css from "./day.module.css";

/** TaskProgress is how far a task is, with the way to stop it. */
export function TaskProgress({ task, busy, refused, stop, what }: { task: Task | undefined; busy: boolean; refused: Error | null; stop: () => Promise<void>; what: string }) {
  if (refused) return <Wrong>{refused.message}</Wrong>;
  if (!task) return null;
  if (busy) {
    return (
      <div className={css.taskProgress} data-task={task.state}>
        <Progress value={task.of ? (100 * task.done) / task.of : 0} color="ink" aria-label={`${what}: runs done`} />
        <span role="status">
          {task.state === "waiting" ? "waiting" : `${task.done} of ${task.of || "…"} runs`}
          {task.attempt > 1 && ", begun again"}
        </span>
        <Button size="compact-sm" variant="default" onClick={() => void stop()}>
          Stop
        </Button>
      </div>
    );
  }
  const said: Record<string, string> = { done: "", stopped: "Stopped before its end: what was done is shown.", failed: `It failed: ${task.problem ?? ""}` };
  return (
    <p className="soft" data-task={task.state}>
      {said[task.state]}
    </p>
  );
}
