import { addDays, daysBetween, type IsoDate } from '@/core/kernel/date';
import { type Minor, minor, minus, negated, plus, total } from '@/core/kernel/money';
import { type MatchIndex, type Movement, type OpenDebt, type Paying, waysToPay } from './matchIndex';
import type { StatementLine } from './statement';
import { bareNumber, nameWords, numbersIn } from './tokens';

/** Why something may be what a line is, for its person to read. */
export type MatchReason =
  | { readonly why: 'number' | 'reference'; readonly words: string }
  | { readonly why: 'account' | 'name' | 'part-of-name'; readonly words: string }
  | { readonly why: 'amount' }
  | { readonly why: 'withheld' | 'discount' | 'charge' | 'short' | 'over'; readonly amount: Minor }
  | { readonly why: 'sum'; readonly count: number }
  | { readonly why: 'days'; readonly days: number }
  | { readonly why: 'fee'; readonly amount: Minor }
  | { readonly why: 'rule'; readonly words: string };

/** What of an invoice a line pays. */
export interface DebtPaid extends Paying {
  readonly documentId: string;
  readonly number: string;
}

/** What a line is said to be. */
export type MatchTarget =
  | { readonly kind: 'movements'; readonly movements: readonly Movement[] }
  | {
      readonly kind: 'documents';
      readonly customerId: string;
      readonly paid: readonly DebtPaid[];
      /** What the bank kept back of the payment. */
      readonly charge: Minor;
    }
  | { readonly kind: 'refund'; readonly customerId: string; readonly creditId: string; readonly number: string }
  | { readonly kind: 'tax'; readonly registrationId: string; readonly start: IsoDate; readonly name: string }
  | { readonly kind: 'transfer'; readonly bankAccountId: string; readonly name: string }
  /** Card payments that were paid out, less what the card company kept. */
  | { readonly kind: 'payout'; readonly takings: readonly Movement[]; readonly fee: Minor }
  | { readonly kind: 'account'; readonly account: string };

export interface Suggestion {
  readonly target: MatchTarget;
  /** 0 to 100. */
  readonly score: number;
  readonly reasons: readonly MatchReason[];
  /** It names what it pays, its sum fits, and nothing else comes near. */
  readonly certain: boolean;
}

/** How far a line may lie from what it is. */
export interface MatchWindow {
  /** Days that movements of the book may lie before or behind the line. */
  readonly days: number;
}

export const USUAL_WINDOW: MatchWindow = { days: 30 };

/** Most that a bank usually keeps back: 25.00, or one in a hundred where that is more. */
const chargeWithin = (open: Minor): Minor => (open / 100n > 2500n ? minor(open / 100n) : minor(2500n));
/** Invoices of one customer that sums are looked for among, and steps that are taken. */
const MOST_SUMMED = 24;
const MOST_STEPS = 20_000;
/** A certain suggestion has this score, and the next one lies so far behind. */
const CERTAIN = 80;
const AHEAD = 15;
const MOST_SHOWN = 8;

interface Seen {
  readonly line: StatementLine;
  readonly index: MatchIndex;
  readonly within: MatchWindow;
  readonly numbers: ReadonlySet<string>;
  /** Debts whose number the line says, and those of which it says a reference. */
  readonly named: ReadonlySet<OpenDebt>;
  readonly referred: ReadonlySet<OpenDebt>;
  /** How surely a customer is who paid, 0 to 1, and by what it is known. */
  readonly payers: ReadonlyMap<string, { readonly sure: number; readonly reason: MatchReason }>;
}

function payersOf(line: StatementLine, index: MatchIndex): Seen['payers'] {
  const found = new Map<string, { sure: number; reason: MatchReason }>();
  const inText = index.namedIn(nameWords(line.text));
  const inName = index.namedIn(nameWords(line.name));
  const nameOf = (id: string) => index.customers.get(id)?.name ?? '';
  for (const [id, share] of [...inText, ...inName]) {
    const sure = Math.min(1, share);
    if ((found.get(id)?.sure ?? 0) >= sure) continue;
    found.set(id, { sure: sure * 0.75, reason: { why: sure === 1 ? 'name' : 'part-of-name', words: nameOf(id) } });
  }
  const known = index.payingFrom(line.iban);
  if (known !== undefined) found.set(known, { sure: 1, reason: { why: 'account', words: line.iban } });
  return found;
}

