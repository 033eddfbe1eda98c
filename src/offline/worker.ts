import { type Asked, answerTo, type Build, HASHED, TAKE_OVER } from './kept';

/*
 * Keeps one build of the app in the browser, so that it works without its server, and answers from it. A later build is
 * kept beside it and takes over when it is told to, or when the last window closes.
 */

/** Put in by `scripts/afterBuild.mjs`. */
declare const BUILD: Build;

/** What of a service worker is used here; the types of the page's own globals know none of it. */
interface Waits extends Event {
  waitUntil(work: Promise<unknown>): void;
}
interface Fetches extends Waits {
  readonly request: Request;
  respondWith(answer: Promise<Response>): void;
}
interface Scope {
  readonly location: Location;
  readonly registration: ServiceWorkerRegistration;
  readonly clients: {
    claim(): Promise<void>;
    matchAll(how: { readonly includeUncontrolled: boolean }): Promise<readonly { postMessage(data: unknown): void }[]>;
  };
  skipWaiting(): Promise<void>;
  addEventListener(type: 'install' | 'activate', listener: (event: Waits) => void): void;
  addEventListener(type: 'fetch', listener: (event: Fetches) => void): void;
  addEventListener(type: 'message', listener: (event: Waits & MessageEvent) => void): void;
}
const scope = self as unknown as Scope;

const PREFIX = 'able-build-';
const OWN = PREFIX + BUILD.name;
const AT_ONCE = 8;
/** Headers of what is kept; the others are about how it travelled. */
const KEPT_HEADERS = ['content-type', 'content-security-policy', 'x-content-type-options', 'referrer-policy'];

const ours = async () => (await caches.keys()).filter((name) => name.startsWith(PREFIX));

/** A file of an earlier build, newest first. */
async function earlier(address: string): Promise<Response | undefined> {
  for (const name of (await ours()).reverse()) {
    const found = await (await caches.open(name)).match(address);
    if (found !== undefined) return found;
  }
  return undefined;
}

/** Fetches a file of this build, and nothing but that very file. @throws TypeError when it is another one, or not there. */
async function fetched(address: string, integrity: string): Promise<Response> {
  const isRsc = address.endsWith('?_rsc');
  const response = await fetch(address, { integrity, cache: 'no-cache', ...(isRsc && { headers: { RSC: '1' } }) });
  // The page for what is not there says 404, as it should.
  if (!response.ok && !address.startsWith('/_not-found')) throw new TypeError(`${address}: ${response.status}`);
  const headers = new Headers();
  for (const name of KEPT_HEADERS) {
    const value = response.headers.get(name);
    if (value !== null) headers.set(name, value);
  }
  return new Response(await response.blob(), { status: response.status, headers });
}

async function keepBuild(): Promise<void> {
  const cache = await caches.open(OWN);
  const waiting = Object.entries(BUILD.files);
  const keepNext = async (): Promise<void> => {
    for (let next = waiting.pop(); next !== undefined; next = waiting.pop()) {
      const [address, integrity] = next;
      const known = address.startsWith(HASHED) ? await earlier(address) : undefined;
      await cache.put(address, known ?? (await fetched(address, integrity)));
    }
  };
  await Promise.all(Array.from({ length: AT_ONCE }, keepNext));
}

/** Once no window is open and no build waits, nobody asks for the files of earlier builds any more. */
async function dropEarlier(): Promise<void> {
  const windows = await scope.clients.matchAll({ includeUncontrolled: true });
  if (windows.length > 0 || scope.registration.waiting !== null) return;
  await Promise.all((await ours()).filter((name) => name !== OWN).map((name) => caches.delete(name)));
}

/** A kept answer as a new one: a worker's program finds its parts by the fragment of the address it was asked under. */
const anew = (response: Response) => new Response(response.body, response);

async function answer(request: Request, asked: ReturnType<typeof answerTo>): Promise<Response> {
  if (asked.from === 'nothing') return new Response(null, { status: 204 });
  if (asked.from === 'network') return fetch(request);
  const kept =
    asked.from === 'kept' ? await (await caches.open(OWN)).match(asked.address) : await earlier(asked.address);
  return kept === undefined ? fetch(request) : anew(kept);
}

scope.addEventListener('install', (event) => event.waitUntil(keepBuild()));
scope.addEventListener('activate', (event) => event.waitUntil(scope.clients.claim()));
scope.addEventListener('message', (event) => {
  if (event.data === TAKE_OVER) event.waitUntil(scope.skipWaiting());
});
scope.addEventListener('fetch', (event) => {
  const { request } = event;
  const { origin, pathname } = new URL(request.url);
  const navigates = request.mode === 'navigate';
  const asked: Asked = {
    method: request.method,
    origin,
    path: pathname,
    navigates,
    header: (name) => request.headers.get(name),
  };
  const how = answerTo(asked, scope.location.origin, BUILD);
  if (how.from === 'network') return;
  event.respondWith(answer(request, how));
  if (navigates) event.waitUntil(dropEarlier());
});
