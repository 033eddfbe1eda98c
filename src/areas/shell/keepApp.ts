import { TAKE_OVER } from '@/offline/kept';

/** The worker that keeps the app in the browser; written when the app is built. */
const WORKER = '/offline.js';
const HOUR = 3_600_000;

/** What the person at the screen is told of it. */
export interface KeepingEvents {
  /** For the first time everything is there to work without a connection. */
  readonly onReady: () => void;
  /** A later build is kept and waits; `take` loads it. */
  readonly onNew: (take: () => void) => void;
  /** Another window has loaded the later build, this one still shows the earlier; `take` loads it here too. */
  readonly onTaken: (take: () => void) => void;
}

/**
 * Keeps the app in this browser, so that it works without its server, and looks for a later build: every hour, when the
 * connection is back, and when the window is looked at again. A later build never comes under somebody's hands: each
 * window loads it when it is told to, and whoever has typed something that is not kept is asked first.
 * @returns what ends it.
 */
export function keepApp({ onReady, onNew, onTaken }: KeepingEvents): () => void {
  const { serviceWorker } = navigator;
  const ending = new AbortController();
  const { signal } = ending;
  const first = serviceWorker.controller === null;
  let asked = false;
  const load = () => location.reload();

  const offer = (waiting: ServiceWorker) => {
    if (signal.aborted) return;
    onNew(() => {
      asked = true;
      waiting.postMessage(TAKE_OVER);
    });
  };
  const watched = new WeakSet<ServiceWorker>();
  const watch = (worker: ServiceWorker | null) => {
    if (worker === null || watched.has(worker)) return;
    watched.add(worker);
    worker.addEventListener(
      'statechange',
      () => {
        if (worker.state === 'installed' && serviceWorker.controller !== null) offer(worker);
        if (worker.state === 'activated' && first && !signal.aborted) onReady();
      },
      { signal },
    );
  };

  const register = async () => {
    const registration = await serviceWorker.register(WORKER, { updateViaCache: 'none' });
    if (registration.waiting !== null && !first) offer(registration.waiting);
    watch(registration.installing);
    registration.addEventListener('updatefound', () => watch(registration.installing), { signal });
    // Without a connection there is nothing to be found.
    const look = () => void registration.update().catch(() => undefined);
    const hourly = setInterval(look, HOUR);
    signal.addEventListener('abort', () => clearInterval(hourly));
    addEventListener('online', look, { signal });
    document.addEventListener('visibilitychange', () => document.visibilityState === 'visible' && look(), { signal });
  };
  // A browser that keeps no workers works with the server, as before.
  void register().catch(() => undefined);

  let controlled = !first;
  serviceWorker.addEventListener(
    'controllerchange',
    () => {
      if (asked) load();
      else if (controlled) onTaken(load);
      controlled = true;
    },
    { signal },
  );
  return () => ending.abort();
}
