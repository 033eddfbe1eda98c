import {
  accepted,
  act,
  documentOf,
  draftOf,
  issued,
  lineOf,
  momentOn,
  newBook,
  refusalCodes,
  wholeBook,
} from 'tests/book';
import { onePart } from '@/core/decisions/payments/onePart';
import { isoDate as day } from '@/core/kernel/date';
import { decimal } from '@/core/kernel/decimal';
import { minor } from '@/core/kernel/money';
import type { TaxRate } from '@/core/tax/tax';
import { demoBeginning } from '@/demo/setup';
import { writeJournal } from './ledger/actions/writeJournal';
import { loadBook, present } from './load';
import { recordReceipt } from './payments/actions/recordReceipt';
import { type Action, perform } from './perform';
import { creditInvoice } from './sales/actions/creditInvoice';
import { deleteDraft, keepDraft } from './sales/actions/drafts';
import { issueInvoice } from './sales/actions/issueInvoice';
import type { BookDb } from './schema';
import { begin, changeBusiness, changeItem, keepBankAccount } from './setup/actions/setup';
import { keepRegistration, keepTax, keepTaxCode } from './setup/actions/taxSetup';
import { unchanged } from './setup/actions/unchanged';
import { fileReturn } from './tax/actions/fileReturn';

let db: BookDb;
beforeEach(async () => {
  db = await newBook();
});

const receiptOf = (document: { id: string; number: string; customerId: string }, amount: bigint, over = {}) => ({
  customerId: document.customerId,
  date: '2026-02-01',
  method: 'bank' as const,
  reference: '',
  allocations: [{ documentId: document.id, number: document.number, amount: minor(amount) }],
  ...over,
});

describe('issuing', () => {
  test('writes number, figures, seal, posting, tax entry, period and audit event, and ends the draft', async () => {
    const document = await issued(db, {
      lines: [lineOf({ price: '100' }), lineOf({ price: '10', taxCode: 'IE-Z', account: '4000' })],
    });
    expect(document).toMatchObject({
      number: 'INV-2026-0001',
      open: 13300n,
      isOpen: 1,
      periodId: 'ie-vat|2026-01-01',
      late: false,
      position: 1,
    });
    expect(document.seal).toMatchObject({ previous: '', hash: expect.stringMatching(/^[0-9a-f]{64}$/) });
    const lines = await db.journalLines.where('entryId').equals(document.entryId).toArray();
    expect(lines.map((line) => [line.account, line.amount, line.taxPeriodId])).toEqual([
      ['1100', 13300n, ''],
      ['4100', -10000n, ''],
      ['4000', -1000n, ''],
      ['2200', -2300n, 'ie-vat|2026-01-01'],
    ]);
    expect((await db.taxEntries.toArray()).map((e) => [e.code, e.base, e.tax])).toEqual([
      ['IE-S', 10000n, 2300n],
      ['IE-Z', 1000n, 0n],
    ]);
    expect(await db.drafts.count()).toBe(0);
    const event = (await db.audit.toArray()).find((e) => e.action === 'issue invoice');
    expect(event).toMatchObject({ operator: 'Tester', subject: 'INV-2026-0001', at: '2026-01-15T12:00:00.000Z' });
  });

  test('chains seals and counts on', async () => {
    const first = await issued(db);
    const second = await issued(db);
    expect(second.number).toBe('INV-2026-0002');
    expect(second.seal.previous).toBe(first.seal.hash);
    expect(second.position).toBe(2);
  });

  test('of a draft that another tab issued is refused', async () => {
    const draft = await act(db, keepDraft, draftOf(), '2026-01-15');
    await act(db, issueInvoice, { draftId: draft.id }, '2026-01-15');
    const again = await perform(db, issueInvoice, { draftId: draft.id }, momentOn('2026-01-15'));
    expect(refusalCodes(again)).toEqual(['already-issued']);
    expect(await db.documents.count()).toBe(1);
  });

  test('at the same moment gives different, consecutive numbers', async () => {
    const drafts = await Promise.all([1, 2, 3, 4].map(() => act(db, keepDraft, draftOf(), '2026-01-15')));
    const results = await Promise.all(
      drafts.map((draft) => act(db, issueInvoice, { draftId: draft.id }, '2026-01-15')),
    );
    expect(results.map((r) => r.number).sort()).toEqual([
      'INV-2026-0001',
      'INV-2026-0002',
      'INV-2026-0003',
      'INV-2026-0004',
    ]);
  });

  test.each<[string, Parameters<typeof draftOf>[0], string]>([
    ['a tax point before the first period', { taxPoint: '2025-12-31' }, 'before-registration'],
    ['a total below zero', { lines: [lineOf({ price: '-5' })] }, 'invalid'],
    [
      'reverse charge without the customer’s tax number',
      { customerId: 'counter', lines: [lineOf({ taxCode: 'IE-RC' })] },
      'check-failed',
    ],
    ['a half-filled line', { lines: [lineOf(), lineOf({ price: '' })] }, 'missing'],
  ])('with %s is refused and changes nothing', async (_, over, code) => {
    const draft = await act(db, keepDraft, draftOf(over), '2026-01-15');
    const before = await wholeBook(db);
    const result = await perform(db, issueInvoice, { draftId: draft.id }, momentOn('2026-01-15'));
    expect(refusalCodes(result)).toContain(code);
    expect(await wholeBook(db)).toEqual(before);
  });
});

