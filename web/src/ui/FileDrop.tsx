import "@mantine/dropzone/styles.layer.css";

import { Button } from "@mantine/core";
import { Dropzone } from "@mantine/dropzone";
import { useRef, type ReactNode } from "react";

import css from "./FileDrop.module.css";
import { biggestFile } from "./readText";

interface Props {
  label: string;
  /** What the input is called, for those who do not see it. */
  name: string;
  /** The kinds of file that are taken, by their endings. */
  endings: string[];
  /** The largest that is taken, in bytes. */
  most?: number;
  busy?: boolean;
  onFile: (file: File) => void;
  /** Why a file that was dropped cannot be taken. */
  onRefused: (why: string) => void;
  children?: ReactNode;
}

/** FileDrop takes a file that is chosen, or dropped on it. */
export function FileDrop({ label, name, endings, most = biggestFile, busy, onFile, onRefused, children }: Props) {
  const open = useRef<() => void>(null);
  const refuse = (file: File | undefined) => {
    if (!file) return;
    onRefused(file.size > most ? `${file.name} is larger than ${Math.round(most / (1 << 20))} MB.` : `${file.name} is not a file that ends in ${endings.join(" or ")}; one file at a time is read.`);
  };
  return (
    <Dropzone
      classNames={{ root: css.drop, inner: css.inner }}
      openRef={open}
      activateOnClick={false}
      activateOnKeyboard={false}
      multiple={false}
      maxSize={most}
      accept={{ "application/octet-stream": endings }}
      useFsAccessApi={false}
      inputProps={{ "aria-label": name }}
      data-drop={name}
      onDrop={([file]) => file && onFile(file)}
      onReject={([refused]) => refuse(refused?.file)}
    >
      <Button size="compact-md" variant="default" loading={busy} onClick={() => open.current?.()}>
        {label}
      </Button>
      {children}
    </Dropzone>
  );
}
