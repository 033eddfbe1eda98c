import { bookFigures } from '@/core/documents/bookFigures';
import type { Draft } from '@/core/documents/draft';
import { traitsOfDraft } from '@/core/documents/kinds';
import type { Preview } from '@/core/documents/preview';
import { withheldOnIssue } from '@/core/documents/withhold';
import { NOTHING, negated, total } from '@/core/kernel/money';
import { type Account, accountFor, moneyAccountFor } from '@/core/ledger/account';
import type { Side } from '@/core/ledger/entry';
import { type PostedContent, sidesUnder } from '@/core/ledger/posting/document';
import { receiptSides } from '@/core/ledger/posting/receipt';
import { outputAccountOf } from '@/core/ledger/posting/taxAccounts';
import type { Registration } from '@/core/tax/registration';

/** What the receipt of a cash sale posts beside its invoice: the money, and the tax that falls due with it. */
function receiptOf(draft: Draft, sides: readonly Side[], registration: Registration, chart: readonly Account[]) {
  const receivables = accountFor(chart, 'receivables');
  const owed = total(sides.filter(({ account }) => account === receivables).map(({ amount }) => amount));
  if (owed <= 0n) return [];
  const money = { account: moneyAccountFor(chart, draft.paidBy), amount: owed, charge: NOTHING, home: owed };
  const paid = receiptSides([money], NOTHING, chart);
  const taxes = registration.basis === 'on-payment' ? sides.filter(({ taxCode }) => taxCode !== undefined) : [];
  const released = taxes.flatMap((side): readonly Side[] => [
    { account: side.account, amount: negated(side.amount) },
    { ...side, account: outputAccountOf(registration, chart) },
  ]);
  return [...paid, ...released];
}

/**
 * What issuing a draft would post, in home currency, as far as the draft is written; `shown` are its figures. Nothing for
 * a quote. Its periods are not told.
 */
export function draftSides(
  draft: Draft,
  shown: Preview,
  registration: Registration | undefined,
  chart: readonly Account[],
): readonly Side[] {
  if (!traitsOfDraft(draft.kind).posts || registration === undefined) return [];
  const lineOf = new Map(draft.lines.map((line) => [line.id, line]));
  const content: PostedContent = {
    kind: 'invoice',
    number: '',
    buyer: { name: '' },
    taxes: shown.taxes,
    lines: shown.figures.lines.map(({ id }) => {
      const { account = '', deferral } = lineOf.get(id) ?? {};
      return deferral === undefined || draft.kind === 'cash-sale' ? { account } : { account, deferral };
    }),
    adjustments: draft.adjustments,
    withholding: shown.withholding,
  };
  const counted = bookFigures(shown.home === undefined ? {} : { home: shown.home }, shown.figures);
  const { payable } = shown.figures.totals;
  // A document of which nothing is payable is settled as it is issued.
  const open = payable - withheldOnIssue(shown.withholding ?? [], shown.figures) !== 0n;
  const basis = open ? registration.basis : 'on-issue';
  const sides = sidesUnder(registration, basis, content, shown.figures, counted, chart, '');
  return traitsOfDraft(draft.kind).paidAtOnce ? [...sides, ...receiptOf(draft, sides, registration, chart)] : sides;
}
