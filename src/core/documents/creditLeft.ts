import { type Minor, minus, NOTHING, plus, total } from '@/core/kernel/money';
import type { CalcResult } from '@/core/tax/calcTypes';
import { bookFigures, type CountedFigures, filingFigures } from './bookFigures';
import type { Content } from './content';
import type { IssuedDocument } from './issued';
import { type AccountNet, netsByAccount } from './netsByAccount';

/** Net, taxes and accounts of one tax code in one currency. */
export interface Counts {
  readonly net: Minor;
  /** In the order of the code's components. */
  readonly components: readonly Minor[];
}

/** Every figure of one tax code that counts somewhere, of a document or of what is left of it. */
export interface GroupCounts extends Counts {
  readonly tax: string;
  /** What lines and charges come to, in the document's price mode. */
  readonly value: Minor;
  readonly gross: Minor;
  /** Families of the components, in their order. */
  readonly families: readonly string[];
  readonly accounts: readonly AccountNet[];
  readonly home: Counts;
  readonly filing: Counts;
}

/** What is left of an invoice after its credit notes. */
export interface CreditLeft {
  readonly groups: readonly GroupCounts[];
  readonly gross: Minor;
  readonly rounding: Minor;
  /** By withholding type: what is withheld in the document's currency and in home currency. */
  readonly withheld: ReadonlyMap<string, { readonly own: Minor; readonly home: Minor }>;
}

const countsIn = ({ groups }: CountedFigures, tax: string): Counts => {
  const found = groups.find((group) => group.tax === tax);
  return { net: found?.net ?? NOTHING, components: found?.components ?? [] };
};

/** Figures of a document by tax code; none of them signed. */
function groupCounts(content: Content, figures: CalcResult): readonly GroupCounts[] {
  const home = bookFigures(content, figures);
  const filing = filingFigures(content, figures);
  const nets = netsByAccount(content, figures, home);
  return figures.groups.map((group) => ({
    tax: group.tax,
    value: content.priceMode === 'net' ? group.net : group.gross,
    net: group.net,
    gross: group.gross,
    components: group.components.map(({ amount }) => amount),
    families: group.components.map(({ family }) => family),
    accounts: nets.filter(({ tax }) => tax === group.tax),
    home: countsIn(home, group.tax),
    filing: countsIn(filing, group.tax),
  }));
}

const lessCounts = (from: Counts, taken: Counts): Counts => ({
  net: minus(from.net, taken.net),
  components: from.components.map((amount, i) => minus(amount, taken.components[i] ?? NOTHING)),
});

/** Accounts of both; what only the second names is left below nothing. */
function lessAccounts(from: readonly AccountNet[], taken: readonly AccountNet[]): readonly AccountNet[] {
  const left = new Map(from.map((net) => [net.account, net]));
  for (const { tax, account, own, home } of taken) {
    const before = left.get(account);
    left.set(account, {
      tax,
      account,
      own: minus(before?.own ?? NOTHING, own),
      home: minus(before?.home ?? NOTHING, home),
    });
  }
  return [...left.values()];
}

const less = (from: GroupCounts, taken: GroupCounts): GroupCounts => ({
  ...from,
  ...lessCounts(from, taken),
  value: minus(from.value, taken.value),
  gross: minus(from.gross, taken.gross),
  accounts: lessAccounts(from.accounts, taken.accounts),
  home: lessCounts(from.home, taken.home),
  filing: lessCounts(from.filing, taken.filing),
});

function withheldBy({ content, figures }: Pick<IssuedDocument, 'content' | 'figures'>) {
  const { withheld } = bookFigures(content, figures);
  return figures.withholding.map(({ id, amount }, i) => ({ id, own: amount, home: withheld[i] ?? NOTHING }));
}

/** What credit notes have left of an invoice, in every figure that counts. */
export function creditLeft(invoice: IssuedDocument, notes: readonly IssuedDocument[]): CreditLeft {
  const taken = notes.flatMap((note) => groupCounts(note.content, note.figures));
  const groups = groupCounts(invoice.content, invoice.figures).map((group) =>
    taken.filter(({ tax }) => tax === group.tax).reduce(less, group),
  );
  const withheld = new Map(withheldBy(invoice).map(({ id, own, home }) => [id, { own, home }]));
  for (const { id, own, home } of notes.flatMap(withheldBy)) {
    const before = withheld.get(id);
    if (before !== undefined) withheld.set(id, { own: minus(before.own, own), home: minus(before.home, home) });
  }
  return {
    groups,
    gross: total(groups.map(({ gross }) => gross)),
    rounding: notes.reduce(
      (left, { figures }) => minus(left, figures.totals.rounding),
      invoice.figures.totals.rounding,
    ),
    withheld,
  };
}

/** What can still be credited of an invoice, with tax, in its currency. */
export function leftToCredit(invoice: IssuedDocument, notes: readonly IssuedDocument[]): Minor {
  return creditLeft(invoice, notes).gross;
}

/** True where an amount goes beyond what is left, on the side on which something is left. */
export const isBeyond = (amount: bigint, left: bigint): boolean => (left >= 0n ? amount > left : amount < left);

/**
 * Parts that add up to `sum`, as near to `wanted` as what is left of each allows: what goes beyond one
 * moves to those that have room.
 */
export function fitted(wanted: readonly Minor[], left: readonly Minor[], sum: Minor): readonly Minor[] {
  const parts = wanted.map((amount, i) => (isBeyond(amount, left[i] ?? 0n) ? (left[i] ?? NOTHING) : amount));
  let rest = minus(sum, total(parts));
  parts.forEach((part, i) => {
    const room = minus(left[i] ?? NOTHING, part);
    if (rest === 0n || rest > 0n !== room > 0n || room === 0n) return;
    const moved = isBeyond(rest, room) ? room : rest;
    parts[i] = plus(part, moved);
    rest = minus(rest, moved);
  });
  const [first] = parts;
  if (rest !== 0n && first !== undefined) parts[0] = plus(first, rest);
  return parts;
}
