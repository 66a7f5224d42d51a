// Keeps the family's page on the phone, so that it opens without a connection.
// What is shown and ticked is kept by the page itself.
const kept = "family-1";

// The page that brought this worker was loaded before it, so it is fetched once
// more with what it names.
self.addEventListener("install", (event) => {
  self.skipWaiting();
  event.waitUntil(
    caches.open(kept).then(async (cache) => {
      const page = await fetch("/family/");
      const names = (await page.clone().text()).match(/\/assets\/[^"]+/g) ?? [];
      await cache.put("/family/", page);
      await cache.addAll(names);
      for (const old of await cache.keys()) {
        const at = new URL(old.url).pathname;
        if (at.startsWith("/assets/") && !names.includes(at)) await cache.delete(old); // of an older page
      }
    }),
  );
});

self.addEventListener("activate", (event) => event.waitUntil(self.clients.claim()));

self.addEventListener("fetch", (event) => {
  const url = new URL(event.request.url);
  if (event.request.method !== "GET" || url.origin !== location.origin) return;
  // of the API only what is heard and seen: the page keeps the rest itself
  if (url.pathname.startsWith("/api/") && !/\/(sounds|notes)$/.test(url.pathname)) return;
  const page = event.request.mode === "navigate";
  event.respondWith(
    caches.open(kept).then(async (cache) => {
      const key = page ? "/family/" : event.request; // one page for all links
      const old = await cache.match(key);
      if (old && url.pathname.startsWith("/assets/")) return old; // its name holds a hash
      try {
        const fresh = await fetch(event.request);
        if (fresh.ok) await cache.put(key, fresh.clone());
        return fresh;
      } catch (error) {
        if (old) return old;
        throw error;
      }
    }),
  );
});
