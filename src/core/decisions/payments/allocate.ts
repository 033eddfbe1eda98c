import type { AuditNote, Changes, Decision, Moment } from '@/core/book/changes';
import type { IssuedDocument } from '@/core/documents/issued';
import { KINDS } from '@/core/documents/kinds';
import { type IsoDate, isIsoDate } from '@/core/kernel/date';
import { grouped } from '@/core/kernel/grouped';
import { type Minor, negated } from '@/core/kernel/money';
import { accept, type Result, refuse } from '@/core/kernel/result';
import type { Account } from '@/core/ledger/account';
import { entryOf, type PostedEntry, type Side } from '@/core/ledger/entry';
import { differenceSides, releaseSides } from '@/core/ledger/posting/receipt';
import { notYetDueAccountOf, outputAccountOf } from '@/core/ledger/posting/taxAccounts';
import { periodIdOf, placeInPeriod } from '@/core/returns/calendar';
import { type Owing, type Paying, releasedBy, settledSoFar, settledWith, undoingOf } from '@/core/returns/release';
import type { TaxPeriod } from '@/core/returns/return';
import type { TaxEntry } from '@/core/returns/taxEntry';
import {
  type Allocation,
  type Credit,
  creditAfter,
  creditBefore,
  debtAfter,
  debtBefore,
  differenceOf,
  homeParts,
  leftOfCredit,
  nextTurns,
  standing,
  takesBack,
} from '@/core/settlement/allocation';
import type { Registration } from '@/core/tax/registration';
import { postingDate } from '../sales/writeDocument';

/** What allocations are made and undone against. */
export interface AllocateMaterial {
  readonly chart: readonly Account[];
  /** For tax that falls due with a payment. */
  readonly registrations: readonly Registration[];
  /** All that was made of the debt, and of the credit, so far. */
  readonly ofDebt: readonly Allocation[];
  readonly ofCredit: readonly Allocation[];
  /** Credit notes on the debt itself. */
  readonly notes: readonly IssuedDocument[];
}

/** What making or undoing one allocation comes to: the rows as they are then, and what is posted. */
export interface Settled {
  readonly allocation: Allocation;
  readonly credit: Credit;
  readonly debt: IssuedDocument;
  readonly posted: readonly PostedEntry[];
  readonly taxEntries: readonly TaxEntry[];
  readonly taxPeriods: readonly TaxPeriod[];
}

export interface Released {
  /** Day it is posted: that of the money, or the first open one. */
  readonly date: IsoDate;
  readonly entries: readonly TaxEntry[];
  readonly sides: readonly Side[];
  readonly period: TaxPeriod;
}

/** Tax of a document on payment basis falls due in step with what is settled of it, in the period of the day. */
export function releasedOf(
  payingId: string,
  owing: Owing,
  moved: Pick<Paying, 'before' | 'after'>,
  date: IsoDate,
  { chart, registrations }: Pick<AllocateMaterial, 'chart' | 'registrations'>,
): Result<readonly Released[]> {
  const { content, number } = owing.document;
  if (content.basis !== 'on-payment') return accept([]);
  const registration = registrations.find((r) => r.id === content.registrationId);
  if (registration === undefined) return refuse({ code: 'not-found', path: '', what: 'registration' });
  const placement = placeInPeriod(registration, date);
  if (placement === null)
    return refuse({ code: 'before-registration', path: 'date', day: date, from: registration.keptFrom });
  const { span, late } = placement;
  const id = periodIdOf(registration.id, span.start);
  const entries = releasedBy(payingId, owing, registration, moved, id, late);
  if (entries.length === 0) return accept([]);
  return accept([
    {
      date: postingDate(registration, date),
      entries,
      sides: releaseSides(entries, number, notYetDueAccountOf(registration, chart), {
        outputAccount: outputAccountOf(registration, chart),
        taxPeriodId: id,
      }),
      period: { id, registrationId: registration.id, ...span, filed: null },
    },
  ]);
}

type Move = Pick<Allocation, 'debtId' | 'creditId' | 'amount' | 'takesBack'>;

/** Tax of both that falls due by an allocation, or that is taken back where the amount is below zero. */
function released(
  payingId: string,
  credit: Credit,
  debt: IssuedDocument,
  move: Move,
  date: IsoDate,
  material: AllocateMaterial,
): Result<readonly Released[]> {
  const { ofDebt, ofCredit } = material;
  const notes = new Map(material.notes.map((note) => [note.id, note]));
  if (credit.kind === 'credit-note') notes.set(credit.note.id, credit.note);
  const of = (document: IssuedDocument, allocations: readonly Allocation[]) => {
    const before = settledSoFar(document.id, allocations);
    const moved = { before, after: settledWith(before, document.id, move) };
    return releasedOf(payingId, { document, notes }, moved, date, material);
  };
  const byDebt = of(debt, ofDebt);
  if (!byDebt.ok || credit.kind === 'receipt') return byDebt;
  const byNote = of(credit.note, ofCredit);
  return byNote.ok ? accept([...byDebt.value, ...byNote.value]) : byNote;
}

