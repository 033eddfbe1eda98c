import { grouped } from '@/core/kernel/grouped';
import type { CalcInput, CalcLine, CalcResult, LineResult } from '@/core/tax/calcTypes';
import { calculate } from '@/core/tax/calculate';
import { calcInputOf, type FrozenTax } from './content';
import type { Draft, DraftLine } from './draft';
import { datesOf, taxesOn } from './freeze';
import { calcLineOf } from './readLine';
import type { Setting } from './setting';

/** The figures of a draft as far as it is written. */
export interface Preview {
  readonly input: CalcInput;
  readonly figures: CalcResult;
  readonly taxes: readonly FrozenTax[];
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

/** Computes what can be computed; lines still half-filled are left out. */
export function preview(draft: Draft, setting: Setting): Preview {
  const { taxPoint } = datesOf(draft);
  const taxes = taxPoint === null ? [] : taxesOn(draft, setting, taxPoint);
  const known = grouped(taxes, (tax) => tax.code);
  const lines = draft.lines.flatMap((line) => {
    const read = calcLine(line, setting);
    return read === null || !known.has(read.tax) ? [] : [read];
  });
  const input: CalcInput = {
    ...calcInputOf({ currency: setting.business.homeCurrency, priceMode: draft.priceMode, taxes, lines: [] }),
    lines,
  };
  const figures = calculate(input);
  return { input, figures, taxes, byLine: new Map(figures.lines.map((line) => [line.id, line])) };
}
