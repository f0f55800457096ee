import { Button } from "@mantine/core";
import { useRef, useState, type ReactNode } from "react";

interface Props {
  label: string;
  /** What the input is called, for those who do not see it. */
  name: string;
  accept: string;
  onFile: (file: File) => void;
  children: ReactNode;
}

/** FileDrop takes a file that is chosen, or dropped on it. */
export function FileDrop({ label, name, accept, onFile, children }: Props) {
  const input = useRef<HTMLInputElement>(null);
  const [over, setOver] = useState(false);
  return (
    <div
      className={`fileDrop ${over ? "over" : ""}`}
      data-drop={name}
      onDragOver={(e) => {
        e.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={(e) => {
        e.preventDefault();
        setOver(false);
        const file = e.dataTransfer.files[0];
        if (file) onFile(file);
      }}
    >
      <Button size="compact-sm" variant="default" onClick={() => input.current?.click()}>
        {label}
      </Button>
      <input
        ref={input}
        type="file"
        hidden
        accept={accept}
        aria-label={name}
        onChange={(e) => {
          const file = e.currentTarget.files?.[0];
          if (file) onFile(file);
          e.currentTarget.value = "";
        }}
      />
      {children}
    </div>
  );
}
