import { type DocumentKind, type FrozenWithholding, signed } from '@/core/documents/content';
import { withheldOnIssue } from '@/core/documents/withhold';
import { type Minor, minor, NOTHING, negated, plus } from '@/core/kernel/money';
import type { CalcResult } from '@/core/tax/calcTypes';
import type { Registration } from '@/core/tax/registration';
import { type Account, type AccountRole, accountFor } from './account';
import type { Side } from './entry';

/** What posting looks at in a document; a draft can show it before it is frozen. */
export interface PostedContent {
  readonly kind: DocumentKind;
  readonly number: string;
  readonly buyer: { readonly name: string };
  readonly taxes: readonly { readonly code: string; readonly name: string }[];
  readonly lines: readonly { readonly account: string }[];
  readonly withholding?: readonly FrozenWithholding[];
}

/** Where a registration's tax is posted. */
export interface TaxPosting {
  readonly outputAccount: string;
  /** Marks the tax lines with the period that reports them. */
  readonly taxPeriodId: string;
}

/** The account that holds tax of unpaid documents on payment basis. */
export function notYetDueAccountOf(registration: Pick<Registration, 'accounts'>, chart: readonly Account[]): string {
  return registration.accounts.notYetDue || accountFor(chart, 'tax-not-yet-due');
}

/** The output tax account of a registration. */
export function outputAccountOf(registration: Pick<Registration, 'accounts'>, chart: readonly Account[]): string {
  return registration.accounts.output || accountFor(chart, 'output-tax');
}

/**
 * What a document posts: receivables for what is payable, a claim for what is withheld already,
 * income by account, output tax by code, and the difference of a rounded total. A credit note posts
 * the mirror.
 */
export function documentSides(
  content: PostedContent,
  figures: CalcResult,
  chart: readonly Account[],
  { outputAccount, taxPeriodId }: TaxPosting,
): readonly Side[] {
  const income = new Map<string, Minor>();
  content.lines.forEach((line, i) => {
    income.set(line.account, plus(income.get(line.account) ?? NOTHING, figures.lines[i]?.net ?? NOTHING));
  });
  const credit = (amount: Minor) => negated(signed(content, amount));
  const label = `${content.number} ${content.buyer.name}`;
  const withheld = minor(withheldOnIssue(content.withholding ?? [], figures));
  const { payable, rounding } = figures.totals;
  const only = (role: Exclude<AccountRole, ''>, amount: Minor): readonly Side[] =>
    amount === NOTHING ? [] : [{ account: accountFor(chart, role), amount, text: label }];
  return [
    { account: accountFor(chart, 'receivables'), amount: signed(content, minor(payable - withheld)), text: label },
    ...only('withholding-claims', signed(content, withheld)),
    ...only('rounding', credit(rounding)),
    ...[...income].map(([account, amount]): Side => ({ account, amount: credit(amount), text: label })),
    ...figures.groups.map(
      (group): Side => ({
        account: outputAccount,
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

/** Tax that falls due with a payment: from output tax not yet due to output tax, by code. */
export function releaseSides(
  entries: readonly { readonly code: string; readonly codeName: string; readonly tax: Minor }[],
  label: string,
  notYetDueAccount: string,
  { outputAccount, taxPeriodId }: TaxPosting,
): readonly Side[] {
  const byCode = new Map<string, { name: string; tax: Minor }>();
  for (const { code, codeName, tax } of entries)
    byCode.set(code, { name: codeName, tax: plus(byCode.get(code)?.tax ?? NOTHING, tax) });
  return [...byCode].flatMap(([code, { name, tax }]): readonly Side[] => [
    { account: notYetDueAccount, amount: tax, text: `${label} ${name}` },
    { account: outputAccount, amount: negated(tax), text: `${label} ${name}`, taxPeriodId, taxCode: code },
  ]);
}

/**
 * Filing a return: its tax moves from output tax to tax payable. What the return rounds away, when
 * it is given in whole units, goes to rounding differences.
 */
export function filingSides(
  tax: Minor,
  payable: Minor,
  accounts: { readonly output: string; readonly payable: string },
  chart: readonly Account[],
  taxPeriodId: string,
): readonly Side[] {
  const sides: Side[] = [
    { account: accounts.output, amount: tax, taxPeriodId },
    { account: accounts.payable, amount: negated(payable), taxPeriodId },
  ];
  const difference = minor(payable - tax);
  return difference === NOTHING ? sides : [...sides, { account: accountFor(chart, 'rounding'), amount: difference }];
}
