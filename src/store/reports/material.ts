import Dexie from 'dexie';
import type { IssuedDocument } from '@/core/documents/issued';
import { addDays, type IsoDate, monthOf } from '@/core/kernel/date';
import { type Minor, NOTHING, negated, plus } from '@/core/kernel/money';
import { accountFor } from '@/core/ledger/account';
import type { JournalLine } from '@/core/ledger/entry';
import { closingEntries } from '@/core/ledger/fiscalYear';
import { notYetDueAccountOf, outputAccountOf } from '@/core/ledger/posting/taxAccounts';
import type { IncomeCashMaterial } from '@/core/reports/incomeCash';
import type { SalesMaterial } from '@/core/reports/sales';
import { type ReportSpan, spanBefore } from '@/core/reports/span';
import type { AccountSums, StatementMaterial } from '@/core/reports/statements';
import type { ExemptMaterial, OutputTaxMaterial, RecapitulativeMaterial } from '@/core/reports/taxLists';
import { spanName } from '@/core/returns/calendar';
import { returnOf } from '@/core/returns/return';
import { loadBook } from '../load';
import type { BookDb } from '../schema';

/* What reports are made of, read through indexes: as much as the days hold, never the book. */

/** What each account moved by up to and with a day: kept months, and the lines of the month that is begun. */
export async function sumsUntil(db: BookDb, until: IsoDate): Promise<AccountSums> {
  const month = monthOf(until);
  const sums = new Map<string, Minor>();
  const add = (account: string, amount: Minor) => sums.set(account, plus(sums.get(account) ?? NOTHING, amount));
  for (const { account, amount } of await db.accountMonths.where('month').below(month).toArray()) add(account, amount);
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

export async function recapitulativeMaterial(db: BookDb, span: ReportSpan): Promise<RecapitulativeMaterial> {
  // Tax points may lie some time before or after the day of issue.
  const around = { from: addDays(span.from, -AROUND), until: addDays(span.until, AROUND) };
  const [{ business }, issued] = await Promise.all([loadBook(db), documentsIssued(db, around)]);
  const documents = issued.filter(({ content: { taxPoint } }) => span.from <= taxPoint && taxPoint <= span.until);
  const customers = await db.customers.bulkGet([...new Set(documents.map(({ customerId }) => customerId))]);
  return {
    ...span,
    home: business.homeCurrency,
    documents,
    customers: new Map(customers.flatMap((one) => (one === undefined ? [] : [[one.id, one] as const]))),
  };
}

/** Days by which tax points and days of issue may lie apart. */
const AROUND = 366;

export async function exemptMaterial(db: BookDb, span: ReportSpan): Promise<ExemptMaterial> {
  const [{ business }, issued, certificates] = await Promise.all([
    loadBook(db),
    documentsIssued(db, { from: addDays(span.from, -AROUND), until: addDays(span.until, AROUND) }),
    db.certificates.toArray(),
  ]);
  const ids = issued
    .filter(({ content: { taxPoint } }) => span.from <= taxPoint && taxPoint <= span.until)
    .map(({ id }) => id);
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
