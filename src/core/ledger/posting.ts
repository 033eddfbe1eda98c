import { type DocumentKind, signed } from '@/core/documents/content';
import { type Minor, NOTHING, negated, plus } from '@/core/kernel/money';
import type { CalcResult } from '@/core/tax/calcTypes';
import { type Account, accountFor } from './account';
import type { Side } from './entry';

/** What posting looks at in a document; a draft can show it before it is frozen. */
export interface PostedContent {
  readonly kind: DocumentKind;
  readonly number: string;
  readonly buyer: { readonly name: string };
  readonly taxes: readonly { readonly code: string; readonly name: string }[];
  readonly lines: readonly { readonly account: string }[];
}

/**
 * What a document posts: receivables for what is payable, income by account, output tax by code.
 * A credit note posts the mirror. `taxPeriodId` marks the tax lines with the period that reports them.
 */
export function documentSides(
  content: PostedContent,
  figures: CalcResult,
  chart: readonly Account[],
  taxPeriodId: string,
): readonly Side[] {
  const income = new Map<string, Minor>();
  content.lines.forEach((line, i) => {
    income.set(line.account, plus(income.get(line.account) ?? NOTHING, figures.lines[i]?.net ?? NOTHING));
  });
  const credit = (amount: Minor) => negated(signed(content, amount));
  const label = `${content.number} ${content.buyer.name}`;
  return [
    { account: accountFor(chart, 'receivables'), amount: signed(content, figures.totals.payable), text: label },
    ...[...income].map(([account, amount]): Side => ({ account, amount: credit(amount), text: label })),
    ...figures.groups.map(
      (group): Side => ({
        account: accountFor(chart, 'output-tax'),
        amount: credit(group.taxAmount),
        text: `${content.number} ${taxName(content, group.tax)}`,
        taxPeriodId,
        taxCode: group.tax,
      }),
    ),
  ];
}

function taxName(content: PostedContent, code: string): string {
  return content.taxes.find((tax) => tax.code === code)?.name ?? code;
}

/** Money in: bank up, receivables down. */
export function receiptSides(amount: Minor, bankAccount: string, chart: readonly Account[]): readonly Side[] {
  return [
    { account: bankAccount, amount },
    { account: accountFor(chart, 'receivables'), amount: negated(amount) },
  ];
}

/** Filing a return: its tax moves from output tax to tax payable. */
export function filingSides(tax: Minor, chart: readonly Account[], taxPeriodId: string): readonly Side[] {
  return [
    { account: accountFor(chart, 'output-tax'), amount: tax, taxPeriodId },
    { account: accountFor(chart, 'tax-payable'), amount: negated(tax), taxPeriodId },
  ];
}
