/** Room is what the browser gives this application, in bytes, and whether it may take it away. */
export interface Room {
  used: number;
  most: number;
  /** It keeps it until somebody takes it away. */
  lasting: boolean;
}

/** A device that has less left than this is nearly full, in bytes: some twenty photographs. */
export const nearlyFull = 10e6;

/** room asks the browser; null where it does not say. */
export async function room(): Promise<Room | null> {
  try {
    const [{ usage = 0, quota = 0 }, lasting] = await Promise.all([navigator.storage.estimate(), navigator.storage.persisted()]);
    return { used: usage, most: quota, lasting };
  } catch {
    return null;
  }
}
