import { expose } from 'comlink';
import type { Moment } from '@/core/book/changes';
import type { Queued } from '@/core/decisions/delivery/sending';
import type { RunDoes } from '@/core/decisions/sales/run';
import type { RunRow } from '@/core/documents/run';
import type { Manifest } from '@/core/files/archive';
import type { BookCsv } from '@/core/files/bookCsv';
import type { IsoDate } from '@/core/kernel/date';
import type { Minor } from '@/core/kernel/money';
import { accept, type Refusal, type Result } from '@/core/kernel/result';
import type { Glance } from '@/core/reports/glance';
import type { Report } from '@/core/reports/report';
import type { ReportSpan } from '@/core/reports/span';
import type { BookCheck } from '@/core/returns/bookProof';
import type { ClosingCheck } from '@/core/returns/closing';
import { type Proof, prove } from '@/core/returns/proof';
import { buildDemo } from '@/demo/buildDemo';
import { archiveBook, checkBook, type OnRows, type SavedBook, saveBook } from '@/store/archive';
import { type AccountOn, accountOn } from '@/store/bank/queries/reconciliation';
import { type SuggestedLine, suggestFor } from '@/store/bank/queries/suggestions';
import { sendEInvoices } from '@/store/delivery/actions/sending';
import { present } from '@/store/load';
import { bringBack, openArchive, type Replacing } from '@/store/openArchive';
import { perform } from '@/store/perform';
import { auditFile } from '@/store/reports/auditFile';
import { reportKind } from '@/store/reports/catalogue';
import { glance } from '@/store/reports/glance';
import { makeRunDocument } from '@/store/sales/actions/runs';
import { type RunReview, reviewRun } from '@/store/sales/queries/runs';
import { type ChainCheck, checkSeals } from '@/store/sales/queries/seals';
import { BookDb } from '@/store/schema';
import { bookCsv } from '@/store/setup/queries/bookCsv';
import { closingOf } from '@/store/tax/queries/closing';
import { proofMaterial } from '@/store/tax/queries/proofMaterial';
import { proveBook } from '@/store/tax/queries/proveBook';

const db = new BookDb();

/** Pieces of a text that are put together before they go to the browser. */
const PIECES = 64;

/** E-invoices written, checked and queued in one transaction. */
const AT_ONCE = 20;

/** A file out of a text that comes in pieces, which never stand in memory together as one text. */
async function blobOf(texts: AsyncIterable<string>, type: string): Promise<Blob> {
  const parts: Blob[] = [];
  let piece: string[] = [];
  for await (const text of texts) {
    piece.push(text);
    if (piece.length < PIECES) continue;
    parts.push(new Blob(piece));
    piece = [];
  }
  return new Blob([...parts, ...piece], { type });
}

