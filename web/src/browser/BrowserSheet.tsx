import { Button, TextInput, useMantineColorScheme } from "@mantine/core";
import { useState } from "react";

import { Sheet } from "../job/Sheet";
import { Choices } from "../ui/Choices";
import { keep, useStored } from "../ui/stored";
import { Table, type TableColumn } from "../ui/Table";
import { Empty, Wrong } from "../ui/Wait";
import css from "./browser.module.css";
import { items, type Item } from "./kept";

const schemes = [
  { value: "light", label: "light" },
  { value: "dark", label: "dark" },
  { value: "auto", label: "as the device" },
];

/** BrowserSheet is what this browser keeps, and what is set for it alone. */
export default function BrowserSheet() {
  const { colorScheme, setColorScheme } = useMantineColorScheme();
  const [by, setBy] = useStored("tickedBy", "");
  const [list, setList] = useState(items);
  const keeps = keep("epitrope:try", "x") && keep("epitrope:try", null);
  const columns: TableColumn<Item>[] = [
    { key: "what", head: "What", names: true, cell: (i) => i.what },
    { key: "where", head: "For", cell: (i) => (i.where === "browser" ? "this browser" : "this window") },
    { key: "size", head: "Characters", set: "right", sort: (i) => i.size, cell: (i) => i.size.toLocaleString("en") },
    {
      key: "forget",
      head: "Forget",
      quiet: true,
      cell: (i) =>
        i.waits ? (
          <span className="soft">waits, and is sent or mended first</span>
        ) : (
          <Button
            size="compact-sm"
            variant="subtle"
            aria-label={`Forget ${i.what}`}
            onClick={() => {
              keep(i.name, null, i.where);
              setList(items());
            }}
          >
            Forget
          </Button>
        ),
    },
  ];
  return (
    <Sheet>
      <div className={css.browser}>
        <h1>This browser</h1>
        <p className="soft">What is set here holds in this browser alone; the job and all that was issued are on the server.</p>
        <Choices legend="Light" choices={schemes} value={colorScheme} onChoose={(s) => setColorScheme(s as typeof colorScheme)} />
        <TextInput label="Who works, for the steps" value={by} maxLength={60} onChange={(e) => setBy(e.currentTarget.value)} />
        <h2>What this browser keeps</h2>
        {!keeps && <Wrong>This browser keeps nothing: its store is full or forbidden. What is typed is safe only while the server answers.</Wrong>}
        {list.length === 0 ? <Empty>Nothing is kept here.</Empty> : <Table caption="What this browser keeps" rows={list} columns={columns} keyOf={(i) => i.where + i.name} />}
      </div>
    </Sheet>
  );
}
