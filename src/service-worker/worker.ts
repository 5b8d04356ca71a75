import { registerRoute } from "workbox-routing";
import { CacheFirst, NetworkFirst } from "workbox-strategies";
import { CACHES, isKept, isPlan, isSitePage, runbookPageOf } from "./kept";

// Keeps what a site needs without a connection: all built files, and the pages and plans of the sites that were
// open here. As long as the server answers, its answer is taken. What is done meanwhile the page keeps itself.
// Bundled by the build, which fills in the list of files.

interface Living extends Event {
  readonly waitUntil: (work: Promise<unknown>) => void;
}
interface Scope {
  readonly addEventListener: (name: "install" | "activate", hear: (event: Living) => void) => void;
  readonly skipWaiting: () => Promise<void>;
  readonly clients: { readonly claim: () => Promise<void> };
}
declare const self: Scope;
declare const BUILT_FILES: readonly string[];
declare const BUILT_MARK: string;

/** The files of one build lie in a cache of their own; those of another go when this one takes over. */
const FILES = `${CACHES.files}-${BUILT_MARK}`;

self.addEventListener("install", (event) => {
  const all = async () => {
    await (await caches.open(FILES)).addAll([...BUILT_FILES]);
    await self.skipWaiting();
  };
  event.waitUntil(all());
});

self.addEventListener("activate", (event) => {
  const tidy = async () => {
    for (const name of await caches.keys())
      if (name.startsWith(CACHES.files) && name !== FILES) await caches.delete(name);
    await self.clients.claim();
  };
  event.waitUntil(tidy());
});

/** As much of an answer is waited for before what is kept is shown. */
const PATIENCE_SECONDS = 10;
const onlyWhole = {
  cacheWillUpdate: async ({ response }: { readonly response: Response }): Promise<Response | null> =>
    isKept(response) ? response : null,
};
// What a page was asked with tells nothing of what is in it.
const matchOptions = { ignoreVary: true };

/** Without this very page kept, another of the same site: its views find their way by the address. */
const anotherOfTheSite = {
  handlerDidError: async ({ request }: { readonly request: Request }): Promise<Response | undefined> =>
    (await caches.open(CACHES.pages)).match(
      runbookPageOf(new URL(request.url).pathname.split("/")[2] ?? ""),
      matchOptions,
    ),
};

/**
 * An answer that does not say where it came from: the browser then takes it to be at the address that was
 * asked for, whole. A web worker reads its settings behind the hash of its own address; a kept answer has none.
 */
const unnamed = ({ body, status, statusText, headers }: Response): Response =>
  new Response(body, { status, statusText, headers });
const asAskedFor = {
  cachedResponseWillBeUsed: async ({ cachedResponse }: { readonly cachedResponse?: Response | undefined }) =>
    cachedResponse === undefined ? null : unnamed(cachedResponse),
  fetchDidSucceed: async ({ response }: { readonly response: Response }) => unnamed(response),
};

registerRoute(
  ({ url }) => url.pathname.startsWith("/_next/static/"),
  new CacheFirst({ cacheName: FILES, plugins: [asAskedFor] }),
);
registerRoute(
  ({ request, url }) => request.mode === "navigate" && isSitePage(url.pathname),
  new NetworkFirst({
    cacheName: CACHES.pages,
    networkTimeoutSeconds: PATIENCE_SECONDS,
    matchOptions,
    plugins: [onlyWhole, anotherOfTheSite],
  }),
);
registerRoute(
  ({ request, url }) => request.method === "GET" && isPlan(url.pathname),
  new NetworkFirst({
    cacheName: CACHES.plans,
    networkTimeoutSeconds: PATIENCE_SECONDS,
    matchOptions,
    plugins: [onlyWhole],
  }),
);