describe('a transaction that is cut in the middle', () => {
  /** Fails after other tables of the same transaction were written. */
  async function cut<Input>(table: string, action: Action<Input, unknown>, input: Input) {
    const fail = () => {
      throw new Error('cut');
    };
    db.table(table).hook('creating', fail);
    try {
      await perform(db, action, input, momentOn('2026-02-01'));
    } finally {
      db.table(table).hook('creating').unsubscribe(fail);
    }
  }

  test.each(['journalLines', 'taxEntries', 'audit'])('at %s leaves an issue undone', async (table) => {
    await issued(db);
    const draft = await act(db, keepDraft, draftOf(), '2026-01-15');
    const before = await wholeBook(db);
    await expect(cut(table, issueInvoice, { draftId: draft.id })).rejects.toThrow('cut');
    expect(await wholeBook(db)).toEqual(before);
    const { number } = await act(db, issueInvoice, { draftId: draft.id }, '2026-02-01');
    expect(number).toBe('INV-2026-0002');
  });

  test.each(['journal', 'audit'])('at %s leaves a receipt undone', async (table) => {
    const document = await issued(db);
    const before = await wholeBook(db);
    await expect(cut(table, recordReceipt, onePart(receiptOf(document, 5000n)))).rejects.toThrow('cut');
    expect(await wholeBook(db)).toEqual(before);
  });

  test('an entry that does not balance is not written', async () => {
    const crooked: Action<null, null> = {
      name: 'crooked',
      decide: async () => ({
        ok: true,
        value: {
          value: null,
          changes: {
            add: {
              journalLines: [
                {
                  id: 'x:0',
                  entryId: 'x',
                  account: '1000',
                  date: '2026-01-01' as never,
                  amount: minor(5n),
                  text: '',
                  taxPeriodId: '',
                  taxCode: '',
                },
              ],
            },
            audit: { subject: 'crooked' },
          },
        },
      }),
    };
    const before = await wholeBook(db);
    await expect(perform(db, crooked, null, momentOn('2026-01-01'))).rejects.toThrow('does not balance');
    expect(await wholeBook(db)).toEqual(before);
  });
});

