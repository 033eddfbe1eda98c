import { isIsoDate } from '@/core/kernel/date';
import { showPrice } from '@/core/kernel/show';
import type { Customer } from '@/core/parties/customer';
import type { PriceMode } from '@/core/tax/calcTypes';
import { priceInMode } from '@/core/tax/convertPrice';
import { calcInputOf } from './content';
import type { Draft, DraftLine } from './draft';
import type { Item } from './item';
import { datesOf, decideTaxes, lineVerdict, resolveKey } from './lineTax';
import { type PriceList, priceOf } from './priceList';
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
  const taken: DraftLine = {
    ...line,
    itemId: item.id,
    description: [item.name, item.description].filter(Boolean).join('\n'),
    unit: item.unit,
    account: item.account,
    taxClass,
    supply,
    taxCode: key,
    taxByHand: false,
  };
  return { ...taken, ...priceOn(taken, item, list, draft, customer, setting) };
}

/** An item's price in the mode of the draft, and where it came from. */
function priceOn(
  line: DraftLine,
  item: Item,
  list: PriceList | null,
  draft: Draft,
  customer: Customer | null,
  setting: Setting,
): Pick<DraftLine, 'price' | 'priceFrom'> {
  const { price, mode } = priceOf(item, list);
  const day = datesOf(draft).taxPoint;
  const currency = setting.business.homeCurrency;
  if (mode === draft.priceMode || day === null || line.taxCode === '') return { price, priceFrom: '' };
  const tax = resolveKey(line.taxCode, day, customer, setting);
  if ('problem' in tax) return { price, priceFrom: '' };
  const { taxes } = calcInputOf({ currency, priceMode: draft.priceMode, taxes: [tax], lines: [] });
  const components = taxes[tax.code]?.components ?? [];
  const converted = priceInMode(price, mode, draft.priceMode, components, currency);
  const from = list === null || !list.prices.some((row) => row.itemId === item.id) ? 'the item' : `“${list.name}”`;
  return {
    price: converted,
    priceFrom: `${showPrice(price, currency)} ${HOLDS[mode]} from ${from}, at ${tax.percent} % ${showPrice(converted, currency)} ${HOLDS[draft.priceMode]}`,
  };
}

/** The draft for another customer: terms, price mode, registration, and the taxes that were not chosen by hand. */
export function takeCustomer(draft: Draft, customer: Customer, setting: Setting): Draft {
  // A due date that was typed as a day stays; terms follow the customer.
  const due = isIsoDate(draft.due) ? draft.due : customer.terms;
  const untouched = draft.lines.every((line) => line.price === '');
  const priceMode = untouched ? customer.priceMode : draft.priceMode;
  return decideTaxes({ ...draft, customerId: customer.id, due, priceMode }, customer, setting);
}
