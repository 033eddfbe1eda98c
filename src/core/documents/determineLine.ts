import { type Currency, exponentOf } from '@/core/kernel/currency';
import { type IsoDate, isIsoDate } from '@/core/kernel/date';
import { type Decimal, decimal, ratioOf, writeUnits } from '@/core/kernel/decimal';
import { inMinorUnits } from '@/core/kernel/money';
import { add, divide, multiply, ONE, whole } from '@/core/kernel/ratio';
import { halfUp } from '@/core/kernel/rounding';
import type { Customer } from '@/core/parties/customer';
import { determineCode } from '@/core/tax/determine';
import { rateOn, type TaxCode } from '@/core/tax/taxCode';
import type { Draft, DraftLine } from './draft';
import { datesOf } from './freeze';
import type { Item } from './item';

/** What a line takes from its item: words, unit, price, account and the code that is determined. */
export function takeItem(
  line: DraftLine,
  item: Item,
  draft: Draft,
  customer: Customer | null,
  codes: readonly TaxCode[],
  currency: Currency,
): DraftLine {
  const code = determineCode(codes, customer, item.taxClass).code;
  const day = datesOf(draft).taxPoint;
  const price =
    draft.priceMode === 'gross' && code !== null && day !== null
      ? withTax(item.price, code, day, currency)
      : item.price;
  return {
    ...line,
    itemId: item.id,
    description: [item.name, item.description].filter(Boolean).join('\n'),
    unit: item.unit,
    price,
    account: item.account,
    taxCode: code?.id ?? line.taxCode,
    taxByHand: false,
  };
}

/** A price without tax as the price that holds it, to the minor unit: 62.00 at 13.5 % is 70.37. */
export function withTax(price: Decimal, code: TaxCode, day: IsoDate, currency: Currency): Decimal {
  const rate = rateOn(code, day)?.percent ?? decimal('0');
  const factor = add(ONE, divide(ratioOf(rate), whole(100n)));
  return writeUnits(halfUp(inMinorUnits(multiply(ratioOf(price), factor), currency)), exponentOf(currency));
}

/** The draft for another customer: terms, price mode, and the codes that were not chosen by hand. */
export function takeCustomer(
  draft: Draft,
  customer: Customer,
  items: readonly Item[],
  codes: readonly TaxCode[],
): Draft {
  const lines = draft.lines.map((line): DraftLine => {
    if (line.taxByHand) return line;
    const item = items.find((i) => i.id === line.itemId);
    const code = determineCode(codes, customer, item?.taxClass ?? '').code;
    return code === null ? line : { ...line, taxCode: code.id };
  });
  // A due date that was typed as a day stays; terms follow the customer.
  const due = isIsoDate(draft.due) ? draft.due : customer.terms;
  const untouched = draft.lines.every((line) => line.price === '');
  return { ...draft, customerId: customer.id, due, lines, priceMode: untouched ? customer.priceMode : draft.priceMode };
}
