import fc from 'fast-check';
import { AdvanceCommand, FinalCommand } from 'tests/advanceCommands';
import { BankLineCommand, UndoMatchCommand } from 'tests/bankCommands';
import { act, discountOf, draftOf, issued, KEPT_FROM, lineOf, momentOn, newBook } from 'tests/book';
import { CardCommand, PayoutCommand } from 'tests/cardCommands';
import {
  CertifyCommand,
  ChequeCommand,
  ClaimCommand,
  DishonourCommand,
  LateMoneyCommand,
  ReceiveManyCommand,
  TakeBackCommand,
  WriteOffCommand,
} from 'tests/moneyCommands';
import { PayTaxCommand, ReopenCommand, RevalueCommand, UndoPaymentCommand } from 'tests/periodEndCommands';
import { type Command, InTurn, type Running } from 'tests/running';
import type { ExchangeRate } from '@/core/currency/exchangeRate';
import { onePart } from '@/core/decisions/payments/onePart';
import type { CreditRequest } from '@/core/documents/creditContent';
import type { Deferral } from '@/core/documents/deferral';
import { firstBroken } from '@/core/documents/seal';
import { unpackArchive } from '@/core/files/archive';
import { writeCanonical } from '@/core/kernel/canonical';
import { currency as currencyOf } from '@/core/kernel/currency';
import { addDays } from '@/core/kernel/date';
import { decimal } from '@/core/kernel/decimal';
import { grouped } from '@/core/kernel/grouped';
import { minor } from '@/core/kernel/money';
import { nextToFile } from '@/core/returns/calendar';
import { prove } from '@/core/returns/proof';
import { returnOf } from '@/core/returns/return';
import { leftOf } from '@/core/returns/taxPayment';
import { archiveBook } from './archive';
import { accountOn } from './bank/queries/reconciliation';
import { derivedRows } from './derived';
import { present } from './load';
import { allocateCredit, undoAllocation } from './payments/actions/allocate';
import { recordReceipt } from './payments/actions/recordReceipt';
import { refundCredit } from './payments/actions/refund';
import { perform } from './perform';
import { cancelDocument } from './sales/actions/afterIssue';
import { creditInvoice } from './sales/actions/creditInvoice';
import type { BookDb } from './schema';
import { changeCustomer } from './setup/actions/setup';
import { keepExchangeRate, keepRegistration, keepWithholdingType } from './setup/actions/taxSetup';
import { fileReturn } from './tax/actions/fileReturn';
import { owedReturns } from './tax/queries/owed';
import { proofMaterial } from './tax/queries/proofMaterial';
import { proveBook } from './tax/queries/proveBook';

class IssueCommand implements Command {
  constructor(
    private readonly back: number,
    private readonly lines: readonly { price: string; quantity: string; taxCode: string; deferral?: Deferral }[],
    private readonly gross: boolean,
    private readonly currency: string,
    private readonly discount: string,
    private readonly posted: number,
  ) {}
  check = () => true;
  async run(model: { issued: number }, real: Running) {
    const point = addDays(real.today as never, -this.back);
    const posting = addDays(real.today as never, this.posted);
    const { filedUntil } = present(await real.db.registrations.get('ie-vat'), 'registration');
    await issued(real.db, {
      issueDate: real.today,
      taxPoint: point < KEPT_FROM ? '' : point,
      accountingDate: this.posted === 0 || posting <= filedUntil || posting < KEPT_FROM ? '' : posting,
      priceMode: this.gross ? 'gross' : 'net',
      currency: this.currency,
      adjustments: this.discount === '' ? [] : [discountOf(this.discount)],
      lines: this.lines.map((line) => lineOf(line)),
    });
    model.issued += 1;
  }
  toString = () => `issue(tax point ${this.back} days back, ${this.lines.length} lines ${this.currency})`;
}

