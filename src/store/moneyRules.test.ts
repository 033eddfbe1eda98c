import { act, documentOf, EUR, issued, lineOf, momentOn, newBook, refusalCodes } from 'tests/book';
import { expectSoundBook } from 'tests/soundBook';
import type { SettlingInput } from '@/core/decisions/payments/settleAll';
import type { IssuedDocument } from '@/core/documents/issued';
import { currency } from '@/core/kernel/currency';
import { isoDate } from '@/core/kernel/date';
import { decimal } from '@/core/kernel/decimal';
import { minor } from '@/core/kernel/money';
import { openItemsOn } from '@/core/settlement/account';
import { accountRows, agedList } from './customers/queries/account';
import { present } from './load';
import { allocateCredit, undoAllocation } from './payments/actions/allocate';
import { dishonourReceipt } from './payments/actions/dishonour';
import { recordReceipt } from './payments/actions/recordReceipt';
import { refundCredit, undoRefund } from './payments/actions/refund';
import { claimWithheld, enterCertificate, withdrawCertificate } from './payments/actions/withholding';
import { undoWriteOff, writeOffDebt } from './payments/actions/writeOff';
import { perform } from './perform';
import { creditInvoice } from './sales/actions/creditInvoice';
import type { BookDb } from './schema';
import { changeCustomer } from './setup/actions/setup';
import { keepExchangeRate, keepRegistration, keepWithholdingType } from './setup/actions/taxSetup';
import { fileReturn } from './tax/actions/fileReturn';
import { periodReturn } from './tax/queries/periods';

/* Rules of money by figures that were worked by hand. */

let db: BookDb;
const CUSTOMER = 'ballyvaughan';

beforeEach(async () => {
  db = await newBook();
});
afterEach(async () => {
  await expectSoundBook(db);
  await db.delete();
});

const invoice = (price: string, over: object = {}, day = '2026-01-12'): Promise<IssuedDocument> =>
  issued(db, { lines: [lineOf({ price })], ...over }, day);

const to = (document: IssuedDocument, money: bigint, over: Partial<SettlingInput> = {}): SettlingInput => ({
  documentId: document.id,
  number: document.number,
  money: minor(money),
  ...over,
});

async function receive(money: bigint, settles: readonly SettlingInput[], day: string, over: object = {}) {
  const input = {
    customerId: CUSTOMER,
    date: day,
    reference: '',
    parts: [{ method: 'bank' as const, amount: minor(money) }],
    to: settles,
    ...over,
  };
  return act(db, recordReceipt, input, day);
}

/** What stands on accounts, in cents, debits above zero; zeros left out. */
async function balances(): Promise<Record<string, bigint>> {
  const sums: Record<string, bigint> = {};
  for (const { account, amount } of await db.journalLines.toArray()) sums[account] = (sums[account] ?? 0n) + amount;
  return Object.fromEntries(Object.entries(sums).filter(([, amount]) => amount !== 0n));
}

async function returned(start: string) {
  const registration = present(await db.registrations.get('ie-vat'), 'registration');
  const { figures } = await periodReturn(db, registration, isoDate(start));
  return [figures.base, figures.tax];
}

async function onPaymentBasis() {
  const value = { ...present(await db.registrations.get('ie-vat'), 'it'), basis: 'on-payment' as const };
  await act(db, keepRegistration, { value, isNew: false }, '2026-01-01');
}

async function dollars(...rates: readonly (readonly [string, string])[]) {
  for (const [date, perHome] of rates) {
    const value = {
      id: `USD|${date}`,
      currency: currency('USD'),
      date: isoDate(date),
      perHome: decimal(perHome),
      source: 'bank',
    };
    await act(db, keepExchangeRate, { value, isNew: true }, date);
  }
}

