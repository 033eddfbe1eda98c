import Dexie from 'dexie';
import { addDays, endOfMonth, type IsoDate, isoDate, monthOf } from '@/core/kernel/date';
import { type Minor, NOTHING, negated, plus } from '@/core/kernel/money';
import { accountFor } from '@/core/ledger/account';
import type { JournalLine } from '@/core/ledger/entry';
import { closingEntries } from '@/core/ledger/fiscalYear';
import { notYetDueAccountOf, outputAccountOf } from '@/core/ledger/posting/taxAccounts';
import type { IncomeCashMaterial } from '@/core/reports/incomeCash';
import type { GeneralLedgerMaterial } from '@/core/reports/ledgers';
import { type ReportSpan, spanBefore } from '@/core/reports/span';
import type { AccountSums, StatementMaterial } from '@/core/reports/statements';
import { loadBook } from '../load';
import type { BookDb } from '../schema';

/* What reports of the ledger are made of, read through indexes: kept months, and lines of the days that are begun. */

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

/** Tags that documents bear, by name. */
export async function tagsInUse(db: BookDb): Promise<readonly string[]> {
  return (await db.documents.orderBy('tags').uniqueKeys()).map(String);
}

/** What each account moved by for documents with a tag, until a day: their entries, and those that were made for them later. */
async function taggedSums(db: BookDb, tag: string): Promise<(until: IsoDate) => AccountSums> {
  const ids = await db.documents.where('tags').equals(tag).primaryKeys();
  const entries = await db.journal.where('sourceId').anyOf(ids).primaryKeys();
  const lines = await db.journalLines.where('entryId').anyOf(entries).toArray();
  return (until) => sumsOf(lines, { from: FIRST_DAY, until });
}

/** Before any day of a book. */
const FIRST_DAY = isoDate('1900-01-01');

/** What statements are made of: the whole book, or documents with a tag where one is named. */
export async function statementMaterial(db: BookDb, span: ReportSpan, tag = ''): Promise<StatementMaterial> {
  const earlier = spanBefore(span);
  const tagged = tag === '' ? null : await taggedSums(db, tag);
  const sums = (until: IsoDate) => (tagged === null ? sumsUntil(db, until) : tagged(until));
  const [{ business }, chart, closing, opening, first, closed] = await Promise.all([
    loadBook(db),
    db.accounts.toArray(),
    sums(span.until),
    sums(addDays(span.from, -1)),
    sums(addDays(earlier.from, -1)),
    tagged === null ? closingLines(db) : [],
  ]);
  return {
    ...span,
    home: business.homeCurrency,
    tag,
    chart,
    opening,
    moved: less(closing, opening),
    before: less(opening, first),
    closed: { moved: sumsOf(closed, span), before: sumsOf(closed, earlier) },
  };
}

/** What stands for every account of the chart. */
export const ALL_ACCOUNTS = 'all';

/** Lines of an account, of the first where none is named, or of all, between two days, with what they stood at before. */
export async function generalLedgerMaterial(
  db: BookDb,
  span: ReportSpan,
  account = '',
): Promise<GeneralLedgerMaterial> {
  const [{ business }, chart, opening] = await Promise.all([
    loadBook(db),
    db.accounts.toArray(),
    sumsUntil(db, addDays(span.from, -1)),
  ]);
  const inOrder = chart.toSorted((a, b) => (a.code < b.code ? -1 : 1));
  const one = account === '' ? inOrder[0]?.code : account;
  const accounts = account === ALL_ACCOUNTS ? inOrder : inOrder.filter(({ code }) => code === one);
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
