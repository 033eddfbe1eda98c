import type { Decision, Moment } from '@/core/book/changes';
import type { IssuedDocument } from '@/core/documents/issued';
import { type IsoDate, isIsoDate } from '@/core/kernel/date';
import { type Minor, minus } from '@/core/kernel/money';
import { accept, type Result, refuse } from '@/core/kernel/result';
import { accountFor } from '@/core/ledger/account';
import { type Allocation, standing } from '@/core/settlement/allocation';
import { type ClosingOrder, changesOfSettled, closeDebt, type Settled, type SettleMaterial, takeBack } from './settle';

export interface WriteOffInput {
  readonly documentId: string;
  /** ISO date. */
  readonly date: string;
  /** In the currency of the document. */
  readonly amount: Minor;
  /** Output tax of it is taken back in the return of the day. */
  readonly relief: boolean;
  readonly reason: string;
}

export interface WriteOffMaterial extends Omit<SettleMaterial, 'ofCredit'> {
  readonly document: IssuedDocument | undefined;
}

const CALLED = 'Write-off';

const orderOf = (chart: SettleMaterial['chart'], relief: boolean, reason: string): ClosingOrder => ({
  kind: 'write-off',
  number: CALLED,
  account: accountFor(chart, 'bad-debts'),
  withId: '',
  relief,
  reason,
});

/** Gives a debt up: it goes to bad debts, with tax relief less the output tax that it carried. */
export function writeOff(input: WriteOffInput, material: WriteOffMaterial, moment: Moment): Decision<Allocation> {
  const { date, amount, relief, reason } = input;
  const { document, chart, registrations } = material;
  if (document === undefined) return refuse({ code: 'not-found', path: 'documentId' });
  if (!isIsoDate(date)) return refuse({ code: 'invalid', path: 'date', wanted: 'give-a-day', found: date });
  if (date < document.issueDate)
    return refuse({ code: 'invalid', path: 'date', wanted: 'day-not-before-document', found: date });
  if (reason.trim() === '') return refuse({ code: 'missing', path: 'reason', wanted: 'say-why-written-off' });
  const registration = registrations.find(({ id }) => id === document.content.registrationId);
  if (relief && registration?.badDebtRelief !== true)
    return refuse({ code: 'no-relief', path: 'relief', why: 'registration' });
  if (relief && document.kind === 'opening') return refuse({ code: 'no-relief', path: 'relief', why: 'not-yet-due' });
  const order = orderOf(chart, relief, reason.trim());
  const closed = closeDebt(document, amount, order, { date, path: 'amount' }, material, moment);
  if (!closed.ok) return closed;
  const { allocation, debt } = closed.value;
  return accept({
    value: allocation,
    changes: {
      ...changesOfSettled([closed.value]),
      audit: {
        subject: document.number,
        about: [document.id, document.customerId],
        before: { open: document.open },
        after: { amount, open: debt.open, relief, reason: order.reason },
      },
    },
  });
}

/** Takes a write-off back by its own id: the debt is open again. */
export function undoWriteOff(
  { id, date }: { readonly id: string; readonly date: string },
  material: WriteOffMaterial,
  moment: Moment,
): Decision<Allocation> {
  const { document, ofDebt } = material;
  const made = ofDebt.find((one) => one.id === id && one.creditKind === 'write-off' && one.undone === null);
  if (document === undefined || made === undefined) return refuse({ code: 'not-found', path: 'id' });
  if (!isIsoDate(date)) return refuse({ code: 'invalid', path: 'date', wanted: 'give-a-day', found: date });
  if (date < made.date)
    return refuse({ code: 'invalid', path: 'date', wanted: 'day-not-before-allocation', found: date });
  const undone = takeBack(made, null, document, date, { ...material, ofCredit: [] }, moment);
  if (!undone.ok) return undone;
  return accept({
    value: undone.value.allocation,
    changes: {
      ...changesOfSettled([undone.value]),
      audit: {
        subject: document.number,
        about: [document.id, document.customerId],
        before: { amount: made.amount },
        after: { open: undone.value.debt.open },
      },
    },
  });
}

/** A debt of which more is open again. */
interface Reopened {
  readonly debt: IssuedDocument;
  readonly ofDebt: readonly Allocation[];
  readonly settled: readonly Settled[];
}

const replaced = (all: readonly Allocation[], one: Allocation): readonly Allocation[] => [
  ...all.filter(({ id }) => id !== one.id),
  one,
];

/**
 * Money comes after all: as much of what was written off is open again as the amount needs, newest write-offs first; what is
 * still given up is written off again on the day. Null where enough is open.
 */
export function reopened(
  debt: IssuedDocument,
  amount: Minor,
  date: IsoDate,
  material: SettleMaterial,
  moment: Moment,
): Result<Reopened | null> {
  if (amount <= debt.open) return accept(null);
  let now: Reopened = { debt, ofDebt: material.ofDebt, settled: [] };
  for (const made of standing(material.ofDebt).filter(({ creditKind }) => creditKind === 'write-off')) {
    if (amount <= now.debt.open) break;
    if (date < made.date) continue;
    const own = () => ({ ...material, ofDebt: now.ofDebt, ofCredit: [] });
    const take = (one: Settled) => {
      now = { debt: one.debt, ofDebt: replaced(now.ofDebt, one.allocation), settled: [...now.settled, one] };
    };
    const back = takeBack(made, null, now.debt, date, own(), moment);
    if (!back.ok) return back;
    take(back.value);
    if (now.debt.open <= amount) continue;
    const order = orderOf(material.chart, made.closing?.relief ?? false, made.closing?.reason ?? '');
    const rest = minus(now.debt.open, amount);
    const again = closeDebt(now.debt, rest, order, { date, path: 'amount' }, own(), moment);
    if (!again.ok) return again;
    take(again.value);
  }
  return accept(now.settled.length === 0 ? null : now);
}