describe('receipts', () => {
  test('in part and in full move the state, the open amounts and the accounts', async () => {
    const document = await issued(db);
    await act(db, recordReceipt, onePart(receiptOf(document, 5000n)), '2026-02-01');
    expect(await documentOf(db, document.id)).toMatchObject({ open: 7300n, received: 5000n, isOpen: 1 });
    const { number } = await act(db, recordReceipt, onePart(receiptOf(document, 7300n)), '2026-02-02');
    expect(number).toBe('REC-2026-0002');
    expect(await documentOf(db, document.id)).toMatchObject({ open: 0n, received: 12300n, isOpen: 0 });
    expect((await db.customerBalances.get('ballyvaughan'))?.open).toBe(0n);
    expect(await db.accountMonths.get(['1000', '2026-02'])).toMatchObject({ amount: 12300n });
  });

  test.each([
    ['before the book', '2019-06-01', 'before-book'],
    ['ahead', '2035-01-01', 'unusual'],
    ['before its invoice', '2026-01-10', 'unusual'],
  ])('on a day %s is refused or asked about', async (_, date, code) => {
    const invoice = await issued(db);
    const allocations = [{ documentId: invoice.id, number: invoice.number, amount: invoice.open }];
    const input = { customerId: 'ballyvaughan', date, method: 'bank' as const, reference: '', allocations };
    expect(refusalCodes(await perform(db, recordReceipt, onePart(input), momentOn('2026-02-01')))).toEqual([code]);
    const agreed = await perform(db, recordReceipt, onePart({ ...input, agreed: true }), momentOn('2026-02-01'));
    expect(refusalCodes(agreed)).toEqual(code === 'unusual' ? [] : [code]);
  });

  test('one receipt settles many documents', async () => {
    const [a, b] = [await issued(db), await issued(db)];
    const allocations = [a, b].map((d) => ({ documentId: d.id, number: d.number, amount: minor(12300n) }));
    await act(db, recordReceipt, onePart(receiptOf(a, 0n, { allocations })), '2026-02-01');
    expect(await Promise.all([a, b].map(async (d) => (await documentOf(db, d.id)).isOpen))).toEqual([0, 0]);
  });

  test.each<[string, bigint, object, string]>([
    ['more than is open', 12301n, {}, 'over-allocated'],
    ['nothing', 0n, {}, 'invalid'],
    ['of another customer', 100n, { customerId: 'clewbay' }, 'not-found'],
    ['of nobody', 100n, { customerId: '' }, 'missing'],
    ['on no day', 100n, { date: 'soon' }, 'invalid'],
    ['without allocations', 100n, { allocations: [] }, 'invalid'],
  ])('%s is refused', async (_, amount, over, code) => {
    const document = await issued(db);
    const result = await perform(db, recordReceipt, onePart(receiptOf(document, amount, over)), momentOn('2026-02-01'));
    expect(refusalCodes(result)).toContain(code);
    expect(await db.receipts.count()).toBe(0);
  });

  test('naming one invoice twice is refused', async () => {
    const document = await issued(db);
    const [allocation] = receiptOf(document, 100n).allocations;
    const result = await perform(
      db,
      recordReceipt,
      onePart(receiptOf(document, 0n, { allocations: [allocation, allocation] })),
      momentOn('2026-02-01'),
    );
    expect(refusalCodes(result)).toEqual(['duplicate']);
  });
});

