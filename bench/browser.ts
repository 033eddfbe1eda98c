import { plainBeside, type Written, writeDocument } from '@/core/decisions/sales/writeDocument';
import type { Draft } from '@/core/documents/draft';
import { freezeDraft } from '@/core/documents/freeze';
import { nextNumber, type Series } from '@/core/documents/series';
import { NO_YEAR, type Setting } from '@/core/documents/setting';
import { addDays, isoDate } from '@/core/kernel/date';
import { prove } from '@/core/returns/proof';
import { DEMO_BUSINESS, DEMO_CUSTOMERS, demoSetup } from '@/demo/setup';
import { moveAccounts, moveCustomers, moveTax, openMoves } from '@/store/balances';
import { present } from '@/store/load';
import { keepDraft } from '@/store/sales/actions/drafts';
import { issueInvoice } from '@/store/sales/actions/issueInvoice';
import { BookDb } from '@/store/schema';
import { periodReturn } from '@/store/tax/queries/periods';
import { proofMaterial } from '@/store/tax/queries/proofMaterial';
import { act, draftOf, freshBook, KEPT_FROM, momentOn, rowsRead, timed } from './books';
import { writtenInWorker } from './einvoice';
import { findingAgainstSmall } from './finding';
import { openLarge, proofOfLarge, readsOfLarge, saveLarge } from './large';
import { moneyAgainstSmall } from './money';
import { runAgainstPlain } from './runs';

/* Runs inside Chromium: what is measured here is real IndexedDB. Times in milliseconds. */

/** (b) Issues invoices one by one through the real action, then writes the same rows, one transaction each, with Dexie alone. */
async function issueAgainstRaw(count: number): Promise<{ action: number; raw: number; rows: number }> {
  const db = await freshBook('bench-issue');
  const drafts: Draft[] = [];
  for (let i = 0; i < count; i++) drafts.push(await act(db, keepDraft, draftOf(i, isoDate('2026-01-15')), KEPT_FROM));
  let began = performance.now();
  for (const draft of drafts) await act(db, issueInvoice, { draftId: draft.id }, isoDate('2026-01-15'));
  const action = performance.now() - began;

  const documents = await db.documents.orderBy('[seriesId+position]').toArray();
  const sets = await Promise.all(
    documents.map(async (document) => ({
      document,
      entry: await db.journal.get(document.entryId),
      lines: await db.journalLines.where('entryId').equals(document.entryId).toArray(),
      tax: await db.taxEntries.where('documentId').equals(document.id).toArray(),
    })),
  );
  const [months, balances, customers, series, period] = await Promise.all([
    db.accountMonths.toArray(),
    db.taxRows.toArray(),
    db.customerBalances.toArray(),
    db.series.get('invoice'),
    db.taxPeriods.toArray(),
  ]);
  const audit = (await db.audit.toArray()).filter((event) => event.action === 'issue invoice');
  const raw = new BookDb('bench-raw');
  await raw.delete();
  await raw.open();
  began = performance.now();
  for (const [i, { document, entry, lines, tax }] of sets.entries())
    await raw.transaction('rw', raw.tables, async () => {
      await raw.documents.add(document);
      if (entry !== undefined) await raw.journal.add(entry);
      await raw.journalLines.bulkAdd(lines);
      await raw.taxEntries.bulkAdd(tax);
      await raw.accountMonths.bulkPut(months);
      await raw.taxRows.bulkPut(balances);
      await raw.customerBalances.bulkPut(customers.slice(0, 1));
      if (series !== undefined) await raw.series.put(series);
      await raw.taxPeriods.bulkPut(period);
      await raw.drafts.delete(drafts[i]?.id ?? '');
      const event = audit[i];
      if (event !== undefined) await raw.audit.add(event);
    });
  const plain = performance.now() - began;
  const rows = sets.reduce((sum, set) => sum + 3 + set.lines.length + set.tax.length, 0);
  return { action, raw: plain, rows };
}

