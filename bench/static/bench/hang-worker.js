// Keeps the steps at the wall on the phone: the newest page when there is a connection, the last
// one when there is none.
const SHELF = "gancho-at-the-wall";
const atWall = (url) => /^\/walls\/\d+\/pieces\/[a-z0-9-]+\/hang\/$/.test(url.pathname);

self.addEventListener("install", () => self.skipWaiting());
self.addEventListener("activate", (event) => event.waitUntil(self.clients.claim()));

self.addEventListener("message", (event) => {
  event.waitUntil(
    caches
      .open(SHELF)
      .then((shelf) =>
        Promise.all((event.data.keep || []).map((url) => shelf.add(url).catch(() => null))),
      ),
  );
});

self.addEventListener("fetch", (event) => {
  const url = new URL(event.request.url);
  if (event.request.method !== "GET" || url.origin !== self.location.origin) return;
  if (event.request.mode === "navigate" && atWall(url))
    event.respondWith(newest(event.request, url));
  else if (url.pathname.startsWith("/static/")) event.respondWith(newest(event.request, url));
});

/** From the network, and kept; what was kept where the network is gone. */
async function newest(request, url) {
  const shelf = await caches.open(SHELF);
  const name = url.origin + url.pathname;
  try {
    const answer = await fetch(request);
    if (answer.ok && !answer.redirected) await shelf.put(name, answer.clone());
    return answer;
  } catch (error) {
    const old = await shelf.match(name);
    if (old) return old;
    throw error;
  }
}