/** Days between, where they are few no reason to doubt. */
function daysPoints(from: IsoDate, to: IsoDate): number {
  const days = Math.abs(daysBetween(from, to));
  return days <= 3 ? 8 : days <= 14 ? 5 : days <= 45 ? 2 : days <= 120 ? -4 : -10;
}

interface Weighed {
  readonly target: MatchTarget;
  readonly score: number;
  readonly reasons: readonly MatchReason[];
  /** It is named, whole, and its sum fits. */
  readonly fits: boolean;
}

const SUM_POINTS = { exact: 40, withheld: 34, discount: 34, both: 33 } as const;

function howPaid({ withheld, discount }: Paying): keyof typeof SUM_POINTS {
  if (withheld > 0n && discount > 0n) return 'both';
  return withheld > 0n ? 'withheld' : discount > 0n ? 'discount' : 'exact';
}

const paidReasons = ({ withheld, discount }: Paying): readonly MatchReason[] => [
  ...(withheld > 0n ? [{ why: 'withheld', amount: withheld } as const] : []),
  ...(discount > 0n ? [{ why: 'discount', amount: discount } as const] : []),
];

/** Weighs invoices of one customer that a line may pay. */
function weighDebts(
  debts: readonly OpenDebt[],
  ways: readonly Paying[],
  charge: Minor,
  left: Minor,
  seen: Seen,
): Weighed {
  const { line, payers } = seen;
  const [first] = debts;
  const customerId = first?.customerId ?? '';
  const named = debts.filter((debt) => seen.named.has(debt));
  const referred = debts.filter((debt) => !named.includes(debt) && seen.referred.has(debt));
  const payer = payers.get(customerId);
  const worst = ways.map(howPaid).reduce((most, how) => (SUM_POINTS[how] < SUM_POINTS[most] ? how : most), 'exact');
  const fitting = charge > 0n ? 22 : left > 0n ? 6 : left < 0n ? -10 : SUM_POINTS[worst];
  const latest = debts.reduce((day, debt) => (debt.due > day ? debt.due : day), first?.due ?? line.date);
  const early = debts.some((debt) => daysBetween(debt.date, line.date) < -3) ? -15 : 0;
  const score =
    fitting +
    (45 * named.length + 24 * referred.length) / debts.length +
    24 * (payer?.sure ?? 0) +
    daysPoints(latest, line.date) +
    early -
    // A sum is less of a sign the more ways there are to make it.
    Math.min(12, 3 * (debts.length - 1)) * (named.length + referred.length === debts.length ? 0 : 1);
  const reasons: readonly MatchReason[] = [
    ...named.map(({ number }) => ({ why: 'number', words: number }) as const),
    ...referred.map(
      ({ references }) =>
        ({ why: 'reference', words: references.find((r) => seen.numbers.has(bareNumber(r))) ?? '' }) as const,
    ),
    ...(payer === undefined ? [] : [payer.reason]),
    ...(left === 0n && charge === 0n
      ? [debts.length > 1 ? ({ why: 'sum', count: debts.length } as const) : ({ why: 'amount' } as const)]
      : []),
    ...ways.flatMap(paidReasons),
    ...(charge > 0n ? [{ why: 'charge', amount: charge } as const] : []),
    ...(left > 0n ? [{ why: 'short', amount: left } as const] : []),
    ...(left < 0n ? [{ why: 'over', amount: negated(left) } as const] : []),
    { why: 'days', days: daysBetween(latest, line.date) },
  ];
  const paid = debts.map(({ id, number }, i): DebtPaid => {
    const way = ways[i] ?? { money: minor(0n), withheld: minor(0n), discount: minor(0n) };
    return { documentId: id, number, ...way };
  });
  return {
    target: { kind: 'documents', customerId, paid, charge },
    score,
    reasons,
    fits: named.length === debts.length && left === 0n && charge === 0n,
  };
}

