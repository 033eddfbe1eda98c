import type { Decision, Moment } from '@/core/book/changes';
import type { RateOn } from '@/core/currency/exchangeRate';
import { inStep } from '@/core/documents/bookFigures';
import { advance, nextNumber, type Series } from '@/core/documents/series';
import type { Currency } from '@/core/kernel/currency';
import { isIsoDate } from '@/core/kernel/date';
import { type Minor, minus, negated } from '@/core/kernel/money';
import { accept, refuse } from '@/core/kernel/result';
import { moneyAccountFor } from '@/core/ledger/account';
import { entryOf } from '@/core/ledger/entry';
import { receiptSides } from '@/core/ledger/posting/receipt';
import type { PaymentMethod } from '@/core/parties/paymentMethod';
import { settledSoFar, settledWith } from '@/core/returns/release';
import { type Allocation, type Credit, creditAfter, leftOfCredit, nextTurns } from '@/core/settlement/allocation';
import type { Refund } from '@/core/settlement/refund';
import { type AllocateMaterial, entriesFor, type Released, releasedOf } from './allocate';
import { worth } from './recordReceipt';

export interface RefundInput {
  readonly creditId: string;
  /** ISO date. */
  readonly date: string;
  readonly method: PaymentMethod;
  readonly reference: string;
  /** In the currency of the credit. */
  readonly amount: Minor;
  /** Units of that currency for one home unit, as typed; empty for the rate of the day. */
  readonly perHome?: string;
}

export interface RefundMaterial extends Pick<AllocateMaterial, 'chart' | 'registrations' | 'ofCredit'> {
  readonly credit: Credit | undefined;
  readonly customerName: string;
  readonly series: Series;
  readonly homeCurrency: Currency;
  readonly rate: RateOn | null;
}

/** Gives money back that is on account, or that a credit note holds for the customer. */
export function refund(input: RefundInput, material: RefundMaterial, moment: Moment): Decision<Refund> {
  const { credit, ofCredit, series, chart, homeCurrency } = material;
  const { date, amount } = input;
  if (credit === undefined) return refuse({ code: 'not-found', path: 'creditId' });
  if (!isIsoDate(date)) return refuse({ code: 'invalid', path: 'date', wanted: 'give-a-day', found: date });
  const { id: creditId, number: creditNumber, customerId, currency, open, openHome } = leftOfCredit(credit);
  if (amount <= 0n) return refuse({ code: 'invalid', path: 'amount', wanted: 'amount-above-zero' });
  if (amount > open) return refuse({ code: 'over-allocated', path: 'amount', number: creditNumber });
  const home = worth(amount, currency, homeCurrency, input.perHome ?? '', material.rate);
  if (typeof home !== 'bigint') return refuse(home);
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
  };
  const move = { debtId: given.id, creditId, amount, takesBack: false };
  const id = moment.newId();
  let taxes: readonly Released[] = [];
  if (credit.kind === 'credit-note') {
    const before = settledSoFar(creditId, ofCredit);
    const owing = { document: credit.note, notes: new Map() };
    const released = releasedOf(id, owing, { before, after: settledWith(before, creditId, move) }, date, material);
    if (!released.ok) return released;
    taxes = released.value;
  }
  const creditHome = inStep(amount, open, openHome);
  const named = { creditNumber, debtId: given.id, debtNumber: number };
  const settling = entriesFor(named, date, { debtHome: home, creditHome }, taxes, 'is given back by', chart, moment);
  const allocation: Allocation = {
    ...move,
    ...named,
    id,
    customerId,
    creditKind: credit.kind,
    debtKind: 'refund',
    date,
    currency,
    debtHome: home,
    creditHome,
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
    receiptSides(negated(home), moneyAccountFor(chart, input.method), chart),
  );
  const entries = [posted, ...settling];
  const after = creditAfter(credit, allocation);
  return accept({
    value: given,
    changes: {
      add: {
        refunds: [given],
        journal: entries.map(({ entry }) => entry),
        journalLines: entries.flatMap(({ lines }) => lines),
        ...(taxes.length > 0 && { taxEntries: taxes.flatMap((tax) => tax.entries) }),
      },
      put: {
        allocations: [allocation],
        series: [advance(series, date, '')],
        ...(after.kind === 'receipt' ? { receipts: [after.receipt] } : { documents: [after.note] }),
        ...(taxes.length > 0 && { taxPeriods: taxes.map((tax) => tax.period) }),
      },
      audit: {
        subject: `${number} of ${creditNumber}`,
        about: [given.id, creditId, customerId],
        before: { open },
        after: { amount, open: minus(open, amount), method: input.method },
      },
    },
  });
}
