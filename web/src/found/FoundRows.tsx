import type { ReactNode } from "react";

import { FieldInputs } from "../job/Fields";
import { Across, AddRow, RowList } from "../job/RowList";
import type { List } from "../job/rows";

interface Props {
  list: List;
  /** The fields of a row that are asked. */
  fields: string[];
  add: string;
  /** What a new row begins with. */
  first: [name: string, value: string];
  children?: (key: string) => ReactNode;
}

/** FoundRows are the rows of a list of what is there, each with what is said of it. */
export function FoundRows({ list, fields, add, first, children }: Props) {
  return (
    <>
      <RowList list={list}>
        {(key) => (
          <>
            <FieldInputs brief paths={fields.map((name) => `${list}.${key}.${name}`)} />
            {children && <Across>{children(key)}</Across>}
          </>
        )}
      </RowList>
      <AddRow list={list} name={first[0]} value={first[1]}>
        {add}
      </AddRow>
    </>
  );
}
