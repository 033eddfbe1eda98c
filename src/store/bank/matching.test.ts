import {
  act,
  day,
  discountOf,
  documentOf,
  issued,
  KEPT_FROM,
  lineOf,
  momentOn,
  newBook,
  refusalCodes,
} from 'tests/book';
import { expectSoundBook } from 'tests/soundBook';
import { statementLine, statementOf } from 'tests/statements';
import type { StatementLine } from '@/core/bank/statement';
import type { MatchTarget } from '@/core/bank/suggest';
import { exchangeRateId } from '@/core/currency/exchangeRate';
import { currency } from '@/core/kernel/currency';
import { decimal } from '@/core/kernel/decimal';
import { minor, total } from '@/core/kernel/money';
import { writeJournal } from '../ledger/actions/writeJournal';
import { present } from '../load';
import { dishonourReceipt } from '../payments/actions/dishonour';
import { recordReceipt } from '../payments/actions/recordReceipt';
import { perform } from '../perform';
import { creditInvoice } from '../sales/actions/creditInvoice';
import type { BookDb } from '../schema';
import { keepBankAccount } from '../setup/actions/setup';
import { keepExchangeRate } from '../setup/actions/taxSetup';
import { fileReturn } from '../tax/actions/fileReturn';
import { proveBook } from '../tax/queries/proveBook';
import { dropBankRule, keepBankRule, keepReconciliation, stateOpeningBalance } from './actions/accounts';
import { acceptMatch, splitLine, undoMatch } from './actions/matching';
import { importStatements, removeStatement } from './actions/statements';
import { accountOn } from './queries/reconciliation';
import { suggestFor } from './queries/suggestions';

const ON = '2026-05-20';

type Said = Omit<Partial<StatementLine>, 'amount'> & { readonly amount: bigint };

/** Takes a statement with these lines in, and gives their ids. */
async function lines(db: BookDb, said: readonly Said[], bankAccountId = 'bank'): Promise<readonly string[]> {
  const statement = statementOf(said.map((one) => statementLine({ date: day(ON), ...one, amount: minor(one.amount) })));
  const before = new Set(await db.bankLines.toCollection().primaryKeys());
  await act(
    db,
    importStatements,
    { bankAccountId, fileName: 'may.xml', format: 'camt.053', statements: [statement] },
    ON,
  );
  const made = (await db.bankLines.toArray()).filter(({ id }) => !before.has(id));
  return made.sort((a, b) => a.position - b.position).map(({ id }) => id);
}

async function first(db: BookDb, lineId: string, kind: MatchTarget['kind']): Promise<MatchTarget> {
  const [found] = await suggestFor(db, [lineId], 30);
  const [best] = found?.suggestions ?? [];
  expect(best?.target.kind).toBe(kind);
  return present(best, 'a suggestion').target;
}

/** Accepts the first suggestion of a line, which is of a kind. */
async function accepted(db: BookDb, lineId: string, kind: MatchTarget['kind']) {
  return act(db, acceptMatch, { lineId, target: await first(db, lineId, kind) }, ON);
}

/** Balances by account, zeros left out. */
async function balances(db: BookDb): Promise<Record<string, bigint>> {
  const sums = new Map<string, bigint>();
  for (const { account, amount } of await db.journalLines.toArray())
    sums.set(account, (sums.get(account) ?? 0n) + amount);
  return Object.fromEntries([...sums].filter(([, sum]) => sum !== 0n).sort());
}

/** Undone, the book has the balances of before, and the line waits again. */
async function expectUndone(db: BookDb, lineId: string, before: Record<string, bigint>): Promise<void> {
  await act(db, undoMatch, { lineId }, ON);
  expect(await balances(db)).toEqual(before);
  const line = present(await db.bankLines.get(lineId), 'the line');
  expect([line.isOpen, line.matches, line.entryIds]).toEqual([1, [], []]);
  await expectSoundBook(db);
}

