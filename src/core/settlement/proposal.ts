import { type IssuedDocument, owedOf } from '@/core/documents/issued';
import type { IsoDate } from '@/core/kernel/date';
import { type Minor, minor, minus, NOTHING, plus, total } from '@/core/kernel/money';
import { halfUp } from '@/core/kernel/rounding';
import { discountOffer } from './discount';
import { expectedWith } from './expected';
import type { Withheld } from './withholding';

/** A document that a receipt can settle, with what was kept back of it so far. */
export interface Debt {
  readonly document: IssuedDocument;
  readonly withheld: readonly Pick<Withheld, 'typeId' | 'amount' | 'voidOn'>[];
}

/** What is proposed for one document: money, tax kept back by type, discount. */
export interface Proposal {
  readonly money: Minor;
  readonly withheld: readonly { readonly typeId: string; readonly amount: Minor }[];
  readonly discount: Minor;
}

const offered = ({ document }: Debt, on: IsoDate): Minor => {
  const offer = discountOffer(document);
  return offer === null || on > offer.until ? NOTHING : offer.most;
};

/** What is expected to be kept back with what settles `settling`, never more than that. */
function keptBack({ document, withheld }: Debt, settling: Minor): Proposal['withheld'] {
  let room = settling;
  return expectedWith(document, settling, withheld).flatMap(({ type, amount }) => {
    const part = amount < room ? amount : room;
    room = minus(room, part);
    return part > 0n ? [{ typeId: type.id, amount: part }] : [];
  });
}

const sumOf = (withheld: Proposal['withheld']): Minor => total(withheld.map(({ amount }) => amount));

/** What settles a document whole on a day: the discount that is still offered, what is expected to be kept back, and money. */
export function wholeProposal(debt: Debt, on: IsoDate): Proposal {
  const { open } = debt.document;
  const discount = offered(debt, on);
  const kept = keptBack(debt, open);
  const room = minus(open, discount);
  // Where tax takes all that is open, nothing is left to be discounted.
  if (sumOf(kept) > room) return { money: minus(open, sumOf(kept)), withheld: kept, discount: NOTHING };
  return { money: minus(room, sumOf(kept)), withheld: kept, discount };
}

/** What goes with an amount of money that settles a part of a document; all that is left where the money reaches that far. */
export function proposalFor(debt: Debt, money: Minor, on: IsoDate): Proposal {
  const all = wholeProposal(debt, on);
  if (money === all.money) return all;
  const { document } = debt;
  const owed = owedOf(document.content, document.figures);
  const kept = sumOf(all.withheld);
  if (money <= 0n || money > all.money || owed <= kept) {
    const room = minus(document.open, money);
    return { money, withheld: room >= kept ? all.withheld : [], discount: NOTHING };
  }
  // What is settled is money and tax: money ÷ (1 − kept ÷ owed).
  const settling = minor(halfUp({ n: money * owed, d: owed - kept }));
  const withheld = keptBack(debt, settling > document.open ? document.open : settling);
  const fits = plus(money, sumOf(withheld)) <= document.open;
  return { money, withheld: fits ? withheld : [], discount: NOTHING };
}

/** The order in which debts are filled. */
export type FillOrder = 'oldest' | 'newest';

/**
 * Fills debts with money by their due dates, each whole while it lasts, the last in part. What is left over is returned
 * with them.
 */
export function fill(
  debts: readonly Debt[],
  money: Minor,
  on: IsoDate,
  order: FillOrder = 'oldest',
): { readonly proposals: ReadonlyMap<string, Proposal>; readonly left: Minor } {
  const key = ({ document: { dueDate, number } }: Debt) => `${dueDate} ${number}`;
  const sorted = [...debts]
    .filter(({ document }) => document.open > 0n)
    .sort((a, b) => (key(a) < key(b) ? -1 : 1) * (order === 'oldest' ? 1 : -1));
  let left = money;
  const proposals = new Map<string, Proposal>();
  for (const debt of sorted) {
    if (left <= 0n) break;
    const all = wholeProposal(debt, on);
    const one = all.money <= left ? all : proposalFor(debt, left, on);
    proposals.set(debt.document.id, one);
    left = minus(left, one.money);
  }
  return { proposals, left };
}
