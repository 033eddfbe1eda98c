import { figuresOf } from '@/core/documents/content';
import { type IssuedDocument, owedOf } from '@/core/documents/issued';
import type { IsoDate } from '@/core/kernel/date';
import { type Minor, minor, NOTHING, negated, plus, total } from '@/core/kernel/money';
import { halfUp } from '@/core/kernel/rounding';
import type { Allocation } from '@/core/settlement/allocation';
import type { Registration } from '@/core/tax/registration';
import { type TaxEntry, taxEntriesOf } from './taxEntry';

type Releasing = Pick<Registration, 'id' | 'jurisdictionId' | 'filingCurrency'>;

/** A write-off of a document that stands. */
interface WrittenOff {
  readonly amount: Minor;
  readonly relief: boolean;
  /** How far the document was settled before it, where it closed all that was left; else null. */
  readonly closed: SettledSoFar | null;
}

/** How far a document is settled, for the tax of it that falls due. */
export interface SettledSoFar {
  /** By money, tax withheld and credits of other documents; below zero of a credit note. */
  readonly paid: Minor;
  /** By own credit notes, above zero, by their ids; of a credit note under its own id what was set off against its invoice. */
  readonly takenBack: ReadonlyMap<string, Minor>;
  /** By small differences. */
  readonly differences: Minor;
  /** By the ids of write-offs. */
  readonly writtenOff: ReadonlyMap<string, WrittenOff>;
}

/** A document on payment basis with its own credit notes, by their ids. */
export interface Owing {
  readonly document: IssuedDocument;
  readonly notes: ReadonlyMap<string, IssuedDocument>;
}

type Figure = (entry: TaxEntry) => Minor;

const absolute = (amount: Minor): Minor => (amount < 0n ? negated(amount) : amount);

/** R(amount × part ÷ whole), whole being above zero. */
const share = (amount: Minor, part: Minor, whole: Minor): Minor =>
  whole === NOTHING ? NOTHING : minor(halfUp({ n: amount * part, d: whole }));

/** The place of an entry among those of its document: the same in a document and in its credit notes. */
const placeOf = ({ id, documentId }: TaxEntry): string => id.slice(documentId.length);

/** Entries of a document as they would be due at issue, for a registration. */
function entriesOf({ id, content }: IssuedDocument, registration: Releasing): readonly TaxEntry[] {
  const { basis: _, ...due } = content;
  return taxEntriesOf(id, due, figuresOf(content), registration, '', false);
}

const owedBy = ({ content }: IssuedDocument): Minor => absolute(owedOf(content, figuresOf(content)));

/** What something comes to, for a figure of an entry. */
type Part = (figure: Figure, entry: TaxEntry) => Minor;

const NONE: Part = () => NOTHING;

function settledInAll({ paid, takenBack, differences, writtenOff }: SettledSoFar): Minor {
  return total([
    absolute(paid),
    differences,
    ...takenBack.values(),
    ...[...writtenOff.values()].map(({ amount }) => amount),
  ]);
}

/** What own credit notes took back: R(tax of the note × set off ÷ owed of the note). */
function takenBackUpTo({ document, notes }: Owing, registration: Releasing, { takenBack }: SettledSoFar): Part {
  const taken = [...takenBack].flatMap(([id, amount]) => {
    const own = id === document.id;
    const note = own ? document : notes.get(id);
    if (note === undefined || amount === NOTHING) return [];
    const byPlace = new Map(entriesOf(note, registration).map((entry) => [placeOf(entry), entry]));
    return [{ byPlace, amount, owed: owedBy(note), sign: own ? 1n : -1n }];
  });
  return (figure, entry) =>
    taken.reduce((sum, { byPlace, amount, owed, sign }) => {
      const theirs = byPlace.get(placeOf(entry));
      return theirs === undefined ? sum : minor(sum + sign * share(figure(theirs), amount, owed));
    }, NOTHING);
}

/** What write-offs took out of what is not yet due: R(tax × written off ÷ owed), one that closes the document all that is left. */
function writtenOffUpTo(owing: Owing, registration: Releasing, { writtenOff }: SettledSoFar): Part {
  if (writtenOff.size === 0) return NONE;
  const owed = owedBy(owing.document);
  const parts = [...writtenOff.values()].map(({ amount, closed }): Part => {
    if (closed === null) return (figure, entry) => share(figure(entry), amount, owed);
    const [back, before] = [takenBackUpTo(owing, registration, closed), writtenOffUpTo(owing, registration, closed)];
    return (figure, entry) =>
      minor(
        figure(entry) - back(figure, entry) - before(figure, entry) - share(figure(entry), absolute(closed.paid), owed),
      );
  });
  return (figure, entry) => total(parts.map((part) => part(figure, entry)));
}

/**
 * What of each entry has fallen due: R(tax × paid ÷ owed); once nothing is open, all of it less what own credit notes took
 * back and what was written off, so that nothing stays in tax not yet due for what is settled.
 */
function releasedUpTo(owing: Owing, registration: Releasing, state: SettledSoFar): Part {
  const owed = owedBy(owing.document);
  if (settledInAll(state) !== owed) return (figure, entry) => share(figure(entry), absolute(state.paid), owed);
  const [back, written] = [takenBackUpTo(owing, registration, state), writtenOffUpTo(owing, registration, state)];
  return (figure, entry) => minor(figure(entry) - back(figure, entry) - written(figure, entry));
}

/** What write-offs with relief took back of tax that was due at issue: R(tax × written off ÷ owed), below zero. */
function relievedUpTo({ document }: Owing, { writtenOff }: SettledSoFar): Part {
  const owed = owedBy(document);
  const relieved = [...writtenOff.values()].flatMap(({ amount, relief }) => (relief ? [amount] : []));
  return (figure, entry) => total(relieved.map((amount) => negated(share(figure(entry), amount, owed))));
}