describe('a statement', () => {
  test('is taken once: what is known of a second file is left out', async () => {
    const db = await newBook();
    const [a, b, c] = [
      { amount: 100n, text: 'A' },
      { amount: 100n, text: 'A' },
      { amount: 200n, bankReference: 'R' },
    ];
    await lines(db, [a, c]);
    // Of two lines that are alike the first is there.
    await lines(db, [a, b, c]);
    const rows = await db.bankLines.toArray();
    expect(rows.map(({ amount }) => amount).sort()).toEqual([100n, 100n, 200n]);
    expect(total((await db.bankStatements.toArray()).map(({ known }) => minor(BigInt(known))))).toBe(2n);
    const again = statementOf([statementLine({ date: day(ON), amount: minor(200n), bankReference: 'R' })]);
    const input = { bankAccountId: 'bank', fileName: 'x', format: 'OFX', statements: [again] } as const;
    expect(refusalCodes(await perform(db, importStatements, input, momentOn(ON)))).toEqual(['nothing-new']);
    await expectSoundBook(db);
  });
});

describe('a line that pays', () => {
  test('an invoice is a receipt of its own account, undone in one step', async () => {
    const db = await newBook();
    const invoice = await issued(db);
    const before = await balances(db);
    const [id = ''] = await lines(db, [{ amount: 12_300n, text: invoice.number }]);
    const line = await accepted(db, id, 'documents');
    expect([line.isOpen, line.matches.map(({ kind, amount, made }) => [kind, amount, made])]).toEqual([
      0,
      [['receipt', 12_300n, true]],
    ]);
    expect((await documentOf(db, invoice.id)).open).toBe(0n);
    expect((await balances(db))['1000']).toBe(12_300n);
    await expectSoundBook(db);
    const twice = await perform(
      db,
      acceptMatch,
      { lineId: id, target: { kind: 'account', account: '7930' } },
      momentOn(ON),
    );
    expect(refusalCodes(twice)).toEqual(['matched']);
    await expectUndone(db, id, before);
    expect((await documentOf(db, invoice.id)).open).toBe(12_300n);
    const [receipt] = await db.receipts.toArray();
    expect(receipt?.dishonoured?.mistake).toBe(true);
    // Neither the receipt nor what took it back is looked for at the bank.
    expect((await suggestFor(db, [id], 30))[0]?.suggestions.map(({ target }) => target.kind)).toEqual(['documents']);
    await accepted(db, id, 'documents');
  });

  test('an invoice less a bank charge, and another less its discount', async () => {
    const db = await newBook();
    const one = await issued(db);
    const two = await issued(db, {
      issueDate: '2026-05-15',
      taxPoint: '2026-05-15',
      due: '30d, 2% 10d',
      adjustments: [discountOf('50.00')],
    });
    const [a = '', b = ''] = await lines(db, [
      { amount: 12_050n, text: one.number },
      // 61.50 less 2 % is 60.27.
      { amount: 6027n, text: two.number },
    ]);
    await accepted(db, a, 'documents');
    await accepted(db, b, 'documents');
    expect([(await documentOf(db, one.id)).open, (await documentOf(db, two.id)).open]).toEqual([0n, 0n]);
    const sums = await balances(db);
    expect([sums['1000'], sums['7930'], sums['4910']]).toEqual([18_077n, 250n, 100n]);
    await expectSoundBook(db);
  });

  test('more than its invoice leaves the rest on account', async () => {
    const db = await newBook();
    const invoice = await issued(db);
    const [id = ''] = await lines(db, [{ amount: 15_000n, text: invoice.number }]);
    await accepted(db, id, 'documents');
    expect((await db.receipts.toArray()).map(({ open }) => open)).toEqual([2700n]);
    await expectSoundBook(db);
  });

  test('what was recorded before is matched with it, and stays when that is undone', async () => {
    const db = await newBook();
    const invoice = await issued(db);
    const to = [{ documentId: invoice.id, number: invoice.number, money: minor(12_300n) }];
    const parts = [{ method: 'bank', amount: minor(12_300n) }] as const;
    await act(db, recordReceipt, { customerId: invoice.customerId, date: '2026-05-18', reference: '', parts, to }, ON);
    const before = await balances(db);
    const [id = ''] = await lines(db, [{ amount: 12_300n, name: invoice.customerName }]);
    const target = await first(db, id, 'movements');
    await act(db, acceptMatch, { lineId: id, target }, ON);
    expect(await balances(db)).toEqual(before);
    // A second line of the same sum finds nothing: it is not matched twice.
    const [other = ''] = await lines(db, [{ amount: 12_300n, text: 'again' }]);
    expect((await suggestFor(db, [other], 30))[0]?.suggestions).toEqual([]);
    expect(refusalCodes(await perform(db, acceptMatch, { lineId: other, target }, momentOn(ON)))).toEqual(['stale']);
    await expectUndone(db, id, before);
    expect((await db.receipts.toArray()).every(({ dishonoured }) => dishonoured === null)).toBe(true);
  });
});