describe('a credit note', () => {
  const reason = 'Returned';
  test('mirrors its invoice in entries, tax and the customer’s account', async () => {
    const invoice = await issued(db, {
      priceMode: 'gross',
      lines: [lineOf({ price: '19.99', quantity: '3', discount: '10%' }), lineOf({ price: '7.10', taxCode: 'IE-R' })],
    });
    const { id } = await act(db, creditInvoice, { documentId: invoice.id, date: '2026-01-20', reason }, '2026-01-20');
    const note = await documentOf(db, id);
    const linesOf = async (entryId: string) =>
      (await db.journalLines.where('entryId').equals(entryId).toArray()).map(
        (line) => [line.account, line.amount] as const,
      );
    const mirrored = (await linesOf(invoice.entryId)).map(([account, amount]) => [account, -amount] as const);
    // Debits stand first in both.
    expect(await linesOf(note.entryId)).toEqual([
      ...mirrored.filter(([, amount]) => amount > 0n),
      ...mirrored.filter(([, amount]) => amount < 0n),
    ]);
    const taxOf = async (documentId: string) =>
      (await db.taxEntries.where('documentId').equals(documentId).toArray()).map(
        (e) => [e.code, e.base, e.tax] as const,
      );
    expect(await taxOf(note.id)).toEqual((await taxOf(invoice.id)).map(([code, base, tax]) => [code, -base, -tax]));
    expect(note.figures).toEqual(invoice.figures);
    expect(note).toMatchObject({ number: 'CN-2026-0001', open: 0n, isOpen: 0 });
    expect(await documentOf(db, invoice.id)).toMatchObject({ open: 0n, creditNotes: [{ id, number: 'CN-2026-0001' }] });
    expect((await db.customerBalances.get('ballyvaughan'))?.open).toBe(0n);
  });

  test('keeps open what was paid already', async () => {
    const invoice = await issued(db);
    await act(db, recordReceipt, onePart(receiptOf(invoice, 5000n, { date: '2026-01-16' })), '2026-01-16');
    const { id } = await act(db, creditInvoice, { documentId: invoice.id, date: '2026-01-20', reason }, '2026-01-20');
    expect(await documentOf(db, id)).toMatchObject({ open: -5000n, isOpen: 1 });
    expect((await db.customerBalances.get('ballyvaughan'))?.open).toBe(-5000n);
  });

  test('takes the rate of its invoice, not of its own day', async () => {
    const invoice = await issued(db);
    const vat = present(await db.taxes.get('IE-VAT'), 'the tax');
    const rate = { ...vat.rates[0], taxClass: 'standard', from: day('2026-02-01'), percent: decimal('25') } as TaxRate;
    await act(db, keepTax, { value: { ...vat, rates: [...vat.rates, rate] }, isNew: false }, '2026-02-01');
    const { id } = await act(db, creditInvoice, { documentId: invoice.id, date: '2026-02-10', reason }, '2026-02-10');
    expect((await documentOf(db, id)).figures.totals.taxAmount).toBe(2300n);
    expect((await issued(db, { issueDate: '2026-02-11' })).figures.totals.taxAmount).toBe(2500n);
  });

  test.each<[string, object, string]>([
    ['without a reason', { reason: ' ' }, 'missing'],
    ['dated before the invoice', { date: '2026-01-01' }, 'invalid'],
    ['on no day', { date: 'x' }, 'invalid'],
    ['for a document that is gone', { documentId: 'nobody' }, 'not-found'],
  ])('%s is refused', async (_, over, code) => {
    const invoice = await issued(db);
    const input = { documentId: invoice.id, date: '2026-01-20', reason, ...over };
    expect(refusalCodes(await perform(db, creditInvoice, input, momentOn('2026-01-20')))).toEqual([code]);
  });

  test('is given once, and not for a credit note', async () => {
    const invoice = await issued(db);
    const { id } = await act(db, creditInvoice, { documentId: invoice.id, date: '2026-01-20', reason }, '2026-01-20');
    for (const [documentId, code] of [
      [invoice.id, 'already-credited'],
      [id, 'wrong-kind'],
    ] as const)
      expect(
        refusalCodes(
          await perform(db, creditInvoice, { documentId, date: '2026-01-21', reason }, momentOn('2026-01-21')),
        ),
      ).toEqual([code]);
  });
});

