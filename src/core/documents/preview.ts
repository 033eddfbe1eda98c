import type { Currency } from '@/core/kernel/currency';
import { grouped } from '@/core/kernel/grouped';
import type { Minor } from '@/core/kernel/money';
import type { Customer } from '@/core/parties/customer';
import type { CalcInput, CalcLine, CalcResult, LineResult } from '@/core/tax/calcTypes';
import { calculate } from '@/core/tax/calculate';
import { calcInputOf, type FrozenTax, type FrozenWithholding } from './content';
import type { Draft, DraftLine } from './draft';
import { type ChangedTax, draftTaxes } from './draftTaxes';
import { datesOf } from './lineTax';
import { calcLineOf } from './readLine';
import { registrationFor, type Setting } from './setting';
import { withholdingOn } from './withhold';

/** The figures of a draft as far as it is written. */
export interface Preview {
  readonly input: CalcInput;
  readonly figures: CalcResult;
  readonly taxes: readonly FrozenTax[];
  readonly changed: readonly ChangedTax[];
  readonly withholding: readonly FrozenWithholding[];
  /** Result by line id; lines that can't be computed yet are missing. */
  readonly byLine: ReadonlyMap<string, LineResult>;
}

/** Reads lines once: typing changes one line of many, and the others keep their reading. */
const read = new WeakMap<DraftLine, { currency: string; line: CalcLine | null }>();

function calcLine(line: DraftLine, setting: Setting): CalcLine | null {
  const currency = setting.business.homeCurrency;
  const known = read.get(line);
  if (known?.currency === currency) return known.line;
  const fresh = calcLineOf(line, currency);
  read.set(line, { currency, line: fresh });
  return fresh;
}

/** What a draft comes to by the taxes it holds, without looking at the set-up: for lists. */
export function heldTotal(draft: Draft, currency: Currency): Minor {
  const taxes = draft.held?.taxes ?? [];
  const known = new Set(taxes.map((tax) => tax.code));
  const lines = draft.lines.flatMap((line) => {
    const calc = calcLineOf(line, currency);
    return calc === null || !known.has(calc.tax) ? [] : [calc];
  });
  const input = calcInputOf({ currency, priceMode: draft.priceMode, taxes, lines: [] });
  return calculate({ ...input, lines }).totals.payable;
}

/** Computes what can be computed; lines still half-filled are left out. */
export function preview(draft: Draft, customer: Customer | null, setting: Setting): Preview {
  const { taxPoint } = datesOf(draft);
  const { taxes, changed } = draftTaxes(draft, customer, setting);
  const known = grouped(taxes, (tax) => tax.code);
  const lines = draft.lines.flatMap((line) => {
    const read = calcLine(line, setting);
    return read === null || !known.has(read.tax) ? [] : [read];
  });
  const rounding = registrationFor(setting, draft.registrationId)?.rounding;
  const content = {
    currency: setting.business.homeCurrency,
    priceMode: draft.priceMode,
    taxes,
    lines: [],
    ...(rounding && { rounding }),
  };
  const input: CalcInput = { ...calcInputOf(content), lines };
  const figures = calculate(input);
  const byLine = new Map(figures.lines.map((line) => [line.id, line]));
  const withholding = taxPoint === null ? [] : withholdingOn(customer, setting, taxPoint, figures);
  if (withholding.length === 0) return { input, figures, taxes, changed, withholding, byLine };
  const withheld: CalcInput = { ...calcInputOf({ ...content, withholding }), lines };
  return { input: withheld, figures: calculate(withheld), taxes, changed, withholding, byLine };
}