/** One invoice: its sum in one of its ways, less what a bank keeps, or a part of it where it is named. */
function oneDebt(debt: OpenDebt, seen: Seen): readonly Weighed[] {
  const { amount, date } = seen.line;
  const none = minor(0n);
  const said = seen.named.has(debt) || seen.referred.has(debt);
  const ways = waysToPay(debt, date);
  const exact = ways.find(({ money }) => money === amount);
  if (exact !== undefined) return [weighDebts([debt], [exact], none, none, seen)];
  const known = said || (seen.payers.get(debt.customerId)?.sure ?? 0) > 0.5;
  if (!known) return [];
  const charged = ways.find(({ money }) => money > amount && minus(money, amount) <= chargeWithin(money));
  if (charged !== undefined) return [weighDebts([debt], [charged], minus(charged.money, amount), none, seen)];
  if (!said) return [];
  const money = amount < debt.open ? amount : debt.open;
  return [weighDebts([debt], [{ money, withheld: none, discount: none }], none, minus(debt.open, amount), seen)];
}

/** Some of these that make the sum, each in the same way; found within a bounded number of steps, oldest first. */
function makingSum(
  debts: readonly OpenDebt[],
  sum: Minor,
  way: (debt: OpenDebt) => Paying,
): readonly OpenDebt[] | null {
  const sums = debts.map((debt) => way(debt).money);
  // All that is left from each on, and the least of it: where neither fits there is nothing to look for.
  const rest: bigint[] = [];
  const least: bigint[] = [];
  for (let i = sums.length - 1; i >= 0; i--) {
    const one = sums[i] ?? 0n;
    rest[i] = one + (rest[i + 1] ?? 0n);
    const after = least[i + 1];
    least[i] = after !== undefined && after < one ? after : one;
  }
  let steps = 0;
  const taken: OpenDebt[] = [];
  const search = (from: number, left: bigint): boolean => {
    for (let i = from; i < debts.length; i++) {
      const debt = debts[i];
      if (debt === undefined) break;
      if ((least[i] ?? 0n) > left || (rest[i] ?? 0n) < left || ++steps > MOST_STEPS) return false;
      const after = left - (sums[i] ?? 0n);
      if (after < 0n || (after === 0n && taken.length === 0)) continue;
      taken.push(debt);
      if (after === 0n || search(i + 1, after)) return true;
      taken.pop();
    }
    return false;
  };
  return search(0, sum) ? taken : null;
}

const plainly = ({ open }: OpenDebt): Paying => ({ money: open, withheld: minor(0n), discount: minor(0n) });

/** Several invoices of one customer that make the sum: those it names, else some of what is open. */
function sums(customerId: string, named: readonly OpenDebt[], seen: Seen): readonly Weighed[] {
  const { line, index } = seen;
  const none = minor(0n);
  const least = (debt: OpenDebt): Paying => waysToPay(debt, line.date).at(-1) ?? plainly(debt);
  const weigh = (debts: readonly OpenDebt[], way: (debt: OpenDebt) => Paying, charge = none) =>
    weighDebts(debts, debts.map(way), charge, none, seen);
  const own = named.filter((debt) => debt.customerId === customerId);
  if (own.length > 1)
    for (const way of [plainly, least]) {
      const short = minus(total(own.map((debt) => way(debt).money)), line.amount);
      if (short === 0n) return [weigh(own, way)];
      if (short > 0n && short <= chargeWithin(line.amount)) return [weigh(own, way, short)];
    }
  const debts = index.debtsOf(customerId).slice(0, MOST_SUMMED);
  for (const way of [plainly, least]) {
    const found = makingSum(debts, line.amount, way);
    if (found !== null) return [weigh(found, way)];
  }
  return [];
}

const customerOf = ({ target }: Weighed): string => (target.kind === 'documents' ? target.customerId : '');

/** What it may be among open invoices: one that it names or fits, or several of one customer. */
function documents(seen: Seen): readonly Weighed[] {
  const { line, index, payers } = seen;
  const named = new Set([...seen.named, ...seen.referred]);
  const until = addDays(line.date, seen.within.days);
  const near = [...index.paidBy(line.amount)].filter((debt) => debt.date <= until);
  const likely = [...payers].filter(([, { sure }]) => sure > 0.5).map(([id]) => id);
  // Of what a payer owes, what is too little or more than a bank keeps back is seen before its ways are made.
  const most = line.amount + chargeWithin(minor(line.amount + line.amount / 99n + 1n));
  const ofPayers = likely.flatMap((id) =>
    index
      .debtsOf(id)
      .filter(({ open, expected, discount }) => open >= line.amount && open - expected - discount <= most),
  );
  const single = new Set([...named, ...near.slice(0, 40), ...ofPayers.slice(0, 200)]);
  const weighed = [...single].flatMap((debt) => oneDebt(debt, seen));
  // Nobody means several where the one that is named fits to the cent.
  const settled = new Set(weighed.filter(({ fits }) => fits).map(customerOf));
  const payersAndNamed = new Set([...likely, ...[...named].map(({ customerId }) => customerId)]);
  const summed = [...payersAndNamed].filter((id) => !settled.has(id)).slice(0, 5);
  return [...weighed, ...summed.flatMap((id) => sums(id, [...named], seen))];
}

