'use client';

import type { ReminderPlan } from '@/core/settlement/reminder';
import { Money } from '@/ui/Money';
import { Ruled } from '@/ui/Ruled';
import { useOpenBook } from '../shell/BookContext';

const LINK = 'underline decoration-rule underline-offset-4';
const LEVELS = ['', 'First', 'Second', 'Final'] as const;

/** A customer gets one letter for each currency. */
export const keyOf = ({ customerId, currency }: ReminderPlan): string => `${customerId}|${currency}`;

interface RemindersDueProps {
  readonly plans: readonly ReminderPlan[];
  /** Fee or interest is asked for. */
  readonly costs: boolean;
  /** Key of the one whose letter is shown. */
  readonly picked: string;
  readonly onPick: (key: string) => void;
  /** Keys of those that are left out this time. */
  readonly unticked: ReadonlySet<string>;
  readonly onTick: (key: string, on: boolean) => void;
}

/** Whom to remind, of how much, and what it costs them. */
export function RemindersDue({ plans, costs, picked, onPick, unticked, onTick }: RemindersDueProps) {
  const { currency: home } = useOpenBook();
  return (
    <Ruled
      caption="Reminders due"
      rows={plans}
      keyOf={keyOf}
      columns={[
        {
          head: 'Send',
          width: '44px',
          cell: (plan) => (
            <input
              type="checkbox"
              className="accent-rust"
              aria-label={`Remind ${plan.customerName}, ${plan.currency}`}
              checked={!unticked.has(keyOf(plan))}
              onChange={({ target: { checked } }) => onTick(keyOf(plan), checked)}
            />
          ),
        },
        {
          head: 'Customer',
          cell: (plan) => (
            <button
              type="button"
              aria-pressed={keyOf(plan) === picked}
              className={`cursor-pointer text-left ${LINK} ${keyOf(plan) === picked ? 'font-semibold' : ''}`}
              onClick={() => onPick(keyOf(plan))}
            >
              {plan.customerName}
            </button>
          ),
        },
        { head: 'Reminder', cell: ({ level }) => LEVELS[level] },
        {
          head: 'Oldest',
          align: 'right',
          cell: ({ items }) => (
            <span className="whitespace-nowrap">{Math.max(...items.map(({ daysLate }) => daysLate))} days</span>
          ),
        },
        {
          head: 'Overdue',
          align: 'right',
          cell: (plan) => <Money amount={plan.amountDue} currency={plan.currency} withCode={plan.currency !== home} />,
        },
        ...(costs
          ? [
              {
                head: 'Fee',
                align: 'right' as const,
                cell: (plan: ReminderPlan) => <Money amount={plan.fee} currency={home} />,
              },
              {
                head: 'Interest',
                align: 'right' as const,
                cell: (plan: ReminderPlan) => <Money amount={plan.interest} currency={plan.currency} />,
              },
            ]
          : []),
      ]}
    />
  );
}
