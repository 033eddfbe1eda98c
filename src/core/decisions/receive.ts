import { type IssuedDocument, settled } from '@/core/documents/issued';
import { advance, nextNumber, type Series } from '@/core/documents/series';
import { isIsoDate } from '@/core/kernel/date';
import { plus } from '@/core/kernel/money';
import { accept, type Refusal, type Result, refuse } from '@/core/kernel/result';
import { searchKeys } from '@/core/kernel/words';
import { type Account, accountFor } from '@/core/ledger/account';
import { entryOf, type Side } from '@/core/ledger/entry';
import { notYetDueAccountOf, outputAccountOf, receiptSides, releaseSides } from '@/core/ledger/posting';
import { periodIdOf, placeInPeriod } from '@/core/periods/calendar';
import { releasedBy } from '@/core/periods/release';
import type { TaxPeriod } from '@/core/periods/return';
import type { TaxEntry } from '@/core/periods/taxEntry';
import {
  type Allocation,
  allocated,
  allocationRefusals,
  type PaymentMethod,
  type Receipt,
} from '@/core/receipts/receipt';
import type { Registration } from '@/core/tax/registration';
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
  /** Registrations of the documents, for tax that falls due with the payment. */
  readonly registrations: readonly Registration[];
}

/** What falls due with the payment of one document. */
interface Released {
  readonly entries: readonly TaxEntry[];
  readonly sides: readonly Side[];
  readonly period: TaxPeriod;
}

const periodsOf = (released: readonly Released[]): readonly TaxPeriod[] => [
  ...new Map(released.map(({ period }) => [period.id, period])).values(),
];

/** Tax of documents on payment basis falls due in the period of the receipt, in step with the money. */
function releases(receipt: Receipt, material: ReceiveMaterial): Result<readonly Released[]> {
  const released: Released[] = [];
  for (const { documentId, amount, number } of receipt.allocations) {
    const document = material.documents.get(documentId);
    if (document?.content.basis !== 'on-payment') continue;
    const registration = material.registrations.find((r) => r.id === document.content.registrationId);
    const placement = registration === undefined ? null : placeInPeriod(registration, receipt.date);
    if (registration === undefined || placement === null)
      return refuse({
        code: 'before-registration',
        path: 'date',
        expected: `a day from ${registration?.keptFrom ?? ''} on`,
        found: receipt.date,
      });
    const { span, late } = placement;
    const id = periodIdOf(registration.id, span.start);
    const after = plus(document.received, amount);
    const entries = releasedBy(receipt, document, registration, document.received, after, id, late);
    released.push({
      entries,
      sides: releaseSides(entries, number, notYetDueAccountOf(registration, material.chart), {
        outputAccount: outputAccountOf(registration, material.chart),
        taxPeriodId: id,
      }),
      period: { id, registrationId: registration.id, ...span, filed: null },
    });
  }
  return accept(released);
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
  const released = releases(receipt, material);
  if (!released.ok) return released;
  const posted = entryOf(
    {
      id: receipt.entryId,
      date,
      kind: 'receipt',
      text: `${number} ${customer.name}`,
      sourceId: receipt.id,
      at: moment.now,
    },
    [...receiptSides(amount, accountFor(chart, 'bank'), chart), ...released.value.flatMap((r) => r.sides)],
  );
  const changed = input.allocations.flatMap((allocation) => {
    const document = documents.get(allocation.documentId);
    return document === undefined ? [] : [settled(document, 'received', allocation.amount)];
  });
  return accept({
    value: { id: receipt.id, number },
    changes: {
      add: {
        receipts: [receipt],
        journal: [posted.entry],
        journalLines: posted.lines,
        ...(released.value.length > 0 && { taxEntries: released.value.flatMap((r) => r.entries) }),
      },
      put: {
        documents: changed,
        series: [advance(series, date, '')],
        ...(released.value.length > 0 && { taxPeriods: periodsOf(released.value) }),
      },
      audit: { subject: number, after: { customer: customer.name, amount, method: input.method } },
    },
  });
}
