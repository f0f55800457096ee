/** handOver gives a text, or a file as it came, to the person as a file; it needs no server. */
export function handOver(content: string | Blob, name: string, type: string): void {
  const url = URL.createObjectURL(new Blob([content], { type }));
  const link = document.createElement("a");
  link.href = url;
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 1000);
}
