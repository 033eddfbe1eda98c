import type { CountedFigures } from '@/core/documents/bookFigures';
import { type CountedPart, type FrozenWithholding, signed } from '@/core/documents/content';
import type { DocumentKind } from '@/core/documents/kinds';
import { netsByAccount } from '@/core/documents/netsByAccount';
import { withheldOnIssue } from '@/core/documents/withhold';
import { grouped } from '@/core/kernel/grouped';
import { type Minor, minor, NOTHING, negated, plus, total } from '@/core/kernel/money';
import type { PaymentMethod } from '@/core/parties/paymentMethod';
import type { CalcResult } from '@/core/tax/calcTypes';
import type { Registration } from '@/core/tax/registration';
import { type Account, type AccountRole, accountFor, moneyAccountFor } from './account';
import type { JournalLine, Side } from './entry';

/** What posting looks at in a document; a draft can show it before it is frozen. */
export interface PostedContent {
  readonly kind: DocumentKind;
  readonly number: string;
  readonly buyer: { readonly name: string };
  readonly taxes: readonly { readonly code: string; readonly name: string }[];
  readonly lines: readonly { readonly account: string }[];
  readonly adjustments?: readonly { readonly id: string; readonly account: string }[];
  readonly withholding?: readonly FrozenWithholding[];
  readonly counted?: readonly CountedPart[];
  /** How takings were paid. */
  readonly paidBy?: PaymentMethod;
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
 * What a document posts in home currency, its own currency beside it: receivables for what is
 * payable, a claim for what is withheld already, income by account, allowances and charges, output
 * tax by code, and the difference of a rounded total. Takings go to where the money is instead of receivables;
 * an opening item stands against opening balances. A credit note posts the mirror.
 */
export function documentSides(
  content: PostedContent,
  figures: CalcResult,
  counted: CountedFigures,
  chart: readonly Account[],
  { outputAccount, taxPeriodId }: TaxPosting,
): readonly Side[] {
  const label = `${content.number} ${content.buyer.name}`;
  const abroad = counted.currency !== figures.currency;
  const side = (account: string, amount: Minor, own: Minor, more: Partial<Side> = {}): Side => ({
    account,
    amount: signed(content, amount),
    text: label,
    ...(abroad && { inDocument: { currency: figures.currency, amount: signed(content, own) } }),
    ...more,
  });
  const income = [...grouped(netsByAccount(content, figures, counted), ({ account }) => account)].map(
    ([account, nets]) => ({ account, home: total(nets.map((n) => n.home)), own: total(nets.map((n) => n.own)) }),
  );
  const onIssue = (content.withholding ?? []).map(({ when }) => when === 'on-issue');
  const withheldHome = total(counted.withheld.filter((_, i) => onIssue[i]));
  const withheldOwn = minor(withheldOnIssue(content.withholding ?? [], figures));
  const { payable, rounding } = figures.totals;
  const only = (role: Exclude<AccountRole, ''>, amount: Minor, own: Minor): readonly Side[] =>
    amount === NOTHING ? [] : [side(accountFor(chart, role), amount, own)];
  const owing =
    content.kind === 'takings' ? moneyAccountFor(chart, content.paidBy ?? 'bank') : accountFor(chart, 'receivables');
  return [
    side(owing, minor(counted.payable - withheldHome), minor(payable - withheldOwn)),
    ...only('withholding-claims', withheldHome, withheldOwn),
    ...only('rounding', negated(counted.rounding), negated(rounding)),
    ...income.map(({ account, home, own }) => side(account, negated(home), negated(own))),
    ...(content.kind === 'opening' ? [] : counted.groups).map((group, i) =>
      side(outputAccount, negated(group.taxAmount), negated(figures.groups[i]?.taxAmount ?? NOTHING), {
        text: `${content.number} ${taxName(content, group.tax)}`,
        taxPeriodId,
        taxCode: group.tax,
      }),
    ),
  ];
}

/**
 * The sides of a document under its registration: on payment basis its tax is not yet due. `taxPeriodId` is that of the
 * period which reports it, '' while none does.
 */
export function sidesUnder(
  registration: Pick<Registration, 'accounts'>,
  basis: Registration['basis'],
  content: PostedContent,
  figures: CalcResult,
  counted: CountedFigures,
  chart: readonly Account[],
  taxPeriodId: string,
): readonly Side[] {
  const accountOf = basis === 'on-payment' ? notYetDueAccountOf : outputAccountOf;
  return documentSides(content, figures, counted, chart, {
    outputAccount: accountOf(registration, chart),
    taxPeriodId,
  });
}

/** The entry that takes another one back: the same sides, mirrored. */
export function reversalSides(lines: readonly JournalLine[], text: string): readonly Side[] {
  return lines.map(({ account, amount, taxPeriodId, taxCode, inDocument }) => ({
    account,
    amount: negated(amount),
    text,
    taxPeriodId,
    taxCode,
    ...(inDocument && { inDocument: { ...inDocument, amount: negated(inDocument.amount) } }),
  }));
}

/** Moves what settling left over in home currency from receivables to exchange differences. */
export function differenceSides(difference: Minor, text: string, chart: readonly Account[]): readonly Side[] {
  if (difference === NOTHING) return [];
  return [
    { account: accountFor(chart, 'exchange'), amount: difference, text },
    { account: accountFor(chart, 'receivables'), amount: negated(difference), text },
  ];
}

function taxName(content: PostedContent, code: string): string {
  return content.taxes.find((tax) => tax.code === code)?.name ?? code;
}

/**
 * Money in, in home currency: bank up by what it is worth on its day, receivables down by what the
 * documents stood at; the difference is one of exchange.
 */
export function receiptSides(
  amount: Minor,
  relieved: Minor,
  bankAccount: string,
  chart: readonly Account[],
): readonly Side[] {
  const difference = minor(relieved - amount);
  return [
    { account: bankAccount, amount },
    { account: accountFor(chart, 'receivables'), amount: negated(relieved) },
    ...(difference === NOTHING ? [] : [{ account: accountFor(chart, 'exchange'), amount: difference }]),
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
