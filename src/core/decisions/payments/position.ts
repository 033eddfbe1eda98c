import type { Moment } from '@/core/book/changes';
import type { IssuedDocument } from '@/core/documents/issued';
import type { IsoDate } from '@/core/kernel/date';
import { accept, type Result } from '@/core/kernel/result';
import { type Allocation, type Credit, leftOfCredit, standing } from '@/core/settlement/allocation';
import { type Settled, type SettleMaterial, takeBack } from './settle';

/** Debts and credits as they stand while one action settles several of them, one after the other. */
export interface Position extends Pick<SettleMaterial, 'chart' | 'registrations' | 'parents'> {
  readonly debts: ReadonlyMap<string, IssuedDocument>;
  readonly credits: ReadonlyMap<string, Credit>;
  /** All that was made of each of them so far, by id. */
  readonly allocations: ReadonlyMap<string, Allocation>;
  /** Credit notes on the debts. */
  readonly notes: ReadonlyMap<string, IssuedDocument>;
}

const byId = <Row extends { readonly id: string }>(rows: Iterable<Row>): ReadonlyMap<string, Row> =>
  new Map([...rows].map((row) => [row.id, row]));

/** Where these stand before anything is done. */
export function positionOf(
  { chart, registrations, parents }: Pick<SettleMaterial, 'chart' | 'registrations' | 'parents'>,
  rows: {
    readonly debts: Iterable<IssuedDocument>;
    readonly credits: Iterable<Credit>;
    readonly allocations: Iterable<Allocation>;
    readonly notes: Iterable<IssuedDocument>;
  },
): Position {
  return {
    chart,
    registrations,
    ...(parents && { parents }),
    debts: byId(rows.debts),
    credits: new Map([...rows.credits].map((credit) => [leftOfCredit(credit).id, credit])),
    allocations: byId(rows.allocations),
    notes: byId(rows.notes),
  };
}

/** What settling a debt, with a credit where there is one, looks at. */
export function materialIn(position: Position, debtId: string, creditId = ''): SettleMaterial {
  const all = [...position.allocations.values()];
  return {
    ...position,
    ofDebt: all.filter((one) => one.debtId === debtId),
    ofCredit: all.filter((one) => creditId !== '' && one.creditId === creditId),
    notes: [...position.notes.values()],
  };
}

/** Where they stand once allocations were made or undone. */
export function positionAfter(position: Position, ...made: readonly Settled[]): Position {
  const debts = new Map(position.debts);
  const credits = new Map(position.credits);
  const allocations = new Map(position.allocations);
  const notes = new Map(position.notes);
  for (const { debt, credit, allocation } of made) {
    debts.set(debt.id, debt);
    allocations.set(allocation.id, allocation);
    if (credit === null) continue;
    credits.set(leftOfCredit(credit).id, credit);
    if (credit.kind === 'credit-note') notes.set(credit.note.id, credit.note);
  }
  return { ...position, debts, credits, allocations, notes };
}

/** Takes allocations back one after the other. All of them, their debts and their credits are in the position. */
export function takeBackAll(
  start: Position,
  allocations: readonly Allocation[],
  date: IsoDate,
  moment: Moment,
): Result<{ readonly settled: readonly Settled[]; readonly position: Position }> {
  let position = start;
  const settled: Settled[] = [];
  for (const allocation of allocations) {
    const debt = position.debts.get(allocation.debtId);
    if (debt === undefined) continue;
    const material = materialIn(position, debt.id, allocation.creditId);
    const credit = position.credits.get(allocation.creditId) ?? null;
    const one = takeBack(allocation, credit, debt, date, material, moment);
    if (!one.ok) return one;
    settled.push(one.value);
    position = positionAfter(position, one.value);
  }
  return accept({ settled, position });
}

/** An allocation with the differences that were closed with it: they are undone together, differences first. */
export function withItsDifferences(position: Position, allocation: Allocation): readonly Allocation[] {
  const all = [...position.allocations.values()];
  return [...standing(all.filter(({ closing }) => closing?.withId === allocation.id)), allocation];
}
