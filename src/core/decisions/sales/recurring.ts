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
} from '@/core/documents/recurring';
import type { Setting } from '@/core/documents/setting';
import type { IsoDate } from '@/core/kernel/date';
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
}

/** Makes one date: keeps its draft, and that it was made. A date that was made already is left as it is. */
export function makeDate(material: MakeMaterial, moment: Moment): Decision<RecurringMade | null> {
  const { recurring, known, made, draft, customer, setting } = material;
  const date = draft.issueDate as IsoDate;
  if (known) return accept({ value: null, changes: { audit: null } });
  const decided = decideTaxes(draft, customer ?? null, setting);
  const kept = saveDraft(decided, NOTHING_STORED, customer, setting, moment);
  if (!kept.ok) return kept;
  const gone = customer === undefined || customer.archived === true || customer.mergedInto !== '';
  const state: MadeState = gone ? 'waits' : recurring.does === 'draft' ? 'draft' : 'begun';
  const row: RecurringMade = {
    id: madeId(recurring.id, date),
    recurringId: recurring.id,
    date,
    documentId: draft.id,
    state,
    why: gone ? 'its customer is archived or merged' : '',
    isGoing: state === 'begun' ? 1 : 0,
    at: moment.now,
  };
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
