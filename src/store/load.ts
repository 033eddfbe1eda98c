import Dexie from 'dexie';
import type { Book } from '@/core/decisions/changes';
import { signed } from '@/core/documents/content';
import type { Draft } from '@/core/documents/draft';
import { datesOf } from '@/core/documents/lineTax';
import { NO_YEAR, type Setting, type YearBases } from '@/core/documents/setting';
import type { IsoDate } from '@/core/kernel/date';
import type { Decimal } from '@/core/kernel/decimal';
import { total } from '@/core/kernel/money';
import type { Customer } from '@/core/parties/customer';
import type { Whereabouts } from '@/core/tax/place';
import { readStackKey } from '@/core/tax/resolve';
import { prepareSetup, type TaxRecords, type TaxSetup } from '@/core/tax/taxSetup';
import { placesNear } from './queries/places';
import type { BookDb } from './schema';

/** The book's row. @throws Error when no book has begun; screens are only shown once one has. */
export async function loadBook(db: BookDb): Promise<Book> {
  return present(await db.book.get('book'), 'the book');
}

/** The tax set-up without its places, which may be thousands. */
export async function loadRecords(db: BookDb): Promise<TaxRecords> {
  const [registrations, jurisdictions, taxes, codes, table, withholdingTypes] = await Promise.all([
    db.registrations.toArray(),
    db.jurisdictions.toArray(),
    db.taxes.toArray(),
    db.taxCodes.toArray(),
    db.decisionTables.get('table'),
    db.withholdingTypes.toArray(),
  ]);
  return { registrations, jurisdictions, taxes, codes, places: [], rows: table?.rows ?? [], withholdingTypes };
}

/** The set-up with the places that an address may lie in, and those that lines name by their keys. */
export async function loadSetup(
  db: BookDb,
  shipTo: Whereabouts | null,
  keys: readonly string[] = [],
): Promise<TaxSetup> {
  const named = keys.flatMap((key) => readStackKey(key)?.placeId ?? []);
  const [records, near, others] = await Promise.all([
    loadRecords(db),
    shipTo === null ? [] : placesNear(db, shipTo),
    db.places.bulkGet(named),
  ]);
  const places = new Map([...near, ...others.filter((place) => place !== undefined)].map((p) => [p.id, p]));
  return prepareSetup({ ...records, places: [...places.values()] });
}

/** What a customer was billed in the calendar year of a day, before any document still in draft. */
async function yearBases(db: BookDb, customerId: string, day: IsoDate): Promise<YearBases> {
  const year = day.slice(0, 4);
  const documents = await db.documents
    .where('[customerId+issueDate]')
    .between([customerId, `${year}-01-01`], [customerId, `${year}-12-31`], true, true)
    .toArray();
  const sum = (figure: 'net' | 'taxAmount' | 'gross') =>
    total(documents.map(({ content, figures }) => signed(content, figures.totals[figure])));
  return { net: sum('net'), tax: sum('taxAmount'), gross: sum('gross') };
}

/** The newest exchange rate of each filing currency on or before a day. */
async function ratesOn(db: BookDb, currencies: readonly string[], day: IsoDate): Promise<Map<string, Decimal>> {
  const rates = new Map<string, Decimal>();
  for (const currency of new Set(currencies)) {
    const rate = await db.exchangeRates
      .where('[currency+date]')
      .between([currency, Dexie.minKey], [currency, day], true, true)
      .last();
    if (rate !== undefined) rates.set(currency, rate.perHome);
  }
  return rates;
}

/** What a draft is written against: the set-up, and what is known of its customer on the tax point. */
export async function loadSetting(
  db: BookDb,
  draft: Pick<Draft, 'customerId' | 'delivery' | 'lines' | 'issueDate' | 'taxPoint' | 'due'>,
  customer: Customer | null,
): Promise<Setting> {
  const { business } = await loadBook(db);
  const day = datesOf(draft as Draft).taxPoint;
  const setup = await loadSetup(
    db,
    draft.delivery ?? customer?.address ?? business.address,
    draft.lines.map((line) => line.taxCode),
  );
  const withholds = customer !== null && customer.withholding.length > 0;
  const foreign = setup.registrations.map((r) => r.filingCurrency).filter((c) => c !== business.homeCurrency);
  const [certificates, yearSoFar, rates] = await Promise.all([
    customer === null ? [] : db.certificates.where('customerId').equals(customer.id).toArray(),
    withholds && day !== null ? yearBases(db, customer.id, day) : NO_YEAR,
    day === null ? new Map<string, Decimal>() : ratesOn(db, foreign, day),
  ]);
  return { business, setup, certificates, yearSoFar, rateOf: (currency) => rates.get(currency) ?? null };
}

/** @throws Error when a row that must be there is not: the book is broken, nothing may be written. */
export function present<T>(row: T | undefined, what: string): T {
  if (row === undefined) throw new Error(`${what} is missing from the book`);
  return row;
}
