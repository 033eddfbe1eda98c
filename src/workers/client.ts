import { proxy, type Remote, wrap } from 'comlink';
import type { Moment } from '@/core/book/changes';
import type { Queued } from '@/core/decisions/delivery/sending';
import type { RunDoes } from '@/core/decisions/sales/run';
import type { RunRow } from '@/core/documents/run';
import type { Manifest } from '@/core/files/archive';
import type { IsoDate } from '@/core/kernel/date';
import type { Result } from '@/core/kernel/result';
import type { Report } from '@/core/reports/report';
import type { ReportSpan } from '@/core/reports/span';
import type { SavedBook } from '@/store/archive';
import type { Replacing } from '@/store/openArchive';
import type { RunReview } from '@/store/sales/queries/runs';
import type { BookFace } from './book.worker';
import type { CheckedFile, CheckFace } from './check.worker';
import type { PrintFace, PrintJob } from './print.worker';

let printer: Printer | null = null;
let checker: Checker | null = null;

function newChecker(): Worker {
  return new Worker(new URL('./check.worker.ts', import.meta.url), { type: 'module' });
}

const NOT_STARTED = Symbol('not started');

/** What a person is told of a worker that never answers. */
const DEAD = 'A part of the program that works in the background did not start, or stopped. Try again.';

interface Checker {
  readonly face: Remote<CheckFace>;
  /** Answers when the worker could not start, or fell over. */
  readonly failed: Promise<typeof NOT_STARTED>;
}

function startChecker(): Checker {
  const worker = newChecker();
  const failed = new Promise<typeof NOT_STARTED>((resolve) =>
    worker.addEventListener('error', () => resolve(NOT_STARTED), { once: true }),
  );
  return { face: wrap<CheckFace>(worker), failed };
}

/**
 * Has something about a draft worked out in a worker, one for the life of the page; where that could not start it is
 * worked out `here` instead, so that nobody writes without checks.
 */
export async function inChecker<T>(ask: (face: Remote<CheckFace>) => Promise<T>, here: () => T): Promise<T> {
  checker ??= startChecker();
  const answer = await Promise.race([ask(checker.face), checker.failed]);
  return answer === NOT_STARTED ? here() : answer;
}

function newPrinter(): Worker {
  return new Worker(new URL('./print.worker.ts', import.meta.url), { type: 'module' });
}

interface Printer {
  readonly face: Remote<PrintFace>;
  /** Rejects when the worker could not start, or fell over: what was asked of it is never answered. */
  readonly fell: Promise<never>;
}

function startPrinter(): Printer {
  const worker = newPrinter();
  const fell = new Promise<never>((_, reject) =>
    worker.addEventListener(
      'error',
      () => {
        // The next job gets a fresh one.
        printer = null;
        worker.terminate();
        reject(new Error(DEAD));
      },
      { once: true },
    ),
  );
  return { face: wrap<PrintFace>(worker), fell };
}

/** Has something printed by a worker; one for the life of the page, as loading typefaces takes time. */
export function inPrinter(print: (face: Remote<PrintFace>) => Promise<Uint8Array>): Promise<Uint8Array> {
  printer ??= startPrinter();
  return Promise.race([print(printer.face), printer.fell]);
}

/** How long work is stopped, and told how far it is. */
export interface Told {
  readonly signal: AbortSignal;
  readonly tell: (how: { readonly done: number; readonly of: number }) => void;
}

/** Work that was stopped by the person at the screen. */
export class Stopped extends Error {}

/** Runs one job in a worker of its own, which ends with it. @throws Stopped when `signal` is aborted. */
async function inWorker<T>(worker: Worker, job: Promise<T>, signal?: AbortSignal): Promise<T> {
  const stopped = new Promise<never>((_, reject) => {
    signal?.addEventListener('abort', () => reject(new Stopped()), { once: true });
    worker.addEventListener('error', () => reject(new Error(DEAD)), { once: true });
  });
  try {
    return await Promise.race([job, stopped]);
  } finally {
    worker.terminate();
  }
}

/**
 * Runs one job on the book in a worker of its own. Stopping ends the worker; the database undoes a
 * transaction whose worker is gone. @throws Stopped when `signal` is aborted.
 */
export function onBook<T>(job: (face: BookFace) => Promise<T>, signal?: AbortSignal): Promise<T> {
  const worker = new Worker(new URL('./book.worker.ts', import.meta.url), { type: 'module' });
  return inWorker(worker, job(wrap<BookFace>(worker) as unknown as BookFace), signal);
}

/**
 * Writes, checks and queues the e-invoices of documents; what is queued stays queued when it is stopped.
 * @throws Stopped when `signal` is aborted.
 */
export function sendInWorker(
  documentIds: readonly string[],
  { now, today, operator }: Moment,
  onDone: (answers: readonly Queued[]) => void,
  signal: AbortSignal,
): Promise<Result<number>> {
  return onBook((face) => face.sendEInvoices(documentIds, { now, today, operator }, proxy(onDone)), signal);
}

/** Does in a worker what a run does for customers, telling each as it is done. @throws Stopped when `signal` is aborted. */
export function runInWorker(
  rowIds: readonly string[],
  does: RunDoes,
  { now, today, operator }: Moment,
  onDone: (row: RunRow) => void,
  signal: AbortSignal,
): Promise<Result<number>> {
  return onBook((face) => face.run(rowIds, does, { now, today, operator }, proxy(onDone)), signal);
}

/** Looks in a worker at what customers of a run will get. @throws Stopped when `signal` is aborted. */
export function reviewInWorker(
  rows: readonly RunRow[],
  today: IsoDate,
  signal: AbortSignal,
): Promise<readonly RunReview[]> {
  return onBook((face) => face.reviewRun(rows, today), signal);
}

/** Writes the book to a file in a worker, and checks the file again. @throws Stopped when `signal` is aborted. */
export function saveInWorker(writtenAt: string, { signal, tell }: Told): Promise<SavedBook> {
  return onBook(
    (face) =>
      face.save(
        writtenAt,
        proxy((done, of) => tell({ done, of })),
      ),
    signal,
  );
}

/** Opens a book file in a worker. @throws Stopped when `signal` is aborted; the book is then as it was. */
export function openInWorker(
  bytes: Uint8Array,
  replacing: Replacing,
  { signal, tell }: Told,
): Promise<Result<Manifest>> {
  return onBook(
    (face) =>
      face.open(
        bytes,
        replacing,
        proxy((done, of) => tell({ done, of })),
      ),
    signal,
  );
}

/** Makes a report in a worker. @throws Stopped when `signal` is aborted. */
export function reportInWorker(name: string, span: ReportSpan, chosen: string, signal: AbortSignal): Promise<Report> {
  return onBook((face) => face.report(name, span, chosen), signal);
}

/** Prints many documents to one PDF or a zip of PDFs. @throws Stopped when `signal` is aborted. */
export function printBatch(
  jobs: readonly PrintJob[],
  as: 'batch' | 'zip',
  onDone: (done: number) => void,
  signal: AbortSignal,
): Promise<Uint8Array> {
  const worker = newPrinter();
  return inWorker(worker, wrap<PrintFace>(worker)[as](jobs, proxy(onDone)), signal);
}

/** Reads and checks an e-invoice from a stranger in a worker of its own. @throws Stopped when `signal` is aborted. */
export function checkInWorker(bytes: Uint8Array, signal: AbortSignal): Promise<Result<CheckedFile>> {
  const worker = newChecker();
  return inWorker(worker, wrap<CheckFace>(worker).check(bytes) as Promise<Result<CheckedFile>>, signal);
}