describe('a line that goes out', () => {
  test('gives a credit note back', async () => {
    const db = await newBook();
    const invoice = await issued(db);
    const parts = [{ method: 'bank', amount: minor(12_300n) }] as const;
    const to = [{ documentId: invoice.id, number: invoice.number, money: minor(12_300n) }];
    await act(db, recordReceipt, { customerId: invoice.customerId, date: ON, reference: '', parts, to }, ON);
    const credit = { documentId: invoice.id, date: ON, reason: 'Returned', take: { kind: 'rest' } } as const;
    const note = await act(db, creditInvoice, credit as never, ON);
    const before = await balances(db);
    const [id = ''] = await lines(db, [
      { amount: -12_300n, text: `refund ${String(note)}`, name: invoice.customerName },
    ]);
    await accepted(db, id, 'refund');
    expect((await balances(db))['1000']).toBeUndefined();
    await expectSoundBook(db);
    await expectUndone(db, id, before);
  });

  test('pays a return, whole', async () => {
    const db = await newBook();
    await issued(db);
    await act(db, fileReturn, { registrationId: 'ie-vat', start: KEPT_FROM, note: '' }, '2026-03-05');
    const before = await balances(db);
    const [id = ''] = await lines(db, [{ amount: -2300n, text: 'tax office' }]);
    await accepted(db, id, 'tax');
    expect((await balances(db))['2210']).toBeUndefined();
    await expectSoundBook(db);
    await expectUndone(db, id, before);
  });

  test('is split into charges and interest, and what is left waits', async () => {
    const db = await newBook();
    const before = await balances(db);
    const [id = ''] = await lines(db, [{ amount: -1000n, text: 'Fees\nsecond quarter' }]);
    const split = (...amounts: bigint[]) =>
      perform(
        db,
        splitLine,
        { lineId: id, sides: amounts.map((amount) => ({ account: '7930', amount: minor(amount) })) },
        momentOn(ON),
      );
    expect(refusalCodes(await split(-1001n))).toEqual(['over-matched']);
    expect(refusalCodes(await split(500n))).toEqual(['over-matched']);
    expect((await split(-300n, -200n)).ok).toBe(true);
    expect((await db.bankLines.get(id))?.isOpen).toBe(1);
    expect((await split(-500n)).ok).toBe(true);
    expect((await db.bankLines.get(id))?.isOpen).toBe(0);
    expect(await balances(db)).toEqual({ ...before, 1000: -1000n, 7930: 1000n });
    await expectUndone(db, id, before);
    // What customers owe and tax have records of their own.
    for (const account of ['1100', '2200', '2210', '1000', 'none']) {
      const sides = [{ account, amount: minor(-1n) }];
      expect((await perform(db, splitLine, { lineId: id, sides }, momentOn(ON))).ok).toBe(false);
    }
  });

  test('is booked and remembered together, or neither', async () => {
    const db = await newBook();
    const [id = ''] = await lines(db, [{ amount: -1000n, text: 'Yearly fee' }]);
    const sides = [{ account: '7930', amount: minor(-1000n) }];
    const rule = { contains: ' ', direction: 'out', account: '7930' } as const;
    expect((await perform(db, splitLine, { lineId: id, sides, rule }, momentOn(ON))).ok).toBe(false);
    expect((await db.bankLines.get(id))?.isOpen).toBe(1);
    await act(db, splitLine, { lineId: id, sides, rule: { ...rule, contains: 'yearly' } }, ON);
    expect(await db.bankRules.toArray()).toMatchObject([{ contains: 'yearly', direction: 'out', account: '7930' }]);
    await expectSoundBook(db);
  });

  test('to another account of ours is booked once, and the line there finds it', async () => {
    const db = await newBook();
    const bank = present(await db.bankAccounts.get('bank'), 'the account');
    await act(
      db,
      keepBankAccount,
      { value: { ...bank, id: 'second', name: 'Second', account: '', iban: '' }, isNew: true },
      ON,
    );
    const before = await balances(db);
    const [there = ''] = await lines(db, [{ amount: 5000n, text: 'from main' }], 'second');
    const [out = ''] = await lines(db, [{ amount: -5000n, text: 'to second' }]);
    await accepted(db, out, 'transfer');
    await accepted(db, there, 'movements');
    expect(await balances(db)).toEqual({ ...before, 1000: -5000n, 1001: 5000n });
    await expectSoundBook(db);
    await act(db, undoMatch, { lineId: there }, ON);
    await expectUndone(db, out, before);
    // What was undone is no movement of the other account any more.
    expect((await suggestFor(db, [there], 30))[0]?.suggestions.map(({ target }) => target.kind)).toEqual(['transfer']);
  });
});

