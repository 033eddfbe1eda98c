import type { Moment } from '@/core/book/changes';
import { changesInOrder, type RowChanges } from '@/core/book/changesInOrder';
import type { IssuedDocument } from '@/core/documents/issued';
import { KINDS } from '@/core/documents/kinds';
import type { IsoDate } from '@/core/kernel/date';
import { type Minor, negated } from '@/core/kernel/money';
import { accept, type Result, refuse } from '@/core/kernel/result';
import type { Account } from '@/core/ledger/account';
import type { PostedEntry } from '@/core/ledger/entry';
import { closingSides, differenceSides } from '@/core/ledger/posting/settling';
import { settledSoFar, settledWith, undoingOf } from '@/core/returns/release';
import type { TaxPeriod } from '@/core/returns/return';
import type { TaxEntry } from '@/core/returns/taxEntry';
import {
  type Allocation,
  type Closing,
  type Credit,
  creditAfter,
  creditBefore,
  debtAfter,
  debtBefore,
  differenceOf,
  homePart,
  leftOfCredit,
  nextTurns,
  takesBack,
} from '@/core/settlement/allocation';
import type { Registration } from '@/core/tax/registration';
import { type EntryHead, entriesFor, type TaxMoved, taxMoved } from './taxMoved';

/** What allocations are made and undone against. */
export interface SettleMaterial {
  readonly chart: readonly Account[];
  /** For tax that falls due with a payment. */
  readonly registrations: readonly Registration[];
  /** All that was made of the debt, and of the credit, so far. */
  readonly ofDebt: readonly Allocation[];
  readonly ofCredit: readonly Allocation[];
  /** Credit notes on the debt itself. */
  readonly notes: readonly IssuedDocument[];
  /** The parent of each customer that has one: those under one parent settle what any of them owes. */
  readonly parents?: ReadonlyMap<string, string>;
}

/** What making or undoing one allocation comes to: the rows as they are then, and what is posted. */
export interface Settled {
  readonly allocation: Allocation;
  /** Null where an account closed the debt. */
  readonly credit: Credit | null;
  readonly debt: IssuedDocument;
  readonly posted: readonly PostedEntry[];
  readonly taxEntries: readonly TaxEntry[];
  readonly taxPeriods: readonly TaxPeriod[];
}

type Move = Pick<Allocation, 'debtId' | 'creditId' | 'creditKind' | 'amount' | 'takesBack' | 'closing'>;

/** Tax of both that moves by an allocation, or back where the amount is below zero. */
function taxesMoved(
  payingId: string,
  credit: Credit | null,
  debt: IssuedDocument,
  move: Move,
  date: IsoDate,
  material: SettleMaterial,
): Result<readonly TaxMoved[]> {
  const { ofDebt, ofCredit } = material;
  const notes = new Map(material.notes.map((note) => [note.id, note]));
  if (credit?.kind === 'credit-note') notes.set(credit.note.id, credit.note);
  const of = (document: IssuedDocument, allocations: readonly Allocation[]) => {
    const before = settledSoFar(document, allocations);
    const moved = { before, after: settledWith(before, document, move) };
    return taxMoved(payingId, { document, notes }, moved, date, material, move.closing);
  };
  const byDebt = of(debt, ofDebt);
  if (!byDebt.ok || credit?.kind !== 'credit-note') return byDebt;
  const byNote = of(credit.note, ofCredit);
  return byNote.ok ? accept([...byDebt.value, ...byNote.value]) : byNote;
}

const taxRows = (taxes: readonly TaxMoved[]): Pick<Settled, 'taxEntries' | 'taxPeriods'> => ({
  taxEntries: taxes.flatMap(({ entries }) => entries),
  taxPeriods: taxes.flatMap(({ period }) => period ?? []),
});

/** The day of an allocation, and the path of its amount, at which it is refused. */
export interface Where {
  readonly date: IsoDate;
  readonly path: string;
}

