/** uuid is a new name; browsers give random names on secure pages alone, random numbers everywhere. */
export function uuid(): string {
  if (typeof crypto.randomUUID === "function") return crypto.randomUUID();
  const hex = [...crypto.getRandomValues(new Uint8Array(16))].map((b, i) => (i === 6 ? (b & 0x0f) | 0x40 : i === 8 ? (b & 0x3f) | 0x80 : b).toString(16).padStart(2, "0")).join("");
  return hex.replace(/^(.{8})(.{4})(.{4})(.{4})/, "$1-$2-$3-$4-");
}

/** once names what is to be made, so that it is made once however often it is sent. */
export const once = () => ({ header: { "Idempotency-Key": uuid() } });