class CreditCommand implements Command {
  constructor(
    private readonly pick: number,
    private readonly percent: number,
  ) {}
  check = (model: { issued: number }) => model.issued > 0;
  async run(_: { issued: number }, real: Running) {
    const open = (await real.db.documents.toArray()).filter((d) => d.kind === 'invoice' && d.creditNotes.length === 0);
    const invoice = open[this.pick % Math.max(1, open.length)];
    if (invoice === undefined) return;
    const amount = minor((invoice.figures.totals.gross * BigInt(this.percent)) / 100n);
    const request: CreditRequest = this.percent === 100 ? { kind: 'rest' } : { kind: 'amount', amount };
    const input = { documentId: invoice.id, date: real.today, reason: 'Returned', request };
    const result = await perform(real.db, creditInvoice, input, momentOn(real.today));
    // A cancelled invoice, or a part that rounds to nothing, is refused.
    if (!result.ok) expect(['settled', 'invalid']).toContain(result.refusals[0]?.code);
  }
  toString = () => `credit(${this.pick}, ${this.percent} %)`;
}

/** Takes back some of an invoice's lines, whatever went back before. */
class CreditLineCommand implements Command {
  constructor(
    private readonly pick: number,
    private readonly share: number,
  ) {}
  check = (model: { issued: number }) => model.issued > 0;
  async run(_: { issued: number }, real: Running) {
    const invoices = (await real.db.documents.toArray()).filter((d) => d.kind === 'invoice');
    const invoice = invoices[this.pick % Math.max(1, invoices.length)];
    const line = invoice?.content.lines[0];
    if (invoice === undefined || line === undefined) return;
    const quantity = decimal((Number(line.quantity) / this.share).toFixed(2));
    const request: CreditRequest = { kind: 'lines', quantities: new Map([[line.id, quantity]]) };
    const input = { documentId: invoice.id, date: real.today, reason: 'Returned', request };
    const result = await perform(real.db, creditInvoice, input, momentOn(real.today));
    if (!result.ok)
      expect(['settled', 'over-credited', 'already-credited', 'missing', 'invalid']).toContain(
        result.refusals[0]?.code,
      );
  }
  toString = () => `creditLine(${this.pick}, 1/${this.share})`;
}

class CancelCommand implements Command {
  constructor(private readonly pick: number) {}
  check = (model: { issued: number }) => model.issued > 0;
  async run(_: { issued: number }, real: Running) {
    const invoices = (await real.db.documents.toArray()).filter((d) => d.kind === 'invoice');
    const invoice = invoices[this.pick % Math.max(1, invoices.length)];
    if (invoice === undefined) return;
    const input = { documentId: invoice.id, reason: 'Typed twice' };
    const result = await perform(real.db, cancelDocument, input, momentOn(real.today));
    if (!result.ok) expect(['settled', 'closed-document', 'used-since']).toContain(result.refusals[0]?.code);
  }
  toString = () => `cancel(${this.pick})`;
}

class ReceiveCommand implements Command {
  constructor(
    private readonly pick: number,
    private readonly percent: number,
    /** Minor units beyond what it settles, kept on account. */
    private readonly more: number,
  ) {}
  check = (model: { issued: number }) => model.issued > 0;
  async run(_: { issued: number }, real: Running) {
    const open = (await real.db.documents.toArray()).filter((d) => d.kind === 'invoice' && d.open > 0n);
    const invoice = open[this.pick % Math.max(1, open.length)];
    const amount = invoice === undefined ? 0n : (invoice.open * BigInt(this.percent)) / 100n;
    if (invoice === undefined || amount === 0n) return;
    const allocations = [{ documentId: invoice.id, number: invoice.number, amount: minor(amount) }];
    const sum = minor(amount + BigInt(this.more));
    await act(
      real.db,
      recordReceipt,
      onePart({ customerId: invoice.customerId, date: real.today, method: 'bank', reference: '', allocations, sum }),
      real.today,
    );
  }
  toString = () => `receive(${this.percent} % and ${this.more})`;
}

/** Credits of the book with what is left of them: receipts and credit notes. */
async function creditsOf(db: BookDb) {
  const [receipts, documents] = [await db.receipts.toArray(), await db.documents.toArray()];
  return [
    ...receipts.map(({ id, customerId, currency, open }) => ({ id, customerId, currency, open })),
    ...documents.flatMap(({ id, kind, customerId, content, open }) =>
      kind === 'credit-note' ? [{ id, customerId, currency: content.currency, open: -open }] : [],
    ),
  ].filter(({ open }) => open > 0n);
}

