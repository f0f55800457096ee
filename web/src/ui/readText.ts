/** biggestFile is the largest file that is read at all, in bytes. */
export const biggestFile = 1 << 20;

/** biggestLog is the largest recording that is sent to be read, in bytes. */
export const biggestLog = 16 << 20;

/** tooLarge says that a file is. */
export const tooLarge = (file: File, most = biggestFile): string => `${file.name} has ${(file.size / (1 << 20)).toFixed(1)} MB; at most ${most / (1 << 20)} MB is read.`;

/** readText is a file's text; it throws where that is not UTF-8. */
export async function readText(file: File): Promise<string> {
  const bytes = await file.arrayBuffer();
  try {
    return new TextDecoder("utf-8", { fatal: true }).decode(bytes);
  } catch {
    throw new Error("is not UTF-8 text.");
  }
}
