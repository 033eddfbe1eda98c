import Dexie from 'dexie';
import { KINDS } from '@/core/documents/kinds';
import { addDays, type IsoDate } from '@/core/kernel/date';
import { grouped } from '@/core/kernel/grouped';
import { type Minor, NOTHING, negated, plus } from '@/core/kernel/money';
import { accountFor } from '@/core/ledger/account';
import {
  AUDIT_BEGIN,
  type AuditTotals,
  accountXml,
  counted,
  customerXml,
  headerXml,
  invoiceAmount,
  invoiceXml,
  NO_TOTALS,
  paymentXml,
  taxCodeXml,
  totalsXml,
  transactionXml,
} from '@/core/reports/auditFile';
import type { ReportSpan } from '@/core/reports/span';
import { rateOn } from '@/core/tax/tax';
import { loadBook } from '../load';
import type { BookDb } from '../schema';
import { sumsUntil } from './ledgers';

/** Rows that are read and written together. */
const BATCH = 500;

/** Rows of a table between two days by a compound index that begins with the day, a batch at a time, in its order. */
async function* between<Row>(
  table: Dexie.Table<Row>,
  index: string,
  { from, until }: ReportSpan,
  keyOf: (row: Row) => readonly [IsoDate, string],
): AsyncGenerator<readonly Row[]> {
  let after: readonly unknown[] = [from, Dexie.minKey];
  for (let isFirst = true; ; isFirst = false) {
    const rows = await table
      .where(index)
      .between([...after], [until, Dexie.maxKey], isFirst, true)
      .limit(BATCH)
      .toArray();
    if (rows.length > 0) yield rows;
    const last = rows.at(-1);
    if (last === undefined || rows.length < BATCH) return;
    after = keyOf(last);
  }
}

const entriesOf = (db: BookDb, span: ReportSpan) =>
  between(db.journal, '[date+id]', span, ({ date, id }) => [date, id]);
const documentsOf = (db: BookDb, span: ReportSpan) =>
  between(db.documents, '[issueDate+number]', span, ({ issueDate, number }) => [issueDate, number]);
const receiptsOf = (db: BookDb, span: ReportSpan) =>
  between(db.receipts, '[date+number]', span, ({ date, number }) => [date, number]);

async function linesOf(db: BookDb, entryIds: readonly string[]) {
  const lines = await db.journalLines
    .where('entryId')
    .anyOf([...entryIds])
    .toArray();
  return grouped(lines, ({ entryId }) => entryId);
}

/** What each customer owed at the end of a day, in home currency, by what moved its account until then. */
async function owedAt(db: BookDb, until: IsoDate): Promise<ReadonlyMap<string, Minor>> {
  const sums = new Map<string, Minor>();
  const add = (customerId: string, amount: Minor) =>
    sums.set(customerId, plus(sums.get(customerId) ?? NOTHING, amount));
  const first = { from: '0000-01-01' as IsoDate, until };
  for await (const documents of documentsOf(db, first))
    for (const document of documents) if (KINDS[document.kind].posts) add(document.customerId, invoiceAmount(document));
  for await (const receipts of receiptsOf(db, first))
    for (const { customerId, amountHome } of receipts) add(customerId, negated(amountHome));
  return sums;
}

/** How far the writing is: rows written, of so many. */
export type OnWritten = (done: number, of: number) => void;

/**
 * The audit file between two days, piece by piece; what is told at the end is what stands in it. Rows are gone through
 * twice, as their totals stand before them.
 */
