import { type IssuedDocument, settled } from '@/core/documents/issued';
import { advance, nextNumber, type Series } from '@/core/documents/series';
import { isIsoDate } from '@/core/kernel/date';
import { accept, type Refusal, refuse } from '@/core/kernel/result';
import { searchKeys } from '@/core/kernel/words';
import { type Account, accountFor } from '@/core/ledger/account';
import { entryOf } from '@/core/ledger/entry';
import { receiptSides } from '@/core/ledger/posting';
import {
  type Allocation,
  allocated,
  allocationRefusals,
  type PaymentMethod,
  type Receipt,
} from '@/core/receipts/receipt';
import type { CustomerRow, Decision, Moment } from './changes';

export interface ReceiptInput {
  readonly customerId: string;
  /** ISO date. */
  readonly date: string;
  readonly method: PaymentMethod;
  readonly reference: string;
  readonly allocations: readonly Allocation[];
}

export interface ReceiveMaterial {
  readonly customer: CustomerRow | undefined;
  /** The documents that the allocations name, as they are now. */
  readonly documents: ReadonlyMap<string, IssuedDocument>;
  readonly series: Series;
  readonly chart: readonly Account[];
}

/** Records money against open invoices of one customer: their open amounts fall, bank rises. */
export function receive(
  input: ReceiptInput,
  material: ReceiveMaterial,
  moment: Moment,
): Decision<{ id: string; number: string }> {
  const { customer, documents, series, chart } = material;
  const refusals: Refusal[] = [];
  if (customer === undefined) refusals.push({ code: 'missing', path: 'customerId', expected: 'Choose the customer.' });
  const { date } = input;
  if (!isIsoDate(date))
    refusals.push({ code: 'invalid', path: 'date', expected: 'Give the day the money came.', found: date });
  refusals.push(...allocationRefusals(input.allocations, documents, input.customerId));
  if (refusals.length > 0 || customer === undefined || !isIsoDate(date)) return refuse(...refusals);

  const number = nextNumber(series, date);
  const amount = allocated(input.allocations);
  const receipt: Receipt = {
    id: moment.newId(),
    number,
    customerId: customer.id,
    customerName: customer.name,
    date,
    method: input.method,
    reference: input.reference.trim(),
    amount,
    allocations: input.allocations,
    entryId: moment.newId(),
    recordedAt: moment.now,
    keys: searchKeys([number, customer.name, input.reference]),
  };
  const posted = entryOf(
    {
      id: receipt.entryId,
      date,
      kind: 'receipt',
      text: `${number} ${customer.name}`,
      sourceId: receipt.id,
      at: moment.now,
    },
    receiptSides(amount, accountFor(chart, 'bank'), chart),
  );
  const changed = input.allocations.flatMap((allocation) => {
    const document = documents.get(allocation.documentId);
    return document === undefined ? [] : [settled(document, 'received', allocation.amount)];
  });
  return accept({
    value: { id: receipt.id, number },
    changes: {
      add: { receipts: [receipt], journal: [posted.entry], journalLines: posted.lines },
      put: { documents: changed, series: [advance(series, date, '')] },
      audit: { subject: number, after: { customer: customer.name, amount, method: input.method } },
    },
  });
}
