import type { Decision, Moment } from '@/core/book/changes';
import { changesInOrder, type RowChanges } from '@/core/book/changesInOrder';
import type { CustomerRow } from '@/core/book/rows';
import type { RateOn } from '@/core/currency/exchangeRate';
import { advance, nextNumber, type Series } from '@/core/documents/series';
import type { Currency } from '@/core/kernel/currency';
import { daysBetween, type IsoDate, isIsoDate } from '@/core/kernel/date';
import { type Minor, minus, NOTHING, plus, total } from '@/core/kernel/money';
import { accept, type Refusal, type Result, refuse, type Unusual } from '@/core/kernel/result';
import { searchKeys } from '@/core/kernel/words';
import { entryOf } from '@/core/ledger/entry';
import { receiptSides } from '@/core/ledger/posting/receipt';
import { discountDoubt } from '@/core/settlement/discount';
import type { Receipt } from '@/core/settlement/receipt';
import type { Withheld } from '@/core/settlement/withholding';
import type { WithholdingType } from '@/core/tax/withholding';
import { type PartInput, readParts } from './receiptParts';
import { type SettleAllMaterial, type SettlingInput, settleAll } from './settleAll';
import { worthOn } from './worth';

/** Days beyond which a receipt is asked about. */
const LONG_AGO = 366;

export interface ReceiptInput {
  readonly customerId: string;
  /** ISO date. */
  readonly date: string;
  /** Typed number, such as that of a receipt book; the next of the series unless it is given. */
  readonly number?: string;
  readonly reference: string;
  readonly remarks?: string;
  /** Of the money and of what it settles; that of what it settles unless it is given. */
  readonly currency?: Currency;
  readonly parts: readonly PartInput[];
  readonly to: readonly SettlingInput[];
  /** Units of the currency for one home unit on the day, as typed; empty for the rate of the day. */
  readonly perHome?: string;
  /** The bookkeeper agreed to what is unusual: a day, a discount. */
  readonly agreed?: boolean;
}

export interface ReceiveMaterial extends SettleAllMaterial {
  readonly customer: CustomerRow | undefined;
  readonly series: Series;
  /** Where a receipt of the typed number is there already. */
  readonly numberTaken: boolean;
  readonly homeCurrency: Currency;
  /** Rate of the money's currency on its day; null where none is known or needed. */
  readonly rate: RateOn | null;
  readonly withholdingTypes: readonly WithholdingType[];
}

/** A day before the book is refused, one that money hardly came on is asked about; so is a discount that was not offered so. */
function doubts(
  { to, date: _, agreed = false }: ReceiptInput,
  date: IsoDate,
  { position }: ReceiveMaterial,
  today: IsoDate,
): readonly Refusal[] {
  const [began = date] = position.registrations.map((r) => r.keptFrom).sort();
  const at = { path: 'date', day: date };
  if (date < began) return [{ code: 'before-book', ...at, began }];
  if (agreed) return [];
  const unusual = (why: Unusual, path = 'date'): Refusal => ({ code: 'unusual', path, day: date, why });
  const ahead = daysBetween(today, date);
  const before = [...position.debts.values()].find((document) => date < document.issueDate);
  const ofDay: readonly Unusual[] =
    ahead > 0
      ? [{ ahead }]
      : ahead < -LONG_AGO
        ? [{ back: -ahead }]
        : before === undefined
          ? []
          : [{ before: before.number, issued: before.issueDate }];
  const ofDiscounts = to.flatMap(({ documentId, number, discount = NOTHING }, i): readonly Refusal[] => {
    const document = position.debts.get(documentId);
    const doubt = document === undefined ? null : discountDoubt(document, discount, date);
    return doubt === null ? [] : [unusual({ discount: doubt, number }, `to[${i}].discount`)];
  });
  return [...ofDay.map((why) => unusual(why)), ...ofDiscounts];
}

/** The number it takes, and its series after it. */
function numbered(
  typed: string,
  date: IsoDate,
  { series, numberTaken }: Pick<ReceiveMaterial, 'series' | 'numberTaken'>,
): Result<{ readonly number: string; readonly changes: RowChanges }> {
  if (typed === '')
    return accept({ number: nextNumber(series, date), changes: { put: { series: [advance(series, date, '')] } } });
  if (numberTaken) return refuse({ code: 'duplicate', path: 'number', found: typed });
  // Numbers of the series stand behind its counter, or it would give one twice.
  if (typed.startsWith(`${series.prefix}-`))
    return refuse({ code: 'invalid', path: 'number', wanted: 'number-outside-series', found: typed });
  return accept({ number: typed, changes: {} });
}

/**
 * Records money from a customer, and what it kept back as tax, and settles documents with both: money and withheld first,
 * then the discount by a credit note, then a small difference. What is not allocated is kept on account. A cheque that is
 * dated later counts from its day.
 */
