import { grouped } from '@/core/kernel/grouped';
import { type Minor, minus, NOTHING, negated, plus, total } from '@/core/kernel/money';
import type { JournalLine } from '@/core/ledger/entry';
import type { Span } from './calendar';

/**
 * Why the tax account moved: `reported` in the return of the period; `posted-outside` of it, on a day
 * before or after; `other-period`, posted in it but reported in another; `settlement` by a return that
 * was filed; `manual` journals; `unknown`, which no line explains.
 */
export type BridgeKind = 'reported' | 'posted-outside' | 'other-period' | 'settlement' | 'manual' | 'unknown';

export interface BridgeItem {
  readonly entryId: string;
  readonly date: JournalLine['date'];
  readonly subject: string;
  readonly amount: Minor;
}

/** One step from the opening to the closing balance. */
export interface BridgeStep {
  readonly kind: BridgeKind;
  readonly amount: Minor;
  /** What it is made of, entry by entry; empty for what the return itself lists. */
  readonly items: readonly BridgeItem[];
}

/** The tax account over a period, credits above zero: opening balance, what moved it and why, closing balance. */
export interface AccountBridge {
  readonly opening: Minor;
  readonly steps: readonly BridgeStep[];
  readonly closing: Minor;
}

export interface BridgeMaterial {
  readonly span: Span;
  readonly periodId: string;
  /** Balances of the account before and after the period, debits above zero, as they are kept. */
  readonly opening: Minor;
  readonly closing: Minor;
  /** Lines of the account dated in the period. */
  readonly dated: readonly JournalLine[];
  /** Lines of the account marked with the period, on any day; of the filing too. */
  readonly marked: readonly JournalLine[];
}

/** A line of a filing carries a period but no code. */
const isSettlement = (line: JournalLine): boolean => line.taxPeriodId !== '' && line.taxCode === '';

const credits = (lines: readonly JournalLine[]): Minor => negated(total(lines.map((line) => line.amount)));

function itemsOf(lines: readonly JournalLine[], sign: 1n | -1n): readonly BridgeItem[] {
  return [...grouped(lines, (line) => line.entryId)].flatMap(([entryId, own]) => {
    const [first] = own;
    const amount = sign === 1n ? credits(own) : negated(credits(own));
    return first === undefined ? [] : [{ entryId, date: first.date, subject: first.text, amount }];
  });
}

/**
 * Explains the tax account from its opening to its closing balance by posting date. The return goes by
 * tax point, so that what is posted on another day than it is reported for stands between the two.
 */
export function bridgeAccount({ span, periodId, opening, closing, dated, marked }: BridgeMaterial): AccountBridge {
  const reported = marked.filter((line) => !isSettlement(line));
  const outside = reported.filter((line) => line.date < span.start || line.date > span.end);
  const others = dated.filter(
    (line) => line.taxPeriodId !== '' && line.taxPeriodId !== periodId && !isSettlement(line),
  );
  const settled = dated.filter(isSettlement);
  const manual = dated.filter((line) => line.taxPeriodId === '');
  const known: readonly BridgeStep[] = [
    { kind: 'reported', amount: credits(reported), items: [] },
    { kind: 'posted-outside', amount: negated(credits(outside)), items: itemsOf(outside, -1n) },
    { kind: 'other-period', amount: credits(others), items: itemsOf(others, 1n) },
    { kind: 'settlement', amount: credits(settled), items: itemsOf(settled, 1n) },
    { kind: 'manual', amount: credits(manual), items: itemsOf(manual, 1n) },
  ];
  const from = negated(opening);
  const to = negated(closing);
  const unknown = minus(to, plus(from, total(known.map((step) => step.amount))));
  const steps = [...known, { kind: 'unknown', amount: unknown, items: [] } as const];
  return {
    opening: from,
    steps: steps.filter(({ kind, amount, items }) => kind === 'reported' || amount !== NOTHING || items.length > 0),
    closing: to,
  };
}

/** Manual lines that no later one takes back: pairs of the same amount on both sides clear each other. */
export function uncleared(lines: readonly JournalLine[]): readonly JournalLine[] {
  if (total(lines.map((line) => line.amount)) === NOTHING) return [];
  const open: JournalLine[] = [];
  for (const line of lines) {
    const at = open.findIndex((other) => other.amount === -line.amount);
    if (at < 0) open.push(line);
    else open.splice(at, 1);
  }
  return open;
}
