import type { Decision, Moment } from '@/core/book/changes';
import type { CustomerRow } from '@/core/book/rows';
import { homeRate, type RateOn } from '@/core/currency/exchangeRate';
import type { Content } from '@/core/documents/content';
import { homePart, type IssuedDocument, settled } from '@/core/documents/issued';
import { advance, nextNumber, type Series } from '@/core/documents/series';
import { type Currency, exponentOf } from '@/core/kernel/currency';
import { daysBetween, type IsoDate, isIsoDate } from '@/core/kernel/date';
import { ratioOf, readTypedDecimal, tenTo } from '@/core/kernel/decimal';
import { grouped } from '@/core/kernel/grouped';
import { type Minor, minor, NOTHING, plus, total } from '@/core/kernel/money';
import { multiply } from '@/core/kernel/ratio';
import type { Unusual } from '@/core/kernel/result';
import { accept, type Refusal, type Result, refuse } from '@/core/kernel/result';
import { halfUp } from '@/core/kernel/rounding';
import { searchKeys } from '@/core/kernel/words';
import { type Account, moneyAccountFor } from '@/core/ledger/account';
import { entryOf, type Side } from '@/core/ledger/entry';
import { receiptSides, releaseSides } from '@/core/ledger/posting/receipt';
import { notYetDueAccountOf, outputAccountOf } from '@/core/ledger/posting/taxAccounts';
import type { PaymentMethod } from '@/core/parties/paymentMethod';
import { type Allocation, allocated, allocationRefusals, type Receipt } from '@/core/receipts/receipt';
import { periodIdOf, placeInPeriod } from '@/core/returns/calendar';
import { releasedBy } from '@/core/returns/release';
import type { TaxPeriod } from '@/core/returns/return';
import type { TaxEntry } from '@/core/returns/taxEntry';
import type { Registration } from '@/core/tax/registration';
import { postingDate } from '../sales/writeDocument';

/** Days beyond which a receipt is asked about. */
const LONG_AGO = 366;

export interface ReceiptInput {
  readonly customerId: string;
  /** ISO date. */
  readonly date: string;
  readonly method: PaymentMethod;
  readonly reference: string;
  readonly allocations: readonly Allocation[];
  /** Units of the documents' currency for one home unit on the day, as typed; empty for the rate of the day. */
  readonly perHome?: string;
  /** The bookkeeper agreed to a day that is unusual. */
  readonly anyDay?: boolean;
}

export interface ReceiveMaterial {
  readonly customer: CustomerRow | undefined;
  /** The documents that the allocations name, as they are now. */
  readonly documents: ReadonlyMap<string, IssuedDocument>;
  readonly series: Series;
  readonly chart: readonly Account[];
  /** Registrations of the documents, for tax that falls due with the payment. */
  readonly registrations: readonly Registration[];
  /** Rate of the documents' currency on the day; null where none is known or needed. */
  readonly rate: RateOn | null;
}