async function withheldType(over: object = {}) {
  const value = {
    id: 'W5',
    name: 'Withholding, 5 %',
    base: 'net' as const,
    rates: [{ from: isoDate('2020-01-01'), percent: decimal('5') }],
    currency: EUR,
    thresholdDocument: decimal('0'),
    thresholdYear: decimal('0'),
    when: 'on-payment' as const,
    certificate: true,
    source: '',
    ...over,
  };
  await act(db, keepWithholdingType, { value, isNew: true }, '2026-01-01');
  const { keys: _, ...customer } = present(await db.customers.get(CUSTOMER), 'the customer');
  await act(db, changeCustomer, { ...customer, withholding: [value.id] }, '2026-01-01');
}

describe('a receipt', () => {
  test('of several parts over several invoices posts each part to its account', async () => {
    const [first, second] = [await invoice('100.00'), await invoice('50.00')];
    // 123.00 and 61.50; 100.00 by bank of which 1.20 is kept back, 84.50 in cash.
    const parts = [
      { method: 'bank', amount: minor(10000n), charge: minor(120n) },
      { method: 'cash', amount: minor(8450n) },
    ];
    const { id } = await receive(0n, [to(first, 12300n), to(second, 6150n)], '2026-02-02', { parts });
    expect(await db.receipts.get(id)).toMatchObject({ amount: 18450n, open: 0n });
    const { '1000': bank, '1010': cash, '7930': charges, '1100': owed } = await balances();
    expect([bank, cash, charges, owed]).toEqual([9880n, 8450n, 120n, undefined]);
  });

  test('in foreign money takes what the bank credited; the last part takes what is left on receivables', async () => {
    await dollars(['2026-01-01', '1.0850'], ['2026-02-01', '1.1230']);
    const abroad = { currency: 'USD', lines: [lineOf({ price: '1000.00', taxCode: 'IE-Z', taxByHand: true })] };
    const document = await issued(db, abroad as never, '2026-01-12');
    // 1000 ÷ 1.0850 = 921.66. 600 at 1 ÷ 1.1230 = 534.28; 400 typed as 371.26. Charges: 12.50 × 534.28 ÷ 600 = 11.13,
    // 9.00 × 371.26 ÷ 400 = 8.35. Bank 534.28 − 11.13 + 371.26 − 8.35 = 886.06; difference 921.66 − 905.54 = 16.12.
    const parts = [
      { method: 'bank', amount: minor(60000n), charge: minor(1250n) },
      { method: 'bank', amount: minor(40000n), charge: minor(900n), home: minor(37126n) },
    ];
    await receive(0n, [to(document, 100000n)], '2026-02-10', { parts, currency: 'USD' });
    expect(await balances()).toMatchObject({ '1000': 88606n, '7930': 1948n, '7920': 1612n });
    expect(await documentOf(db, document.id)).toMatchObject({ open: 0n, openHome: 0n });
  });

  test('in foreign money needs no rate where the bank says what all of it was worth, but for tax withheld', async () => {
    await dollars(['2026-06-01', '1.1000']);
    const input = {
      customerId: CUSTOMER,
      date: '2026-02-10',
      reference: '',
      currency: currency('USD'),
      parts: [{ method: 'bank' as const, amount: minor(10000n), home: minor(9000n) }],
      to: [],
    };
    const { id } = await act(db, recordReceipt, input, '2026-02-10');
    expect(await db.receipts.get(id)).toMatchObject({ amountHome: 9000n, openHome: 9000n });
    const unknown = await perform(
      db,
      recordReceipt,
      { ...input, parts: [{ method: 'bank', amount: minor(10000n) }] },
      momentOn('2026-02-10'),
    );
    expect(refusalCodes(unknown)).toEqual(['missing']);
  });

  test('takes a typed number once, and not one that the series gives itself', async () => {
    await receive(100n, [], '2026-02-02', { number: 'Book 4/17' });
    const again = (number: string) =>
      perform(
        db,
        recordReceipt,
        {
          customerId: CUSTOMER,
          date: '2026-02-02',
          number,
          reference: '',
          parts: [{ method: 'cash', amount: minor(1n) }],
          to: [],
        },
        momentOn('2026-02-02'),
      );
    expect(refusalCodes(await again('Book 4/17'))).toEqual(['duplicate']);
    expect(refusalCodes(await again('REC-2026-0001'))).toEqual(['invalid']);
    expect((await db.receipts.toArray()).map(({ number }) => number)).toEqual(['Book 4/17']);
  });

  test('settles what children of its customer owe, and nothing of others', async () => {
    const { keys: _, ...child } = present(await db.customers.get('clewbay'), 'the child');
    await act(db, changeCustomer, { ...child, parentId: CUSTOMER }, '2026-01-02');
    const [own, other] = [
      await invoice('100.00', { customerId: 'clewbay' }),
      await invoice('100.00', { customerId: 'kilkerrin' }),
    ];
    await receive(12300n, [to(own, 12300n)], '2026-02-02');
    expect((await documentOf(db, own.id)).state).toBe('paid');
    const input = {
      customerId: CUSTOMER,
      date: '2026-02-02',
      reference: '',
      parts: [{ method: 'bank' as const, amount: minor(100n) }],
    };
    const strange = await perform(db, recordReceipt, { ...input, to: [to(other, 100n)] }, momentOn('2026-02-02'));
    expect(refusalCodes(strange)).toEqual(['not-found']);
  });
});

