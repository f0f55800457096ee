/** register has the application kept on this device; the browser does so on addresses that it trusts alone. */
export function register() {
  if (!import.meta.env.PROD || !("serviceWorker" in navigator)) return;
  navigator.serviceWorker.register("/sw.js").catch(() => undefined); // then it opens with the server alone: see the page of what is along
}

/** isKept says whether the application opens on this device without the server. */
export async function isKept(): Promise<boolean> {
  return "serviceWorker" in navigator && (await navigator.serviceWorker.getRegistration())?.active != null;
}