test('a journal on the account is found at the bank', async () => {
  const db = await newBook();
  const sides = [
    { account: '1000', amount: minor(50_000n) },
    { account: '3000', amount: minor(-50_000n) },
  ];
  await act(db, writeJournal, { date: '2026-05-19', text: 'Owner pays in', sides }, ON);
  const [id = ''] = await lines(db, [{ amount: 50_000n }]);
  await accepted(db, id, 'movements');
  expect((await db.bankLines.get(id))?.matches).toMatchObject([{ kind: 'entry', number: 'Owner pays in' }]);
  await expectSoundBook(db);
});

describe('an account on a day', () => {
  const bridgeOn = async (db: BookDb, on: string, typed: bigint | null = null) => {
    const found = present(
      (await accountOn(db, 'bank', day(on), typed === null ? null : minor(typed))) ?? undefined,
      'it',
    );
    const { statementBalance, ledgerBalance, unmatched, notSeen, difference } = found.bridge;
    return [statementBalance, ledgerBalance, unmatched, notSeen, difference].map(Number);
  };

  test('is led from the ledger to the statement by what only one of them has', async () => {
    const db = await newBook();
    const invoice = await issued(db);
    const to = [{ documentId: invoice.id, number: invoice.number, money: minor(12_300n) }];
    const parts = [{ method: 'bank', amount: minor(12_300n) }] as const;
    await act(db, recordReceipt, { customerId: invoice.customerId, date: '2026-05-18', reference: '', parts, to }, ON);
    // The bank shows a fee of 5.00 that the book has not, and not yet the money that the book has.
    const [fee = ''] = await lines(db, [{ amount: -500n, text: 'fee' }]);
    expect(await bridgeOn(db, ON)).toEqual([-500, 12_300, -500, 12_300, 0]);
    await act(db, acceptMatch, { lineId: fee, target: { kind: 'account', account: '7930' } }, ON);
    expect(await bridgeOn(db, ON)).toEqual([-500, 11_800, 0, 12_300, 0]);
    // Two days later it shows: on the day before it had not.
    const [paid = ''] = await lines(db, [{ amount: 12_300n, date: day('2026-05-22'), bankReference: 'X' }]);
    await act(db, acceptMatch, { lineId: paid, target: await first(db, paid, 'movements') }, '2026-05-22');
    expect((await bridgeOn(db, '2026-05-21')).slice(1)).toEqual([11_800, 0, 12_300, expect.any(Number)]);
    expect((await bridgeOn(db, '2026-05-22')).slice(2, 4)).toEqual([0, 0]);
  });

  test('without a statement takes the balance that is typed, and names what nothing explains', async () => {
    const db = await newBook();
    expect(await bridgeOn(db, ON)).toEqual([0, 0, 0, 0, 0]);
    expect(await bridgeOn(db, ON, 700n)).toEqual([700, 0, 0, 0, 700]);
    const input = { bankAccountId: 'bank', date: ON, typed: minor(700n), reason: '' };
    expect(refusalCodes(await perform(db, keepReconciliation, input, momentOn(ON)))).toEqual(['missing']);
    // What no statement says is not reconciled, whatever is in the ledger.
    const unsaid = await perform(db, keepReconciliation, { ...input, typed: null, reason: 'it is fine' }, momentOn(ON));
    expect(unsaid).toMatchObject({ refusals: [{ code: 'missing', path: 'balance' }] });
    const kept = await act(db, keepReconciliation, { ...input, reason: 'opening balance not entered yet' }, ON);
    expect(kept).toMatchObject({ difference: 700n, operator: 'Tester', reason: 'opening balance not entered yet' });
    expect(await db.reconciliations.count()).toBe(1);
    await expectSoundBook(db);
  });
});