describe('a discount for paying early', () => {
  test('is a credit note by itself, with its tax, in the period of the receipt', async () => {
    const document = await invoice('1000.00', { due: '30d, 2% 10d' }, '2026-02-26');
    // 2 % of 1,230.00 is 24.60, of which 4.60 is tax; its net stands on settlement discounts.
    await receive(120540n, [to(document, 120540n, { discount: minor(2460n) })], '2026-03-03');
    expect(await balances()).toEqual({ '1000': 120540n, '2200': -22540n, '4100': -100000n, '4910': 2000n });
    expect([await returned('2026-01-01'), await returned('2026-03-01')]).toEqual([
      [100000n, 23000n],
      [-2000n, -460n],
    ]);
    const settled = await documentOf(db, document.id);
    expect([settled.state, settled.received, settled.credited]).toEqual(['paid', 120540n, 2460n]);
    expect(settled.creditNotes.map(({ number }) => number)).toEqual(['CN-2026-0001']);
  });

  test.each([
    ['late', '2026-01-30', 2460n],
    ['too high', '2026-01-20', 2461n],
  ])('that is taken %s asks, and is taken when one agrees', async (_, day, discount) => {
    const document = await invoice('1000.00', { due: '30d, 2% 10d' });
    const money = 123000n - discount;
    const input = {
      customerId: CUSTOMER,
      date: day,
      reference: '',
      parts: [{ method: 'bank' as const, amount: minor(money) }],
      to: [to(document, money, { discount: minor(discount) })],
    };
    expect(refusalCodes(await perform(db, recordReceipt, input, momentOn(day)))).toEqual(['unusual']);
    await act(db, recordReceipt, { ...input, agreed: true }, day);
    expect((await documentOf(db, document.id)).open).toBe(0n);
  });

  test('two in one receipt take numbers one after the other, and crediting the rest takes all back', async () => {
    const terms = { due: '30d, 2% 10d' };
    const [first, second] = [await invoice('1000.00', terms), await invoice('500.00', terms)];
    const settles = [to(first, 120540n, { discount: minor(2460n) }), to(second, 60270n, { discount: minor(1230n) })];
    await receive(180810n, settles, '2026-01-20');
    const notes = (await db.documents.toArray()).filter(({ kind }) => kind === 'credit-note');
    expect(notes.map(({ number }) => number).sort()).toEqual(['CN-2026-0001', 'CN-2026-0002']);
    await act(db, creditInvoice, { documentId: first.id, date: '2026-01-25', reason: 'Returned' }, '2026-01-25');
    // Of the first nothing is earned any more: income and its discount are both taken back.
    expect(await balances()).toMatchObject({ '4100': -50000n, '4910': 1000n, '2200': -11270n, '1100': -120540n });
  });
});