const onPayment = ({ document }: Owing): boolean => document.content.basis === 'on-payment';

/**
 * What of a document's tax falls due, or is taken back, when it is settled further, or when that is undone, by the
 * allocation (or the undoing) of this id: on payment basis what it releases, else the relief of a write-off. In any order,
 * what was released is what the rule gives for where the document stands.
 */
export function releasedBy(
  payingId: string,
  owing: Owing,
  registration: Releasing,
  { before, after }: Pick<Paying, 'before' | 'after'>,
  periodId: string,
  late: boolean,
): readonly TaxEntry[] {
  const upTo = (state: SettledSoFar) =>
    onPayment(owing) ? releasedUpTo(owing, registration, state) : relievedUpTo(owing, state);
  const [was, is] = [upTo(before), upTo(after)];
  return entriesOf(owing.document, registration).flatMap((entry): readonly TaxEntry[] => {
    const part = (figure: Figure): Minor => minor(is(figure, entry) - was(figure, entry));
    const released: TaxEntry = {
      ...entry,
      id: `${payingId}:${entry.id}`,
      allocationId: payingId,
      periodId,
      late,
      kind: !onPayment(owing) ? 'relief' : entry.kind === 'exempt' ? 'exempt' : 'released',
      base: part((e) => e.base),
      tax: part((e) => e.tax),
      filingBase: part((e) => e.filingBase),
      filingTax: part((e) => e.filingTax),
      ...(entry.inDocument && {
        inDocument: {
          ...entry.inDocument,
          base: part((e) => e.inDocument?.base ?? NOTHING),
          tax: part((e) => e.inDocument?.tax ?? NOTHING),
        },
      }),
    };
    return released.base === NOTHING && released.tax === NOTHING ? [] : [released];
  });
}

/** Tax that leaves what is not yet due without ever falling due, because its debt is written off; below zero when undone. */
export function givenUpBy(
  owing: Owing,
  registration: Releasing,
  { before, after }: Pick<Paying, 'before' | 'after'>,
): readonly TaxEntry[] {
  if (!onPayment(owing)) return [];
  const [was, is] = [writtenOffUpTo(owing, registration, before), writtenOffUpTo(owing, registration, after)];
  return entriesOf(owing.document, registration).flatMap((entry) => {
    const tax = minor(is((e) => e.tax, entry) - was((e) => e.tax, entry));
    return tax === NOTHING ? [] : [{ ...entry, tax }];
  });
}

/** A document on payment basis with every allocation that was made of it, or of it as a credit. */
export interface Releases extends Owing {
  readonly registration: Releasing;
  readonly allocations: readonly Allocation[];
}

/** What settled a document further: an allocation, or that it was undone. */
export interface Paying {
  readonly id: string;
  readonly number: string;
  readonly date: IsoDate;
  readonly entryIds: readonly string[];
  /** How far it was settled before and after it. */
  readonly before: SettledSoFar;
  readonly after: SettledSoFar;
}

/** The id under which the undoing of an allocation takes its tax back. */
export const undoingOf = (id: string): string => `${id}:undone`;

type Move = Pick<Allocation, 'debtId' | 'creditId' | 'creditKind' | 'amount' | 'takesBack' | 'closing'>;

/** How far a document is settled once an allocation of it, or of it as a credit, is made; below zero for one that is undone. */
export function settledWith(state: SettledSoFar, document: IssuedDocument, move: Move): SettledSoFar {
  const { debtId, creditId, creditKind, amount, takesBack, closing } = move;
  const { paid, takenBack, differences, writtenOff } = state;
  if (creditKind === 'difference') return { ...state, differences: plus(differences, amount) };
  if (creditKind === 'write-off') {
    const others = [...writtenOff].filter(([id]) => id !== creditId);
    if (amount < 0n) return { ...state, writtenOff: new Map(others) };
    const closed = plus(settledInAll(state), amount) === owedBy(document) ? state : null;
    const one = { amount, relief: closing?.relief ?? false, closed };
    return { ...state, writtenOff: new Map([...others, [creditId, one]]) };
  }
  if (!takesBack) return { ...state, paid: plus(paid, debtId === document.id ? amount : negated(amount)) };
  return {
    ...state,
    takenBack: new Map([...takenBack, [creditId, plus(takenBack.get(creditId) ?? NOTHING, amount)]]),
  };
}

const UNSETTLED: SettledSoFar = {
  paid: NOTHING,
  takenBack: new Map(),
  differences: NOTHING,
  writtenOff: new Map(),
};

/** How far a document is settled by all that was made and undone of it. */
export function settledSoFar(document: IssuedDocument, allocations: readonly Allocation[]): SettledSoFar {
  return paidInOrder({ document, allocations }).at(-1)?.after ?? UNSETTLED;
}

/** What settled a document further, in order; each with how far it was before and after. */
export function paidInOrder({ document, allocations }: Pick<Releases, 'document' | 'allocations'>): readonly Paying[] {
  const moves = allocations
    .flatMap((one) => {
      const { id, creditNumber: number, date, entryIds, undone } = one;
      const key = one.debtId === document.id ? 'turn' : 'creditTurn';
      const made = { turn: one[key], id, number, date, entryIds, one };
      if (undone === null) return [made];
      const back = { id: undoingOf(id), date: undone.on, entryIds: undone.entryIds };
      return [made, { turn: undone[key], number, ...back, one: { ...one, amount: negated(one.amount) } }];
    })
    .sort((a, b) => a.turn - b.turn);
  let after = UNSETTLED;
  return moves.map(({ one, turn: _, ...move }) => {
    const before = after;
    after = settledWith(before, document, one);
    return { ...move, before, after };
  });
}
