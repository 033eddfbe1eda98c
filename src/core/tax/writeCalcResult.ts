import type { Currency } from '@/core/kernel/currency';
import { type Minor, writeMoney } from '@/core/kernel/money';
import type { CalcResult } from './calcTypes';

/** The result as the `calc` command prints it: amounts as decimal text of the currency. */
export function writeCalcResult(result: CalcResult) {
  const money = (amount: Minor, currency: Currency = result.currency) => writeMoney(amount, currency);
  const { totals, home } = result;
  return {
    lines: result.lines.map((line) => ({
      id: line.id,
      extension: money(line.extension),
      discount: money(line.discount),
      net: money(line.net),
      tax: money(line.taxAmount),
      gross: money(line.gross),
    })),
    groups: result.groups.map((group) => ({
      tax: group.tax,
      net: money(group.net),
      taxAmount: money(group.taxAmount),
      gross: money(group.gross),
      components: group.components.map(({ id, amount }) => ({ id, amount: money(amount) })),
    })),
    totals: {
      lineValue: money(totals.lineValue),
      allowances: money(totals.allowances),
      charges: money(totals.charges),
      net: money(totals.net),
      tax: money(totals.taxAmount),
      gross: money(totals.gross),
      rounding: money(totals.rounding),
      prepaid: money(totals.prepaid),
      payable: money(totals.payable),
      withheld: money(totals.withheld),
      expectedCash: money(totals.expectedCash),
    },
    withholding: result.withholding.map(({ id, base, amount }) => ({ id, base: money(base), amount: money(amount) })),
    ...(home && {
      home: {
        currency: home.currency,
        gross: money(home.gross, home.currency),
        tax: money(home.taxAmount, home.currency),
        net: money(home.net, home.currency),
        groups: home.groups.map(({ tax, taxAmount }) => ({ tax, taxAmount: money(taxAmount, home.currency) })),
      },
    }),
  };
}