/** What falls due with the payment of one document. */
interface Released {
  /** Day the release is posted: that of the money, or the first open one. */
  readonly date: IsoDate;
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
    if (registration === undefined) return refuse({ code: 'not-found', path: '', what: 'registration' });
    if (placement === null)
      return refuse({
        code: 'before-registration',
        path: 'date',
        day: receipt.date,
        from: registration.keptFrom,
      });
    const { span, late } = placement;
    const id = periodIdOf(registration.id, span.start);
    const after = plus(document.received, amount);
    const entries = releasedBy(receipt, document, registration, document.received, after, id, late);
    released.push({
      date: postingDate(registration, receipt.date),
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

/** What foreign money is worth in home currency on its day, or why that is not known. */
function worth(
  amount: Minor,
  currency: Currency,
  home: Content['home'],
  typed: string,
  rate: RateOn | null,
): Minor | Refusal {
  if (home === undefined) return amount;
  const perHome = typed.trim() === '' ? rate?.perHome : readTypedDecimal(typed);
  if (perHome === undefined)
    return {
      code: 'missing',
      path: 'perHome',
      wanted: { what: 'exchange-rate', currency, need: 'receipt', typed: true },
    };
  if (perHome === null || ratioOf(perHome).n <= 0n)
    return { code: 'invalid', path: 'perHome', wanted: 'give-exchange-rate', found: typed };
  const { n, d } = multiply({ n: amount, d: tenTo(exponentOf(currency)) }, ratioOf(homeRate(perHome)));
  return minor(halfUp({ n: n * tenTo(exponentOf(home.currency)), d }));
}

/** A day before the book is refused, one that money hardly came on is asked about. */
function dayRefusal(
  { anyDay = false }: ReceiptInput,
  date: IsoDate,
  paid: readonly IssuedDocument[],
  registrations: readonly Registration[],
  today: IsoDate,
): Refusal | null {
  const [began = date] = registrations.map((r) => r.keptFrom).sort();
  const at = { path: 'date', day: date };
  if (date < began) return { code: 'before-book', ...at, began };
  if (anyDay) return null;
  const unusual = (why: Unusual): Refusal => ({ code: 'unusual', ...at, why });
  const ahead = daysBetween(today, date);
  const before = paid.find((document) => date < document.issueDate);
  if (ahead > 0) return unusual({ ahead });
  if (ahead < -LONG_AGO) return unusual({ back: -ahead });
  return before === undefined ? null : unusual({ before: before.number, issued: before.issueDate });
}

/** Records money against open invoices of one customer: their open amounts fall, bank rises. */
export function receive(
  input: ReceiptInput,
  material: ReceiveMaterial,
  moment: Moment,
): Decision<{ id: string; number: string }> {
  const { customer, documents, series, chart } = material;
  const refusals: Refusal[] = [];
  if (customer === undefined) refusals.push({ code: 'missing', path: 'customerId', wanted: 'choose-customer' });
  const { date } = input;
  if (!isIsoDate(date)) refusals.push({ code: 'invalid', path: 'date', wanted: 'give-day-of-money', found: date });
  refusals.push(...allocationRefusals(input.allocations, documents, input.customerId));
  if (refusals.length > 0 || customer === undefined || !isIsoDate(date)) return refuse(...refusals);

  const paid = input.allocations.flatMap(({ documentId }) => documents.get(documentId) ?? []);
  const [first] = paid;
  if (first === undefined) return refuse({ code: 'not-found', path: 'allocations' });
  const { currency } = first.content;
  const day = dayRefusal(input, date, paid, material.registrations, moment.today);
  if (day !== null) return refuse(day);
  if (paid.some((document) => document.content.currency !== currency))
    return refuse({
      code: 'invalid',
      path: 'allocations',
      wanted: 'one-currency',
    });
  const number = nextNumber(series, date);
  const amount = allocated(input.allocations);
  const home = worth(amount, currency, first.content.home, input.perHome ?? '', material.rate);
  if (typeof home !== 'bigint') return refuse(home);
  const relieved = total(
    input.allocations.map(({ documentId, amount: part }) => {
      const document = documents.get(documentId);
      return document === undefined ? NOTHING : homePart(document, part);
    }),
  );
  const receipt: Receipt = {
    id: moment.newId(),
    number,
    customerId: customer.id,
    customerName: customer.name,
    date,
    method: input.method,
    reference: input.reference.trim(),
    amount,
    currency,
    amountHome: home,
    settles: input.allocations.map(({ documentId }) => documentId),
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
    [
      ...receiptSides(home, relieved, moneyAccountFor(chart, input.method), chart),
      ...released.value.flatMap((r) => (r.date === date ? r.sides : [])),
    ],
  );
  // Tax that falls due in a filed period goes late: its release is posted on the first open day, the money on its own.
  const later = released.value.filter((r) => r.date !== date);
  const late = [...grouped(later, (r) => r.date).values()].map((group) =>
    entryOf(
      {
        id: moment.newId(),
        date: group[0]?.date ?? date,
        kind: 'receipt',
        text: `${number} ${customer.name}, tax`,
        sourceId: receipt.id,
        at: moment.now,
      },
      group.flatMap((r) => r.sides),
    ),
  );
  const recorded: Receipt =
    late.length === 0 ? receipt : { ...receipt, releaseEntryIds: late.map(({ entry }) => entry.id) };
  const changed = input.allocations.flatMap((allocation) => {
    const document = documents.get(allocation.documentId);
    return document === undefined ? [] : [settled(document, 'received', allocation.amount)];
  });
  return accept({
    value: { id: receipt.id, number },
    changes: {
      add: {
        receipts: [recorded],
        journal: [posted, ...late].map(({ entry }) => entry),
        journalLines: [posted, ...late].flatMap(({ lines }) => lines),
        ...(released.value.length > 0 && { taxEntries: released.value.flatMap((r) => r.entries) }),
      },
      put: {
        documents: changed,
        series: [advance(series, date, '')],
        ...(released.value.length > 0 && { taxPeriods: periodsOf(released.value) }),
      },
      audit: {
        subject: number,
        about: [receipt.id, customer.id, ...receipt.settles],
        after: { customer: customer.name, amount, method: input.method },
      },
    },
  });
}