describe('the opening balance of an account', () => {
  const input = { bankAccountId: 'bank', date: '2026-05-01', amount: '700.00', home: '' };

  test('stands against opening balances, is part of the bank’s own balance, and is stated again', async () => {
    const db = await newBook();
    await act(db, stateOpeningBalance, input, ON);
    expect(await balances(db)).toMatchObject({ 1000: 70_000n, 3900: -70_000n });
    // Nothing is looked for at the bank: ledger and statement say the same.
    const found = await accountOn(db, 'bank', day(ON), minor(70_000n));
    expect(found).toMatchObject({ notSeen: [], bridge: { ledgerBalance: 70_000n, difference: 0n } });
    await act(db, stateOpeningBalance, { ...input, date: '2026-04-30', amount: '-12.50' }, ON);
    expect(await balances(db)).toMatchObject({ 1000: -1250n, 3900: 1250n });
    expect((await accountOn(db, 'bank', day('2026-04-30'), null))?.bridge.ledgerBalance).toBe(-1250n);
    await act(db, stateOpeningBalance, { ...input, amount: '0' }, ON);
    expect(await balances(db)).toEqual({});
    await expectSoundBook(db);
  });

  test.each([
    [{ date: '2026-05-21' }, 'date'],
    [{ date: 'may' }, 'date'],
    [{ amount: 'much' }, 'amount'],
    [{ bankAccountId: 'none' }, 'bankAccountId'],
  ])('with %j is refused at its field', async (over, path) => {
    const db = await newBook();
    const result = await perform(db, stateOpeningBalance, { ...input, ...over }, momentOn(ON));
    expect(result).toMatchObject({ ok: false, refusals: [{ path }] });
  });
});

test('a statement imported by mistake is removed with its lines, but not while one is matched', async () => {
  const db = await newBook();
  const [fee = ''] = await lines(db, [{ amount: -500n, text: 'fee' }, { amount: -100n }]);
  const [statement] = await db.bankStatements.toArray();
  await act(db, acceptMatch, { lineId: fee, target: { kind: 'account', account: '7930' } }, ON);
  const remove = () => perform(db, removeStatement, { id: statement?.id ?? '' }, momentOn(ON));
  expect(refusalCodes(await remove())).toEqual(['used-since']);
  await act(db, undoMatch, { lineId: fee }, ON);
  expect((await remove()).ok).toBe(true);
  expect([await db.bankStatements.count(), await db.bankLines.count()]).toEqual([0, 0]);
  expect(refusalCodes(await remove())).toEqual(['not-found']);
  // It can be imported again.
  expect(await lines(db, [{ amount: -500n, text: 'fee' }])).toHaveLength(1);
  await expectSoundBook(db);
});

