import { Button, FileButton } from "@mantine/core";

import { biggestFile, tooLarge } from "./readText";

interface Props {
  /** What the input is called, for those who do not see it. */
  name: string;
  accept: string;
  busy?: boolean;
  onFile: (file: File) => void;
  /** Why a file cannot be taken. */
  onRefused: (why: string) => void;
  children: string;
}

/** FilePick is a button that takes a file, where there is no room for one to be dropped. */
export function FilePick({ name, accept, busy, onFile, onRefused, children }: Props) {
  return (
    <FileButton accept={accept} inputProps={{ "aria-label": name }} onChange={(file) => file && (file.size > biggestFile ? onRefused(tooLarge(file)) : onFile(file))}>
      {(props) => (
        <Button variant="default" loading={busy} {...props}>
          {children}
        </Button>
      )}
    </FileButton>
  );
}