function weighMovements(movements: readonly Movement[], seen: Seen): Weighed {
  const { line, numbers, payers } = seen;
  const [first] = movements;
  const day = first?.date ?? line.date;
  const said = movements.filter((movement) =>
    [movement.number, ...movement.references].some((text) => numbers.has(bareNumber(text))),
  );
  const payer = payers.get(first?.customerId ?? '');
  const days = Math.abs(daysBetween(day, line.date));
  return {
    target: { kind: 'movements', movements },
    score:
      46 +
      (said.length > 0 ? 40 : 0) +
      20 * (payer?.sure ?? 0) +
      (days <= 2 ? 14 : days <= 7 ? 9 : days <= 14 ? 4 : -6),
    reasons: [
      ...said.map(({ number }) => ({ why: 'number', words: number }) as const),
      ...(payer === undefined ? [] : [payer.reason]),
      movements.length > 1 ? { why: 'sum', count: movements.length } : { why: 'amount' },
      { why: 'days', days: daysBetween(day, line.date) },
    ],
    fits: days <= 7,
  };
}

/** What the book has recorded already: one movement of this sum, or all of a day that make it, as cheques paid in together. */
function movements(seen: Seen): readonly Weighed[] {
  const { line, index, within } = seen;
  const single = [...index.movedBy(line.amount)].filter((m) => Math.abs(daysBetween(m.date, line.date)) <= within.days);
  const together: Weighed[] = [];
  for (let back = 0; back <= Math.min(7, within.days); back++) {
    const ofDay = index.movementsOn(addDays(line.date, -back)).filter(({ amount }) => amount > 0n === line.amount > 0n);
    if (ofDay.length > 1 && total(ofDay.map(({ amount }) => amount)) === line.amount)
      together.push(weighMovements(ofDay, seen));
  }
  return [...single.map((one) => weighMovements([one], seen)), ...together];
}

/** Money that goes out, or comes from an authority: a credit given back, a return paid or refunded. */
function others({ line, index, numbers, payers }: Seen): readonly Weighed[] {
  const { credits, toPay, transfers, rules } = index.material;
  const words = `${line.name} ${line.text}`.toLowerCase();
  const outgoing = negated(line.amount);
  const refunds = credits
    .filter(({ open }) => open === outgoing)
    .map(({ id, number, customerId, date }): Weighed => {
      const said = numbers.has(bareNumber(number));
      const payer = payers.get(customerId);
      return {
        target: { kind: 'refund', customerId, creditId: id, number },
        score: 40 + (said ? 45 : 0) + 24 * (payer?.sure ?? 0) + daysPoints(date, line.date),
        reasons: [
          ...(said ? [{ why: 'number', words: number } as const] : []),
          ...(payer ? [payer.reason] : []),
          { why: 'amount' },
        ],
        fits: said,
      };
    });
  const taxes = toPay
    .filter(({ left }) => left === outgoing)
    .map(({ registrationId, start, name, date }): Weighed => {
      const days = daysBetween(date, line.date);
      return {
        target: { kind: 'tax', registrationId, start, name },
        score: 60 + daysPoints(date, line.date),
        reasons: [{ why: 'amount' }, { why: 'days', days }],
        fits: false,
      };
    });
  const between = transfers
    .filter(({ amount, date }) => amount === outgoing && Math.abs(daysBetween(date, line.date)) <= 7)
    .map(({ bankAccountId, name, iban, date }): Weighed => {
      const own = iban !== '' && bareNumber(line.iban) === bareNumber(iban);
      return {
        target: { kind: 'transfer', bankAccountId, name },
        score: 50 + (own ? 38 : 0) + daysPoints(date, line.date),
        reasons: [
          { why: 'amount' },
          ...(own ? [{ why: 'account', words: iban } as const] : []),
          { why: 'days', days: daysBetween(date, line.date) },
        ],
        fits: own,
      };
    });
  const ruled = rules
    .filter(
      ({ contains, direction }) =>
        (line.amount > 0n ? 'in' : 'out') === direction && words.includes(contains.toLowerCase()),
    )
    .map(
      ({ account, contains }): Weighed => ({
        target: { kind: 'account', account },
        score: 88,
        reasons: [{ why: 'rule', words: contains }],
        fits: true,
      }),
    );
  return [...refunds, ...taxes, ...between, ...ruled];
}

