/** A run begins at this hour of its first day. */
export const firstHour = 6;

/** clock is a moment of a run as a day and an hour. */
export function clock(seconds: number): string {
  const at = seconds + firstHour * 3600;
  const two = (n: number) => String(Math.floor(n)).padStart(2, "0");
  return `day ${Math.floor(at / 86400) + 1}, ${two((at % 86400) / 3600)}:${two((at % 3600) / 60)}`;
}

/** indexAt is the last moment not after a time, by halving. */
export function indexAt(t: readonly number[], at: number): number {
  let low = 0;
  let high = t.length - 1;
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if ((t[middle] as number) <= at) low = middle;
    else high = middle - 1;
  }
  return low;
}

/** Window is the stretch of a run that is shown, in s. */
export interface Window {
  from: number;
  to: number;
}

/** windows are the stretches that can be shown: all of it, and each day, from midnight to midnight. */
export function windows(end: number): { label: string; window: Window }[] {
  const list = [{ label: end > 86400 * 1.5 ? `all ${Math.round(end / 86400)} days` : "all of it", window: { from: 0, to: end } }];
  if (end <= 86400 * 1.5) return list;
  for (let day = 1, from = 0; from < end; day++) {
    const to = Math.min(end, day * 86400 - firstHour * 3600);
    list.push({ label: `day ${day}`, window: { from, to } });
    from = to;
  }
  return list;
}
