import { heard } from "./heard";

/** ask again after so long whether the server is back, in ms. */
const pause = 3000;

const state = heard(false);
let timer: ReturnType<typeof setTimeout> | undefined;

/** away says whether the server does not answer. */
export const away = { now: state.now, listen: state.listen };

/** reached notes that the server answered. */
export function reached() {
  clearTimeout(timer);
  timer = undefined;
  state.set(false);
}

/** lost notes that the server did not answer; it is asked again until it does. */
export function lost() {
  state.set(true);
  timer ??= setTimeout(() => void look(), pause);
}

async function look() {
  timer = undefined;
  try {
    const answer = await fetch("/health/live", { cache: "no-store", signal: AbortSignal.timeout(pause) });
    if (answer.ok) return reached();
  } catch {
    // asked again below
  }
  lost();
}

if (typeof window !== "undefined") window.addEventListener("online", () => state.now() && void look());
