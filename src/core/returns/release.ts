import { figuresOf } from '@/core/documents/content';
import { type IssuedDocument, owedOf } from '@/core/documents/issued';
import type { IsoDate } from '@/core/kernel/date';
import { type Minor, minor, NOTHING, negated, plus, total } from '@/core/kernel/money';
import { halfUp } from '@/core/kernel/rounding';
import { type Allocation, standing } from '@/core/settlement/allocation';
import type { Registration } from '@/core/tax/registration';
import { type TaxEntry, taxEntriesOf } from './taxEntry';

type Releasing = Pick<Registration, 'id' | 'jurisdictionId' | 'filingCurrency'>;

/** How far a document is settled, for the tax of it that falls due. */
export interface SettledSoFar {
  /** By money and by credits of other documents; below zero of a credit note. */
  readonly paid: Minor;
  /** By own credit notes, above zero, by their ids; of a credit note under its own id what was set off against its invoice. */
  readonly takenBack: ReadonlyMap<string, Minor>;
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

/** Entries of a document as its content says, for a registration. */
function entriesOf({ id, content }: IssuedDocument, registration: Releasing): readonly TaxEntry[] {
  return taxEntriesOf(id, content, figuresOf(content), registration, '', false);
}

const owedBy = ({ content }: IssuedDocument): Minor => absolute(owedOf(content, figuresOf(content)));

/**
 * What of each entry has fallen due: R(tax × paid ÷ owed); once nothing is open, all of it less what own credit notes took
 * back, R(tax of the note × set off ÷ owed of the note), so that nothing stays in tax not yet due for what is settled.
 */
function releasedUpTo({ document, notes }: Owing, registration: Releasing, { paid, takenBack }: SettledSoFar) {
  const owed = owedBy(document);
  const back = [...takenBack].filter(([, amount]) => amount !== NOTHING);
  if (plus(absolute(paid), total(back.map(([, amount]) => amount))) !== owed)
    return (figure: Figure, entry: TaxEntry): Minor => share(figure(entry), absolute(paid), owed);
  const taken = back.flatMap(([id, amount]) => {
    const own = id === document.id;
    const note = own ? document : notes.get(id);
    if (note === undefined) return [];
    const byPlace = new Map(entriesOf(note, registration).map((entry) => [placeOf(entry), entry]));
    return [{ byPlace, amount, owed: owedBy(note), sign: own ? -1n : 1n }];
  });
  return (figure: Figure, entry: TaxEntry): Minor =>
    taken.reduce((sum, { byPlace, amount, owed: ofNote, sign }) => {
      const theirs = byPlace.get(placeOf(entry));
      return theirs === undefined ? sum : minor(sum + sign * share(figure(theirs), amount, ofNote));
    }, figure(entry));
}

/**
 * What of a document's tax falls due when it is settled further, or taken back when that is undone, by the allocation (or
 * the undoing) of this id. In any order, what is released is what the rule gives for where the document stands.
 */
export function releasedBy(
  payingId: string,
  owing: Owing,
  registration: Releasing,
  { before, after }: Pick<Paying, 'before' | 'after'>,
  periodId: string,
  late: boolean,
): readonly TaxEntry[] {
  const [was, is] = [releasedUpTo(owing, registration, before), releasedUpTo(owing, registration, after)];
  return entriesOf(owing.document, registration).flatMap((entry): readonly TaxEntry[] => {
    const part = (figure: Figure): Minor => minor(is(figure, entry) - was(figure, entry));
    const released: TaxEntry = {
      ...entry,
      id: `${payingId}:${entry.id}`,
      allocationId: payingId,
      periodId,
      late,
      kind: entry.certificate === '' ? 'released' : 'exempt',
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

/** How far a document is settled once an allocation of it, or of it as a credit, is made; below zero for one that is undone. */
export function settledWith(
  { paid, takenBack }: SettledSoFar,
  documentId: string,
  { debtId, creditId, amount, takesBack }: Pick<Allocation, 'debtId' | 'creditId' | 'amount' | 'takesBack'>,
): SettledSoFar {
  if (!takesBack) return { paid: plus(paid, debtId === documentId ? amount : negated(amount)), takenBack };
  return { paid, takenBack: new Map([...takenBack, [creditId, plus(takenBack.get(creditId) ?? NOTHING, amount)]]) };
}

const UNSETTLED: SettledSoFar = { paid: NOTHING, takenBack: new Map() };

/** How far a document is settled by these allocations. */
export function settledSoFar(documentId: string, allocations: readonly Allocation[]): SettledSoFar {
  return standing(allocations).reduce((sum, one) => settledWith(sum, documentId, one), UNSETTLED);
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
    after = settledWith(before, document.id, one);
    return { ...move, before, after };
  });
}