describe('filing', () => {
  const file = (start: string, on: string, note = '') =>
    perform(db, fileReturn, { registrationId: 'ie-vat', start, note }, momentOn(on));

  test('moves the tax to payable, keeps the figures and locks the period', async () => {
    await issued(db);
    const period = accepted(await file('2026-01-01', '2026-03-10'));
    expect(period.filed).toMatchObject({ operator: 'Tester', note: '', figures: { tax: 2300n, base: 10000n } });
    const lines = await db.journalLines
      .where('entryId')
      .equals(period.filed?.entryId ?? '')
      .toArray();
    expect(lines.map((line) => [line.account, line.amount, line.date])).toEqual([
      ['2200', 2300n, '2026-02-28'],
      ['2210', -2300n, '2026-02-28'],
    ]);
    expect((await db.registrations.get('ie-vat'))?.filedUntil).toBe('2026-02-28');
  });

  test('owes the tax on the account of its registration, where that has one of its own', async () => {
    await issued(db);
    const registration = present(await db.registrations.get('ie-vat'), 'the registration');
    await db.accounts.add({ code: '2215', name: 'Tax payable, Ireland', type: 'liability', role: '' });
    await db.registrations.put({ ...registration, accounts: { ...registration.accounts, payable: '2215' } });
    accepted(await file('2026-01-01', '2026-03-10'));
    const lines = await db.journalLines.filter(({ account }) => account === '2215' || account === '2210').toArray();
    expect(lines.map(({ account, amount }) => [account, amount])).toEqual([['2215', -2300n]]);
  });

  test('sends a later document to the next period, marked late, and dates its entry there', async () => {
    await issued(db);
    const filed = accepted(await file('2026-01-01', '2026-03-10'));
    const late = await issued(db, { issueDate: '2026-02-20' }, '2026-03-11');
    expect(late).toMatchObject({ late: true, periodId: 'ie-vat|2026-03-01' });
    expect((await db.journal.get(late.entryId))?.date).toBe('2026-03-01');
    expect(await db.taxPeriods.get('ie-vat|2026-01-01')).toEqual(filed);
    const next = accepted(await file('2026-03-01', '2026-05-01'));
    expect(next.filed?.figures.rows).toEqual([expect.objectContaining({ lateEntries: 1, tax: 2300n })]);
  });

  test('follows the order of the periods and waits for their end', async () => {
    expect(refusalCodes(await file('2026-03-01', '2026-05-01'))).toEqual(['earlier-open']);
    expect(refusalCodes(await file('2026-01-01', '2026-02-28'))).toEqual(['not-ended']);
    accepted(await file('2026-01-01', '2026-03-01'));
    expect(refusalCodes(await file('2026-01-01', '2026-03-02'))).toEqual(['already-filed']);
    expect(refusalCodes(await file('nonsense', '2026-03-02'))).toEqual(['not-found']);
  });

  test('with a difference needs a word of explanation', async () => {
    await issued(db);
    const sides = [
      { account: '7900', amount: minor(500n) },
      { account: '2200', amount: minor(-500n) },
    ];
    await act(db, writeJournal, { date: '2026-02-01', text: 'Own use', sides }, '2026-02-01');
    expect(refusalCodes(await file('2026-01-01', '2026-03-10'))).toEqual(['unexplained']);
    expect(accepted(await file('2026-01-01', '2026-03-10', 'Paid with the next')).filed?.note).toBe(
      'Paid with the next',
    );
  });
});

describe('a manual journal', () => {
  const sides = (a: string, b: string, amount = 500n, other = -amount) => [
    { account: a, amount: minor(amount) },
    { account: b, amount: minor(other) },
  ];
  test.each<[string, object, string]>([
    ['that does not balance', { sides: sides('1000', '3000', 500n, -400n) }, 'unbalanced'],
    ['with an unknown account', { sides: sides('1000', '9999') }, 'unknown'],
    ['with one line', { sides: sides('1000', '3000').slice(0, 1) }, 'missing'],
    ['without words', { text: '' }, 'missing'],
    ['on no day', { date: 'x' }, 'invalid'],
  ])('%s is refused', async (_, over, code) => {
    const input = { date: '2026-01-10', text: 'Capital', sides: sides('1000', '3000'), ...over };
    expect(refusalCodes(await perform(db, writeJournal, input, momentOn('2026-01-10')))).toContain(code);
  });
  test('may not touch the tax account in a filed period, but other accounts', async () => {
    accepted(
      await perform(
        db,
        fileReturn,
        { registrationId: 'ie-vat', start: '2026-01-01', note: '' },
        momentOn('2026-03-01'),
      ),
    );
    const write = (account: string) =>
      perform(
        db,
        writeJournal,
        { date: '2026-02-01', text: 'x', sides: sides('7900', account) },
        momentOn('2026-03-02'),
      );
    expect(refusalCodes(await write('2200'))).toEqual(['closed-period']);
    expect(refusalCodes(await write('3000'))).toEqual([]);
  });
});

