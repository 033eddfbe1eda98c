import { type Currency, exponentOf, isCurrency } from '@/core/kernel/currency';
import { type Decimal, decimalsOf, readTypedDecimal } from '@/core/kernel/decimal';
import { readMoney } from '@/core/kernel/money';
import type { Refusal } from '@/core/kernel/result';
import type { Wanted } from '@/core/kernel/wanted';
import type { CalcAdjustment, CalcLine, CalcOverride, Discount } from '@/core/tax/calcTypes';
import { isPrice } from '@/core/tax/price';
import { isDeferral } from './deferral';
import type { Draft, DraftAdjustment, DraftLine, DraftOverride } from './draft';

/** The figures of a typed line; null where the text is not a figure. */
export interface LineFigures {
  readonly quantity: Decimal | null;
  readonly unitPrice: Decimal | null;
  /** Undefined when no discount is typed. */
  readonly discount: Discount | null | undefined;
}

function readDiscount(typed: string, currency: Currency): Discount | null | undefined {
  const text = typed.trim();
  if (text === '') return undefined;
  const percent = text.endsWith('%');
  const value = readTypedDecimal(percent ? text.slice(0, -1) : text);
  if (value === null) return null;
  if (percent) return { percent: value };
  return readMoney(value, currency) === null ? null : { amount: value };
}

/** The currency a draft is written in. */
export function currencyOf(draft: Pick<Draft, 'currency'>, home: Currency): Currency {
  return isCurrency(draft.currency) ? draft.currency : home;
}

/** An allowance or charge for the engine, or null while its figure or its tax is missing. */
export function calcAdjustmentOf(adjustment: DraftAdjustment, currency: Currency): CalcAdjustment | null {
  const figure = readDiscount(adjustment.amount, currency);
  if (figure === null || figure === undefined) return null;
  const { id, kind, spread, taxCode } = adjustment;
  if (spread) return { id, kind, ...figure };
  return taxCode === '' ? null : { id, kind, ...figure, tax: taxCode };
}

/** A typed tax for the engine, or null while its figure is missing. */
export function calcOverrideOf(override: DraftOverride, currency: Currency): CalcOverride | null {
  const amount = readTypedDecimal(override.amount);
  if (amount === null || readMoney(amount, currency) === null) return null;
  const { tax, family, reason } = override;
  return { tax, family, amount, reason };
}

/** Reads the typed figures of a line. */
export function readLine(line: DraftLine, currency: Currency): LineFigures {
  const price = readTypedDecimal(line.price);
  const quantity = readTypedDecimal(line.quantity);
  return {
    quantity: quantity !== null && decimalsOf(quantity) <= 10 ? quantity : null,
    unitPrice: price !== null && isPrice(price) ? price : null,
    discount: readDiscount(line.discount, currency),
  };
}

/** A line for the engine, or null while a figure or the tax code is missing. */
export function calcLineOf(line: DraftLine, currency: Currency): CalcLine | null {
  const { quantity, unitPrice, discount } = readLine(line, currency);
  if (quantity === null || unitPrice === null || discount === null || line.taxCode === '') return null;
  return { id: line.id, quantity, unitPrice, tax: line.taxCode, ...(discount && { discount }) };
}

/** What keeps a line from being issued, by field. */
export function lineRefusals(line: DraftLine, index: number, currency: Currency): Refusal[] {
  const { quantity, unitPrice, discount } = readLine(line, currency);
  const at = (field: string, wanted: Wanted, found: string): Refusal => {
    const path = `lines[${index}].${field}`;
    return found.trim() === '' ? { code: 'missing', path, wanted } : { code: 'invalid', path, wanted, found };
  };
  const refusals: Refusal[] = [];
  if (line.description.trim() === '') refusals.push(at('description', 'say-what-is-supplied', line.description));
  if (quantity === null) refusals.push(at('quantity', 'give-quantity', line.quantity));
  if (unitPrice === null) refusals.push(at('price', 'give-price', line.price));
  if (discount === null)
    refusals.push(at('discount', { what: 'discount', decimals: exponentOf(currency) }, line.discount));
  if (line.deferral !== undefined && !isDeferral(line.deferral)) refusals.push(at('deferral', 'give-deferral', 'days'));
  if (line.taxCode === '') refusals.push(at('taxCode', 'choose-tax-code-of-line', ''));
  return refusals;
}

/** What keeps an allowance or charge from being issued, by field. */
export function adjustmentRefusals(adjustment: DraftAdjustment, index: number, currency: Currency): Refusal[] {
  const path = `adjustments[${index}]`;
  const refusals: Refusal[] = [];
  if (adjustment.text.trim() === '')
    refusals.push({
      code: 'missing',
      path: `${path}.text`,
      wanted: { what: 'say-what-it-is-for', kind: adjustment.kind },
    });
  const figure = readDiscount(adjustment.amount, currency);
  if (figure === null || figure === undefined)
    refusals.push({
      code: adjustment.amount.trim() === '' ? 'missing' : 'invalid',
      path: `${path}.amount`,
      wanted: { what: 'percentage-or-amount-of', decimals: exponentOf(currency) },
    });
  if (!adjustment.spread && adjustment.taxCode === '')
    refusals.push({ code: 'missing', path: `${path}.taxCode`, wanted: 'choose-its-tax-code' });
  return refusals;
}