describe('a small difference', () => {
  test('closes the rest to its account and is undone with its allocation', async () => {
    const document = await invoice('100.00');
    const difference = { amount: minor(2n), account: '7910' };
    const { id } = await receive(12298n, [to(document, 12298n, { difference })], '2026-02-02');
    expect(await documentOf(db, document.id)).toMatchObject({ open: 0n, state: 'paid' });
    expect(await balances()).toMatchObject({ '1000': 12298n, '7910': 2n });
    await act(db, undoAllocation, { creditId: id, debtId: document.id, date: '2026-02-03' }, '2026-02-03');
    expect(await documentOf(db, document.id)).toMatchObject({ open: 12300n, received: 0n, state: 'issued' });
    expect(await balances()).toEqual({ '1000': 12298n, '1100': 2n, '2200': -2300n, '4100': -10000n });
  });
});

describe('a cheque', () => {
  test('that is dated later counts from its day, and settles at once', async () => {
    const document = await invoice('500.00');
    const parts = [{ method: 'cheque', amount: minor(61500n), chequeNumber: '000117', chequeDate: '2026-04-15' }];
    const { id } = await receive(0n, [to(document, 61500n)], '2026-03-10', { parts });
    const receipt = present(await db.receipts.get(id), 'the receipt');
    expect([receipt.date, receipt.valueDate]).toEqual(['2026-03-10', '2026-04-15']);
    expect((await documentOf(db, document.id)).state).toBe('paid');
    expect((await db.journalLines.where('entryId').equals(receipt.entryId).toArray()).map(({ date }) => date)).toEqual([
      '2026-04-15',
      '2026-04-15',
    ]);
  });

  test('that is dated later stands alone', async () => {
    const parts = [
      { method: 'cheque' as const, amount: minor(100n), chequeDate: '2026-04-15' },
      { method: 'cash' as const, amount: minor(100n) },
    ];
    const input = { customerId: CUSTOMER, date: '2026-03-10', reference: '', parts, to: [] };
    expect(refusalCodes(await perform(db, recordReceipt, input, momentOn('2026-03-10')))).toEqual(['invalid']);
  });

  test('that came back after its period was filed takes its tax back in the next one', async () => {
    await onPaymentBasis();
    const document = await invoice('100.00');
    const parts = [{ method: 'cheque', amount: minor(12300n) }];
    const { id } = await receive(0n, [to(document, 12300n)], '2026-02-02', { parts });
    await act(db, fileReturn, { registrationId: 'ie-vat', start: '2026-01-01', note: '' }, '2026-03-05');
    const came = { receiptId: id, date: '2026-02-20', reason: 'No funds', fee: minor(750n) };
    await act(db, dishonourReceipt, came, '2026-03-06');
    expect(await documentOf(db, document.id)).toMatchObject({ open: 12300n, state: 'issued' });
    expect([await returned('2026-01-01'), await returned('2026-03-01')]).toEqual([
      [10000n, 2300n],
      [-10000n, -2300n],
    ]);
    // Money went in and out, the fee is paid, tax is not yet due again; what was filed is owed.
    expect(await balances()).toEqual({
      '1000': -750n,
      '1100': 12300n,
      '2200': 2300n,
      '2210': -2300n,
      '2220': -2300n,
      '4100': -10000n,
      '7930': 750n,
    });
    const again = await perform(db, dishonourReceipt, came, momentOn('2026-03-06'));
    expect(refusalCodes(again)).toEqual(['dishonoured']);
    const used = { creditId: id, debtId: document.id, amount: minor(1n), date: '2026-03-06' };
    expect(refusalCodes(await perform(db, allocateCredit, used, momentOn('2026-03-06')))).toEqual(['dishonoured']);
  });

  test('of which something was refunded stays', async () => {
    const { id } = await receive(10000n, [], '2026-02-02');
    const back = { creditId: id, amount: minor(2500n), date: '2026-02-03', method: 'bank' as const, reference: '' };
    const given = await act(db, refundCredit, back, '2026-02-03');
    const came = { receiptId: id, date: '2026-02-04', reason: '', fee: minor(0n) };
    expect(refusalCodes(await perform(db, dishonourReceipt, came, momentOn('2026-02-04')))).toEqual(['used-since']);
    await act(db, undoRefund, { id: given.id, date: '2026-02-04' }, '2026-02-04');
    expect(await db.receipts.get(id)).toMatchObject({ open: 10000n, openHome: 10000n });
    await act(db, dishonourReceipt, came, '2026-02-05');
    expect(await balances()).toEqual({});
  });
});