/** A book of `count` invoices spread over a year, made by the real decisions and written in bulk. */
async function largeBook(name: string, count: number): Promise<BookDb> {
  const db = await freshBook(name);
  const registration = present(await db.registrations.get('ie-vat'), 'registration');
  const setting: Setting = {
    business: DEMO_BUSINESS,
    setup: demoSetup(KEPT_FROM),
    certificates: [],
    yearSoFar: NO_YEAR,
    styles: [],
    bankAccounts: [],
    rateOf: () => null,
  };
  const chart = await db.accounts.toArray();
  let series: Series = present(await db.series.get('invoice'), 'series');
  const moment = momentOn(KEPT_FROM);
  for (let from = 0; from < count; from += 500) {
    const written: Written[] = [];
    for (let i = from; i < Math.min(count, from + 500); i++) {
      const draft = draftOf(i, addDays(KEPT_FROM, Math.floor((i * 364) / count)));
      const customer = DEMO_CUSTOMERS.find((c) => c.id === draft.customerId) ?? null;
      const content = freezeDraft(draft, nextNumber(series, isoDate(draft.issueDate)), customer, setting);
      if (!content.ok) throw new Error(JSON.stringify(content.refusals));
      const result = writeDocument(
        content.value,
        registration,
        series,
        chart,
        plainBeside(crypto.randomUUID()),
        moment,
      );
      if (!result.ok) throw new Error(JSON.stringify(result.refusals));
      series = result.value.series;
      written.push(result.value);
    }
    await db.transaction('rw', db.tables, async () => {
      const documents = written.map((w) => w.document);
      const lines = written.flatMap((w) => w.posted.lines);
      const entries = written.flatMap((w) => w.taxEntries);
      await db.documents.bulkAdd(documents);
      await db.journal.bulkAdd(written.map((w) => w.posted.entry));
      await db.journalLines.bulkAdd(lines);
      await db.taxEntries.bulkAdd(entries);
      await db.taxPeriods.bulkPut(written.flatMap((w) => w.period ?? []));
      await moveAccounts(db, lines);
      await moveTax(db, entries);
      await moveCustomers(db, openMoves(documents, []));
      await db.series.put(series);
    });
  }
  return db;
}

/** (c) Return and proof of one period in a large book, the return against the same in a small one. */
async function periodAgainstSmall(large: number, small: number) {
  const start = isoDate('2026-03-01');
  const measure = async (db: BookDb) => {
    const registration = present(await db.registrations.get('ie-vat'), 'registration');
    const read = () => periodReturn(db, registration, start);
    return { registration, rows: await rowsRead(db, read), time: await timed(41, read) };
  };
  const little = await measure(await largeBook('bench-small', small));
  const db = await largeBook('bench-large', large);
  const big = await measure(db);
  const material = () => proofMaterial(db, big.registration, start);
  const raw = await timed(3, material);
  const proven = await timed(3, async () => prove(await material()));
  const { documents, holds } = await material().then((m) => ({ documents: m.documents.length, holds: prove(m).holds }));
  return {
    rows: big.rows,
    smallRows: little.rows,
    time: big.time,
    smallTime: little.time,
    raw,
    proven,
    documents,
    holds,
  };
}

Object.assign(globalThis, {
  bench: {
    issueAgainstRaw,
    periodAgainstSmall,
    findingAgainstSmall,
    moneyAgainstSmall,
    runAgainstPlain,
    writtenInWorker,
    openLarge,
    saveLarge,
    readsOfLarge,
    proofOfLarge,
  },
});

/** What the page offers to the script that drives it. */
export interface Bench {
  readonly issueAgainstRaw: typeof issueAgainstRaw;
  readonly runAgainstPlain: typeof runAgainstPlain;
  readonly periodAgainstSmall: typeof periodAgainstSmall;
  readonly findingAgainstSmall: typeof findingAgainstSmall;
  readonly moneyAgainstSmall: typeof moneyAgainstSmall;
  readonly writtenInWorker: typeof writtenInWorker;
  readonly openLarge: typeof openLarge;
  readonly saveLarge: typeof saveLarge;
  readonly readsOfLarge: typeof readsOfLarge;
  readonly proofOfLarge: typeof proofOfLarge;
}
