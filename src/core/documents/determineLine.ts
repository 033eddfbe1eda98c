import type { Item } from '@/core/catalogue/item';
import { type PriceList, priceOf } from '@/core/catalogue/priceList';
import { priceAbroad } from '@/core/currency/exchangeRate';
import { exponentOf } from '@/core/kernel/currency';
import { isIsoDate } from '@/core/kernel/date';
import { isDecimal } from '@/core/kernel/decimal';
import { showPrice } from '@/core/kernel/show';
import type { Customer } from '@/core/parties/customer';
import type { PriceMode } from '@/core/tax/calcTypes';
import { priceInMode } from '@/core/tax/convertPrice';
import { calcInputOf } from './content';
import type { Draft, DraftLine } from './draft';
import { homeRateOf, isRefusal } from './draftRate';
import { DRAFT_KINDS } from './kinds';
import { datesOf, decideTaxes, lineVerdict, resolveKey } from './lineTax';
import { currencyOf } from './readLine';
import type { Setting } from './setting';

const HOLDS: Readonly<Record<PriceMode, string>> = { net: 'without tax', gross: 'with tax' };

/** What a line takes from its item: words, unit, price, account, class, and the tax that is decided for it. */
export function takeItem(
  line: DraftLine,
  item: Item,
  list: PriceList | null,
  draft: Draft,
  customer: Customer | null,
  setting: Setting,
): DraftLine {
  const { taxClass, supply } = item;
  const { key } = lineVerdict(draft, { taxClass, supply }, customer, setting);
  const own = item.taxCode !== undefined && setting.setup.code.has(item.taxCode);
  const taken: DraftLine = {
    ...line,
    itemId: item.id,
    description: [item.name, item.description].filter(Boolean).join('\n'),
    unit: item.unit,
    account: item.account,
    taxClass,
    supply,
    // A code of the item's own is as good as chosen; a look at the draft says where the table would give another.
    taxCode: own ? item.taxCode : key,
    taxByHand: own,
    itemCode: item.itemCode ?? '',
  };
  return { ...taken, ...priceOn(taken, item, list, draft, customer, setting) };
}

/** An item's price in the mode of the draft, and where it came from. */
export function priceOn(
  line: DraftLine,
  item: Item,
  list: PriceList | null,
  draft: Draft,
  customer: Customer | null,
  setting: Setting,
): Pick<DraftLine, 'price' | 'priceFrom'> {
  const { price, mode } = priceOf(item, list);
  const day = datesOf(draft).taxPoint;
  const home = setting.business.homeCurrency;
  const plain = { price, priceFrom: '' };
  if (mode === draft.priceMode || day === null || line.taxCode === '') return abroad(plain, draft, setting);
  const tax = resolveKey(line.taxCode, day, customer, setting);
  if ('problem' in tax) return abroad(plain, draft, setting);
  const { taxes } = calcInputOf({ currency: home, priceMode: draft.priceMode, taxes: [tax], lines: [] });
  const components = taxes[tax.code]?.components ?? [];
  const converted = priceInMode(price, mode, draft.priceMode, components, home);
  const from = list === null || !list.prices.some((row) => row.itemId === item.id) ? 'the item' : `“${list.name}”`;
  const priceFrom = `${showPrice(price, home)} ${HOLDS[mode]} from ${from}, at ${tax.percent} % ${showPrice(converted, home)} ${HOLDS[draft.priceMode]}`;
  return abroad({ price: converted, priceFrom }, draft, setting);
}

/** A price of the home currency in the currency of the draft, by its rate. */
function abroad(
  { price, priceFrom }: Pick<DraftLine, 'price' | 'priceFrom'>,
  draft: Draft,
  setting: Setting,
): Pick<DraftLine, 'price' | 'priceFrom'> {
  const rate = homeRateOf(draft, setting);
  const currency = currencyOf(draft, setting.business.homeCurrency);
  if (rate === undefined || isRefusal(rate) || !isDecimal(price)) return { price, priceFrom };
  const converted = priceAbroad(price, rate.perHome, exponentOf(currency));
  const from = priceFrom === '' ? `${showPrice(price, rate.currency)} ${rate.currency}` : priceFrom;
  return { price: converted, priceFrom: `${from}, at ${rate.perHome} ${showPrice(converted, currency)} ${currency}` };
}

/** The draft for another customer: terms, price mode, registration, and the taxes that were not chosen by hand. */
export function takeCustomer(draft: Draft, customer: Customer, setting: Setting): Draft {
  // A due date that was typed as a day stays; terms follow the customer.
  const due = isIsoDate(draft.due) || draft.kind !== 'invoice' ? draft.due : customer.terms;
  const untouched = draft.lines.every((line) => line.price === '');
  const priceMode = untouched && !DRAFT_KINDS[draft.kind].paidAtOnce ? customer.priceMode : draft.priceMode;
  const currency = untouched ? customer.currency : draft.currency;
  const taken: Draft = { ...draft, customerId: customer.id, due, priceMode, currency, styleId: customer.styleId };
  return decideTaxes(taken, customer, setting);
}