const face = {
  /** Proves a period; `start` is its first day. */
  async prove(registrationId: string, start: IsoDate): Promise<Proof> {
    const registration = present(await db.registrations.get(registrationId), 'the registration');
    return prove(await proofMaterial(db, registration, start));
  },

  /** What bank lines of one account may be; `days` is how far the book's movements may lie from them. */
  suggest(lineIds: readonly string[], days: number): Promise<readonly SuggestedLine[]> {
    return suggestFor(db, lineIds, days);
  },

  /** An account held against its statements on a day. */
  accountOn(bankAccountId: string, on: IsoDate, typed: Minor | null): Promise<AccountOn | null> {
    return accountOn(db, bankAccountId, on, typed);
  },

  /** Recomputes all chains of seals. */
  checkSeals(onDone: (done: number, of: number) => void): Promise<ChainCheck[]> {
    return checkSeals(db, onDone);
  },

  /** Proves the whole book from its entries and documents. */
  proveBook(onDone: (done: number, of: number) => void): Promise<readonly BookCheck[]> {
    return proveBook(db, onDone);
  },

  /** Holds the whole book against its seals and against itself. */
  checkBook(): Promise<readonly Refusal[]> {
    return checkBook(db);
  },

  /** Does for customers of a run what it does, one after the other; what is done stays done when the work is stopped. */
  async run(
    rowIds: readonly string[],
    does: RunDoes,
    at: Omit<Moment, 'newId'>,
    onDone: (row: RunRow) => void,
  ): Promise<Result<number>> {
    const moment = { ...at, newId: () => crypto.randomUUID() };
    for (const rowId of rowIds) {
      const result = await perform(db, makeRunDocument, { rowId, does }, moment);
      if (!result.ok) return result;
      onDone(result.value);
    }
    return accept(rowIds.length);
  },

  /** Looks at customers of a run as their documents would be. */
  reviewRun(rows: readonly RunRow[], today: IsoDate): Promise<readonly RunReview[]> {
    return reviewRun(db, rows, today);
  },

  /**
   * Puts the e-invoices of documents into the queue, a few in each transaction, so that the book stays free for others.
   * What is queued stays queued when the work is stopped.
   */
  async sendEInvoices(
    documentIds: readonly string[],
    at: Omit<Moment, 'newId'>,
    onDone: (answers: readonly Queued[]) => void,
  ): Promise<Result<number>> {
    const moment = { ...at, newId: () => crypto.randomUUID() };
    for (let from = 0; from < documentIds.length; from += AT_ONCE) {
      const result = await perform(db, sendEInvoices, { documentIds: documentIds.slice(from, from + AT_ONCE) }, moment);
      if (!result.ok) return result;
      onDone(result.value);
    }
    return accept(documentIds.length);
  },

  /** Makes a report, of what is chosen for it. @throws RangeError for one that there is none of */
  report(name: string, span: ReportSpan, chosen: string): Promise<Report> {
    const kind = reportKind(name);
    if (kind === null) throw new RangeError(`no report ${name}`);
    return kind.make(db, span, chosen);
  },

  /** What should be looked at before a period is filed; `start` is its first day. */
  async closing(registrationId: string, start: IsoDate): Promise<readonly ClosingCheck[]> {
    return closingOf(db, present(await db.registrations.get(registrationId), 'the registration'), start);
  },

  /** What matters on a day. */
  glance(on: IsoDate): Promise<Glance> {
    return glance(db, on);
  },

  /** One kind of the book as a CSV file. */
  async bookCsv(what: BookCsv): Promise<Blob> {
    return blobOf(bookCsv(db, what), 'text/csv;charset=utf-8');
  },

  /** The audit file between two days, as a file of text; its pieces never stand in memory together as one text. */
  async auditFile(span: ReportSpan, writtenOn: IsoDate, onDone: (done: number, of: number) => void): Promise<Blob> {
    return blobOf(auditFile(db, span, writtenOn, onDone), 'application/xml');
  },

  /** The book as a file, checked again before it is handed out. */
  save(writtenAt: string, onRows: OnRows): Promise<SavedBook> {
    return saveBook(db, writtenAt, onRows);
  },

  /** Everything that can be read, without checking it: for a book that no screen can show. */
  archive(writtenAt: string): Promise<Uint8Array> {
    return archiveBook(db, writtenAt);
  },

  open(bytes: Uint8Array, replacing: Replacing, onRows: OnRows): Promise<Result<Manifest>> {
    return openArchive(db, bytes, replacing, onRows);
  },

  bringBack(at: string): Promise<Result<Manifest>> {
    return bringBack(db, at);
  },

  /** Builds the demo beside the book and puts it in place whole, so that nothing half-built is ever seen. */
  async openDemo(today: IsoDate, replacing: Replacing): Promise<Result<Manifest>> {
    // A name of its own, so that two windows that open the sample do not build in one another's.
    const scratch = new BookDb(`able-ledger-demo-${crypto.randomUUID()}`);
    await scratch.open();
    try {
      await buildDemo(scratch, today);
      return await openArchive(db, await archiveBook(scratch, `${today}T09:00:00.000Z`), replacing);
    } finally {
      await scratch.delete();
    }
  },
};

export type BookFace = typeof face;

expose(face);
