import type { Moment } from '@/core/book/changes';
import type { IsoDate } from '@/core/kernel/date';
import { grouped } from '@/core/kernel/grouped';
import { accept, type Result, refuse } from '@/core/kernel/result';
import type { Account } from '@/core/ledger/account';
import { type EntryKind, entryOf, type PostedEntry, type Side } from '@/core/ledger/entry';
import { givenUpSides, mergedSides, releaseSides, reliefSides } from '@/core/ledger/posting/settling';
import { notYetDueAccountOf, outputAccountOf } from '@/core/ledger/posting/taxAccounts';
import { periodIdOf, placeInPeriod } from '@/core/returns/calendar';
import { givenUpBy, type Owing, type Paying, releasedBy } from '@/core/returns/release';
import type { TaxPeriod } from '@/core/returns/return';
import type { TaxEntry } from '@/core/returns/taxEntry';
import type { Closing } from '@/core/settlement/allocation';
import type { Registration } from '@/core/tax/registration';
import { postingDate } from '../sales/writeDocument';

/** Tax that moves with an allocation. */
export interface TaxMoved {
  /** Day it is posted: that of the money, or the first open one. */
  readonly date: IsoDate;
  readonly entries: readonly TaxEntry[];
  readonly sides: readonly Side[];
  /** Null where no return says it. */
  readonly period: TaxPeriod | null;
}

/**
 * Tax of a document that moves when it is settled further: on payment basis it falls due in step, in the period of the day;
 * what is written off never falls due there, and on issue basis it is taken back in a return where relief is called for.
 */
export function taxMoved(
  payingId: string,
  owing: Owing,
  moved: Pick<Paying, 'before' | 'after'>,
  date: IsoDate,
  { chart, registrations }: { readonly chart: readonly Account[]; readonly registrations: readonly Registration[] },
  closing?: Closing,
): Result<readonly TaxMoved[]> {
  const { content, number } = owing.document;
  const onPayment = content.basis === 'on-payment';
  if (!onPayment && !closing?.relief) return accept([]);
  const registration = registrations.find((r) => r.id === content.registrationId);
  if (registration === undefined) return refuse({ code: 'not-found', path: '', what: 'registration' });
  const placement = placeInPeriod(registration, date);
  if (placement === null)
    return refuse({ code: 'before-registration', path: 'date', day: date, from: registration.keptFrom });
  const { span, late } = placement;
  const id = periodIdOf(registration.id, span.start);
  const notYetDue = notYetDueAccountOf(registration, chart);
  const outputAccount = outputAccountOf(registration, chart);
  const taxes: TaxMoved[] = [];
  const entries = releasedBy(payingId, owing, registration, moved, id, late);
  if (entries.length > 0) {
    const posting = { outputAccount, taxPeriodId: id };
    taxes.push({
      date: postingDate(registration, date),
      entries,
      sides: onPayment
        ? releaseSides(entries, number, notYetDue, posting)
        : reliefSides(entries, number, closing?.account ?? '', posting),
      period: { id, registrationId: registration.id, ...span, filed: null },
    });
  }
  const givenUp = givenUpBy(owing, registration, moved);
  if (givenUp.length > 0 && closing !== undefined)
    taxes.push({ date, entries: [], sides: givenUpSides(givenUp, number, notYetDue, closing.account), period: null });
  return accept(taxes);
}

/** What an entry of settling says it is. */
export interface EntryHead {
  readonly kind: EntryKind;
  readonly text: string;
  readonly sourceId: string;
}

/** Entries for what moved: on the day what settling posts itself, tax on its own where the day lies in a filed period. */
export function entriesFor(
  head: EntryHead,
  date: IsoDate,
  own: readonly Side[],
  taxes: readonly TaxMoved[],
  moment: Moment,
): readonly PostedEntry[] {
  const dated = [
    ...own.map((side) => ({ date, side })),
    ...taxes.flatMap((tax) => tax.sides.map((side) => ({ date: tax.date, side }))),
  ];
  return [...grouped(dated, (one) => one.date).values()].map((group) =>
    entryOf(
      { ...head, id: moment.newId(), date: group[0]?.date ?? date, at: moment.now },
      mergedSides(group.map(({ side }) => side)),
    ),
  );
}