describe('a write-off', () => {
  test('with relief takes the tax of its part back in the period of the day, and is undone by its id', async () => {
    const document = await invoice('100.00');
    const input = {
      documentId: document.id,
      date: '2026-04-10',
      amount: minor(6150n),
      relief: true,
      reason: 'Insolvent',
    };
    const made = await act(db, writeOffDebt, input, '2026-04-10');
    // 61.50 of 123.00: tax 23.00 × 61.50 ÷ 123.00 = 11.50, base 50.00.
    expect(await returned('2026-03-01')).toEqual([-5000n, -1150n]);
    expect(await balances()).toEqual({ '1100': 6150n, '2200': -1150n, '4100': -10000n, '7940': 5000n });
    await act(db, undoWriteOff, { id: made.id, date: '2026-05-04' }, '2026-05-04');
    expect(await returned('2026-05-01')).toEqual([5000n, 1150n]);
    expect(await balances()).toEqual({ '1100': 12300n, '2200': -2300n, '4100': -10000n });
  });

  test('money that comes after all undoes as much of it', async () => {
    const document = await invoice('100.00');
    const input = {
      documentId: document.id,
      date: '2026-04-10',
      amount: minor(12300n),
      relief: true,
      reason: 'Insolvent',
    };
    await act(db, writeOffDebt, input, '2026-04-10');
    expect((await documentOf(db, document.id)).state).toBe('written-off');
    await receive(2300n, [to(document, 2300n)], '2026-05-05');
    // 23.00 came of 123.00; 100.00 stays given up: tax 23.00 × 100 ÷ 123 = 18.70 of it is taken back, 4.30 is due.
    expect(await documentOf(db, document.id)).toMatchObject({ open: 0n, received: 2300n, writtenOff: 10000n });
    expect(await balances()).toEqual({ '1000': 2300n, '2200': -430n, '4100': -10000n, '7940': 8130n });
    expect(await returned('2026-05-01')).toEqual([1870n, 430n]);
  });

  test('on payment basis takes its tax out of what is not yet due; relief is refused', async () => {
    await onPaymentBasis();
    const document = await invoice('100.00');
    await receive(4100n, [to(document, 4100n)], '2026-02-02');
    const input = { documentId: document.id, date: '2026-04-10', amount: minor(8200n), reason: 'Insolvent' };
    const relieved = await perform(db, writeOffDebt, { ...input, relief: true }, momentOn('2026-04-10'));
    expect(refusalCodes(relieved)).toEqual(['no-relief']);
    await act(db, writeOffDebt, { ...input, relief: false }, '2026-04-10');
    // 41.00 of 123.00 released 23.00 ÷ 3 = 7.67; the other 15.33 will never be due.
    expect(await balances()).toEqual({ '1000': 4100n, '2200': -767n, '4100': -10000n, '7940': 6667n });
    expect(await returned('2026-03-01')).toEqual([0n, 0n]);
  });

  test('needs a registration that takes relief, a reason, and no more than is open', async () => {
    const value = { ...present(await db.registrations.get('ie-vat'), 'it'), badDebtRelief: false };
    await act(db, keepRegistration, { value, isNew: false }, '2026-01-02');
    const document = await invoice('100.00');
    const input = {
      documentId: document.id,
      date: '2026-04-10',
      amount: minor(100n),
      relief: false,
      reason: 'Insolvent',
    };
    const refused = async (over: object) =>
      refusalCodes(await perform(db, writeOffDebt, { ...input, ...over }, momentOn('2026-04-10')));
    expect(await refused({ relief: true })).toEqual(['no-relief']);
    expect(await refused({ reason: ' ' })).toEqual(['missing']);
    expect(await refused({ amount: minor(12301n) })).toEqual(['over-allocated']);
    expect(await refused({ date: '2026-01-01' })).toEqual(['invalid']);
  });
});

