import Dexie from 'dexie';
import type { IssuedDocument } from '@/core/documents/issued';
import { addDays, endOfMonth, type IsoDate, monthOf } from '@/core/kernel/date';
import { grouped } from '@/core/kernel/grouped';
import { type Minor, NOTHING, negated, plus } from '@/core/kernel/money';
import { accountFor } from '@/core/ledger/account';
import type { JournalLine } from '@/core/ledger/entry';
import { closingEntries } from '@/core/ledger/fiscalYear';
import { notYetDueAccountOf, outputAccountOf } from '@/core/ledger/posting/taxAccounts';
import type { IncomeCashMaterial } from '@/core/reports/incomeCash';
import type { GeneralLedgerMaterial } from '@/core/reports/ledgers';
import type { SalesMaterial } from '@/core/reports/sales';
import { type ReportSpan, spanBefore } from '@/core/reports/span';
import type { AccountSums, StatementMaterial } from '@/core/reports/statements';
import type { EvidenceMaterial, LateMaterial } from '@/core/reports/taxEvidence';
import type { ExemptMaterial, OutputTaxMaterial, RecapitulativeMaterial } from '@/core/reports/taxLists';
import { spanName, spanOf } from '@/core/returns/calendar';
import { returnOf } from '@/core/returns/return';
import { loadBook } from '../load';
import type { BookDb } from '../schema';
import { entriesBehindAll } from '../tax/queries/periods';

/* What reports are made of, read through indexes: as much as the days hold, never the book. */

/** What each account moved by up to and with a day: kept months, and the lines of the month that is begun. */
export async function sumsUntil(db: BookDb, until: IsoDate): Promise<AccountSums> {
  const month = monthOf(until);
  const sums = new Map<string, Minor>();
  const add = (account: string, amount: Minor) => sums.set(account, plus(sums.get(account) ?? NOTHING, amount));
  const months = db.accountMonths.where('month');
  const whole = until === endOfMonth(until);
  const kept = await (whole ? months.belowOrEqual(month) : months.below(month)).toArray();
  for (const { account, amount } of kept) add(account, amount);
  if (whole) return sums;
  const entries = await db.journal
    .where('[date+id]')
    .between([`${month}-01`, Dexie.minKey], [until, Dexie.maxKey])
    .primaryKeys();
  for (const { account, amount } of await db.journalLines.where('entryId').anyOf(entries).toArray())
    add(account, amount);
  return sums;
}

function less(later: AccountSums, earlier: AccountSums): AccountSums {
  return new Map([...later].map(([code, amount]) => [code, plus(amount, negated(earlier.get(code) ?? NOTHING))]));
}

/** Lines of all entries that closed years or opened them again. */
async function closingLines(db: BookDb): Promise<readonly JournalLine[]> {
  const entries = closingEntries(await db.yearClosings.toArray());
  return db.journalLines
    .where('entryId')
    .anyOf([...entries])
    .toArray();
}

function sumsOf(lines: readonly JournalLine[], { from, until }: ReportSpan): AccountSums {
  const sums = new Map<string, Minor>();
  for (const { account, date, amount } of lines)
    if (from <= date && date <= until) sums.set(account, plus(sums.get(account) ?? NOTHING, amount));
  return sums;
}

export async function statementMaterial(db: BookDb, span: ReportSpan): Promise<StatementMaterial> {
  const earlier = spanBefore(span);
  const [{ business }, chart, closing, opening, first, closed] = await Promise.all([
    loadBook(db),
    db.accounts.toArray(),
    sumsUntil(db, span.until),
    sumsUntil(db, addDays(span.from, -1)),
    sumsUntil(db, addDays(earlier.from, -1)),
    closingLines(db),
  ]);
  return {
    ...span,
    home: business.homeCurrency,
    chart,
    opening,
    moved: less(closing, opening),
    before: less(opening, first),
    closed: { moved: sumsOf(closed, span), before: sumsOf(closed, earlier) },
  };
}

/** Documents issued between two days, by number. */
function documentsIssued(db: BookDb, { from, until }: ReportSpan): Promise<IssuedDocument[]> {
  return db.documents.where('[issueDate+number]').between([from, Dexie.minKey], [until, Dexie.maxKey]).toArray();
}

export async function salesMaterial(db: BookDb, span: ReportSpan): Promise<SalesMaterial> {
  const [{ business }, documents, before, items] = await Promise.all([
    loadBook(db),
    documentsIssued(db, span),
    documentsIssued(db, spanBefore(span)),
    db.items.toArray(),
  ]);
  return {
    ...span,
    home: business.homeCurrency,
    documents,
    before,
    items: new Map(items.map(({ id, name }) => [id, name])),
  };
}

export async function incomeCashMaterial(db: BookDb, span: ReportSpan): Promise<IncomeCashMaterial> {
  const [{ business }, chart, bankAccounts, registrations] = await Promise.all([
    loadBook(db),
    db.accounts.toArray(),
    db.bankAccounts.toArray(),
    db.registrations.toArray(),
  ]);
  const receivables = accountFor(chart, 'receivables');
  const own = await db.journalLines
    .where('[account+date+id]')
    .between([receivables, span.from, Dexie.minKey], [receivables, span.until, Dexie.maxKey])
    .toArray();
  const [lines, closing, opening, closed] = await Promise.all([
    db.journalLines
      .where('entryId')
      .anyOf([...new Set(own.map(({ entryId }) => entryId))])
      .toArray(),
    sumsUntil(db, span.until),
    sumsUntil(db, addDays(span.from, -1)),
    closingLines(db),
  ]);
  const moved = less(less(closing, opening), sumsOf(closed, span));
  const income = chart.reduce(
    (sum, { code, type }) => (type === 'income' ? plus(sum, negated(moved.get(code) ?? NOTHING)) : sum),
    NOTHING,
  );
  const money = new Set([
    ...chart.flatMap(({ code, role }) => (role === 'bank' || role === 'cash' || role === 'card' ? [code] : [])),
    ...bankAccounts.map(({ account }) => account),
  ]);
  return {
    ...span,
    home: business.homeCurrency,
    chart,
    money,
    tax: new Set(registrations.flatMap((one) => [outputAccountOf(one, chart), notYetDueAccountOf(one, chart)])),
    opening: opening.get(receivables) ?? NOTHING,
    lines,
    income,
  };
}