test('a rule books lines of its text, and is forgotten again', async () => {
  const db = await newBook();
  const rule = { id: 'r', contains: 'account fee', direction: 'out', account: '7930' } as const;
  await act(db, keepBankRule, rule, ON);
  expect(refusalCodes(await perform(db, keepBankRule, { ...rule, account: 'none' }, momentOn(ON)))).toEqual([
    'unknown',
  ]);
  const [id = ''] = await lines(db, [{ amount: -500n, text: 'Quarterly Account Fee' }]);
  expect((await suggestFor(db, [id], 30))[0]?.suggestions[0]).toMatchObject({ certain: true });
  await accepted(db, id, 'account');
  expect((await balances(db))['7930']).toBe(500n);
  await act(db, dropBankRule, { id: 'r' }, ON);
  expect(await db.bankRules.count()).toBe(0);
  await expectSoundBook(db);
});

describe('an account in another currency', () => {
  const USD = currency('USD');
  const inDollars = async () => {
    const db = await newBook();
    const bank = present(await db.bankAccounts.get('bank'), 'the account');
    const dollars = { ...bank, id: 'usd', name: 'Dollars', account: '', currency: USD, iban: '' };
    await act(db, keepBankAccount, { value: dollars, isNew: true }, ON);
    const rate = { id: '', currency: USD, date: day('2026-01-01'), perHome: decimal('1.25'), source: 'test' };
    await act(db, keepExchangeRate, { value: { ...rate, id: exchangeRateId('USD', rate.date) }, isNew: true }, ON);
    return db;
  };
  const dollarLines = async (db: BookDb, ...said: Said[]) => {
    const statement = statementOf(
      said.map((one) => statementLine({ date: day(ON), ...one, amount: minor(one.amount) })),
      { currency: USD },
    );
    await act(
      db,
      importStatements,
      { bankAccountId: 'usd', fileName: 'usd', format: 'OFX', statements: [statement] },
      ON,
    );
    return (await db.bankLines.where('bankAccountId').equals('usd').toArray()).map(({ id }) => id);
  };

  test('counts its lines in its own currency and the ledger in home currency', async () => {
    const db = await inDollars();
    const invoice = await issued(db, { currency: 'USD' });
    const [paid = '', fee = ''] = await dollarLines(
      db,
      { amount: 12_300n, text: invoice.number },
      { amount: -500n, text: 'fee' },
    );
    const before = await balances(db);
    await accepted(db, paid, 'documents');
    // 123.00 USD at 1.25 are 98.40.
    expect((await balances(db))['1001']).toBe(9840n);
    await act(db, acceptMatch, { lineId: fee, target: { kind: 'account', account: '7930' } }, ON);
    expect((await balances(db))['7930']).toBe(400n);
    const found = await accountOn(db, 'usd', day(ON), null);
    const { statementBalance, ledgerBalance, difference } = found?.bridge ?? {};
    expect([statementBalance, ledgerBalance, difference]).toEqual([11_800n, 11_800n, 0n]);
    await act(db, undoMatch, { lineId: fee }, ON);
    await expectUndone(db, paid, before);
  });

  test('opens with what it held, in both currencies', async () => {
    const db = await inDollars();
    const state = (home: string) =>
      act(db, stateOpeningBalance, { bankAccountId: 'usd', date: ON, amount: '100.00', home }, ON);
    await state('');
    expect((await balances(db))['1001']).toBe(8000n);
    await state('81.50');
    expect((await balances(db))['1001']).toBe(8150n);
    expect((await accountOn(db, 'usd', day(ON), null))?.bridge.ledgerBalance).toBe(10_000n);
    await db.exchangeRates.clear();
    const unrated = { bankAccountId: 'usd', date: ON, amount: '100.00', home: '' };
    expect(await perform(db, stateOpeningBalance, unrated, momentOn(ON))).toMatchObject({
      refusals: [{ path: 'home' }],
    });
    await expectSoundBook(db);
  });

  test('finds what was recorded in it before', async () => {
    const db = await inDollars();
    const invoice = await issued(db, { currency: 'USD' });
    const parts = [{ method: 'bank', account: '1001', amount: minor(12_300n), charge: minor(300n) }] as const;
    const to = [{ documentId: invoice.id, number: invoice.number, money: minor(12_300n) }];
    await act(db, recordReceipt, { customerId: invoice.customerId, date: ON, reference: '', parts, to }, ON);
    const [id = ''] = await dollarLines(db, { amount: 12_000n });
    await accepted(db, id, 'movements');
    expect((await accountOn(db, 'usd', day(ON), null))?.bridge).toMatchObject({ notSeen: 0n, difference: 0n });
    await expectSoundBook(db);
  });
});