describe('tax withheld', () => {
  const own = async () => (await db.withheld.toArray()).sort((a, b) => (a.date < b.date ? -1 : 1));

  test('settles beside the money, is certified over several receipts, and claimed against a return', async () => {
    await withheldType();
    const documents = [await invoice('1000.00'), await invoice('400.00'), await invoice('200.00')];
    // 5 % of each net: 50.00, 20.00, 10.00.
    for (const [i, [money, kept]] of (
      [
        [118000n, 5000n],
        [47200n, 2000n],
        [23600n, 1000n],
      ] as const
    ).entries())
      await receive(
        money,
        [to(documents[i] as IssuedDocument, money, { withheld: [{ typeId: 'W5', amount: minor(kept) }] })],
        `2026-02-0${i + 2}`,
      );
    expect((await Promise.all(documents.map(({ id }) => documentOf(db, id)))).map(({ state }) => state)).toEqual([
      'paid',
      'paid',
      'paid',
    ]);
    expect(await balances()).toMatchObject({ '1000': 188800n, '1300': 8000n });
    await act(db, fileReturn, { registrationId: 'ie-vat', start: '2026-01-01', note: '' }, '2026-03-05');
    const claim = {
      typeId: 'W5',
      registrationId: 'ie-vat',
      date: '2026-03-20',
      amount: minor(7500n),
      by: 'set-off' as const,
    };
    expect(refusalCodes(await perform(db, claimWithheld, claim, momentOn('2026-03-20')))).toEqual(['over-claimed']);
    const withheldIds = (await own()).map(({ id }) => id);
    const certificate = {
      customerId: CUSTOMER,
      typeId: 'W5',
      number: 'C-118',
      date: '2026-03-20',
      amount: minor(7500n),
      withheldIds,
    };
    const tooMuch = await perform(
      db,
      enterCertificate,
      { ...certificate, amount: minor(8001n) },
      momentOn('2026-03-20'),
    );
    expect(refusalCodes(tooMuch)).toEqual(['over-claimed']);
    const made = await act(db, enterCertificate, certificate, '2026-03-20');
    // The oldest are covered first: 50.00, 20.00, and 5.00 of the last.
    expect((await own()).map(({ certified }) => certified)).toEqual([5000n, 2000n, 500n]);
    await act(db, claimWithheld, claim, '2026-03-20');
    expect((await own()).map(({ claimed, isOpen }) => [claimed, isOpen])).toEqual([
      [5000n, 0],
      [2000n, 0],
      [500n, 1],
    ]);
    // 16,00 × 23 % = 368.00 filed, less 75.00.
    expect(await balances()).toMatchObject({ '2210': -29300n, '1300': 500n });
    const back = await perform(db, withdrawCertificate, { id: made.id }, momentOn('2026-03-21'));
    expect(refusalCodes(back)).toEqual(['used-since']);
  });

  test('at issue is owed less, goes back in proportion with a credit note, and is claimed for what is left', async () => {
    await withheldType({ id: 'W2', when: 'on-issue', certificate: false });
    const document = await invoice('100.00');
    expect([document.open, (await own()).map(({ home }) => home)]).toEqual([11800n, [500n]]);
    const request = { kind: 'amount' as const, amount: minor(6150n) };
    await act(
      db,
      creditInvoice,
      { documentId: document.id, date: '2026-01-20', reason: 'Returned', request },
      '2026-01-20',
    );
    expect((await own()).map(({ home }) => home)).toEqual([500n, -250n]);
    const claim = { typeId: 'W2', registrationId: 'ie-vat', date: '2026-03-20', by: 'refund' as const };
    const over = await perform(db, claimWithheld, { ...claim, amount: minor(251n) }, momentOn('2026-03-20'));
    expect(refusalCodes(over)).toEqual(['over-claimed']);
    await act(db, claimWithheld, { ...claim, amount: minor(250n) }, '2026-03-20');
    expect(await balances()).toMatchObject({ '1310': 250n });
    expect((await balances())['1300']).toBeUndefined();
  });

  test('of a type that nobody knows is refused', async () => {
    const document = await invoice('100.00');
    const settles = to(document, 11800n, { withheld: [{ typeId: 'NONE', amount: minor(500n) }] });
    const input = {
      customerId: CUSTOMER,
      date: '2026-02-02',
      reference: '',
      parts: [{ method: 'bank' as const, amount: minor(11800n) }],
      to: [settles],
    };
    expect(refusalCodes(await perform(db, recordReceipt, input, momentOn('2026-02-02')))).toEqual(['not-found']);
  });

  test('of a receipt that came back does not count', async () => {
    await withheldType();
    const document = await invoice('1000.00');
    const withheld = [{ typeId: 'W5', amount: minor(5000n) }];
    const { id } = await receive(118000n, [to(document, 118000n, { withheld })], '2026-02-02');
    await act(db, dishonourReceipt, { receiptId: id, date: '2026-02-09', reason: '', fee: minor(0n) }, '2026-02-09');
    expect((await own()).map(({ voidOn, isOpen }) => [voidOn, isOpen])).toEqual([['2026-02-09', 0]]);
    expect(await balances()).toEqual({ '1100': 123000n, '2200': -23000n, '4100': -100000n });
  });
});

