import type { CountedFigures } from '@/core/documents/bookFigures';
import { type CountedPart, type FrozenWithholding, signed } from '@/core/documents/content';
import type { Deferral } from '@/core/documents/deferral';
import type { DocumentKind } from '@/core/documents/kinds';
import { netsByAccount } from '@/core/documents/netsByAccount';
import { withheldOnIssue } from '@/core/documents/withhold';
import { grouped } from '@/core/kernel/grouped';
import { type Minor, minor, minus, NOTHING, negated, total } from '@/core/kernel/money';
import type { PaymentMethod } from '@/core/parties/paymentMethod';
import type { CalcResult } from '@/core/tax/calcTypes';
import type { Registration } from '@/core/tax/registration';
import { type Account, type AccountRole, accountFor, moneyAccountFor } from '../account';
import type { Side } from '../entry';
import { byAccount, type DeferredNet } from './deferral';
import { notYetDueAccountOf, outputAccountOf, type TaxPosting } from './taxAccounts';

/** What posting looks at in a document; a draft can show it before it is frozen. */
export interface PostedContent {
  readonly kind: DocumentKind;
  readonly number: string;
  readonly buyer: { readonly name: string };
  readonly taxes: readonly { readonly code: string; readonly name: string }[];
  readonly lines: readonly { readonly account: string; readonly deferral?: Deferral }[];
  readonly adjustments?: readonly { readonly id: string; readonly account: string }[];
  readonly withholding?: readonly FrozenWithholding[];
  readonly counted?: readonly CountedPart[];
  /** How takings were paid. */
  readonly paidBy?: PaymentMethod;
}

function taxName(content: PostedContent, code: string): string {
  return content.taxes.find((tax) => tax.code === code)?.name ?? code;
}

/**
 * What a document posts in home currency, its own currency beside it: receivables for what is
 * payable, a claim for what is withheld already, income by account, allowances and charges, output
 * tax by code, and the difference of a rounded total. Takings go to where the money is instead of receivables;
 * an opening item stands against opening balances. A credit note posts the mirror. Revenue that is deferred goes to
 * deferred income instead; of a credit note that is what it takes back of it.
 */
export function documentSides(
  content: PostedContent,
  figures: CalcResult,
  counted: CountedFigures,
  chart: readonly Account[],
  { outputAccount, taxPeriodId }: TaxPosting,
  takenBack: readonly DeferredNet[] = [],
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
  const deferred = byAccount(content.kind === 'invoice' ? deferredNets(content, figures, counted) : takenBack);
  const income = [...grouped(netsByAccount(content, figures, counted), ({ account }) => account)].map(
    ([account, nets]) => {
      const { home, own } = deferred.get(account) ?? { home: NOTHING, own: NOTHING };
      return {
        account,
        home: minus(total(nets.map((n) => n.home)), home),
        own: minus(total(nets.map((n) => n.own)), own),
      };
    },
  );
  const later = [...deferred.values()];
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
    ...only(
      'deferred-income',
      negated(total(later.map(({ home }) => home))),
      negated(total(later.map(({ own }) => own))),
    ),
    ...(content.kind === 'opening' ? [] : counted.groups).map((group, i) =>
      side(outputAccount, negated(group.taxAmount), negated(figures.groups[i]?.taxAmount ?? NOTHING), {
        text: `${content.number} ${taxName(content, group.tax)}`,
        taxPeriodId,
        taxCode: group.tax,
      }),
    ),
  ];
}

/** Net of the lines whose revenue belongs to other days than that of the invoice. */
function deferredNets(content: PostedContent, figures: CalcResult, counted: CountedFigures): readonly DeferredNet[] {
  return content.lines.flatMap(({ account, deferral }, i) =>
    deferral === undefined
      ? []
      : [{ account, home: counted.lineNets[i] ?? NOTHING, own: figures.lines[i]?.net ?? NOTHING }],
  );
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
  takenBack: readonly DeferredNet[] = [],
): readonly Side[] {
  const accountOf = basis === 'on-payment' ? notYetDueAccountOf : outputAccountOf;
  const posting = { outputAccount: accountOf(registration, chart), taxPeriodId };
  return documentSides(content, figures, counted, chart, posting, takenBack);
}
