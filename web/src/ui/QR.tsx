import { useQuery } from "@tanstack/react-query";

/** QR is a text as a picture that a phone's camera reads. What draws it is loaded when it is wanted. */
export function QR({ text, says }: { text: string; says: string }) {
  const picture = useQuery({
    queryKey: ["qr", text],
    queryFn: async () => (await import("qrcode")).toDataURL(text, { margin: 2, scale: 5 }),
    staleTime: Infinity,
    gcTime: 0, // it may be a secret
  });
  return picture.data ? <img src={picture.data} alt={says} width={190} height={190} style={{ imageRendering: "pixelated", background: "#fff" }} /> : null;
}