describe('drafts', () => {
  test('are kept again and again, one revision each, without filling the audit trail', async () => {
    const first = await act(db, keepDraft, draftOf(), '2026-01-15');
    const second = await act(db, keepDraft, { ...first, note: 'more' }, '2026-01-15');
    expect([first.revision, second.revision]).toEqual([1, 2]);
    expect((await db.audit.toArray()).filter((e) => e.action === 'begin draft')).toHaveLength(1);
  });
  test('that another tab changed or deleted are not overwritten', async () => {
    const mine = await act(db, keepDraft, draftOf(), '2026-01-15');
    await act(db, keepDraft, { ...mine, note: 'theirs' }, '2026-01-15');
    expect(refusalCodes(await perform(db, keepDraft, { ...mine, note: 'mine' }, momentOn('2026-01-15')))).toEqual([
      'stale',
    ]);
    await act(db, deleteDraft, { draftId: mine.id }, '2026-01-15');
    expect(refusalCodes(await perform(db, keepDraft, mine, momentOn('2026-01-15')))).toEqual(['not-found']);
    expect(refusalCodes(await perform(db, deleteDraft, { draftId: mine.id }, momentOn('2026-01-15')))).toEqual([
      'not-found',
    ]);
  });
});

describe('setup', () => {
  test('a second book is not begun over the first', async () => {
    const { business } = await loadBook(db);
    const registration = (await db.registrations.toArray())[0] as never;
    expect(
      refusalCodes(
        await perform(
          db,
          begin,
          { ...demoBeginning(day('2026-01-01')), business, registration },
          momentOn('2026-01-01'),
        ),
      ),
    ).toEqual(['book-exists']);
  });
  test('the home currency can not change under written amounts', async () => {
    const { business } = await loadBook(db);
    const result = await perform(
      db,
      changeBusiness,
      { value: { ...business, homeCurrency: 'USD' as never }, before: business },
      momentOn('2026-01-01'),
    );
    expect(refusalCodes(result)).toEqual(['in-use']);
  });
  test('a record that another tab has changed since the form began is not overwritten', async () => {
    const { business } = await loadBook(db);
    const renamed = { ...business, name: 'Renamed Ltd' };
    await act(db, changeBusiness, { value: renamed, before: business }, '2026-01-01');
    const second = { value: { ...business, phone: '+353 1' }, before: business };
    expect(refusalCodes(await perform(db, changeBusiness, second, momentOn('2026-01-01')))).toEqual(['stale']);
    expect((await loadBook(db)).business).toEqual(renamed);
    const began = present(await db.items.get('gauge'), 'the item');
    await act(db, unchanged(changeItem, 'items', began), { ...began, name: 'First' }, '2026-01-01');
    const late = await perform(
      db,
      unchanged(changeItem, 'items', began),
      { ...began, name: 'Second' },
      momentOn('2026-01-01'),
    );
    expect([refusalCodes(late), (await db.items.get('gauge'))?.name]).toEqual([['stale'], 'First']);
  });
  test('a wrong account number is told at its field', async () => {
    const bank = present(await db.bankAccounts.get('bank'), 'the bank account');
    const value = { ...bank, iban: 'IE00 1234' };
    const result = await perform(db, keepBankAccount, { value, isNew: false }, momentOn('2026-01-01'));
    expect(result.ok ? [] : result.refusals.map((r) => r.path)).toEqual(['iban']);
  });
  test('the frequency stays once a period is in use', async () => {
    const registration = present(await db.registrations.get('ie-vat'), 'the registration');
    const keep = (frequency: 'monthly' | 'quarterly') =>
      perform(db, keepRegistration, { value: { ...registration, frequency }, isNew: false }, momentOn('2026-01-01'));
    expect(refusalCodes(await keep('monthly'))).toEqual([]);
    await issued(db);
    const result = await keep('quarterly');
    expect(refusalCodes(result)).toEqual(['in-use']);
  });
  test('a tax code is not made twice', async () => {
    const value = present(await db.taxCodes.get('IE-S'), 'the code');
    expect(refusalCodes(await perform(db, keepTaxCode, { value, isNew: true }, momentOn('2026-01-01')))).toEqual([
      'duplicate',
    ]);
  });
});
