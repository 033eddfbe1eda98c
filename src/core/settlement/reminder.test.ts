import { documentOf, issued, lineOf, newBook } from 'tests/book';
import type { IssuedDocument } from '@/core/documents/issued';
import { currency } from '@/core/kernel/currency';
import { isoDate } from '@/core/kernel/date';
import { minor } from '@/core/kernel/money';
import { FIRST_REMINDER_RULES, reminderRulesSchema } from '@/core/parties/reminderRules';
import { interestOn, type ReminderHold, type ReminderMaterial, remindersDue } from './reminder';

const EUR = currency('EUR');
const TODAY = isoDate('2026-03-10');

/** Invoices over 123.00, due 14 and 7 February, and one in three parts of which one is overdue. */
async function overdueInvoices(): Promise<readonly IssuedDocument[]> {
  const db = await newBook();
  const made = [
    await issued(db, { due: '2026-02-14' }),
    await issued(db, { due: '2026-02-07' }),
    await issued(db, { customerId: 'clewbay', due: '40% 30d + 30% 60d + 30% 90d', lines: [lineOf({ price: '1000' })] }),
  ];
  return Promise.all(made.map(({ id }) => documentOf(db, id)));
}

const material = (overdue: readonly IssuedDocument[], over: Partial<ReminderMaterial> = {}): ReminderMaterial => ({
  today: TODAY,
  homeCurrency: EUR,
  rules: FIRST_REMINDER_RULES,
  overdue,
  held: new Map(),
  holds: new Map(),
  reached: new Map(),
  off: new Set(),
  ...over,
});

describe('interest', () => {
  test.each([
    // 1,000.00 × 9 % × 30 ÷ 365 = 7.397…
    [100_000n, '9', 30, 740n],
    [100_000n, '11.25', 365, 11_250n],
    // A tie goes away from zero: 36.50 × 5 % × 1 ÷ 365 = 0.005.
    [3650n, '5', 1, 1n],
    [100_000n, '', 30, 0n],
    [100_000n, '9', 0, 0n],
  ])('on %d at %s %% for %d days is %d', (open, percent, days, expected) => {
    expect(interestOn(minor(open), percent, days)).toBe(expected);
  });
});

describe('who is reminded', () => {
  test('gets one letter with all that is overdue, of the highest level that is due', async () => {
    const overdue = await overdueInvoices();
    const [first, second] = overdue;
    const reached = new Map([[second?.id ?? '', { level: 1, on: isoDate('2026-02-20') }]]);
    const rules = {
      ...FIRST_REMINDER_RULES,
      levels: [
        { days: 7, fee: '' },
        { days: 21, fee: '15.00' },
        { days: 35, fee: '' },
      ],
      interest: '9',
    };
    const { plans } = remindersDue(material(overdue, { reached, rules }));
    expect(plans.map(({ customerId, level, amountDue, fee }) => [customerId, level, amountDue, fee])).toEqual([
      ['ballyvaughan', 2, 24_600n, 1500n],
      // 40 % of 1,230.00 fell due on 14 February.
      ['clewbay', 1, 49_200n, 0n],
    ]);
    // 123.00 × 9 % for 24 and 31 days: 0.7279 and 0.9402.
    expect(plans[0]?.items.map(({ document, daysLate, interest }) => [document.id, daysLate, interest])).toEqual([
      [first?.id, 24, 73n],
      [second?.id, 31, 94n],
    ]);
  });

  test('is not reminded before the days of the next level, nor after the last', async () => {
    const overdue = (await overdueInvoices()).slice(0, 2);
    const at = (level: number, on = '2026-02-24') => new Map(overdue.map(({ id }) => [id, { level, on: isoDate(on) }]));
    expect(remindersDue(material(overdue, { reached: at(2) })).plans).toEqual([]);
    expect(remindersDue(material(overdue, { reached: at(2), today: isoDate('2026-03-14') })).plans[0]?.level).toBe(3);
    expect(remindersDue(material(overdue, { reached: at(3), today: isoDate('2027-01-01') })).plans).toEqual([]);
    // However late it is, the second comes as long after the first as 21 days lie from 7.
    const late = isoDate('2026-07-01');
    expect(remindersDue(material(overdue, { reached: at(1, '2026-06-18'), today: late })).plans).toEqual([]);
    expect(remindersDue(material(overdue, { reached: at(1, '2026-06-17'), today: late })).plans[0]?.level).toBe(2);
  });

  test('not of what is disputed or promised until its day, nor where the money is there', async () => {
    const overdue = (await overdueInvoices()).slice(0, 2);
    const [first, second] = overdue;
    const hold = (documentId: string, kind: ReminderHold['kind'], until: string): readonly [string, ReminderHold] => [
      documentId,
      { documentId, kind, until: until as ReminderHold['until'], words: 'said so', at: '', operator: '' },
    ];
    const holds = new Map([hold(first?.id ?? '', 'promise', '2026-03-10'), hold(second?.id ?? '', 'dispute', '')]);
    const now = remindersDue(material(overdue, { holds }));
    expect([now.plans, now.leftOut.map(({ why }) => why)]).toEqual([[], ['promised', 'disputed']]);
    // The day after the promise it comes back.
    const next = remindersDue(material(overdue, { holds, today: isoDate('2026-03-11') }));
    expect(next.plans.map(({ items }) => items.map(({ document }) => document.id))).toEqual([[first?.id]]);
    const held = new Map([['ballyvaughan|EUR', minor(24_600n)]]);
    expect(remindersDue(material(overdue, { held })).leftOut.map(({ why }) => why)).toEqual([
      'on account',
      'on account',
    ]);
    const less = new Map([['ballyvaughan|EUR', minor(24_599n)]]);
    expect(remindersDue(material(overdue, { held: less })).plans).toHaveLength(1);
    expect(remindersDue(material(overdue, { off: new Set(['ballyvaughan']) })).plans).toEqual([]);
  });
});

test('rules rise, are three at most, and take no fee below zero', () => {
  const levels = (...days: number[]) => ({ ...FIRST_REMINDER_RULES, levels: days.map((d) => ({ days: d, fee: '' })) });
  expect(reminderRulesSchema.isValidSync(FIRST_REMINDER_RULES)).toBe(true);
  for (const wrong of [
    levels(7, 7),
    levels(1, 2, 3, 4),
    levels(0),
    { ...levels(7), interest: '-1' },
    { ...levels(7), interest: 'x' },
  ])
    expect(reminderRulesSchema.isValidSync(wrong)).toBe(false);
});