/** A document that a customer owes, with as much open as is to be settled. */
function owing(debt: IssuedDocument | undefined, amount: Minor, path: string): Result<IssuedDocument> {
  if (debt === undefined || !KINDS[debt.kind].owed || debt.cancelled !== null)
    return refuse({ code: 'not-found', path, what: 'invoice-of-customer' });
  if (amount <= 0n) return refuse({ code: 'invalid', path, wanted: 'amount-above-zero' });
  if (amount > debt.open) return refuse({ code: 'over-allocated', path, number: debt.number });
  return accept(debt);
}

/** The debt, where it and the credit can be brought together by the amount. */
function paired(
  credit: Credit,
  debt: IssuedDocument | undefined,
  amount: Minor,
  path: string,
  parents: ReadonlyMap<string, string> = new Map(),
): Result<IssuedDocument> {
  const { customerId, currency, open, number } = leftOfCredit(credit);
  const head = (id: string) => parents.get(id) ?? id;
  if (credit.kind === 'receipt' && credit.receipt.dishonoured !== null)
    return refuse({ code: 'dishonoured', path, number });
  if (debt === undefined || head(debt.customerId) !== head(customerId))
    return refuse({ code: 'not-found', path, what: 'invoice-of-customer' });
  if (debt.content.currency !== currency) return refuse({ code: 'invalid', path, wanted: 'one-currency' });
  const owed = owing(debt, amount, path);
  if (owed.ok && amount > open) return refuse({ code: 'over-allocated', path, number });
  return owed;
}

/** Brings a credit and a debt together by an amount in their currency. Refused at `path`. */
export function bringTogether(
  credit: Credit,
  of: IssuedDocument | undefined,
  amount: Minor,
  { date, path }: Where,
  material: SettleMaterial,
  moment: Moment,
): Result<Settled> {
  const pair = paired(credit, of, amount, path, material.parents);
  if (!pair.ok) return pair;
  const debt = pair.value;
  const { id: creditId, number: creditNumber, customerId, currency, open, openHome } = leftOfCredit(credit);
  const id = moment.newId();
  const homes = { debtHome: homePart(amount, debt), creditHome: homePart(amount, { open, openHome }) };
  const own = takesBack(credit, debt.id);
  const move: Move = { debtId: debt.id, creditId, creditKind: credit.kind, amount, takesBack: own };
  const tax = taxesMoved(id, credit, debt, move, date, material);
  if (!tax.ok) return tax;
  const head: EntryHead = { kind: 'allocation', text: `${creditNumber} settles ${debt.number}`, sourceId: debt.id };
  const sides = differenceSides(differenceOf(homes), creditNumber, material.chart);
  const posted = entriesFor(head, date, sides, tax.value, moment);
  const allocation: Allocation = {
    ...move,
    id,
    customerId,
    creditNumber,
    debtKind: 'document',
    debtNumber: debt.number,
    date,
    currency,
    ...homes,
    entryIds: posted.map(({ entry }) => entry.id),
    at: moment.now,
    ...nextTurns(material.ofDebt, material.ofCredit),
    undoneOn: '',
    undone: null,
  };
  return accept({
    allocation,
    credit: creditAfter(credit, allocation),
    debt: debtAfter(debt, allocation),
    posted,
    ...taxRows(tax.value),
  });
}

/** How a debt is to be closed by an account. */
export interface ClosingOrder extends Closing {
  readonly kind: 'difference' | 'write-off';
  /** Stands where an allocation names its credit. */
  readonly number: string;
}

const closingHead = ({ creditKind, debtId }: Move, words: string): EntryHead => ({
  kind: creditKind === 'write-off' ? 'write-off' : 'allocation',
  text: words,
  sourceId: debtId,
});

