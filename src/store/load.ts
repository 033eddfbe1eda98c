import Dexie from 'dexie';
import type { Book } from '@/core/book/rows';
import type { BookTable } from '@/core/book/tables';
import type { RateOn } from '@/core/currency/exchangeRate';
import { signed } from '@/core/documents/content';
import type { Draft } from '@/core/documents/draft';
import type { IssuedDocument } from '@/core/documents/issued';
import { datesOf } from '@/core/documents/lineTax';
import { NO_YEAR, type Setting, type YearBases } from '@/core/documents/setting';
import type { IsoDate } from '@/core/kernel/date';
import { total } from '@/core/kernel/money';
import { type Customer, whereaboutsOf } from '@/core/parties/customer';
import type { Whereabouts } from '@/core/tax/place';
import { readStackKey } from '@/core/tax/taxKey';
import { prepareSetup, type TaxRecords, type TaxSetup } from '@/core/tax/taxSetup';
import type { BookDb } from './schema';
import { placesNear } from './setup/queries/places';

/** The book's row. @throws Error when no book has begun; screens are only shown once one has. */
export async function loadBook(db: BookDb): Promise<Book> {
  return present(await db.book.get('book'), 'the book');
}

/**
 * The tax set-up without its places, which may be thousands. Like all loaders that actions call
 * below others, it chains promises rather than awaiting them: the database follows its transaction
 * through a few nested async functions only.
 */
export function loadRecords(db: BookDb): Promise<TaxRecords> {
  return Promise.all([
    db.registrations.toArray(),
    db.jurisdictions.toArray(),
    db.taxes.toArray(),
    db.taxCodes.toArray(),
    db.decisionTables.get('table'),
    db.withholdingTypes.toArray(),
  ]).then(([registrations, jurisdictions, taxes, codes, table, withholdingTypes]) => ({
    registrations,
    jurisdictions,
    taxes,
    codes,
    places: [],
    rows: table?.rows ?? [],
    withholdingTypes,
  }));
}

/** The set-up with the places that an address may lie in, and those that lines name by their keys. */
export function loadSetup(db: BookDb, shipTo: Whereabouts | null, keys: readonly string[] = []): Promise<TaxSetup> {
  const chosen = shipTo?.placeId ?? '';
  const named = [...keys.flatMap((key) => readStackKey(key)?.placeId ?? []), ...(chosen === '' ? [] : [chosen])];
  return Promise.all([loadRecords(db), shipTo === null ? [] : placesNear(db, shipTo), db.places.bulkGet(named)]).then(
    ([records, near, others]) => {
      const places = new Map([...near, ...others.filter((place) => place !== undefined)].map((p) => [p.id, p]));
      return prepareSetup({ ...records, places: [...places.values()] });
    },
  );
}

/**
 * What a customer was billed with a tax point in the calendar year of a day, before any document still
 * in draft. Documents are found by their issue date, which lies near the tax point.
 */
function yearBases(db: BookDb, customerId: string, day: IsoDate): Promise<YearBases> {
  const year = Number(day.slice(0, 4));
  return db.documents
    .where('[customerId+issueDate]')
    .between([customerId, `${year - 1}-01-01`], [customerId, `${year + 1}-12-31`], true, true)
    .toArray()
    .then((documents) => {
      const counted = documents.filter(
        ({ cancelled, kind, content }) =>
          cancelled === null &&
          (kind === 'invoice' || kind === 'credit-note') &&
          content.taxPoint.startsWith(String(year)),
      );
      const sum = (figure: 'net' | 'taxAmount' | 'gross') =>
        total(counted.map(({ content, figures }) => signed(content, (figures.home ?? figures.totals)[figure])));
      return { net: sum('net'), tax: sum('taxAmount'), gross: sum('gross') };
    });
}

/** The newest exchange rate of each currency on or before a day. */
export function ratesOn(db: BookDb, currencies: readonly string[], day: IsoDate): Promise<ReadonlyMap<string, RateOn>> {
  const newest = currencies.map((currency) =>
    db.exchangeRates.where('[currency+date]').between([currency, Dexie.minKey], [currency, day], true, true).last(),
  );
  return Promise.all(newest).then(
    (rates) => new Map(rates.flatMap((rate) => (rate === undefined ? [] : [[rate.currency, rate] as const]))),
  );
}

/** The address that decides where a draft is taxed, where one is known. */
function shipToOf(draft: Pick<Draft, 'delivery'>, customer: Customer | null): Whereabouts | null {
  return draft.delivery ?? (customer === null ? null : whereaboutsOf(customer));
}

type Written = Pick<Draft, 'delivery' | 'lines' | 'adjustments' | 'issueDate' | 'taxPoint' | 'due' | 'currency'>;

/** Tables that `loadSetting` reads. */
export const SETTING_TABLES: readonly BookTable[] = [
  'book',
  'registrations',
  'jurisdictions',
  'taxes',
  'taxCodes',
  'decisionTables',
  'withholdingTypes',
  'places',
  'certificates',
  'documents',
  'styles',
  'bankAccounts',
  'exchangeRates',
];

/** What a draft is written against: the set-up, and what is known of its customer on the tax point. */
export function loadSetting(db: BookDb, draft: Written, customer: Customer | null): Promise<Setting> {
  const day = datesOf(draft).taxPoint;
  const keys = [...draft.lines, ...draft.adjustments].map(({ taxCode }) => taxCode);
  const withholds = customer !== null && customer.withholding.length > 0;
  const shipTo = shipToOf(draft, customer);
  const book = db.book.get('book').then((found) => present(found, 'the book'));
  const located =
    shipTo === null ? book.then(({ business }) => loadSetup(db, business.address, keys)) : loadSetup(db, shipTo, keys);
  return Promise.all([
    book,
    located,
    db.certificates
      .where('customerId')
      .equals(customer?.id ?? '')
      .toArray(),
    withholds && day !== null ? yearBases(db, customer.id, day) : NO_YEAR,
    db.styles.toArray(),
    db.bankAccounts.toArray(),
  ]).then(([{ business }, setup, certificates, yearSoFar, styles, bankAccounts]) => {
    const setting = (rates: ReadonlyMap<string, RateOn>): Setting => ({
      business,
      setup,
      certificates,
      yearSoFar,
      styles,
      bankAccounts,
      rateOf: (currency) => rates.get(currency) ?? null,
    });
    const withheld = setup.withholdingTypes.filter((type) => customer?.withholding.includes(type.id));
    const foreign = new Set<string>([
      ...setup.registrations.map((r) => r.filingCurrency),
      ...withheld.map((type) => type.currency),
      draft.currency,
    ]);
    foreign.delete('');
    foreign.delete(business.homeCurrency);
    // An empty answer without a look into the database would end the transaction this runs in.
    if (day === null || foreign.size === 0) return setting(new Map());
    return ratesOn(db, [...foreign], day).then(setting);
  });
}

/** All documents of a family, oldest first. */
export function loadFamily(db: BookDb, familyId: string): Promise<IssuedDocument[]> {
  return db.documents
    .where('familyId')
    .equals(familyId)
    .toArray()
    .then((family) => family.sort((a, b) => (a.issuedAt < b.issuedAt ? -1 : 1)));
}

/** @throws Error when a row that must be there is not: the book is broken, nothing may be written. */
export function present<T>(row: T | undefined, what: string): T {
  if (row === undefined) throw new Error(`${what} is missing from the book`);
  return row;
}