/** An invoice that is named but whose sum does not fit is hardly meant where another of its customer fits to the cent. */
function lessLikely(weighed: readonly Weighed[]): readonly Weighed[] {
  const differs = ({ reasons }: Weighed) => reasons.some(({ why }) => why === 'short' || why === 'over');
  const fitting = new Set(
    weighed.flatMap((one) => (one.reasons.some(({ why }) => why === 'amount') ? customerOf(one) : [])),
  );
  return weighed.map((one) => (differs(one) && fitting.has(customerOf(one)) ? { ...one, score: one.score - 20 } : one));
}

/** Most of a hundred that card companies usually keep, and card payments that one payout brings. */
const MOST_FEE = 5n;
const MOST_PAID_OUT = 200;
/** Words of payouts. */
const PAYOUT = /\b(?:card|payout|settlement|terminal|pos)\b/i;

/** Card payments up to the day that make a payout, less a fee: oldest first, as they are paid out, or those of one day. */
function payouts({ line, index }: Seen): readonly Weighed[] {
  const before = index.material.takings.filter(({ date }) => date <= line.date).slice(0, MOST_PAID_OUT);
  const told = PAYOUT.test(`${line.name} ${line.text}`);
  const found: Weighed[] = [];
  const weigh = (takings: readonly Movement[]) => {
    const gross = total(takings.map(({ amount }) => amount));
    const fee = minus(gross, line.amount);
    if (takings.length === 0 || fee < 0n || 100n * fee > MOST_FEE * gross) return;
    found.push({
      target: { kind: 'payout', takings, fee },
      score: 44 + (told ? 34 : 0) + daysPoints(takings.at(-1)?.date ?? line.date, line.date),
      reasons: [
        { why: 'sum', count: takings.length },
        ...(fee > 0n ? [{ why: 'fee', amount: fee } as const] : []),
        { why: 'days', days: daysBetween(takings.at(-1)?.date ?? line.date, line.date) },
      ],
      fits: told,
    });
  };
  for (let until = 1; until <= before.length; until++) weigh(before.slice(0, until));
  for (const day of new Set(before.map(({ date }) => date))) weigh(before.filter(({ date }) => date === day));
  return found;
}

/** What a line may be, best first, each with its reasons. Pure: the same line and book give the same answer. */
export function suggest(
  line: StatementLine,
  index: MatchIndex,
  within: MatchWindow = USUAL_WINDOW,
): readonly Suggestion[] {
  const numbers = numbersIn(line.text, line.reference, line.name);
  const seen: Seen = {
    line,
    index,
    within,
    numbers,
    named: new Set([...numbers].flatMap((number) => [...index.numbered(number)])),
    referred: new Set([...numbers].flatMap((number) => [...index.referred(number)])),
    payers: payersOf(line, index),
  };
  const weighed = [
    ...movements(seen),
    ...(line.amount > 0n ? [...lessLikely(documents(seen)), ...payouts(seen)] : []),
    ...others(seen),
  ];
  const best = new Map<string, Weighed>();
  for (const one of weighed) {
    const key = JSON.stringify(one.target, (_, value) => (typeof value === 'bigint' ? String(value) : value));
    if ((best.get(key)?.score ?? -1) < one.score) best.set(key, one);
  }
  const ranked = [...best.values()].sort((a, b) => b.score - a.score).slice(0, MOST_SHOWN);
  const [, second] = ranked;
  return ranked.map(({ target, score, reasons, fits }, i) => ({
    target,
    score: Math.max(0, Math.min(100, Math.round(score))),
    reasons,
    certain: i === 0 && fits && score >= CERTAIN && score - (second?.score ?? 0) >= AHEAD,
  }));
}

/** What of a line is still to be explained, after what it was matched with. */
export function leftOfLine(amount: Minor, matched: readonly { readonly amount: Minor }[]): Minor {
  return minus(
    amount,
    matched.reduce((sum, one) => plus(sum, one.amount), minor(0n)),
  );
}