/** Closes an amount of a debt to an account: a small rest, or what is given up. Refused at `path`. */
export function closeDebt(
  of: IssuedDocument | undefined,
  amount: Minor,
  { kind, number, ...closing }: ClosingOrder,
  { date, path }: Where,
  material: Omit<SettleMaterial, 'ofCredit'>,
  moment: Moment,
): Result<Settled> {
  const owed = owing(of, amount, path);
  if (!owed.ok) return owed;
  const debt = owed.value;
  if (closing.relief && debt.content.basis === 'on-payment')
    return refuse({ code: 'no-relief', path: 'relief', why: 'not-yet-due' });
  const id = moment.newId();
  const home = homePart(amount, debt);
  const move: Move = { debtId: debt.id, creditId: id, creditKind: kind, amount, takesBack: false, closing };
  const tax = taxesMoved(id, null, debt, move, date, { ...material, ofCredit: [] });
  if (!tax.ok) return tax;
  const sides = closingSides(home, closing.account, debt.number, material.chart);
  const posted = entriesFor(closingHead(move, `${number} closes ${debt.number}`), date, sides, tax.value, moment);
  const allocation: Allocation = {
    ...move,
    id,
    customerId: debt.customerId,
    creditNumber: number,
    debtKind: 'document',
    debtNumber: debt.number,
    date,
    currency: debt.content.currency,
    debtHome: home,
    creditHome: home,
    entryIds: posted.map(({ entry }) => entry.id),
    at: moment.now,
    ...nextTurns(material.ofDebt, []),
    undoneOn: '',
    undone: null,
  };
  return accept({ allocation, credit: null, debt: debtAfter(debt, allocation), posted, ...taxRows(tax.value) });
}

/** Takes an allocation back: both stand as they did, and what it had posted is mirrored on the day. */
export function takeBack(
  allocation: Allocation,
  credit: Credit | null,
  debt: IssuedDocument,
  date: IsoDate,
  material: SettleMaterial,
  moment: Moment,
): Result<Settled> {
  const move: Move = { ...allocation, amount: negated(allocation.amount) };
  const tax = taxesMoved(undoingOf(allocation.id), credit, debt, move, date, material);
  if (!tax.ok) return tax;
  const { debtHome, creditHome, creditNumber, debtNumber, closing } = allocation;
  const { chart } = material;
  const posted =
    closing === undefined
      ? entriesFor(
          { kind: 'allocation', text: `${creditNumber} no longer settles ${debtNumber}`, sourceId: debt.id },
          date,
          differenceSides(negated(differenceOf({ debtHome, creditHome })), creditNumber, chart),
          tax.value,
          moment,
        )
      : entriesFor(
          closingHead(move, `${creditNumber} no longer closes ${debtNumber}`),
          date,
          closingSides(negated(debtHome), closing.account, debtNumber, chart),
          tax.value,
          moment,
        );
  return accept({
    allocation: {
      ...allocation,
      undoneOn: date,
      undone: {
        on: date,
        at: moment.now,
        ...nextTurns(material.ofDebt, material.ofCredit),
        entryIds: posted.map(({ entry }) => entry.id),
      },
    },
    credit: credit === null ? null : creditBefore(credit, allocation),
    debt: debtBefore(debt, allocation),
    posted,
    ...taxRows(tax.value),
  });
}

/** What is written for one allocation that was made or undone. */
function changesOfOne({ allocation, credit, debt, posted, taxEntries, taxPeriods }: Settled): RowChanges {
  return {
    add: {
      ...(posted.length > 0 && {
        journal: posted.map(({ entry }) => entry),
        journalLines: posted.flatMap(({ lines }) => lines),
      }),
      ...(taxEntries.length > 0 && { taxEntries }),
    },
    put: {
      allocations: [allocation],
      documents: credit?.kind === 'credit-note' ? [debt, credit.note] : [debt],
      ...(credit?.kind === 'receipt' && { receipts: [credit.receipt] }),
      ...(taxPeriods.length > 0 && { taxPeriods }),
    },
  };
}

/** What is written for allocations made and undone one after the other; rows that several moved are as the last left them. */
export function changesOfSettled(settled: readonly Settled[]): Required<RowChanges> {
  return changesInOrder(settled.map(changesOfOne));
}
