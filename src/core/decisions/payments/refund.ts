import type { Decision, Moment } from '@/core/book/changes';
import type { RateOn } from '@/core/currency/exchangeRate';
import { advance, nextNumber, type Series } from '@/core/documents/series';
import type { Currency } from '@/core/kernel/currency';
import { type IsoDate, isIsoDate } from '@/core/kernel/date';
import { type Minor, minus, negated } from '@/core/kernel/money';
import { accept, type Result, refuse } from '@/core/kernel/result';
import { moneyAccountFor } from '@/core/ledger/account';
import { entryOf, type JournalLine } from '@/core/ledger/entry';
import { refundSides } from '@/core/ledger/posting/receipt';
import { reversalSides } from '@/core/ledger/posting/reversal';
import { differenceSides } from '@/core/ledger/posting/settling';
import type { PaymentMethod } from '@/core/parties/paymentMethod';
import { settledSoFar, settledWith, undoingOf } from '@/core/returns/release';
import {
  type Allocation,
  type Credit,
  creditAfter,
  creditBefore,
  differenceOf,
  homePart,
  leftOfCredit,
  nextTurns,
} from '@/core/settlement/allocation';
import type { Refund } from '@/core/settlement/refund';
import type { SettleMaterial } from './settle';
import { type EntryHead, entriesFor, type TaxMoved, taxMoved } from './taxMoved';
import { worthOn } from './worth';

export interface RefundInput {
  readonly creditId: string;
  /** ISO date. */
  readonly date: string;
  readonly method: PaymentMethod;
  /** Code of the account that it leaves; that of the method unless it is given. */
  readonly account?: string;
  readonly reference: string;
  /** In the currency of the credit. */
  readonly amount: Minor;
  /** Units of that currency for one home unit, as typed; empty for the rate of the day. */
  readonly perHome?: string;
}

type CreditMaterial = Pick<SettleMaterial, 'chart' | 'registrations' | 'ofCredit'>;

export interface RefundMaterial extends CreditMaterial {
  readonly credit: Credit | undefined;
  readonly customerName: string;
  readonly series: Series;
  readonly homeCurrency: Currency;
  readonly rate: RateOn | null;
}

type Move = Pick<Allocation, 'debtId' | 'creditId' | 'creditKind' | 'amount' | 'takesBack'>;

/** Tax of a credit note that is given back falls due with it; below zero of the move where that is undone. */
function taxOf(
  payingId: string,
  credit: Credit,
  move: Move,
  date: IsoDate,
  material: CreditMaterial,
): Result<readonly TaxMoved[]> {
  if (credit.kind === 'receipt') return accept([]);
  const before = settledSoFar(credit.note, material.ofCredit);
  const moved = { before, after: settledWith(before, credit.note, move) };
  return taxMoved(payingId, { document: credit.note, notes: new Map() }, moved, date, material);
}

/** What is written of a credit, its tax and the entries of both. */
function rowsOf(
  after: Credit,
  allocation: Allocation,
  entries: ReturnType<typeof entriesFor>,
  taxes: readonly TaxMoved[],
) {
  const periods = taxes.flatMap(({ period }) => period ?? []);
  const taxEntries = taxes.flatMap((tax) => tax.entries);
  return {
    add: {
      journal: entries.map(({ entry }) => entry),
      journalLines: entries.flatMap(({ lines }) => lines),
      ...(taxEntries.length > 0 && { taxEntries }),
    },
    put: {
      allocations: [allocation],
      ...(after.kind === 'receipt' ? { receipts: [after.receipt] } : { documents: [after.note] }),
      ...(periods.length > 0 && { taxPeriods: periods }),
    },
  };
}