export function receive(
  input: ReceiptInput,
  material: ReceiveMaterial,
  moment: Moment,
): Decision<{ id: string; number: string }> {
  const { customer, position, homeCurrency } = material;
  const { to } = input;
  if (customer === undefined) return refuse({ code: 'missing', path: 'customerId', wanted: 'choose-customer' });
  if (!isIsoDate(input.date)) return refuse({ code: 'invalid', path: 'date', wanted: 'give-a-day', found: input.date });
  const date = input.date;
  const [first] = position.debts.values();
  const currency = input.currency ?? first?.content.currency ?? homeCurrency;
  const withheld = to.flatMap(({ withheld: own = [] }) => own);
  const strange = strangeTypes(input, material);
  if (strange.length > 0) return refuse(...strange);
  // No rate is needed where the bank says what all of it was worth.
  const rated = withheld.length > 0 || input.parts.some(({ home }) => home === undefined);
  const worth = rated
    ? worthOn(currency, homeCurrency, input.perHome ?? '', material.rate)
    : accept((amount: Minor) => amount);
  if (!worth.ok) return worth;
  const read = readParts(input.parts, { date, worth: worth.value, chart: position.chart, alone: withheld.length > 0 });
  const doubtful = doubts(input, date, material, moment.today);
  const refusals = [...(read.ok ? [] : read.refusals), ...doubtful];
  if (!read.ok || refusals.length > 0) return refuse(...refusals);
  const { parts, valueDate } = read.value;
  const money = total(parts.map(({ amount }) => amount));
  if (total(to.map((one) => one.money)) > money) return refuse({ code: 'over-allocated', path: 'parts', number: '' });
  const own = numbered(input.number?.trim() ?? '', date, material);
  if (!own.ok) return own;
  const { number } = own.value;
  const withheldHome = total(withheld.map(({ amount }) => worth.value(amount)));
  const amount = plus(money, total(withheld.map((one) => one.amount)));
  const home = plus(total(parts.map((part) => part.home)), withheldHome);
  const receipt: Receipt = {
    id: moment.newId(),
    number,
    customerId: customer.id,
    customerName: customer.name,
    date,
    valueDate,
    reference: input.reference.trim(),
    remarks: input.remarks?.trim() ?? '',
    parts,
    amount,
    currency,
    amountHome: home,
    open: amount,
    openHome: home,
    isOpen: amount === NOTHING ? 0 : 1,
    entryId: moment.newId(),
    recordedAt: moment.now,
    dishonoured: null,
    keys: searchKeys([number, customer.name, input.reference]),
  };
  const posted = entryOf(
    {
      id: receipt.entryId,
      date: valueDate,
      kind: 'receipt',
      text: `${number} ${customer.name}`,
      sourceId: receipt.id,
      at: moment.now,
    },
    receiptSides(parts, withheldHome, position.chart),
  );
  const settled = settleAll({ kind: 'receipt', receipt }, to, { date: valueDate, credited: date }, material, moment);
  if (!settled.ok) return settled;
  const kept = to.flatMap((one) =>
    (one.withheld ?? []).map((part) => withheldRow(receipt, one, part, worth.value(part.amount), material, moment)),
  );
  const left = settled.value.credit.kind === 'receipt' ? settled.value.credit.receipt : receipt;
  return accept({
    value: { id: receipt.id, number },
    changes: {
      ...changesInOrder([
        { add: { receipts: [receipt], journal: [posted.entry], journalLines: posted.lines } },
        own.value.changes,
        ...settled.value.changes,
        { put: { receipts: [left] } },
        ...(kept.length > 0 ? [{ add: { withheld: kept } }] : []),
      ]),
      audit: {
        subject: number,
        about: [receipt.id, customer.id, ...to.map(({ documentId }) => documentId)],
        after: {
          customer: customer.name,
          amount: money,
          ...(amount !== money && { withheld: minus(amount, money) }),
          ...(left.open !== NOTHING && { onAccount: left.open }),
        },
      },
    },
  });
}

const typeOf = (documentId: string, typeId: string, { position, withholdingTypes }: ReceiveMaterial) =>
  position.debts.get(documentId)?.content.withholding?.find((one) => one.id === typeId) ??
  withholdingTypes.find((one) => one.id === typeId);

/** Withheld amounts of types that neither the document nor the set-up knows. */
function strangeTypes({ to }: ReceiptInput, material: ReceiveMaterial): readonly Refusal[] {
  return to.flatMap(({ documentId, withheld = [] }, i) =>
    withheld.flatMap(({ typeId }, k): readonly Refusal[] =>
      typeOf(documentId, typeId, material) === undefined
        ? [{ code: 'not-found', path: `to[${i}].withheld[${k}].typeId` }]
        : [],
    ),
  );
}

/** What was kept back of one document, as a claim. */
function withheldRow(
  { id, number, customerId, customerName, valueDate, currency }: Receipt,
  { documentId, number: documentNumber }: SettlingInput,
  { typeId, amount }: { readonly typeId: string; readonly amount: Minor },
  home: Minor,
  material: ReceiveMaterial,
  moment: Moment,
): Withheld {
  const type = typeOf(documentId, typeId, material);
  return {
    id: moment.newId(),
    customerId,
    customerName,
    typeId,
    typeName: type?.name ?? typeId,
    needsCertificate: type?.certificate ?? true,
    documentId,
    documentNumber,
    receiptId: id,
    receiptNumber: number,
    date: valueDate,
    currency,
    amount,
    home,
    certified: NOTHING,
    claimed: NOTHING,
    isOpen: 1,
    voidOn: '',
  };
}
