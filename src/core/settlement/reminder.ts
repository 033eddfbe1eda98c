import type { IssuedDocument } from '@/core/documents/issued';
import type { Currency } from '@/core/kernel/currency';
import { daysBetween, type IsoDate } from '@/core/kernel/date';
import { ratioOf, readTypedDecimal } from '@/core/kernel/decimal';
import { grouped } from '@/core/kernel/grouped';
import { type Minor, minor, NOTHING, total } from '@/core/kernel/money';
import { halfUp } from '@/core/kernel/rounding';
import { readTypedMoney } from '@/core/kernel/typedMoney';
import type { ReminderRules } from '@/core/parties/reminderRules';
import { dueParts } from './account';

/** Why nobody is reminded of a document for now: it is disputed, or its payment was promised. */
export interface ReminderHold {
  readonly documentId: string;
  readonly kind: 'dispute' | 'promise';
  /** The day it comes back: when it was promised, or is looked at again; empty for a dispute without one. */
  readonly until: IsoDate | '';
  readonly words: string;
  /** Instant. */
  readonly at: string;
  readonly operator: string;
}

/** A reminder that went out. */
export interface Reminder {
  readonly id: string;
  readonly customerId: string;
  readonly customerName: string;
  /** From 1. */
  readonly level: number;
  readonly on: IsoDate;
  readonly documentIds: readonly string[];
  readonly currency: Currency;
  readonly amountDue: Minor;
  readonly fee: Minor;
  readonly interest: Minor;
  /** Message by which it went; empty where it was printed. */
  readonly mailId: string;
  /** Draft of the invoice for fee and interest; empty for none. */
  readonly chargeDraftId: string;
  /** Instant. */
  readonly at: string;
  readonly operator: string;
}

/** What of a document a reminder tells. */
export interface RemindedItem {
  readonly document: IssuedDocument;
  /** The oldest day that something of it was due. */
  readonly due: IsoDate;
  readonly daysLate: number;
  /** What of it is overdue. */
  readonly overdue: Minor;
  /** The reminder that it would be told in next, from 1. */
  readonly next: number;
  readonly interest: Minor;
}

/** One letter: all that is overdue of a customer in one currency. */
export interface ReminderPlan {
  readonly customerId: string;
  readonly customerName: string;
  readonly currency: Currency;
  readonly level: number;
  readonly items: readonly RemindedItem[];
  readonly amountDue: Minor;
  readonly interest: Minor;
  /** In home currency. */
  readonly fee: Minor;
}

/** Overdue, but nobody is reminded of it now. */
export interface LeftOut {
  readonly document: IssuedDocument;
  readonly why: 'disputed' | 'promised' | 'on account' | 'not reminded';
  readonly hold: ReminderHold | null;
}

/** How far the reminders of a document came. */
export interface Reached {
  /** From 1. */
  readonly level: number;
  readonly on: IsoDate;
}

export interface ReminderMaterial {
  readonly today: IsoDate;
  readonly homeCurrency: Currency;
  readonly rules: ReminderRules;
  /** Debts that are open and due before today. */
  readonly overdue: readonly IssuedDocument[];
  /** What is held for a customer, as `customer id|currency`. */
  readonly held: ReadonlyMap<string, Minor>;
  readonly holds: ReadonlyMap<string, ReminderHold>;
  /** The last reminder that told of a document, by its id. */
  readonly reached: ReadonlyMap<string, Reached>;
  /** Customers that are not reminded. */
  readonly off: ReadonlySet<string>;
}

const YEAR = 365n;

/** Interest on what is overdue: R(open × percent × days ÷ 365). */
export function interestOn(open: Minor, percent: string, days: number): Minor {
  const read = percent === '' ? null : readTypedDecimal(percent);
  if (read === null || days <= 0) return NOTHING;
  const { n, d } = ratioOf(read);
  return minor(halfUp({ n: open * n * BigInt(days), d: d * 100n * YEAR }));
}

/** Whether a document is left alone on a day. */
function isHeld(hold: ReminderHold | undefined, today: IsoDate): hold is ReminderHold {
  return hold !== undefined && (hold.until === '' || hold.until >= today);
}

function itemOf(document: IssuedDocument, { today, rules, reached }: ReminderMaterial): RemindedItem | null {
  const parts = dueParts(document, document.open).filter(({ due }) => due < today);
  const [first] = parts;
  if (first === undefined) return null;
  return {
    document,
    due: first.due,
    daysLate: daysBetween(first.due, today),
    overdue: total(parts.map(({ amount }) => amount)),
    next: Math.min((reached.get(document.id)?.level ?? 0) + 1, rules.levels.length + 1),
    interest: total(parts.map(({ due, amount }) => interestOn(amount, rules.interest, daysBetween(due, today)))),
  };
}

/** Whether the next reminder of a document is due: late enough, and as long after the last one as the two lie apart. */
function isDue({ document, next, daysLate }: RemindedItem, { rules, reached, today }: ReminderMaterial): boolean {
  const level = rules.levels[next - 1];
  if (level === undefined || daysLate < level.days) return false;
  const last = reached.get(document.id);
  if (last === undefined) return true;
  return daysBetween(last.on, today) >= level.days - (rules.levels[next - 2]?.days ?? 0);
}

/**
 * Whom to remind today, one letter a customer and currency with all that is overdue, and what is left out and why. A letter is
 * due when a document has been overdue for the days of its next level, and its last reminder lies back as long as the two levels
 * lie apart; its level is the highest that is due.
 */
export function remindersDue(material: ReminderMaterial): {
  readonly plans: readonly ReminderPlan[];
  readonly leftOut: readonly LeftOut[];
} {
  const { today, rules, overdue, held, holds, off, homeCurrency } = material;
  const leftOut: LeftOut[] = [];
  const told: RemindedItem[] = [];
  for (const document of overdue) {
    const item = itemOf(document, material);
    if (item === null) continue;
    const hold = holds.get(document.id);
    if (isHeld(hold, today)) leftOut.push({ document, why: hold.kind === 'dispute' ? 'disputed' : 'promised', hold });
    else if (off.has(document.customerId)) leftOut.push({ document, why: 'not reminded', hold: null });
    else told.push(item);
  }
  const plans = [...grouped(told, ({ document }) => `${document.customerId}|${document.content.currency}`)].flatMap(
    ([key, items]): readonly ReminderPlan[] => {
      const [first] = items;
      const amountDue = total(items.map((item) => item.overdue));
      if (first === undefined) return [];
      if ((held.get(key) ?? NOTHING) >= amountDue) {
        leftOut.push(...items.map(({ document }) => ({ document, why: 'on account' as const, hold: null })));
        return [];
      }
      const due = items.filter((item) => isDue(item, material));
      if (due.length === 0) return [];
      const level = Math.max(...due.map(({ next }) => next));
      const { customerId, customerName, content } = first.document;
      return [
        {
          customerId,
          customerName,
          currency: content.currency,
          level,
          items,
          amountDue,
          interest: total(items.map(({ interest }) => interest)),
          fee: readTypedMoney(rules.levels[level - 1]?.fee ?? '', homeCurrency) ?? NOTHING,
        },
      ];
    },
  );
  return { plans: plans.sort((a, b) => (a.customerName < b.customerName ? -1 : 1)), leftOut };
}