/** Days by which tax points and days of issue may lie apart. */
const AROUND = 366;

/** Documents with tax points between two days, by number. */
async function documentsTaxed(db: BookDb, { from, until }: ReportSpan): Promise<readonly IssuedDocument[]> {
  const issued = await documentsIssued(db, { from: addDays(from, -AROUND), until: addDays(until, AROUND) });
  return issued.filter(({ content: { taxPoint } }) => from <= taxPoint && taxPoint <= until);
}

export async function recapitulativeMaterial(db: BookDb, span: ReportSpan): Promise<RecapitulativeMaterial> {
  const [{ business }, documents] = await Promise.all([loadBook(db), documentsTaxed(db, span)]);
  const customers = await db.customers.bulkGet([...new Set(documents.map(({ customerId }) => customerId))]);
  return {
    ...span,
    home: business.homeCurrency,
    documents,
    customers: new Map(customers.flatMap((one) => (one === undefined ? [] : [[one.id, one] as const]))),
  };
}

export async function evidenceMaterial(db: BookDb, span: ReportSpan): Promise<EvidenceMaterial> {
  const material = await recapitulativeMaterial(db, span);
  const untaxed = material.documents.filter(({ content }) =>
    content.taxes.some(({ category }) => 'AEKG'.includes(category)),
  );
  const files = await db.attachments
    .where('ownerId')
    .anyOf(untaxed.map(({ id }) => id))
    .toArray();
  const names = grouped(files, ({ ownerId }) => ownerId);
  return {
    ...material,
    documents: untaxed,
    files: new Map([...names].map(([id, own]) => [id, own.map(({ name }) => name)])),
  };
}

export async function lateMaterial(db: BookDb, { from, until }: ReportSpan): Promise<LateMaterial> {
  const [{ business }, registrations] = await Promise.all([loadBook(db), db.registrations.toArray()]);
  const late = await Promise.all(
    registrations.map(async (registration) => {
      const { id, name } = registration;
      const periods = await db.taxPeriods.where('[registrationId+start]').between([id, ''], [id, '~']).toArray();
      const own = periods.filter(({ start, end }) => start <= until && end >= from);
      const found = await Promise.all(
        own.map(async (period) => {
          const rows = await db.taxRows.where('periodId').equals(period.id).toArray();
          const entries = await entriesBehindAll(
            db,
            rows.filter(({ lateEntries }) => lateEntries > 0),
          );
          return entries
            .filter((entry) => entry.late)
            .map((entry) => ({
              entry,
              registration: name,
              reportedIn: period,
              own: spanOf(registration.frequency, entry.taxPoint),
            }));
        }),
      );
      return found.flat();
    }),
  );
  return { from, until, home: business.homeCurrency, late: late.flat() };
}

/** Lines of an account, or of all where none is named, between two days, with what they stood at before. */
export async function generalLedgerMaterial(
  db: BookDb,
  span: ReportSpan,
  account: string,
): Promise<GeneralLedgerMaterial> {
  const [{ business }, chart, opening] = await Promise.all([
    loadBook(db),
    db.accounts.toArray(),
    sumsUntil(db, addDays(span.from, -1)),
  ]);
  const accounts = chart
    .filter(({ code }) => account === '' || code === account)
    .sort((a, b) => (a.code < b.code ? -1 : 1));
  const lines = await Promise.all(
    accounts.map(({ code }) =>
      db.journalLines
        .where('[account+date+id]')
        .between([code, span.from, Dexie.minKey], [code, span.until, Dexie.maxKey])
        .toArray(),
    ),
  );
  return { ...span, home: business.homeCurrency, accounts, opening, lines: lines.flat() };
}

export async function exemptMaterial(db: BookDb, span: ReportSpan): Promise<ExemptMaterial> {
  const [{ business }, documents, certificates] = await Promise.all([
    loadBook(db),
    documentsTaxed(db, span),
    db.certificates.toArray(),
  ]);
  const ids = documents.map(({ id }) => id);
  const entries = await db.taxEntries.where('documentId').anyOf(ids).toArray();
  return { ...span, home: business.homeCurrency, entries, certificates };
}

export async function outputTaxMaterial(db: BookDb, span: ReportSpan): Promise<OutputTaxMaterial> {
  const [{ business }, registrations] = await Promise.all([loadBook(db), db.registrations.toArray()]);
  const periods = await Promise.all(
    registrations.map(async ({ id, name }) => {
      const own = await db.taxPeriods.where('[registrationId+start]').between([id, ''], [id, '~']).toArray();
      return Promise.all(
        own
          .filter(({ start, end }) => start <= span.until && end >= span.from)
          .map(async (period) => ({
            name: spanName(period),
            registration: name,
            rows: (
              period.filed?.figures ?? returnOf(await db.taxRows.where('periodId').equals(period.id).toArray())
            ).rows.map((row) => ({ codeName: row.codeName, percent: row.percent, base: row.base, tax: row.tax })),
          })),
      );
    }),
  );
  return { ...span, home: business.homeCurrency, periods: periods.flat() };
}