/** Settles an invoice with what is on account, or with a credit note. */
class AllocateCommand implements Command {
  constructor(
    private readonly pick: number,
    private readonly percent: number,
  ) {}
  check = (model: { issued: number }) => model.issued > 0;
  async run(_: { issued: number }, real: Running) {
    const debts = (await real.db.documents.toArray()).filter((d) => d.kind === 'invoice' && d.open > 0n);
    const pairs = (await creditsOf(real.db)).flatMap((credit) =>
      debts
        .filter((debt) => debt.customerId === credit.customerId && debt.content.currency === credit.currency)
        .map((debt) => ({ credit, debt })),
    );
    const pair = pairs[this.pick % Math.max(1, pairs.length)];
    if (pair === undefined) return;
    const most = pair.credit.open < pair.debt.open ? pair.credit.open : pair.debt.open;
    const amount = minor((most * BigInt(this.percent)) / 100n);
    if (amount === 0n) return;
    const input = { creditId: pair.credit.id, debtId: pair.debt.id, amount, date: real.today };
    await act(real.db, allocateCredit, input, real.today);
  }
  toString = () => `allocate(${this.pick}, ${this.percent} %)`;
}

/** Undoes an allocation, a credit note's on its own invoice too. */
class UndoCommand implements Command {
  constructor(private readonly pick: number) {}
  check = (model: { issued: number }) => model.issued > 0;
  async run(_: { issued: number }, real: Running) {
    const made = (await real.db.allocations.toArray()).filter(
      ({ debtKind, closing, undone }) => debtKind === 'document' && closing === undefined && undone === null,
    );
    const one = made[this.pick % Math.max(1, made.length)];
    if (one === undefined) return;
    const { creditId, debtId } = one;
    const input = { creditId, debtId, date: real.today };
    const result = await perform(real.db, undoAllocation, input, momentOn(real.today));
    // A cheque that is dated later can't be undone before its day.
    if (!result.ok) expect(result.refusals[0]?.code).toBe('invalid');
  }
  toString = () => `undo(${this.pick})`;
}

/** Gives back some of what is on account, or what a credit note holds. */
class RefundCommand implements Command {
  constructor(
    private readonly pick: number,
    private readonly percent: number,
  ) {}
  check = (model: { issued: number }) => model.issued > 0;
  async run(_: { issued: number }, real: Running) {
    const credits = await creditsOf(real.db);
    const credit = credits[this.pick % Math.max(1, credits.length)];
    const amount = minor(((credit?.open ?? 0n) * BigInt(this.percent)) / 100n);
    if (credit === undefined || amount === 0n) return;
    const input = { creditId: credit.id, amount, date: real.today, method: 'bank' as const, reference: '' };
    await act(real.db, refundCredit, input, real.today);
  }
  toString = () => `refund(${this.pick}, ${this.percent} %)`;
}

class FileCommand implements Command {
  constructor(private readonly afterItsEnd: boolean) {}
  check = () => true;
  async run(_: { issued: number }, real: Running) {
    const registration = present(await real.db.registrations.get('ie-vat'), 'registration');
    const { end } = nextToFile(registration);
    if (this.afterItsEnd && real.today <= end) real.today = addDays(end, 10);
    const result = await perform(
      real.db,
      fileReturn,
      { registrationId: 'ie-vat', start: nextToFile(registration).start, note: '' },
      momentOn(real.today),
    );
    if (result.ok) real.filed.set(result.value.id, result.value);
  }
  toString = () => (this.afterItsEnd ? 'file after its end' : 'file');
}

class WaitCommand implements Command {
  constructor(private readonly days: number) {}
  check = () => true;
  async run(_: { issued: number }, real: Running) {
    real.today = addDays(real.today as never, this.days);
  }
  toString = () => `wait(${this.days} days)`;
}

const price = fc.integer({ min: 1, max: 500000 }).map((n) => (n / 100).toFixed(2));
const quantity = fc.integer({ min: 1, max: 999 }).map((n) => (n / 10).toFixed(1));
const deferral: fc.Arbitrary<Deferral> = fc.constantFrom(
  { kind: 'months', months: 5, first: '2026-02' },
  { kind: 'days', from: '2026-01-20', to: '2026-07-03' },
);
const lines = fc.array(
  fc
    .tuple(
      fc.record({ price, quantity, taxCode: fc.constantFrom('IE-S', 'IE-R', 'IE-Z') }),
      fc.option(deferral, { freq: 4, nil: undefined }),
    )
    .map(([line, later]) => (later === undefined ? line : { ...line, deferral: later })),
  { minLength: 1, maxLength: 4 },
);
const currency = fc.constantFrom('', '', 'USD');
const discount = fc.constantFrom('', '', '7.5%', '0.35');
/** Days from the issue date to the day it is posted. */
const posted = fc.constantFrom(0, 0, 0, -40, 45, 200);