/** Entries for what moved: differences on the day, tax on its own where that lies in a filed period. */
export function entriesFor(
  allocation: Pick<Allocation, 'creditNumber' | 'debtId' | 'debtNumber'>,
  date: IsoDate,
  homes: Pick<Allocation, 'debtHome' | 'creditHome'>,
  taxes: readonly Released[],
  words: string,
  chart: readonly Account[],
  moment: Moment,
): readonly PostedEntry[] {
  const text = `${allocation.creditNumber} ${words} ${allocation.debtNumber}`;
  const dated = [
    ...differenceSides(differenceOf(homes), allocation.creditNumber, chart).map((side) => ({ date, side })),
    ...taxes.flatMap((tax) => tax.sides.map((side) => ({ date: tax.date, side }))),
  ];
  return [...grouped(dated, (one) => one.date).values()].map((group) =>
    entryOf(
      {
        id: moment.newId(),
        date: group[0]?.date ?? date,
        kind: 'allocation',
        text,
        sourceId: allocation.debtId,
        at: moment.now,
      },
      group.map(({ side }) => side),
    ),
  );
}

/** What must hold before a credit and a debt are brought together; path is that of the amount. */
function pairRefusal(credit: Credit, debt: IssuedDocument | undefined, amount: Minor, path: string) {
  const { customerId, currency, open, number } = leftOfCredit(credit);
  if (debt === undefined || debt.customerId !== customerId || !KINDS[debt.kind].owed || debt.cancelled !== null)
    return refuse({ code: 'not-found', path, what: 'invoice-of-customer' });
  if (debt.content.currency !== currency) return refuse({ code: 'invalid', path, wanted: 'one-currency' });
  if (amount <= 0n) return refuse({ code: 'invalid', path, wanted: 'amount-above-zero' });
  if (amount > debt.open) return refuse({ code: 'over-allocated', path, number: debt.number });
  if (amount > open) return refuse({ code: 'over-allocated', path, number });
  return accept(debt);
}

/** Brings a credit and a debt together by an amount in their currency. Refused at `path`. */
export function bringTogether(
  credit: Credit,
  of: IssuedDocument | undefined,
  amount: Minor,
  { date, path }: { readonly date: IsoDate; readonly path: string },
  material: AllocateMaterial,
  moment: Moment,
): Result<Settled> {
  const pair = pairRefusal(credit, of, amount, path);
  if (!pair.ok) return pair;
  const debt = pair.value;
  const { id: creditId, number: creditNumber, customerId, currency } = leftOfCredit(credit);
  const id = moment.newId();
  const parts = homeParts(credit, debt, amount);
  const own = takesBack(credit, debt.id);
  const move: Move = { debtId: debt.id, creditId, amount, takesBack: own };
  const tax = released(id, credit, debt, move, date, material);
  if (!tax.ok) return tax;
  const named = { id, creditNumber, debtId: debt.id, debtNumber: debt.number };
  const posted = entriesFor(named, date, parts, tax.value, 'settles', material.chart, moment);
  const allocation: Allocation = {
    ...named,
    customerId,
    creditKind: credit.kind,
    debtKind: 'document',
    creditId,

    date,
    currency,
    amount,
    ...parts,
    takesBack: own,
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
    taxEntries: tax.value.flatMap(({ entries }) => entries),
    taxPeriods: tax.value.map(({ period }) => period),
  });
}

/** Takes an allocation back: both stand as they did, and what it had posted is mirrored on the day. */
function takeBack(
  allocation: Allocation,
  credit: Credit,
  debt: IssuedDocument,
  date: IsoDate,
  material: AllocateMaterial,
  moment: Moment,
): Result<Settled> {
  const back: Move = { ...allocation, amount: negated(allocation.amount) };
  const tax = released(undoingOf(allocation.id), credit, debt, back, date, material);
  if (!tax.ok) return tax;
  const homes = { debtHome: negated(allocation.debtHome), creditHome: negated(allocation.creditHome) };
  const posted = entriesFor(allocation, date, homes, tax.value, 'no longer settles', material.chart, moment);
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
    credit: creditBefore(credit, allocation),
    debt: debtBefore(debt, allocation),
    posted,
    taxEntries: tax.value.flatMap(({ entries }) => entries),
    taxPeriods: tax.value.map(({ period }) => period),
  });
}

