/**
 * Keeps what the browser needs to open the pages last looked at, so that a reload works while the server is away.
 * Entries are not its business: they wait in the outbox of the page.
 */
import { clientsClaim } from "workbox-core";
import { ExpirationPlugin } from "workbox-expiration";
import { cleanupOutdatedCaches, matchPrecache, precacheAndRoute } from "workbox-precaching";
import { registerRoute } from "workbox-routing";
import { NetworkFirst } from "workbox-strategies";
import { isKeptPage, PAGES_CACHE } from "./pages";

declare const self: ServiceWorkerGlobalScope;
/** Scripts, styles and fonts of this build; put in when it is bundled. Their names say their content. */
declare const BUILT_FILES: string[];

void self.skipWaiting();
clientsClaim();
cleanupOutdatedCaches();

/**
 * A worker is told what to load by the part of its address behind the #. An answer from a store has an address of its
 * own, without that part; one made anew has none, and the worker keeps the address it was asked for by.
 */
registerRoute(
  ({ request, url }) => request.destination === "worker" && url.pathname.startsWith("/_next/static/"),
  async ({ request, url }) => {
    const kept = (await matchPrecache(url.pathname)) ?? (await fetch(request));
    return new Response(await kept.blob(), { status: kept.status, headers: kept.headers });
  },
);
precacheAndRoute(BUILT_FILES.map((url) => ({ url, revision: null })));

/** A line that is slower than this is as good as none, s. */
const SLOWEST_S = 8;
const MOST_PAGES = 30;
registerRoute(
  ({ request, url }) => request.mode === "navigate" && isKeptPage(url.pathname),
  new NetworkFirst({
    cacheName: PAGES_CACHE,
    networkTimeoutSeconds: SLOWEST_S,
    matchOptions: { ignoreSearch: true, ignoreVary: true },
    plugins: [
      // a way to sign in, or a refusal, is no page to keep
      { cacheWillUpdate: ({ response }) => Promise.resolve(response.status === 200 ? response : null) },
      new ExpirationPlugin({ maxEntries: MOST_PAGES, purgeOnQuotaError: true }),
    ],
  }),
);
