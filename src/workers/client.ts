import { type Remote, wrap } from 'comlink';
import type { BookFace } from './book.worker';
import type { PrintFace } from './print.worker';

let printer: Remote<PrintFace> | null = null;

/** The worker that prints; one for the life of the page, as loading typefaces takes time. */
export function printWorker(): Remote<PrintFace> {
  printer ??= wrap<PrintFace>(new Worker(new URL('./print.worker.ts', import.meta.url), { type: 'module' }));
  return printer;
}

/** Work that was stopped by the person at the screen. */
export class Stopped extends Error {}

/**
 * Runs one job on the book in a worker of its own. Stopping ends the worker; the database undoes a
 * transaction whose worker is gone. @throws Stopped when `signal` is aborted.
 */
export async function onBook<T>(job: (face: BookFace) => Promise<T>, signal?: AbortSignal): Promise<T> {
  const worker = new Worker(new URL('./book.worker.ts', import.meta.url), { type: 'module' });
  const stopped = new Promise<never>((_, reject) => {
    signal?.addEventListener('abort', () => reject(new Stopped()), { once: true });
    worker.addEventListener('error', (event) => reject(new Error(event.message || 'The worker could not start.')));
  });
  try {
    return await Promise.race([job(wrap<BookFace>(worker) as unknown as BookFace), stopped]);
  } finally {
    worker.terminate();
  }
}
