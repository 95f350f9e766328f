// For an installed page: where the application does not run, it says so instead of the browser,
// and how to start it. Nothing else is kept here; everything else comes from this machine's server.
const kept = "told";
const page = "/not-running";

self.addEventListener("install", () => self.skipWaiting());
self.addEventListener("activate", (e) => e.waitUntil(self.clients.claim()));

const safe = (s) => String(s).replace(/[<&>"]/g, (c) => `&#${c.charCodeAt(0)};`);

// The words come from the page, in the language that is spoken.
self.addEventListener("message", (e) => {
  const { lang, title, words, again } = e.data ?? {};
  if (!title) return;
  const html = `<!doctype html><html lang="${safe(lang)}"><meta charset="utf-8"><meta name="viewport" content="width=device-width"><title>Cold Ember</title><body style="font:18px/1.5 sans-serif;background:#15181a;color:#ece6da;max-width:34em;margin:4em auto;padding:0 1em"><h1>${safe(title)}</h1><p>${safe(words)}</p><p><a style="color:#6fc3a8" href="/">${safe(again)}</a></p>`;
  e.waitUntil(
    caches
      .open(kept)
      .then((c) => c.put(page, new Response(html, { headers: { "Content-Type": "text/html; charset=utf-8" } }))),
  );
});

self.addEventListener("fetch", (e) => {
  const path = new URL(e.request.url).pathname;
  if (e.request.mode !== "navigate" || path.startsWith("/api/") || path === "/start") return;
  e.respondWith(fetch(e.request).catch(async () => (await caches.match(page)) ?? Response.error()));
});
