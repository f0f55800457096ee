import { Button } from "@mantine/core";
import { useMutation } from "@tanstack/react-query";
import { useParams } from "@tanstack/react-router";
import { useRef } from "react";

import { uuid } from "../api/once";
import { wait } from "../offline/waits";
import { useMe } from "../ui/useMe";
import { Wrong } from "../ui/Wait";

/** The longest side of a photograph as it is sent, in points. */
const longest = 1600;

/** sized is a photograph made small on this device: its points alone, upright, without what the camera wrote beside them. */
async function sized(file: File): Promise<Blob> {
  const whole = await createImageBitmap(file, { imageOrientation: "from-image" });
  const by = Math.min(1, longest / Math.max(whole.width, whole.height));
  const canvas = document.createElement("canvas");
  canvas.width = Math.max(1, Math.round(whole.width * by));
  canvas.height = Math.max(1, Math.round(whole.height * by));
  canvas.getContext("2d")?.drawImage(whole, 0, 0, canvas.width, canvas.height);
  return new Promise((resolve, reject) => canvas.toBlob((b) => (b ? resolve(b) : reject(new Error("no picture"))), "image/jpeg", 0.85));
}

/** AddPhoto takes a photograph of what it is tied to, and is called so: it waits on this device until the server has it. */
export function AddPhoto({ tied, named, done }: { tied: string; named?: string | undefined; done?: () => void }) {
  const { id = "" } = useParams({ strict: false });
  const me = useMe();
  const input = useRef<HTMLInputElement>(null);
  const send = useMutation({
    mutationFn: async (file: File) => {
      let small: Blob;
      try {
        small = await sized(file);
      } catch {
        throw new NoPicture(file.name);
      }
      const at = new Date(file.lastModified || Date.now()).toISOString();
      await wait({ id: uuid(), road: "photos", job: id, person: me?.person?.id, named: `photograph: ${named ?? tied}`, at, body: { tied, at }, blob: small });
    },
    onSuccess: () => done?.(),
  });
  return (
    <>
      <input ref={input} type="file" accept="image/*" capture="environment" hidden data-photo={tied} onChange={(e) => { const file = e.currentTarget.files?.[0]; if (file) send.mutate(file); e.currentTarget.value = ""; }} />
      <Button mih={44} variant="default" loading={send.isPending} onClick={() => input.current?.click()}>
        Take a photograph
      </Button>
      {send.isError && <Wrong>{send.error.message}</Wrong>}
    </>
  );
}

/** NoPicture is a file that is none. */
class NoPicture extends Error {
  constructor(name: string) {
    super(`“${name}” is no picture that this device can read. Allowed: a photograph, as JPEG or PNG.`);
  }
}
