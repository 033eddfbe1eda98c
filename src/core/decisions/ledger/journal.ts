import type { Decision, Moment } from '@/core/book/changes';
import { isIsoDate } from '@/core/kernel/date';
import type { Minor } from '@/core/kernel/money';
import { accept, type Refusal, refuse } from '@/core/kernel/result';
import type { Account } from '@/core/ledger/account';
import { entryOf, isBalanced } from '@/core/ledger/entry';
import { outputAccountOf } from '@/core/ledger/posting/taxAccounts';
import type { Registration } from '@/core/tax/registration';

export interface JournalInput {
  /** ISO date. */
  readonly date: string;
  readonly text: string;
  readonly sides: readonly { readonly account: string; readonly amount: Minor }[];
}

/** Writes a manual journal. It must balance, and may not touch the tax account in a filed period. */
export function postJournal(
  input: JournalInput,
  chart: readonly Account[],
  registrations: readonly Registration[],
  moment: Moment,
): Decision<{ id: string }> {
  const { date } = input;
  const refusals: Refusal[] = [];
  if (input.text.trim() === '') refusals.push({ code: 'missing', path: 'text', wanted: 'say-what-journal-is-for' });
  if (input.sides.length < 2) refusals.push({ code: 'missing', path: 'sides', wanted: 'two-lines' });
  input.sides.forEach((side, i) => {
    if (!chart.some((account) => account.code === side.account))
      refusals.push({
        code: 'unknown',
        path: `sides[${i}].account`,
        wanted: 'choose-account',
        found: side.account,
      });
    if (side.amount === 0n)
      refusals.push({ code: 'missing', path: `sides[${i}].amount`, wanted: 'give-debit-or-credit' });
  });
  if (!isBalanced(input.sides)) refusals.push({ code: 'unbalanced', path: 'sides' });
  if (!isIsoDate(date))
    return refuse({ code: 'invalid', path: 'date', wanted: 'give-day-of-journal', found: date }, ...refusals);
  const locked = registrations.find(
    (r) =>
      r.filedUntil !== '' &&
      date <= r.filedUntil &&
      input.sides.some((side) => side.account === outputAccountOf(r, chart)),
  );
  const filedUntil = locked?.filedUntil ?? '';
  if (filedUntil !== '')
    refusals.push({
      code: 'closed-period',
      path: 'date',
      day: date,
      filedUntil,
    });
  if (refusals.length > 0) return refuse(...refusals);
  const id = moment.newId();
  const posted = entryOf(
    { id, date, kind: 'journal', text: input.text.trim(), sourceId: '', at: moment.now },
    input.sides,
  );
  return accept({
    value: { id },
    changes: {
      add: { journal: [posted.entry], journalLines: posted.lines },
      audit: { subject: input.text.trim(), after: posted.lines.map(({ account, amount }) => ({ account, amount })) },
    },
  });
}
