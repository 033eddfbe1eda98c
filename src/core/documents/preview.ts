import type { Currency } from '@/core/kernel/currency';
import type { Minor } from '@/core/kernel/money';
import type { Customer } from '@/core/parties/customer';
import type { CalcInput, CalcLine, CalcResult, LineResult } from '@/core/tax/calcTypes';
import { calculate } from '@/core/tax/calculate';
import { type Computed, calcInputOf, type FrozenTax, type FrozenWithholding, type HomeRate } from './content';
import type { Draft, DraftLine } from './draft';
import { homeRateOf, isRefusal } from './draftRate';
import { type ChangedTax, draftTaxes, liveOverrides } from './draftTaxes';
import { traitsOfDraft } from './kinds';
import { datesOf } from './lineTax';
import { calcAdjustmentOf, calcLineOf, calcOverrideOf, currencyOf } from './readLine';
import { registrationFor, roundingIn, type Setting } from './setting';
import { withholdingOn } from './withhold';

/** The figures of a draft as far as it is written. */
export interface Preview {
  readonly currency: Currency;
  /** The rate it counts with in the books; undefined in home currency and while none is known. */
  readonly home: HomeRate | undefined;
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

function calcLine(line: DraftLine, currency: Currency): CalcLine | null {
  const known = read.get(line);
  if (known?.currency === currency) return known.line;
  const fresh = calcLineOf(line, currency);
  read.set(line, { currency, line: fresh });
  return fresh;
}

/** What can be computed of a draft's lines, charges and typed taxes with these taxes. */
function inputOf(draft: Draft, content: Computed): CalcInput {
  const { currency, taxes } = content;
  const known = new Set(taxes.map((tax) => tax.code));
  return {
    ...calcInputOf(content),
    lines: draft.lines.flatMap((line) => {
      const calc = calcLine(line, currency);
      return calc === null || !known.has(calc.tax) ? [] : [calc];
    }),
    adjustments: draft.adjustments.flatMap((adjustment) => {
      const calc = calcAdjustmentOf(adjustment, currency);
      return calc === null || (calc.tax !== undefined && !known.has(calc.tax)) ? [] : [calc];
    }),
    overrides: liveOverrides(draft, taxes).flatMap(({ override }) => calcOverrideOf(override, currency) ?? []),
  };
}

/** What a draft comes to by the taxes it holds, without looking at the set-up: for lists. */
export function heldTotal(draft: Draft, homeCurrency: Currency): Minor {
  const currency = currencyOf(draft, homeCurrency);
  const taxes = draft.held?.taxes ?? [];
  return calculate(inputOf(draft, { currency, priceMode: draft.priceMode, taxes, lines: [] })).totals.payable;
}

/** Computes what can be computed; lines still half-filled are left out. */
export function preview(draft: Draft, customer: Customer | null, setting: Setting): Preview {
  const { taxPoint } = datesOf(draft);
  const { taxes, changed } = draftTaxes(draft, customer, setting);
  const registration = registrationFor(setting, draft.registrationId);
  const currency = currencyOf(draft, setting.business.homeCurrency);
  const found = homeRateOf(draft, setting);
  const home = isRefusal(found) ? undefined : found;
  const content: Computed = {
    currency,
    priceMode: draft.priceMode,
    taxes,
    lines: [],
    ...(home !== undefined && { home }),
    ...(registration && { rounding: roundingIn(registration, currency, draft, setting) }),
  };
  const plain = inputOf(draft, content);
  const figures = calculate(plain);
  const withholding =
    taxPoint === null || !traitsOfDraft(draft.kind).posts
      ? []
      : withholdingOn(customer, setting, taxPoint, figures, home);
  const input =
    withholding.length === 0 ? plain : { ...plain, withholding: calcInputOf({ ...content, withholding }).withholding };
  return {
    currency,
    home,
    input,
    figures: input === plain ? figures : calculate(input),
    taxes,
    changed,
    withholding,
    byLine: new Map(figures.lines.map((line) => [line.id, line])),
  };
}
