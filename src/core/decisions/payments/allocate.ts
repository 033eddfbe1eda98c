import type { AuditNote, Decision, Moment } from '@/core/book/changes';
import type { IssuedDocument } from '@/core/documents/issued';
import { type IsoDate, isIsoDate } from '@/core/kernel/date';
import type { Minor } from '@/core/kernel/money';
import { accept, refuse } from '@/core/kernel/result';
import { type Allocation, type Credit, leftOfCredit, standing } from '@/core/settlement/allocation';
import { positionOf, takeBackAll, withItsDifferences } from './position';
import { bringTogether, changesOfSettled, type Settled, type SettleMaterial } from './settle';
import { reopened } from './writeOff';

export interface AllocateInput {
  readonly creditId: string;
  readonly debtId: string;
  /** ISO date. */
  readonly date: string;
  /** In the currency of both. */
  readonly amount: Minor;
}

export interface PairMaterial extends SettleMaterial {
  /** Undefined where the book has none of this id that is a credit. */
  readonly credit: Credit | undefined;
  readonly debt: IssuedDocument | undefined;
}

/** Allocations that were made or undone, the last of them the one asked for, with their word on the audit trail. */
function written(settled: readonly Settled[], verb: string, note: Pick<AuditNote, 'before' | 'after'>) {
  const { allocation } = settled.at(-1) as Settled;
  return accept({
    value: allocation,
    changes: {
      ...changesOfSettled(settled),
      audit: {
        subject: `${allocation.creditNumber} ${verb} ${allocation.debtNumber}`,
        about: [allocation.creditId, allocation.debtId, allocation.customerId],
        ...note,
      },
    },
  });
}

/** A day before a cheque's own; an allocation counts from the day of its money. */
const laterThanMoney = (credit: Credit, date: IsoDate): IsoDate =>
  credit.kind === 'receipt' && credit.receipt.valueDate > date ? credit.receipt.valueDate : date;

/** Settles a debt with money on account, or with a credit note of the customer. What was written off of it comes back first. */
export function allocate(input: AllocateInput, material: PairMaterial, moment: Moment): Decision<Allocation> {
  const { amount } = input;
  const { credit, debt } = material;
  if (credit === undefined) return refuse({ code: 'not-found', path: 'creditId' });
  if (!isIsoDate(input.date)) return refuse({ code: 'invalid', path: 'date', wanted: 'give-a-day', found: input.date });
  const date = laterThanMoney(credit, input.date);
  const again = debt === undefined ? accept(null) : reopened(debt, amount, date, material, moment);
  if (!again.ok) return again;
  const { debt: owed = debt, ofDebt = material.ofDebt, settled: before = [] } = again.value ?? {};
  const where = { date, path: 'amount' };
  const settled = bringTogether(credit, owed, amount, where, { ...material, ofDebt }, moment);
  if (!settled.ok) return settled;
  const { open } = settled.value.debt;
  return written([...before, settled.value], 'settles', { before: { open: debt?.open }, after: { amount, open } });
}

/**
 * Undoes the newest allocation that stands between a credit and a debt, with the differences closed with it; all records
 * stay to be seen.
 */
export function undoAllocation(
  { date }: Pick<AllocateInput, 'creditId' | 'debtId' | 'date'>,
  material: PairMaterial,
  moment: Moment,
): Decision<Allocation> {
  const { credit, debt, ofDebt, ofCredit, notes } = material;
  if (credit === undefined || debt === undefined) return refuse({ code: 'not-found', path: 'creditId' });
  if (!isIsoDate(date)) return refuse({ code: 'invalid', path: 'date', wanted: 'give-a-day', found: date });
  const [newest] = standing(ofDebt.filter(({ creditId }) => creditId === leftOfCredit(credit).id));
  if (newest === undefined) return refuse({ code: 'not-found', path: 'creditId' });
  if (date < newest.date)
    return refuse({ code: 'invalid', path: 'date', wanted: 'day-not-before-allocation', found: date });
  const rows = { debts: [debt], credits: [credit], allocations: [...ofDebt, ...ofCredit], notes };
  const position = positionOf(material, rows);
  const undone = takeBackAll(position, withItsDifferences(position, newest), date, moment);
  if (!undone.ok) return undone;
  const { settled } = undone.value;
  const { amount } = newest;
  return written(settled, 'no longer settles', { before: { amount }, after: { open: settled.at(-1)?.debt.open } });
}