/** What is written for allocations made one after the other with one credit; rows that several moved are as the last left them. */
export function changesOfSettled(settled: readonly Settled[]): {
  readonly add: NonNullable<Changes['add']>;
  readonly put: NonNullable<Changes['put']>;
} {
  const posted = settled.flatMap((one) => one.posted);
  const taxEntries = settled.flatMap((one) => one.taxEntries);
  const periods = new Map(settled.flatMap((one) => one.taxPeriods.map((period) => [period.id, period] as const)));
  const documents = new Map<string, IssuedDocument>();
  for (const { debt, credit } of settled) {
    documents.set(debt.id, debt);
    if (credit.kind === 'credit-note') documents.set(credit.note.id, credit.note);
  }
  return {
    add: {
      ...(posted.length > 0 && {
        journal: posted.map(({ entry }) => entry),
        journalLines: posted.flatMap(({ lines }) => lines),
      }),
      ...(taxEntries.length > 0 && { taxEntries }),
    },
    put: {
      ...(settled.length > 0 && {
        allocations: settled.map(({ allocation }) => allocation),
        documents: [...documents.values()],
      }),
      ...(periods.size > 0 && { taxPeriods: [...periods.values()] }),
    },
  };
}

export interface AllocateInput {
  readonly creditId: string;
  readonly debtId: string;
  /** ISO date. */
  readonly date: string;
  /** In the currency of both. */
  readonly amount: Minor;
}

export interface PairMaterial extends AllocateMaterial {
  /** Undefined where the book has none of this id that is a credit. */
  readonly credit: Credit | undefined;
  readonly debt: IssuedDocument | undefined;
}

/** Rows of a credit that is a receipt; a credit note is among the documents. */
const receiptOf = (credit: Credit) => (credit.kind === 'receipt' ? { receipts: [credit.receipt] } : {});

/** An allocation that was made or undone, with everything it moved, and its word on the audit trail. */
function written(settled: Settled, verb: string, note: Pick<AuditNote, 'before' | 'after'>): Decision<Allocation> {
  const { allocation, credit } = settled;
  const { add, put } = changesOfSettled([settled]);
  return accept({
    value: allocation,
    changes: {
      add,
      put: { ...put, ...receiptOf(credit) },
      audit: {
        subject: `${allocation.creditNumber} ${verb} ${allocation.debtNumber}`,
        about: [allocation.creditId, allocation.debtId, allocation.customerId],
        ...note,
      },
    },
  });
}

/** Settles a debt with money on account, or with a credit note of the customer. */
export function allocate(input: AllocateInput, material: PairMaterial, moment: Moment): Decision<Allocation> {
  const { date, amount } = input;
  const { credit, debt } = material;
  if (credit === undefined) return refuse({ code: 'not-found', path: 'creditId' });
  if (!isIsoDate(date)) return refuse({ code: 'invalid', path: 'date', wanted: 'give-a-day', found: date });
  const settled = bringTogether(credit, debt, amount, { date, path: 'amount' }, material, moment);
  if (!settled.ok) return settled;
  const { open } = settled.value.debt;
  return written(settled.value, 'settles', { before: { open: debt?.open }, after: { amount, open } });
}

/** Undoes the newest allocation that stands between a credit and a debt; both records stay to be seen. */
export function undoAllocation(
  { date }: Pick<AllocateInput, 'creditId' | 'debtId' | 'date'>,
  material: PairMaterial,
  moment: Moment,
): Decision<Allocation> {
  const { credit, debt, ofDebt } = material;
  if (credit === undefined || debt === undefined) return refuse({ code: 'not-found', path: 'creditId' });
  if (!isIsoDate(date)) return refuse({ code: 'invalid', path: 'date', wanted: 'give-a-day', found: date });
  const [newest] = standing(ofDebt.filter(({ creditId }) => creditId === leftOfCredit(credit).id));
  if (newest === undefined) return refuse({ code: 'not-found', path: 'creditId' });
  if (date < newest.date)
    return refuse({ code: 'invalid', path: 'date', wanted: 'day-not-before-allocation', found: date });
  const settled = takeBack(newest, credit, debt, date, material, moment);
  if (!settled.ok) return settled;
  const { amount } = newest;
  return written(settled.value, 'no longer settles', { before: { amount }, after: { open: settled.value.debt.open } });
}
