import 'fake-indexeddb/auto';
import { currency } from '@/core/kernel/currency';
import { isoDate } from '@/core/kernel/date';
import { decimal } from '@/core/kernel/decimal';
import { blankCustomer } from '@/core/parties/customer';
import { archiveBook } from '@/store/archive';
import { present } from '@/store/load';
import { recordReceipt } from '@/store/payments/actions/recordReceipt';
import type { BookDb } from '@/store/schema';
import { changeCustomer } from '@/store/setup/actions/setup';
import { keepExchangeRate, keepRegistration, keepWithholdingType } from '@/store/setup/actions/taxSetup';
import { fileReturn } from '@/store/tax/actions/fileReturn';
import { act, issued, lineOf, newBook } from './book';

/* Books for journeys with money, made by the real actions without a browser; e2e opens them from their files. */

/** A customer keeps 5 % of the net back, for which it owes a certificate. */
async function keepsTaxBack(db: BookDb, customerId = 'ballyvaughan'): Promise<void> {
  const value = {
    id: 'W5',
    name: 'Withholding 5 %',
    base: 'net' as const,
    rates: [{ from: isoDate('2020-01-01'), percent: decimal('5') }],
    currency: currency('EUR'),
    thresholdDocument: decimal('0'),
    thresholdYear: decimal('0'),
    when: 'on-payment' as const,
    certificate: true,
    source: '',
  };
  await act(db, keepWithholdingType, { value, isNew: true }, '2026-01-02');
  const { keys: _, ...customer } = present(await db.customers.get(customerId), 'the customer');
  await act(db, changeCustomer, { ...customer, withholding: ['W5'] }, '2026-01-02');
}

/** Tax falls due as documents are paid. */
async function onPaymentBasis(db: BookDb): Promise<void> {
  const value = { ...present(await db.registrations.get('ie-vat'), 'it'), basis: 'on-payment' as const };
  await act(db, keepRegistration, { value, isNew: false }, '2026-01-02');
}

/** A rate from a day on, of the dollar unless another currency is named. */
async function rateFrom(db: BookDb, date: string, perHome: string, code = 'USD'): Promise<void> {
  const rate = { currency: currency(code), date: isoDate(date), perHome: decimal(perHome), source: 'bank' };
  await act(db, keepExchangeRate, { value: { id: `${code}|${date}`, ...rate }, isNew: true }, date);
}

/** Invoices of a price each, in cents of tax 23 %, on days one after the other. */
async function invoices(db: BookDb, prices: readonly string[], over: object = {}, from = '2026-10-01') {
  for (const [i, price] of prices.entries())
    await issued(
      db,
      { lines: [lineOf({ price })], ...over },
      from.replace(/\d\d$/, String(Number(from.slice(8)) + i).padStart(2, '0')),
    );
}

type Make = (db: BookDb) => Promise<void>;

const BOOKS = {
  'five invoices, one with a discount, of a customer that keeps tax back': async (db) => {
    await keepsTaxBack(db);
    await invoices(db, ['100.00', '200.00', '300.00', '400.00'], {}, '2026-10-01');
    await invoices(db, ['1000.00'], { due: '30d, 2% 30d' }, '2026-11-02');
  },
  'five invoices': (db) => invoices(db, ['100.00', '200.00', '300.00', '400.00', '500.00']),
  'an invoice of August on payment basis, paid by cheque, its period filed': async (db) => {
    await onPaymentBasis(db);
    const { id, number, customerId, open } = await issued(db, { lines: [lineOf({ price: '100.00' })] }, '2026-08-03');
    const parts = [{ method: 'cheque' as const, amount: open }];
    const to = [{ documentId: id, number, money: open }];
    await act(db, recordReceipt, { customerId, date: '2026-08-20', reference: '', parts, to }, '2026-08-20');
    for (const start of ['2026-01-01', '2026-03-01', '2026-05-01', '2026-07-01'])
      await act(db, fileReturn, { registrationId: 'ie-vat', start, note: '' }, '2026-09-05');
  },
  'an invoice on payment basis': async (db) => {
    await onPaymentBasis(db);
    await invoices(db, ['100.00']);
  },
  'one invoice': (db) => invoices(db, ['100.00']),
  'two invoices': (db) => invoices(db, ['100.00', '200.00']),
  'an invoice in dollars': async (db) => {
    await rateFrom(db, '2026-10-01', '1.0850');
    await rateFrom(db, '2026-11-01', '1.1230');
    await invoices(db, ['1000.00'], { currency: 'USD' });
  },
  'an invoice in dollars, the rate moved within the month': async (db) => {
    await rateFrom(db, '2026-10-01', '1.25');
    await rateFrom(db, '2026-10-31', '1.20');
    await invoices(db, ['1000.00'], { currency: 'USD' });
  },
  'invoices in dollars and pounds, the rates moved within the month': async (db) => {
    await rateFrom(db, '2026-10-01', '1.25');
    await rateFrom(db, '2026-10-01', '0.80', 'GBP');
    await rateFrom(db, '2026-10-31', '1.20');
    await rateFrom(db, '2026-10-31', '0.82', 'GBP');
    await invoices(db, ['1000.00'], { currency: 'USD' });
    await invoices(db, ['500.00'], { currency: 'GBP' }, '2026-10-02');
  },
  'forty berth holders, three of whom we know little': async (db) => {
    for (let i = 1; i <= 40; i++) {
      const name = `Berth ${String(i).padStart(2, '0')}`;
      const known = { ...blankCustomer(`berth-${i}`, name, 'IE'), email: `berth${i}@harbour.example` };
      const address = {
        street: `${i} Quay Street`,
        city: 'Kinvara',
        region: '',
        postalCode: 'H91 X0X0',
        country: 'IE',
      };
      const customer =
        i % 13 === 0 ? { ...known, prospect: true } : { ...known, address, terms: i % 2 === 0 ? '14d' : '30d' };
      await act(db, changeCustomer, customer, '2026-01-02');
    }
  },
  'three invoices of a customer that keeps tax back': async (db) => {
    await keepsTaxBack(db);
    await invoices(db, ['1000.00', '400.00', '200.00'], {}, '2026-09-01');
  },
} satisfies Readonly<Record<string, Make>>;

export type MadeBook = keyof typeof BOOKS;

/** A book as its file. */
export async function madeBook(name: MadeBook): Promise<Uint8Array> {
  const db = await newBook();
  await (BOOKS[name] as Make)(db);
  const file = await archiveBook(db, '2026-11-23T09:00:00.000Z');
  await db.delete();
  return file;
}
