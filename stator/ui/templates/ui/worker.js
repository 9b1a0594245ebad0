/* Static files out of a cache, and one page that stands in for those that the shop's machine does not answer. It knows nothing else. */
"use strict";

const FILES = {{ files|safe }};
const NAME = "stator-{{ build }}";
const AWAY = "stator-away";
const PAGE = "/offline/";

self.addEventListener("install", (event) => {
  const files = caches.open(NAME).then((cache) => cache.addAll(FILES));
  const page = caches.open(AWAY).then((cache) => cache.add(PAGE));
  event.waitUntil(Promise.all([files, page]).then(() => self.skipWaiting()));
});

self.addEventListener("activate", (event) => {
  const old = caches.keys().then((names) => Promise.all(names.filter((name) => name !== NAME && name !== AWAY).map((name) => caches.delete(name))));
  event.waitUntil(old.then(() => self.clients.claim()));
});

self.addEventListener("fetch", (event) => {
  const { request } = event;
  if (request.method !== "GET") return;
  if (request.mode === "navigate") {
    event.respondWith(fetch(request).catch(() => caches.open(AWAY).then((cache) => cache.match(PAGE)).then((page) => page || Response.error())));
    return;
  }
  const path = new URL(request.url).pathname;
  if (FILES.includes(path)) event.respondWith(caches.match(path).then((kept) => kept || fetch(request)));
});