test('a document of which nothing is payable releases its tax at once on payment basis', async () => {
  await onPaymentBasis();
  const lines = [lineOf({ price: '100.00' }), lineOf({ price: '-123.00', taxCode: 'IE-Z', taxByHand: true })];
  const document = await issued(db, { lines }, '2026-01-12');
  // 123.00 with 23 % less 123.00 at nothing: nothing is payable, and 23.00 is due.
  expect([document.open, document.state]).toEqual([0n, 'paid']);
  expect(await returned('2026-01-01')).toEqual([-2300n, 2300n]);
  expect(await balances()).toEqual({ '2200': -2300n, '4100': 2300n });
});

describe('accounts', () => {
  test('of a group: what a parent paid for a child is settled on the account of both, alone and together', async () => {
    const { keys: _, ...child } = present(await db.customers.get('clewbay'), 'the child');
    await act(db, changeCustomer, { ...child, parentId: CUSTOMER }, '2026-01-02');
    const own = await invoice('100.00', { customerId: 'clewbay' });
    const parts = [{ method: 'cheque', amount: minor(12300n), chequeNumber: '17', chequeDate: '2026-03-15' }];
    await receive(0n, [to(own, 12300n)], '2026-02-02', { parts });
    const openOn = async (ids: readonly string[], on: string) =>
      openItemsOn(await accountRows(db, ids), isoDate(on)).map(({ number, open }) => [number, open]);
    expect(await openOn(['clewbay'], '2026-03-15')).toEqual([]);
    expect(await openOn([CUSTOMER, 'clewbay'], '2026-03-15')).toEqual([]);
    expect(await openOn(['clewbay'], '2026-03-14')).toEqual([[own.number, 12300n]]);
    // The aged list goes through customers one after the other; the cheque stands apart with who gave it.
    const aged = async (on: string) =>
      (await agedList(db, isoDate(on), [30], 10)).rows.map((row) => [row.customerId, row.aged.balance, row.cheques]);
    expect(await aged('2026-03-14')).toEqual([['clewbay', 12300n, 0n]]);
    expect(await aged('2026-03-15')).toEqual([]);
  });

  test('a page of the aged list holds as many as it is asked for, by name, and says that there are more', async () => {
    for (const customerId of ['clewbay', 'kilkerrin', CUSTOMER]) await invoice('100.00', { customerId });
    const page = await agedList(db, isoDate('2026-02-20'), [30, 60], 2);
    expect(page.rows.map(({ customerId, aged }) => [customerId, aged.columns])).toEqual([
      [CUSTOMER, [0n, 12300n, 0n, 0n]],
      ['clewbay', [0n, 12300n, 0n, 0n]],
    ]);
    expect([page.more, (await agedList(db, isoDate('2026-02-20'), [30, 60], 3)).more]).toEqual([true, false]);
  });
});
