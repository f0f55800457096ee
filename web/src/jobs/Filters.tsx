import { Button } from "@mantine/core";

import { Choices } from "../ui/Choices";
import { useBoard } from "./Board";
import { stageWord, type Filter } from "./filter";
import css from "./jobs.module.css";

/** Filters choose which jobs are listed, with how many there are of each. */
export function Filters({ filter, choose }: { filter: Filter; choose: (kept: string) => void }) {
  const stages = useBoard().data?.stages ?? [];
  const value = filter.stage ? `stage:${filter.stage}` : filter.weak ? `weak:${filter.weak}` : "";
  const choices = [
    ...stages.filter((s) => s.count > 0 || s.stage === filter.stage).map((s) => ({ value: `stage:${s.stage}`, label: `${stageWord(s.stage, s.count)} ${s.count}` })),
    { value: "weak:stop", label: "with a stop" },
    { value: "weak:caution", label: "with a caution" },
  ];
  return (
    <div className={css.filters}>
      <Choices legend="Show only" choices={choices} value={value} onChoose={choose} onSame={() => choose("")} />
      {value !== "" && (
        <Button size="compact-sm" variant="default" onClick={() => choose("")}>
          The whole day
        </Button>
      )}
    </div>
  );
}
