import { Button } from "@mantine/core";

import { valueAt } from "../job/document";
import { FieldInput } from "../job/FieldInput";
import { fieldOf, useJob } from "../job/JobContext";
import { emptied, keysOf, newKey, type List } from "../job/rows";

/** coiled are the devices whose coil the factory may have fed. */
const coiled = ["changeover", "contactor"];

interface RowsProps {
  list: List;
  fields: string[];
  add: string;
  /** What a new row begins with. */
  first: [string, string];
  children: (key: string) => React.ReactNode;
}

/** FoundRows are the rows of a list, each with what is said of it. */
export function FoundRows({ list, fields, add, first, children }: RowsProps) {
  const job = useJob();
  const { state, dispatch, readOnly } = job;
  return (
    <>
      <ul className="rowsList">
        {keysOf(state.doc, list).map((key) => (
          <li key={key} data-row={key}>
            {fields.filter((name) => name !== "factoryFeed" || coiled.includes(String(valueAt(state.doc, `gear.${key}.kind`)))).flatMap((name) => fieldOf(job, `${list}.${key}.${name}`) ?? []).map((f) => (
              <FieldInput key={f.path} field={f} brief />
            ))}
            <div className="rowSum">{children(key)}</div>
            {!readOnly && (
              <Button size="compact-sm" variant="subtle" onClick={() => dispatch({ type: "setAll", values: emptied(state.doc, list, key) })}>
                Remove
              </Button>
            )}
          </li>
        ))}
      </ul>
      {!readOnly && (
        <Button variant="default" size="compact-md" onClick={() => dispatch({ type: "set", path: `${list}.${newKey()}.${first[0]}`, value: first[1] })}>
          {add}
        </Button>
      )}
    </>
  );
}
