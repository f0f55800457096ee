import { Button } from "@mantine/core";
import type { ReactNode } from "react";

import { useJob } from "./JobContext";
import css from "./RowList.module.css";
import { emptied, keysOf, newKey, type List } from "./rows";

interface Props {
  list: List;
  /** The rows, where not in the order in which they were added. */
  keys?: string[];
  /** What a row is called, where it is taken out. */
  nameOf?: (key: string) => string | undefined;
  children: (key: string) => ReactNode;
}

/** RowList is a list of the document: its rows, each with the way to take it out. */
export function RowList({ list, keys, nameOf, children }: Props) {
  const { state, dispatch, mayChange } = useJob();
  return (
    <ul className={css.rows}>
      {(keys ?? keysOf(state.doc, list)).map((key) => (
        <li key={key} data-list={list} data-row={key} aria-label={nameOf?.(key)}>
          {children(key)}
          {mayChange(list) && (
            <Button size="compact-sm" variant="subtle" aria-label={nameOf && `Remove ${nameOf(key)}`} onClick={() => dispatch({ type: "setAll", values: emptied(state.doc, list, key) })}>
              Remove
            </Button>
          )}
        </li>
      ))}
    </ul>
  );
}

/** Across is what stands across a whole row. */
export function Across({ children }: { children: ReactNode }) {
  return <div className={css.across}>{children}</div>;
}

/** AddRow adds a row to a list, with its first answer. */
export function AddRow({ list, name, value, children }: { list: List; name: string; value: string; children: string }) {
  const { dispatch, mayChange } = useJob();
  if (!mayChange(list)) return null;
  return (
    <Button className={css.add} variant="default" size="compact-md" onClick={() => dispatch({ type: "set", path: `${list}.${newKey()}.${name}`, value })}>
      {children}
    </Button>
  );
}