test('an entry dated back before a reconciliation is found when the book is proven', async () => {
  const db = await newBook();
  await lines(db, [{ amount: -500n, text: 'fee' }]);
  await act(db, keepReconciliation, { bankAccountId: 'bank', date: ON, typed: null, reason: '' }, ON);
  const bankCheck = async () => (await proveBook(db, () => undefined)).find(({ check }) => check === 'bank');
  expect((await bankCheck())?.holds).toBe(true);
  const sides = [
    { account: '1000', amount: minor(700n) },
    { account: '3000', amount: minor(-700n) },
  ];
  await act(db, writeJournal, { date: '2026-05-01', text: 'Owner pays in', sides }, ON);
  // What the bank has not shown explains itself; what was matched and is undone does not.
  expect((await bankCheck())?.holds).toBe(true);
  const [statement] = await db.bankStatements.toArray();
  if (statement) await db.bankStatements.put({ ...statement, closing: minor(-499n) });
  expect((await bankCheck())?.differences).toMatchObject([{ subject: 'Bank, 20 May 2026', amount: 1n }]);
});

describe('card payments', () => {
  const paidByCard = async (db: BookDb, on: string, price: string) => {
    const invoice = await issued(db, { lines: [lineOf({ price })] });
    const amount = invoice.open;
    const to = [{ documentId: invoice.id, number: invoice.number, money: amount }];
    const parts = [{ method: 'card', amount }] as const;
    return act(db, recordReceipt, { customerId: invoice.customerId, date: on, reference: '', parts, to }, ON);
  };

  test('are paid out less the fee, covered by the payout, and free again when it is undone', async () => {
    const db = await newBook();
    await paidByCard(db, '2026-05-15', '100.00');
    await paidByCard(db, '2026-05-16', '50.00');
    await paidByCard(db, '2026-05-19', '10.00');
    const before = await balances(db);
    // 123.00 and 61.50 less 2.77.
    const [id = ''] = await lines(db, [{ amount: 18_173n, text: 'CARD PAYOUT 16 May' }]);
    const line = await accepted(db, id, 'payout');
    expect(line.matches[0]?.covers).toHaveLength(2);
    const sums = await balances(db);
    expect([sums['1000'], sums['1020'], sums['7930']]).toEqual([18_173n, 1230n, 277n]);
    // What was paid out is not paid out again.
    const [next = ''] = await lines(db, [{ amount: 1205n, text: 'card payout' }]);
    await accepted(db, next, 'payout');
    expect((await balances(db))['1020']).toBeUndefined();
    await expectSoundBook(db);
    await act(db, undoMatch, { lineId: next }, ON);
    await expectUndone(db, id, before);
  });

  test('disputed after it was paid out comes off the next payout; before, it is none', async () => {
    const db = await newBook();
    const disputed = await paidByCard(db, '2026-05-15', '100.00');
    const [id = ''] = await lines(db, [{ amount: 12_300n, text: 'card payout' }]);
    await accepted(db, id, 'payout');
    await act(
      db,
      dishonourReceipt,
      { receiptId: disputed.id, date: '2026-05-17', reason: 'disputed', fee: minor(0n) },
      ON,
    );
    const gone = await paidByCard(db, '2026-05-16', '20.00');
    await act(db, dishonourReceipt, { receiptId: gone.id, date: '2026-05-17', reason: 'disputed', fee: minor(0n) }, ON);
    await paidByCard(db, '2026-05-18', '200.00');
    // 246.00 less 123.00 that went back.
    const [next = ''] = await lines(db, [{ amount: 12_300n, text: 'card settlement', bankReference: 'second' }]);
    const line = await accepted(db, next, 'payout');
    expect(line.matches[0]?.covers).toHaveLength(2);
    expect((await balances(db))['1020']).toBeUndefined();
    await expectSoundBook(db);
  });
});
