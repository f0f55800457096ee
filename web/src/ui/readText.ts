/** biggestFile is the largest file that is read at all, in bytes. */
export const biggestFile = 1 << 20;

/** readText is a file's text; it throws where that is not UTF-8. */
export async function readText(file: File): Promise<string> {
  const bytes = await file.arrayBuffer();
  try {
    return new TextDecoder("utf-8", { fatal: true }).decode(bytes);
  } catch {
    throw new Error("is not UTF-8 text.");
  }
}
