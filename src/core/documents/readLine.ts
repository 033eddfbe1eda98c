import { type Currency, exponentOf, isCurrency } from '@/core/kernel/currency';
import { type Decimal, decimalsOf, readTypedDecimal } from '@/core/kernel/decimal';
import { readMoney } from '@/core/kernel/money';
import type { Refusal } from '@/core/kernel/result';
import type { CalcAdjustment, CalcLine, CalcOverride, Discount } from '@/core/tax/calcTypes';
import { isPrice } from '@/core/tax/price';
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
  const at = (field: string, expected: string, found: string): Refusal => ({
    code: found.trim() === '' ? 'missing' : 'invalid',
    path: `lines[${index}].${field}`,
    expected,
    ...(found.trim() !== '' && { found }),
  });
  const refusals: Refusal[] = [];
  if (line.description.trim() === '')
    refusals.push(at('description', 'Say what is supplied on this line.', line.description));
  if (quantity === null) refusals.push(at('quantity', 'Give a quantity such as 3 or 1.5.', line.quantity));
  if (unitPrice === null)
    refusals.push(at('price', 'Give a price such as 12.50, with at most ten decimals.', line.price));
  if (discount === null)
    refusals.push(
      at(
        'discount',
        `Give a discount as 10% or as an amount with at most ${exponentOf(currency)} decimals.`,
        line.discount,
      ),
    );
  if (line.taxCode === '') refusals.push(at('taxCode', 'Choose the tax code of this line.', ''));
  return refusals;
}

/** What keeps an allowance or charge from being issued, by field. */
export function adjustmentRefusals(adjustment: DraftAdjustment, index: number, currency: Currency): Refusal[] {
  const path = `adjustments[${index}]`;
  const refusals: Refusal[] = [];
  if (adjustment.text.trim() === '')
    refusals.push({ code: 'missing', path: `${path}.text`, expected: `Say what this ${adjustment.kind} is for.` });
  const figure = readDiscount(adjustment.amount, currency);
  if (figure === null || figure === undefined)
    refusals.push({
      code: adjustment.amount.trim() === '' ? 'missing' : 'invalid',
      path: `${path}.amount`,
      expected: `Give a percentage such as 10% or an amount with at most ${exponentOf(currency)} decimals.`,
    });
  if (!adjustment.spread && adjustment.taxCode === '')
    refusals.push({ code: 'missing', path: `${path}.taxCode`, expected: 'Choose its tax code.' });
  return refusals;
}