export async function* auditFile(
  db: BookDb,
  span: ReportSpan,
  writtenOn: IsoDate,
  onWritten: OnWritten = () => undefined,
): AsyncGenerator<string> {
  const before = addDays(span.from, -1);
  const [{ business }, chart, registrations, codes, taxes, opening, closing, owedBefore, owedAfter] = await Promise.all(
    [
      loadBook(db),
      db.accounts.toArray(),
      db.registrations.toArray(),
      db.taxCodes.toArray(),
      db.taxes.toArray(),
      sumsUntil(db, before),
      sumsUntil(db, span.until),
      owedAt(db, before),
      owedAt(db, span.until),
    ],
  );
  const { homeCurrency: currency } = business;
  const receivables = accountFor(chart, 'receivables');
  let [ledger, sales, payments]: [AuditTotals, AuditTotals, AuditTotals] = [NO_TOTALS, NO_TOTALS, NO_TOTALS];
  for await (const entries of entriesOf(db, span)) {
    const lines = await linesOf(
      db,
      entries.map(({ id }) => id),
    );
    for (const { id } of entries)
      ledger = counted(
        ledger,
        (lines.get(id) ?? []).map(({ amount }) => amount),
      );
  }
  for await (const documents of documentsOf(db, span))
    for (const one of documents) if (KINDS[one.kind].posts) sales = counted(sales, [invoiceAmount(one)]);
  for await (const receipts of receiptsOf(db, span))
    for (const { amountHome } of receipts) payments = counted(payments, [negated(amountHome)]);
  const of = ledger.entries + sales.entries + payments.entries;
  let done = 0;
  const tell = (by: number) => {
    done += by;
    onWritten(done, of);
  };

  yield AUDIT_BEGIN;
  yield `${headerXml({ ...span, business, registrations, writtenOn })}\n<MasterFiles>\n<GeneralLedgerAccounts>\n`;
  for (const account of chart) {
    const { code } = account;
    const stands = { opening: opening.get(code) ?? NOTHING, closing: closing.get(code) ?? NOTHING };
    yield `${accountXml(account, stands, currency)}\n`;
  }
  yield '</GeneralLedgerAccounts>\n<Customers>\n';
  for (let at = 0; ; at += BATCH) {
    const customers = await db.customers.orderBy('name').offset(at).limit(BATCH).toArray();
    for (const customer of customers) {
      const stands = {
        opening: owedBefore.get(customer.id) ?? NOTHING,
        closing: owedAfter.get(customer.id) ?? NOTHING,
      };
      yield `${customerXml(customer, receivables, stands, currency)}\n`;
    }
    if (customers.length < BATCH) break;
  }
  yield '</Customers>\n<TaxTable>\n';
  for (const code of codes) {
    const percents = code.components.map(({ taxId, taxClass }) => {
      const tax = taxes.find(({ id }) => id === taxId);
      return tax === undefined ? '0' : (rateOn(tax, taxClass, span.until)?.percent ?? '0');
    });
    yield `${taxCodeXml(code, percents.length === 1 ? (percents[0] ?? '0') : '0', business.address.country)}\n`;
  }
  yield `</TaxTable>\n</MasterFiles>\n<GeneralLedgerEntries>\n${totalsXml(ledger, currency)}\n`;
  yield '<Journal>\n<JournalID>general</JournalID>\n<Description>General journal</Description>\n<Type>general</Type>\n';
  for await (const entries of entriesOf(db, span)) {
    const lines = await linesOf(
      db,
      entries.map(({ id }) => id),
    );
    yield `${entries.map((entry) => transactionXml(entry, lines.get(entry.id) ?? [], currency)).join('\n')}\n`;
    tell(entries.length);
  }
  yield `</Journal>\n</GeneralLedgerEntries>\n<SourceDocuments>\n<SalesInvoices>\n${totalsXml(sales, currency)}\n`;
  for await (const documents of documentsOf(db, span)) {
    const posting = documents.filter(({ kind }) => KINDS[kind].posts);
    yield `${posting.map((one) => invoiceXml(one, currency)).join('\n')}\n`;
    tell(posting.length);
  }
  yield `</SalesInvoices>\n<Payments>\n${totalsXml(payments, currency)}\n`;
  for await (const receipts of receiptsOf(db, span)) {
    yield `${receipts.map((one) => paymentXml(one, receivables, currency)).join('\n')}\n`;
    tell(receipts.length);
  }
  yield '</Payments>\n</SourceDocuments>\n</AuditFile>\n';
}