const commands = fc.commands(
  [
    fc.tuple(fc.nat(80), lines, fc.boolean(), currency, discount, posted).map((a) => new IssueCommand(...a)),
    fc.tuple(fc.nat(80), lines, fc.boolean(), currency, discount, posted).map((a) => new IssueCommand(...a)),
    fc.tuple(fc.nat(20), fc.constantFrom(10, 50, 100)).map((a) => new CreditCommand(...a)),
    fc.tuple(fc.nat(20), fc.integer({ min: 1, max: 4 })).map((a) => new CreditLineCommand(...a)),
    fc.nat(20).map((pick) => new CancelCommand(pick)),
    fc
      .tuple(fc.nat(20), fc.integer({ min: 1, max: 100 }), fc.constantFrom(0, 0, 1, 4321))
      .map((a) => new ReceiveCommand(...a)),
    fc.tuple(fc.nat(20), fc.constantFrom(1, 37, 100)).map((a) => new AllocateCommand(...a)),
    fc.nat(20).map((pick) => new UndoCommand(pick)),
    fc.tuple(fc.nat(20), fc.constantFrom(37, 100)).map((a) => new RefundCommand(...a)),
    fc
      .tuple(
        fc.nat(20),
        fc.constantFrom(33, 90, 95),
        fc.constantFrom(0, 5),
        fc.constantFrom(0, 2),
        fc.constantFrom(0n, 3n, 1000n),
        fc.constantFrom(0n, 25n),
      )
      .map((a) => new ReceiveManyCommand(...a)),
    fc.tuple(fc.nat(20), fc.integer({ min: 1, max: 60 })).map((a) => new ChequeCommand(...a)),
    fc.tuple(fc.nat(20), fc.constantFrom(0n, 750n)).map((a) => new DishonourCommand(...a)),
    fc.tuple(fc.nat(20), fc.constantFrom(40, 100), fc.boolean()).map((a) => new WriteOffCommand(...a)),
    fc.nat(20).map((pick) => new TakeBackCommand(pick)),
    fc.nat(20).map((pick) => new LateMoneyCommand(pick)),
    fc.tuple(fc.nat(20), fc.constantFrom(60, 100)).map((a) => new CertifyCommand(...a)),
    fc
      .tuple(fc.constantFrom('W5', 'W2'), fc.integer({ min: 1, max: 30000 }).map(BigInt), fc.boolean())
      .map((a) => new ClaimCommand(...a)),
    fc.constantFrom(false, true, true).map((late) => new FileCommand(late)),
    fc.constant(new FileCommand(true)),
    fc.tuple(fc.nat(5), fc.constantFrom(40, 100, 101)).map((a) => new PayTaxCommand(...a)),
    fc.nat(5).map((pick) => new UndoPaymentCommand(pick)),
    fc.constant(new ReopenCommand()),
    fc.constant(new RevalueCommand()),
    fc.tuple(fc.nat(20), fc.constantFrom(30, 99, 100, 120)).map((a) => new BankLineCommand(...a)),
    fc.nat(20).map((pick) => new UndoMatchCommand(pick)),
    fc.tuple(fc.nat(20), fc.constantFrom(60, 100, 110), fc.boolean()).map((a) => new CardCommand(...a)),
    fc.constantFrom(0n, 145n).map((fee) => new PayoutCommand(fee)),
    fc.tuple(lines, fc.boolean()).map((a) => new AdvanceCommand(...a)),
    fc.tuple(fc.nat(20), fc.constantFrom(100, 300)).map((a) => new FinalCommand(...a)),
    fc.integer({ min: 1, max: 40 }).map((days) => new WaitCommand(days)),
    // A sale whose period ends, is filed and paid: what the rarer actions after it start from.
    fc
      .tuple(lines, fc.constantFrom(100, 40), fc.boolean())
      .map(
        ([sold, percent, undone]) =>
          new InTurn([
            new IssueCommand(0, sold, false, '', '', 0),
            new FileCommand(true),
            new PayTaxCommand(0, percent),
            ...(undone ? [new UndoPaymentCommand(0)] : []),
          ]),
      ),
  ],
  { maxCommands: 24, size: 'large' },
);

