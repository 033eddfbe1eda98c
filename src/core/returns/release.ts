import { figuresOf } from '@/core/documents/content';
import { type IssuedDocument, owedOf } from '@/core/documents/issued';
import type { IsoDate } from '@/core/kernel/date';
import { type Minor, minor, NOTHING, negated, plus } from '@/core/kernel/money';
import { halfUp } from '@/core/kernel/rounding';
import type { Allocation } from '@/core/settlement/allocation';
import type { Registration } from '@/core/tax/registration';
import { type TaxEntry, taxEntriesOf } from './taxEntry';

type Releasing = Pick<Registration, 'id' | 'jurisdictionId' | 'filingCurrency'>;

/**
 * What of a document's tax falls due when what is paid of it rises from `before` to `after`, on
 * payment basis, by the allocation (or the undoing) of this id. Released so far is R(tax × paid ÷ owed), so that the last payment releases the
 * remainder exactly and a payment that is taken back takes its tax back. Computed from the content.
 */
export function releasedBy(
  payingId: string,
  document: IssuedDocument,
  registration: Releasing,
  before: Minor,
  after: Minor,
  periodId: string,
  late: boolean,
): readonly TaxEntry[] {
  const { content } = document;
  const figures = figuresOf(content);
  const owed = owedOf(content, figures);
  if (owed === 0n) return [];
  const part = (amount: Minor): Minor => {
    const upTo = (paid: Minor) => halfUp({ n: (owed < 0n ? -1n : 1n) * amount * paid, d: owed < 0n ? -owed : owed });
    return minor(upTo(after) - upTo(before));
  };
  return taxEntriesOf(document.id, content, figures, registration, periodId, late).map((entry) => ({
    ...entry,
    id: `${payingId}:${entry.id}`,
    allocationId: payingId,
    kind: entry.certificate === '' ? 'released' : 'exempt',
    base: part(entry.base),
    tax: part(entry.tax),
    filingBase: part(entry.filingBase),
    filingTax: part(entry.filingTax),
    ...(entry.inDocument && {
      inDocument: {
        ...entry.inDocument,
        base: part(entry.inDocument.base),
        tax: part(entry.inDocument.tax),
      },
    }),
  }));
}

/** A document on payment basis with every allocation that was made of it, or of it as a credit. */
export interface Releases {
  readonly document: IssuedDocument;
  readonly registration: Releasing;
  readonly allocations: readonly Allocation[];
}

/** What moved the paid amount of a document: an allocation, or that it was undone. */
export interface Paying {
  readonly id: string;
  readonly number: string;
  readonly date: IsoDate;
  readonly entryIds: readonly string[];
  /** What was paid before and after it. */
  readonly before: Minor;
  readonly after: Minor;
}

/** The id under which the undoing of an allocation takes its tax back. */
export const undoingOf = (id: string): string => `${id}:undone`;

/**
 * What moved the paid amount of a document, in order: of an invoice what settles it, of a credit note what it pays for,
 * counted down. A note on its own invoice takes it back, and neither pays the other.
 */
export function paidInOrder({ document, allocations }: Pick<Releases, 'document' | 'allocations'>): readonly Paying[] {
  const moves = allocations
    .filter(({ takesBack }) => !takesBack)
    .flatMap((one) => {
      const { id, creditNumber: number, date, entryIds, undone } = one;
      const [key, by] =
        one.debtId === document.id ? (['turn', one.amount] as const) : (['creditTurn', negated(one.amount)] as const);
      const made = { turn: one[key], id, number, date, entryIds, by };
      if (undone === null) return [made];
      const back = { id: undoingOf(id), date: undone.on, entryIds: undone.entryIds, by: negated(by) };
      return [made, { turn: undone[key], number, ...back }];
    })
    .sort((a, b) => a.turn - b.turn);
  let paid = NOTHING;
  return moves.map(({ by, turn: _, ...move }) => {
    const before = paid;
    paid = plus(paid, by);
    return { ...move, before, after: paid };
  });
}
