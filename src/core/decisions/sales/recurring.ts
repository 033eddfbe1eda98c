import type { Changes, Decision, Moment } from '@/core/book/changes';
import type { Draft } from '@/core/documents/draft';
import { decideTaxes } from '@/core/documents/lineTax';
import {
  type MadeState,
  madeId,
  nextFrom,
  type Recurring,
  type RecurringMade,
  recurringSchema,
  restAfter,
  withDaysFilled,
} from '@/core/documents/recurring';
import { newRunRow, type Run } from '@/core/documents/run';
import type { Setting } from '@/core/documents/setting';
import { type IsoDate, writeDate } from '@/core/kernel/date';
import { accept, refuse } from '@/core/kernel/result';
import { validated } from '@/core/kernel/validate';
import type { Customer } from '@/core/parties/customer';
import { NOTHING_STORED, saveDraft } from './draft';

/** Its next date, where it is not paused. */
function withNextDue(recurring: Recurring, made: readonly Pick<RecurringMade, 'date'>[]): Recurring {
  const last = made.reduce<IsoDate | ''>((newest, { date }) => (date > newest ? date : newest), '');
  return { ...recurring, nextDue: recurring.paused ? '' : nextFrom(recurring, restAfter(recurring.first, last)) };
}

/** Keeps a recurring document; what was made of it stays, and dates before the last of these are not made any more. */
export function saveRecurring(
  value: Recurring,
  before: Recurring | undefined,
  made: readonly RecurringMade[],
  customerId: string,
): Decision<Recurring> {
  const checked = validated<Recurring>(recurringSchema, value);
  if (!checked.ok) return checked;
  const kept = withNextDue(value, made);
  return accept({
    value: kept,
    changes: {
      put: { recurring: [kept] },
      audit: {
        subject: value.name,
        about: [value.id, customerId].filter(Boolean),
        ...(before && { before }),
        after: kept,
      },
    },
  });
}

/** A draft becomes what a recurring document says; it is not issued itself any more. */
export function beginRecurring(
  draft: Draft,
  recurring: Recurring,
  customer: Customer | undefined,
  setting: Setting,
  moment: Moment,
): Decision<Recurring> {
  const pattern: Draft = { ...draft, recurringId: recurring.id };
  const stored = draft.revision === 0 ? NOTHING_STORED : { draft, issued: false };
  const kept = saveDraft(pattern, stored, customer, setting, moment);
  if (!kept.ok) return kept;
  return accept({
    value: recurring,
    changes: {
      put: { ...kept.value.changes.put, recurring: [recurring] },
      audit: { subject: recurring.name, about: [recurring.id, draft.customerId].filter(Boolean), after: recurring },
    },
  });
}

export interface MakeMaterial {
  readonly recurring: Recurring;
  /** The date is there already. */
  readonly known: boolean;
  readonly made: readonly RecurringMade[];
  readonly draft: Draft;
  readonly customer: Customer | undefined;
  readonly setting: Setting;
  /** Who belongs to its group now; null where it is for one customer. */
  readonly members: readonly Customer[] | null;
}

function madeRow(
  { id }: Recurring,
  date: IsoDate,
  { documentId, state, why }: Pick<RecurringMade, 'documentId' | 'state' | 'why'>,
  moment: Moment,
): RecurringMade {
  const isGoing = state === 'begun' ? 1 : 0;
  return { id: madeId(id, date), recurringId: id, date, documentId, state, why, isGoing, at: moment.now };
}

/** A date for a group is a run for who belongs to it that day; what its texts say is filled in for each of them. */
function makeRunOfDate(
  { recurring, made, draft, setting, members }: MakeMaterial & { readonly members: readonly Customer[] },
  moment: Moment,
): Decision<RecurringMade> {
  const date = draft.issueDate as IsoDate;
  const name = `${recurring.name}, ${writeDate(date)}`;
  const { now: at, operator } = moment;
  const run: Run = { id: draft.id, name, date, at, operator, recurringId: recurring.id };
  const kept = saveDraft({ ...draft, customerId: '', runId: run.id }, NOTHING_STORED, undefined, setting, moment);
  if (!kept.ok) return kept;
  const came =
    members.length === 0
      ? ({ state: 'waits', why: 'nobody belongs to its group' } as const)
      : ({ state: 'begun', why: '' } as const);
  const row = madeRow(recurring, date, { documentId: run.id, ...came }, moment);
  return accept({
    value: row,
    changes: {
      add: { recurringMade: [row] },
      put: {
        ...kept.value.changes.put,
        recurring: [withNextDue(recurring, [...made, row])],
        runs: [run],
        runRows: members.map((one) => newRunRow(run.id, one)),
      },
      audit: { subject: name, about: [recurring.id, run.id], after: row },
    },
  });
}

/** Makes one date: keeps its draft, and that it was made. A date that was made already is left as it is. */
export function makeDate(material: MakeMaterial, moment: Moment): Decision<RecurringMade | null> {
  const { recurring, known, made, draft, customer, setting, members } = material;
  const date = draft.issueDate as IsoDate;
  if (known) return accept({ value: null, changes: { audit: null } });
  if (members !== null) return makeRunOfDate({ ...material, members }, moment);
  const filled = withDaysFilled(draft, recurring, date, customer?.language ?? 'en');
  const decided = decideTaxes(filled, customer ?? null, setting);
  const kept = saveDraft(decided, NOTHING_STORED, customer, setting, moment);
  if (!kept.ok) return kept;
  const gone = customer === undefined || customer.archived === true || customer.mergedInto !== '';
  const state: MadeState = gone ? 'waits' : recurring.does === 'draft' ? 'draft' : 'begun';
  const why = gone ? 'its customer is archived or merged' : '';
  const row = madeRow(recurring, date, { documentId: draft.id, state, why }, moment);
  const changes: Changes = {
    add: { recurringMade: [row] },
    put: { ...kept.value.changes.put, recurring: [withNextDue(recurring, [...made, row])] },
    audit: {
      subject: `${recurring.name}, ${date}`,
      about: [recurring.id, draft.id, draft.customerId].filter(Boolean),
      after: row,
    },
  };
  return accept({ value: row, changes });
}

/** Writes down how far a date came. */
export function settleMade(
  before: RecurringMade | undefined,
  state: MadeState,
  why: string,
  isGoing: boolean,
): Decision<RecurringMade> {
  if (before === undefined) return refuse({ code: 'not-found', path: 'id' });
  // Another tab was quicker.
  if (before.state === 'sent') return accept({ value: before, changes: { audit: null } });
  const value: RecurringMade = { ...before, state, why, isGoing: isGoing ? 1 : 0 };
  return accept({
    value,
    changes: {
      put: { recurringMade: [value] },
      audit: { subject: `${before.date}, ${state}`, about: [before.recurringId, before.documentId], after: value },
    },
  });
}