/** Everything that must hold in any book. */
async function expectSound({ db, filed, today }: Running) {
  const [documents, entries, journalLines, months, accounts, customers, registration, receipts] = await Promise.all([
    db.documents.toArray(),
    db.taxEntries.toArray(),
    db.journalLines.toArray(),
    db.accountMonths.toArray(),
    db.accounts.toArray(),
    db.customerBalances.toArray(),
    db.registrations.get('ie-vat'),
    db.receipts.toArray(),
  ]);
  const sum = (amounts: readonly bigint[]) => amounts.reduce((a, b) => a + b, 0n);

  // Debits equal credits, in each entry and in the kept balances; those equal the lines.
  for (const group of grouped(journalLines, (line) => line.entryId).values())
    expect(sum(group.map((l) => l.amount))).toBe(0n);
  expect(sum(months.map(({ amount }) => amount))).toBe(0n);
  for (const [account, group] of grouped(journalLines, (line) => line.account))
    expect(sum(months.filter((m) => m.account === account).map((m) => m.amount))).toBe(sum(group.map((l) => l.amount)));

  // What customers owe is what stands on receivables.
  const receivables = sum(journalLines.filter((l) => l.account === '1100').map((l) => l.amount));
  expect(sum(documents.map((d) => d.openHome)) - sum(receipts.map((r) => r.openHome))).toBe(receivables);
  expect(receipts.filter((r) => r.open < 0n || (r.open === 0n && r.openHome !== 0n))).toEqual([]);
  expect(documents.filter((d) => d.open === 0n && d.openHome !== 0n)).toEqual([]);
  expect(sum(customers.map((c) => c.open))).toBe(receivables);

  // What is withheld and not claimed stands on withholding claims; nothing is below zero.
  const withheld = await db.withheld.toArray();
  const claims = sum(journalLines.filter((l) => l.account === '1300').map((l) => l.amount));
  expect(claims).toBe(sum(withheld.map((w) => (w.voidOn === '' ? w.home - w.claimed : 0n))));
  expect(withheld.filter((w) => w.home > 0n && (w.certified > w.home || w.claimed > w.home))).toEqual([]);
  expect(documents.filter((d) => (d.kind === 'invoice' ? d.open < 0n : d.open > 0n))).toEqual([]);

  // Numbers have no gaps, days go forward with them, and seals are whole, in each series.
  for (const [, chain] of grouped(documents, (d) => d.kind)) {
    const ordered = [...chain].sort((a, b) => a.position - b.position);
    expect(ordered.map((d) => d.position)).toEqual(ordered.map((_, i) => i + 1));
    for (const of of grouped(ordered, (d) => d.number.split('-')[1] ?? '').values())
      expect(of.map((d) => Number(d.number.split('-')[2]))).toEqual(of.map((_, i) => i + 1));
    expect(ordered.map((d) => d.issueDate)).toEqual(ordered.map((d) => d.issueDate).sort());
    expect(firstBroken(ordered)).toBeNull();
  }

  // Return = tax entries = documents computed again = ledger, in each period.
  for (const [periodId, group] of grouped(entries, (entry) => entry.periodId)) {
    // On payment basis what a document says is in no period until it is paid.
    if (periodId === '') continue;
    const figures = returnOf(await db.taxRows.where('periodId').equals(periodId).toArray());
    expect(figures.tax).toBe(sum(group.map((e) => e.tax)));
    expect(figures.base).toBe(sum(group.map((e) => e.base)));
    const proof = prove(
      await proofMaterial(db, present(registration, 'registration'), periodId.split('|')[1] as never),
    );
    // The account is explained from its opening to its closing balance.
    expect(proof.account.steps.every((step) => step.kind !== 'unknown')).toBe(true);
    expect(proof).toMatchObject({ holds: true, documents: figures.tax, taxEntries: figures.tax, ledger: figures.tax });
  }

  // The whole book proves: deferred income is what plans still have to earn, nothing is left of revaluations.
  expect((await proveBook(db, () => undefined)).filter(({ holds }) => !holds)).toEqual([]);

  // The bank's balance is the ledger's, with the lines that are not matched and less what the bank has not shown.
  const bank = await accountOn(db, 'bank', today as never, null);
  expect(bank?.bridge).toMatchObject({
    statementBalance: sum((await db.bankLines.toArray()).map(({ amount }) => amount)),
    difference: 0n,
  });

  // What authorities are owed is what stands on tax payable.
  const { returns, openedAgain, setOff } = await owedReturns(db, present(registration, 'registration'), accounts);
  const payable = sum(journalLines.filter((l) => l.account === '2210').map((l) => l.amount));
  expect(sum([...returns, ...openedAgain].map(leftOf)) - setOff).toBe(-payable);

  // Nothing stays in tax not yet due for what is settled.
  const notYetDue = sum(journalLines.filter((l) => l.account === '2220').map((l) => l.amount));
  if (documents.every((d) => d.open === 0n)) expect(notYetDue).toBe(0n);

  // What is kept up beside the truth is what follows from it.
  const derived = derivedRows({ documents, receipts, journalLines, taxEntries: entries });
  for (const [table, rows] of Object.entries(derived)) {
    const kept = (await db.table(table).toArray()).filter((row) => table !== 'vocabulary' || row.count > 0);
    expect([table, kept.map(writeCanonical).sort()]).toEqual([table, rows.map(writeCanonical).sort()]);
  }

  // The book opens from its own file.
  expect(unpackArchive(await archiveBook(db, '2026-12-31T12:00:00.000Z'))).toMatchObject({ ok: true });

  // A filed period is what it was when it was filed.
  for (const [id, period] of filed) {
    expect(await db.taxPeriods.get(id)).toEqual(period);
    expect(returnOf(await db.taxRows.where('periodId').equals(id).toArray())).toEqual(period.filed?.figures);
  }
}

