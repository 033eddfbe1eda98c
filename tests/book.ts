import type { Moment } from '@/core/book/changes';
import type { Attachment } from '@/core/documents/attachment';
import { blankAdjustment, blankDraft, type Draft, type DraftAdjustment, type DraftLine } from '@/core/documents/draft';
import type { IssuedDocument } from '@/core/documents/issued';
import { NO_YEAR, type Setting } from '@/core/documents/setting';
import { currency } from '@/core/kernel/currency';
import { type IsoDate, isoDate } from '@/core/kernel/date';
import type { Result } from '@/core/kernel/result';
import type { TaxBalance } from '@/core/returns/return';
import { DEMO_BANK_ACCOUNT, DEMO_BUSINESS, DEMO_CUSTOMERS, DEMO_ITEMS, demoBeginning, demoSetup } from '@/demo/setup';
import { present } from '@/store/load';
import { type Action, perform } from '@/store/perform';
import { keepDraft } from '@/store/sales/actions/drafts';
import { issueInvoice } from '@/store/sales/actions/issueInvoice';
import { BookDb } from '@/store/schema';
import { begin, changeCustomer, changeItem } from '@/store/setup/actions/setup';

export const EUR = currency('EUR');

/** First day of the first tax period of test books. */
export const KEPT_FROM = isoDate('2026-01-01');

let ids = 0;

/** A small PDF kept with something. */
export function attachmentOf(over: Partial<Attachment>): Attachment {
  return {
    id: `file-${++ids}`,
    ownerId: '',
    name: 'order.pdf',
    type: 'application/pdf',
    size: 3,
    data: 'AAAA',
    addedAt: '2026-01-15T12:00:00.000Z',
    goesOut: false,
    ...over,
  };
}

/** A discount on all lines, such as `10%` or `12.50`. */
export function discountOf(amount: string): DraftAdjustment {
  return { ...blankAdjustment('discount', 'allowance', '4900'), amount };
}

/** What drafts of the sample business are written against, without a database. */
export function settingOf(over: Partial<Setting> = {}): Setting {
  return {
    business: DEMO_BUSINESS,
    setup: demoSetup(KEPT_FROM),
    certificates: [],
    yearSoFar: NO_YEAR,
    styles: [],
    bankAccounts: [DEMO_BANK_ACCOUNT],
    rateOf: () => null,
    ...over,
  };
}

/** The outside world on a day; ids count up. */
export function momentOn(day: string): Moment {
  const today = isoDate(day);
  return {
    now: `${today}T12:00:00.000Z`,
    today,
    operator: 'Tester',
    newId: () => `id-${String(++ids).padStart(6, '0')}`,
  };
}

/** Runs an action on a day and gives its value. @throws Error with the refusals when it is refused. */
export async function act<Input, Value>(
  db: BookDb,
  action: Action<Input, Value>,
  input: Input,
  day: string,
): Promise<Value> {
  return accepted(await perform(db, action, input, momentOn(day)));
}

export function accepted<T>(result: Result<T>): T {
  if (!result.ok) throw new Error(JSON.stringify(result.refusals));
  return result.value;
}

/** Codes of a refusal's parts, or none when it was accepted. */
export function refusalCodes(result: Result<unknown>): string[] {
  return result.ok ? [] : result.refusals.map((refusal) => refusal.code);
}

/** An empty book of the sample business, registered for two-monthly VAT from January 2026. */
export async function newBook(): Promise<BookDb> {
  const db = new BookDb(`test-${++ids}`);
  await act(db, begin, demoBeginning(KEPT_FROM), KEPT_FROM);
  for (const customer of DEMO_CUSTOMERS) await act(db, changeCustomer, customer, KEPT_FROM);
  for (const item of DEMO_ITEMS) await act(db, changeItem, item, KEPT_FROM);
  return db;
}

export function lineOf(over: Partial<DraftLine> = {}): DraftLine {
  return {
    id: `line-${++ids}`,
    itemId: '',
    description: 'Calibration',
    quantity: '1',
    unit: 'C62',
    price: '100.00',
    discount: '',
    taxClass: 'standard',
    supply: 'service',
    priceFrom: '',
    taxCode: 'IE-S',
    taxByHand: false,
    account: '4100',
    supplied: '',
    of: '',
    ...over,
  };
}

export function draftOf(over: Partial<Draft> = {}): Draft {
  const id = over.id ?? `draft-${++ids}`;
  return {
    ...blankDraft(id, over.kind ?? 'invoice', 'ie-vat', '2026-01-15'),
    customerId: 'ballyvaughan',
    buyerReference: 'BHB-1',
    lines: [lineOf()],
    ...over,
  };
}

/** Keeps and issues a draft on a day; gives the document. */
export async function issued(
  db: BookDb,
  over: Partial<Draft> = {},
  day = over.issueDate ?? '2026-01-15',
): Promise<IssuedDocument> {
  const draft = await act(db, keepDraft, draftOf({ issueDate: day, ...over }), day);
  const { id } = await act(db, issueInvoice, { draftId: draft.id }, day);
  return documentOf(db, id);
}

export async function documentOf(db: BookDb, id: string): Promise<IssuedDocument> {
  return present(await db.documents.get(id), `document ${id}`);
}

/** Everything a book holds, kept balances included, in a fixed order. */
export async function wholeBook(db: BookDb): Promise<Record<string, unknown[]>> {
  const tables: Record<string, unknown[]> = {};
  for (const table of db.tables) tables[table.name] = await table.toArray();
  return tables;
}

export function day(text: string): IsoDate {
  return isoDate(text);
}

export function taxOf(balances: readonly TaxBalance[]): bigint {
  return balances.reduce((sum, row) => sum + row.tax, 0n);
}
