import { cleanup, fireEvent, render, screen, within } from "@testing-library/react";
import { afterEach, expect, test } from "vitest";

import { Table, type TableColumn } from "./Table";

afterEach(cleanup);

interface Wire {
  name: string;
  cutM: number;
}

const wires: Wire[] = [
  { name: "C1", cutM: 5.35 },
  { name: "C2", cutM: 0.85 },
  { name: "N1", cutM: 10.2 },
];
const columns: TableColumn<Wire>[] = [
  { key: "name", head: "Wire", names: true, cell: (w) => w.name },
  { key: "cut", head: "Cut", sort: (w) => w.cutM, level: (w) => (w.cutM > 10 ? "bad" : undefined), cell: (w) => `${w.cutM} m` },
];
const order = () => screen.getAllByRole("rowheader").map((th) => th.textContent);

test("a table has a name, and rows that are named", () => {
  render(<Table caption="Wires" rows={wires} columns={columns} keyOf={(w) => w.name} marked={(w) => w.name === "C2"} />);
  const table = screen.getByRole("table", { name: "Wires" });
  expect(within(table).getByRole("row", { name: /C2/ }).getAttribute("data-marked")).toBe("true");
  expect(screen.getByText("10.2 m").getAttribute("data-level")).toBe("bad");
  expect(screen.getByText("0.85 m").getAttribute("data-head")).toBe("Cut"); // what a card says before it
});

test("a head that sorts puts rows in order by their figures, the other way round, and back", () => {
  render(<Table caption="Wires" rows={wires} columns={columns} keyOf={(w) => w.name} />);
  const head = screen.getByRole("button", { name: "Cut" });
  expect(order()).toEqual(["C1", "C2", "N1"]);
  fireEvent.click(head);
  expect(order()).toEqual(["C2", "C1", "N1"]);
  expect(screen.getByRole("columnheader", { name: /Cut/ }).getAttribute("aria-sort")).toBe("ascending");
  fireEvent.click(head);
  expect(order()).toEqual(["N1", "C1", "C2"]);
  fireEvent.click(head);
  expect(order()).toEqual(["C1", "C2", "N1"]);
});

test("a table that is read across scrolls, by keyboard too", () => {
  render(<Table caption="Every position" narrow="scroll" rows={wires} columns={columns} keyOf={(w) => w.name} />);
  expect(screen.getByRole("region", { name: "Every position" }).tabIndex).toBe(0);
});