/** Gives money back that is on account, or that a credit note holds for the customer. */
export function refund(input: RefundInput, material: RefundMaterial, moment: Moment): Decision<Refund> {
  const { credit, ofCredit, series, chart, homeCurrency } = material;
  const { date, amount } = input;
  if (credit === undefined) return refuse({ code: 'not-found', path: 'creditId' });
  if (!isIsoDate(date)) return refuse({ code: 'invalid', path: 'date', wanted: 'give-a-day', found: date });
  const { id: creditId, number: creditNumber, customerId, currency, open, openHome } = leftOfCredit(credit);
  if (credit.kind === 'receipt' && credit.receipt.dishonoured !== null)
    return refuse({ code: 'dishonoured', path: 'amount', number: creditNumber });
  if (amount <= 0n) return refuse({ code: 'invalid', path: 'amount', wanted: 'amount-above-zero' });
  if (amount > open) return refuse({ code: 'over-allocated', path: 'amount', number: creditNumber });
  const worth = worthOn(currency, homeCurrency, input.perHome ?? '', material.rate);
  if (!worth.ok) return worth;
  const home = worth.value(amount);
  const number = nextNumber(series, date);
  const given: Refund = {
    id: moment.newId(),
    number,
    customerId,
    customerName: material.customerName,
    date,
    method: input.method,
    reference: input.reference.trim(),
    currency,
    amount,
    amountHome: home,
    entryId: moment.newId(),
    recordedAt: moment.now,
    undone: null,
  };
  const move: Move = { debtId: given.id, creditId, creditKind: credit.kind, amount, takesBack: false };
  const id = moment.newId();
  const tax = taxOf(id, credit, move, date, material);
  if (!tax.ok) return tax;
  const homes = { debtHome: home, creditHome: homePart(amount, { open, openHome }) };
  const head: EntryHead = {
    kind: 'refund',
    text: `${creditNumber} is given back by ${number}`,
    sourceId: customerId,
  };
  const settling = entriesFor(head, date, differenceSides(differenceOf(homes), creditNumber, chart), tax.value, moment);
  const allocation: Allocation = {
    ...move,
    ...homes,
    id,
    customerId,
    creditNumber,
    debtKind: 'refund',
    debtNumber: number,
    date,
    currency,
    entryIds: settling.map(({ entry }) => entry.id),
    at: moment.now,
    ...nextTurns([], ofCredit),
    undoneOn: '',
    undone: null,
  };
  const posted = entryOf(
    {
      id: given.entryId,
      date,
      kind: 'refund',
      text: `${number} ${given.customerName}`,
      sourceId: customerId,
      at: moment.now,
    },
    refundSides(home, input.account ?? moneyAccountFor(chart, input.method), chart),
  );
  const { add, put } = rowsOf(creditAfter(credit, allocation), allocation, [posted, ...settling], tax.value);
  return accept({
    value: given,
    changes: {
      add: { ...add, refunds: [given] },
      put: { ...put, series: [advance(series, date, '')] },
      audit: {
        subject: `${number} of ${creditNumber}`,
        about: [given.id, creditId, customerId],
        before: { open },
        after: { amount, open: minus(open, amount), method: input.method },
      },
    },
  });
}

export interface UndoRefundMaterial extends CreditMaterial {
  readonly refund: Refund | undefined;
  readonly credit: Credit | undefined;
  /** Lines of its entry. */
  readonly lines: readonly JournalLine[];
}

/** Takes a refund back by its own id, as when it was never paid out: its credit holds the money again. */
export function undoRefund(
  { date }: { readonly id: string; readonly date: string },
  material: UndoRefundMaterial,
  moment: Moment,
): Decision<Refund> {
  const { refund: given, credit, ofCredit, lines, chart } = material;
  const made = ofCredit.find(({ debtId, undone }) => debtId === given?.id && undone === null);
  if (given === undefined || credit === undefined || made === undefined)
    return refuse({ code: 'not-found', path: 'id' });
  if (!isIsoDate(date)) return refuse({ code: 'invalid', path: 'date', wanted: 'give-a-day', found: date });
  if (date < given.date)
    return refuse({ code: 'invalid', path: 'date', wanted: 'day-not-before-allocation', found: date });
  const tax = taxOf(undoingOf(made.id), credit, { ...made, amount: negated(made.amount) }, date, material);
  if (!tax.ok) return tax;
  const text = `${given.number} taken back`;
  const sides = differenceSides(negated(differenceOf(made)), made.creditNumber, chart);
  const settling = entriesFor({ kind: 'refund', text, sourceId: given.customerId }, date, sides, tax.value, moment);
  const entryId = moment.newId();
  const posted = entryOf(
    { id: entryId, date, kind: 'refund', text, sourceId: given.customerId, at: moment.now },
    reversalSides(lines, text),
  );
  const allocation: Allocation = {
    ...made,
    undoneOn: date,
    undone: {
      on: date,
      at: moment.now,
      ...nextTurns([], ofCredit),
      entryIds: settling.map(({ entry }) => entry.id),
    },
  };
  const after: Refund = { ...given, undone: { on: date, at: moment.now, entryId } };
  const { add, put } = rowsOf(creditBefore(credit, made), allocation, [posted, ...settling], tax.value);
  return accept({
    value: after,
    changes: {
      add,
      put: { ...put, refunds: [after] },
      audit: {
        subject: `${given.number} of ${made.creditNumber}`,
        about: [given.id, made.creditId, given.customerId],
        before: { amount: made.amount },
        after: { undone: date },
      },
    },
  });
}
