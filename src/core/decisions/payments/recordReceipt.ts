import type { Decision, Moment } from '@/core/book/changes';
import type { CustomerRow } from '@/core/book/rows';
import { homeRate, type RateOn } from '@/core/currency/exchangeRate';
import type { IssuedDocument } from '@/core/documents/issued';
import { advance, nextNumber, type Series } from '@/core/documents/series';
import { type Currency, exponentOf } from '@/core/kernel/currency';
import { daysBetween, type IsoDate, isIsoDate } from '@/core/kernel/date';
import { ratioOf, readTypedDecimal, tenTo } from '@/core/kernel/decimal';
import { type Minor, minor } from '@/core/kernel/money';
import { multiply } from '@/core/kernel/ratio';
import type { Unusual } from '@/core/kernel/result';
import { accept, type Refusal, refuse } from '@/core/kernel/result';
import { halfUp } from '@/core/kernel/rounding';
import { searchKeys } from '@/core/kernel/words';
import { type Account, moneyAccountFor } from '@/core/ledger/account';
import { entryOf } from '@/core/ledger/entry';
import { receiptSides } from '@/core/ledger/posting/receipt';
import type { PaymentMethod } from '@/core/parties/paymentMethod';
import type { Allocation, Credit } from '@/core/settlement/allocation';
import { allocated, allocationRefusals, type Receipt, type Settling } from '@/core/settlement/receipt';
import type { Registration } from '@/core/tax/registration';
import { bringTogether, changesOfSettled, type Settled } from './allocate';

/** Days beyond which a receipt is asked about. */
const LONG_AGO = 366;

export interface ReceiptInput {
  readonly customerId: string;
  /** ISO date. */
  readonly date: string;
  readonly method: PaymentMethod;
  readonly reference: string;
  readonly allocations: readonly Settling[];
  /** Money received, where it is more than it settles: the rest is kept on account. */
  readonly sum?: Minor;
  /** Of the money; that of the documents it settles unless it is given. */
  readonly currency?: Currency;
  /** Units of the documents' currency for one home unit on the day, as typed; empty for the rate of the day. */
  readonly perHome?: string;
  /** The bookkeeper agreed to a day that is unusual. */
  readonly anyDay?: boolean;
}

export interface ReceiveMaterial {
  readonly customer: CustomerRow | undefined;
  /** The documents that the allocations name, as they are now. */
  readonly documents: ReadonlyMap<string, IssuedDocument>;
  /** All that was made of each of them so far. */
  readonly allocations: readonly Allocation[];
  /** Credit notes on them. */
  readonly notes: readonly IssuedDocument[];
  readonly series: Series;
  readonly chart: readonly Account[];
  /** Registrations of the book. */
  readonly registrations: readonly Registration[];
  readonly homeCurrency: Currency;
  /** Rate of the money's currency on the day; null where none is known or needed. */
  readonly rate: RateOn | null;
}

/** What foreign money is worth in home currency on its day, or why that is not known. */
export function worth(
  amount: Minor,
  currency: Currency,
  home: Currency,
  typed: string,
  rate: RateOn | null,
): Minor | Refusal {
  if (currency === home) return amount;
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
  return minor(halfUp({ n: n * tenTo(exponentOf(home)), d }));
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
  const paid = input.allocations.flatMap(({ documentId }) => documents.get(documentId) ?? []);
  refusals.push(...allocationRefusals(input.allocations, documents, input.customerId));
  const amount = input.sum ?? allocated(input.allocations);
  if (amount <= 0n) refusals.push({ code: 'missing', path: 'allocations', wanted: 'say-what-money-settles' });
  if (amount < allocated(input.allocations))
    refusals.push({ code: 'over-allocated', path: 'sum', number: 'this receipt' });
  if (refusals.length > 0 || customer === undefined || !isIsoDate(date)) return refuse(...refusals);

  const day = dayRefusal(input, date, paid, material.registrations, moment.today);
  if (day !== null) return refuse(day);
  const currency = input.currency ?? paid[0]?.content.currency ?? material.homeCurrency;
  if (paid.some((document) => document.content.currency !== currency))
    return refuse({ code: 'invalid', path: 'allocations', wanted: 'one-currency' });
  const number = nextNumber(series, date);
  const home = worth(amount, currency, material.homeCurrency, input.perHome ?? '', material.rate);
  if (typeof home !== 'bigint') return refuse(home);
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
    open: amount,
    openHome: home,
    isOpen: 1,
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
    receiptSides(home, moneyAccountFor(chart, input.method), chart),
  );
  const settled: Settled[] = [];
  let kept: Credit = { kind: 'receipt', receipt };
  for (const [i, { documentId, amount: part }] of input.allocations.entries()) {
    const ofDebt = material.allocations.filter(({ debtId }) => debtId === documentId);
    const notes = material.notes.filter(({ content }) => content.corrects?.documentId === documentId);
    const at = { date, path: `allocations[${i}].amount` };
    const one = bringTogether(
      kept,
      documents.get(documentId),
      part,
      at,
      { ...material, notes, ofDebt, ofCredit: settled.map(({ allocation }) => allocation) },
      moment,
    );
    if (!one.ok) return one;
    settled.push(one.value);
    kept = one.value.credit;
  }
  const { add, put } = changesOfSettled(settled);
  return accept({
    value: { id: receipt.id, number },
    changes: {
      add: {
        ...add,
        receipts: [kept.kind === 'receipt' ? kept.receipt : receipt],
        journal: [posted.entry, ...(add.journal ?? [])],
        journalLines: [...posted.lines, ...(add.journalLines ?? [])],
      },
      put: { ...put, series: [advance(series, date, '')] },
      audit: {
        subject: number,
        about: [receipt.id, customer.id, ...input.allocations.map(({ documentId }) => documentId)],
        after: { customer: customer.name, amount, method: input.method },
      },
    },
  });
}
