import { heard } from "./heard";

/** A mark of how many entries wait is kept apart from them, in a cookie: where they are gone and it is not, the browser took them away. */
const cookie = "epitrope_waits";

const gone = heard<{ count: number; since: string } | null>(null);
/** taken is what the browser took away before the server had it; null where nothing is known to be. */
export const taken = { now: gone.now, listen: gone.listen };

/** read is the mark: so many entries, noted at. */
export function read(all: string): { count: number; since: string } | null {
  const text = all.split("; ").find((c) => c.startsWith(`${cookie}=`))?.slice(cookie.length + 1);
  const [count, since] = (text ?? "").split("_");
  const n = Number(count);
  return text && Number.isInteger(n) && n > 0 && since ? { count: n, since: new Date(Number(since)).toISOString() } : null;
}

/** tally notes how many entries wait now. */
export function tally(count: number) {
  if (typeof document === "undefined") return;
  const age = count > 0 ? 400 * 86_400 : 0;
  document.cookie = `${cookie}=${count}_${Date.now()}; max-age=${age}; path=/; samesite=strict`;
}

/** lose holds what is there against the mark. */
export function lose(there: number) {
  if (typeof document === "undefined" || first === false) return;
  first = false;
  const mark = read(document.cookie);
  if (mark && there < mark.count) gone.set({ count: mark.count - there, since: mark.since });
}
let first = true;

/** seen takes note that somebody has read what was lost. */
export function seen() {
  gone.set(null);
}
