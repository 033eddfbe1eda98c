import Dexie from 'dexie';
import type { CustomerRow } from '@/core/book/rows';
import { beginRecurring, makeDate, saveRecurring, settleMade } from '@/core/decisions/sales/recurring';
import { type MadeState, madeId, newRecurring, type Recurring, type RecurringMade } from '@/core/documents/recurring';
import { type IsoDate, isIsoDate } from '@/core/kernel/date';
import { accept, refuse } from '@/core/kernel/result';
import { loadSetting } from '../../load';
import type { Action } from '../../perform';
import type { BookDb } from '../../schema';
import { loadDate } from '../queries/recurring';
import { membersOf } from '../queries/runs';

const madeOf = (db: BookDb, id: string): Promise<RecurringMade[]> =>
  db.recurringMade.where('[recurringId+date]').between([id, Dexie.minKey], [id, Dexie.maxKey]).toArray();

/** Keeps when and how a recurring document comes. */
export const keepRecurring: Action<Recurring, Recurring> = {
  name: 'keep recurring document',
  async decide(db, value) {
    const [before, made, pattern] = await Promise.all([
      db.recurring.get(value.id),
      madeOf(db, value.id),
      db.drafts.get(value.id),
    ]);
    return saveRecurring(value, before, made, pattern?.customerId ?? '');
  },
};

/** Makes a recurring document of a draft that was kept; it begins paused, on the day of the draft. */
export const repeatDraft: Action<{ readonly draftId: string; readonly name: string }, Recurring> = {
  name: 'begin recurring document',
  async decide(db, { draftId, name }, moment) {
    const draft = await db.drafts.get(draftId);
    if (draft === undefined) return refuse({ code: 'not-found', path: 'draftId' });
    const customer = await db.customers.get(draft.customerId);
    const setting = await loadSetting(db, draft, customer ?? null);
    const first = isIsoDate(draft.issueDate) ? draft.issueDate : moment.today;
    return beginRecurring(draft, newRecurring(draftId, name, first), customer, setting, moment);
  },
};

/** A recurring document that comes when another does and says what it says; it begins paused. */
export const copyRecurring: Action<{ readonly id: string }, Recurring> = {
  name: 'copy recurring document',
  async decide(db, { id }, moment) {
    const [before, pattern] = await Promise.all([db.recurring.get(id), db.drafts.get(id)]);
    if (before === undefined || pattern === undefined) return refuse({ code: 'not-found', path: 'id' });
    const customer = await db.customers.get(pattern.customerId);
    const setting = await loadSetting(db, pattern, customer ?? null);
    const own = moment.newId();
    const draft = { ...pattern, id: own, familyId: own, revision: 0 };
    const copy = { ...before, id: own, name: `${before.name}, copy`, paused: true, nextDue: '' as const };
    return beginRecurring(draft, copy, customer, setting, moment);
  },
};

/** Ends a recurring document for good, with what it says; what was made of it stays. */
export const dropRecurring: Action<{ readonly id: string }, null> = {
  name: 'delete recurring document',
  async decide(db, { id }) {
    const before = await db.recurring.get(id);
    if (before === undefined) return refuse({ code: 'not-found', path: 'id' });
    return accept({
      value: null,
      changes: { remove: { recurring: [id], drafts: [id] }, audit: { subject: before.name, about: [id], before } },
    });
  },
};

/** Who belongs to its group now; null where it is for one customer. A group that was deleted has nobody. */
const groupOf = (db: BookDb, { groupId = '' }: Recurring): Promise<CustomerRow[] | null> =>
  groupId === ''
    ? Promise.resolve(null)
    : db.customerGroups.get(groupId).then((group) => (group === undefined ? [] : membersOf(db, group)));

/** Makes the draft of one date, once, whoever asks for it. Null where it was made already. */
export const makeRecurring: Action<{ readonly id: string; readonly date: IsoDate }, RecurringMade | null> = {
  name: 'make recurring document',
  async decide(db, { id, date }, moment) {
    const [known, made, found] = await Promise.all([
      db.recurringMade.get(madeId(id, date)),
      madeOf(db, id),
      loadDate(db, id, date, moment.newId()),
    ]);
    if (found === null) return refuse({ code: 'not-found', path: 'id' });
    const members = await groupOf(db, found.recurring);
    return makeDate({ ...found, known: known !== undefined, made, members }, moment);
  },
};

interface SettleInput {
  readonly id: string;
  readonly state: MadeState;
  readonly why: string;
  readonly isGoing: boolean;
}

/** Writes down how far a date came. */
export const settleRecurring: Action<SettleInput, RecurringMade> = {
  name: 'settle recurring document',
  async decide(db, { id, state, why, isGoing }) {
    return settleMade(await db.recurringMade.get(id), state, why, isGoing);
  },
};
