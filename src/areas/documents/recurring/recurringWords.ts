import type { MadeState, Recurring } from '@/core/documents/recurring';
import type { Rhythm } from '@/core/documents/rhythm';
import { writeDate } from '@/core/kernel/date';
import type { MarkKind } from '@/ui/Mark';

/** How often it comes: `every month, on the last day`, `every 2 weeks`. */
export function rhythmWords({ unit, every, lastDay }: Rhythm): string {
  const words = every === 1 ? `every ${unit}` : `every ${every} ${unit}s`;
  return lastDay && (unit === 'month' || unit === 'year') ? `${words}, on the last day of the month` : words;
}

export const DOES_WORDS = { draft: 'keep a draft', issue: 'issue it', send: 'issue and send it' } as const;

export const MADE_MARKS: Readonly<Record<MadeState, readonly [MarkKind, string]>> = {
  begun: ['closing', 'being made'],
  waits: ['warning', 'waits'],
  draft: ['draft', 'draft'],
  issued: ['issued', 'issued'],
  sent: ['good', 'sent'],
};

/** Where it stands as a whole. */
export function recurringState({ paused, nextDue }: Recurring): string {
  return paused ? 'paused' : nextDue === '' ? 'ended' : `next ${writeDate(nextDue)}`;
}