/** Kept back when it pays, with a certificate, and kept back at issue, without. */
const TYPES = [
  { id: 'W5', base: 'net', percent: '5', when: 'on-payment', certificate: true },
  { id: 'W2', base: 'gross', percent: '2', when: 'on-issue', certificate: false },
] as const;

/** A customer of the book keeps tax back. */
async function keepTaxBack(db: BookDb): Promise<void> {
  for (const { percent, ...type } of TYPES) {
    const value = {
      ...type,
      name: type.id,
      rates: [{ from: KEPT_FROM, percent: decimal(percent) }],
      currency: currencyOf('EUR'),
      thresholdDocument: decimal('0'),
      thresholdYear: decimal('0'),
      source: '',
    };
    await act(db, keepWithholdingType, { value, isNew: true }, KEPT_FROM);
  }
  const { keys: _, ...customer } = present(await db.customers.get('ballyvaughan'), 'the customer');
  await act(db, changeCustomer, { ...customer, withholding: ['W5', 'W2'] }, KEPT_FROM);
}

const DOLLAR: ExchangeRate = {
  id: 'USD|2026-01-01',
  currency: currencyOf('USD'),
  date: KEPT_FROM,
  perHome: decimal('1.0850'),
  source: 'test',
};

test('any sequence of all that can be done with documents and money, in two currencies and on both bases, keeps the book sound', async () => {
  await fc.assert(
    fc.asyncProperty(commands, fc.boolean(), fc.boolean(), async (sequence, onPayment, keepsBack) => {
      const real: Running = { db: await newBook(), filed: new Map(), today: '2026-02-10' };
      await act(real.db, keepExchangeRate, { value: DOLLAR, isNew: true }, KEPT_FROM);
      if (keepsBack) await keepTaxBack(real.db);
      if (onPayment) {
        const value = { ...present(await real.db.registrations.get('ie-vat'), 'it'), basis: 'on-payment' as const };
        await act(real.db, keepRegistration, { value, isNew: false }, KEPT_FROM);
      }
      try {
        await fc.asyncModelRun(() => ({ model: { issued: 0 }, real }), sequence);
        await expectSound(real);
      } finally {
        await real.db.delete();
      }
    }),
    { numRuns: 80 },
  );
}, 300_000);

test('a draft is no part of the book’s figures', async () => {
  const db = await newBook();
  await db.drafts.put(draftOf());
  expect(await db.journalLines.count()).toBe(0);
  await expectSound({ db, filed: new Map(), today: '2026-02-10' });
});
