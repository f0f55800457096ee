// The service worker: it keeps the application itself on this device, so that it opens without the server. What is worked on is not
// its concern. SHELL and BUILD are written in when the application is built.
const shell = "SHELL";
const kept = `epitrope-shell-${"BUILD"}`;

/** A server that does not send the page for so long is not waited for, in ms. */
const patience = 900;

self.addEventListener("install", (event) => event.waitUntil(caches.open(kept).then((cache) => cache.addAll(shell))));

// A new version takes over once no page of the old one is open: its parts belong together.
self.addEventListener("activate", (event) =>
  event.waitUntil(
    (async () => {
      for (const name of await caches.keys()) if (name.startsWith("epitrope-shell-") && name !== kept) await caches.delete(name);
      await self.clients.claim();
    })(),
  ),
);

self.addEventListener("fetch", (event) => {
  const { request } = event;
  const { origin, pathname } = new URL(request.url);
  if (request.method !== "GET" || origin !== self.location.origin || pathname.startsWith("/api/") || pathname.startsWith("/health/")) return;
  if (request.mode === "navigate") event.respondWith(page(request));
  else if (pathname.startsWith("/assets/") || shell.includes(pathname)) event.respondWith(part(request));
});

/** page is the newest page that the server has, or the one that is kept. */
async function page(request) {
  const late = new Promise((_, reject) => setTimeout(reject, patience));
  const there = fetch(request);
  there.catch(() => undefined);
  try {
    const answer = await Promise.race([there, late]);
    if (answer.status < 500) return answer;
  } catch {
    // the kept one
  }
  return (await caches.match("/", { cacheName: kept })) ?? there;
}

/** part is a part of the application: it bears its content's digest in its name, so that the kept one is as good as any. */
async function part(request) {
  return (await caches.match(request, { cacheName: kept })) ?? fetch(request);
}
