import Dexie from 'dexie';
import type { CustomerRow } from '@/core/book/rows';
import { beginRecurring, makeDate, saveRecurring, settleMade } from '@/core/decisions/sales/recurring';
import { priceOn } from '@/core/documents/determineLine';
import type { Draft } from '@/core/documents/draft';
import {
  draftOfDate,
  dueChanges,
  type ListedPrices,
  type MadeState,
  madeId,
  newRecurring,
  type Recurring,
  type RecurringMade,
} from '@/core/documents/recurring';
import type { Setting } from '@/core/documents/setting';
import { type IsoDate, isIsoDate } from '@/core/kernel/date';
import { accept, refuse } from '@/core/kernel/result';
import { loadBook, loadSetting } from '../../load';
import type { Action } from '../../perform';
import type { BookDb } from '../../schema';

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

/** The draft of one date with all that it is decided by. */
export interface LoadedDate {
  readonly recurring: Recurring;
  readonly draft: Draft;
  readonly customer: CustomerRow | undefined;
  readonly setting: Setting;
}

/** What a date comes to; null where the recurring document is gone. */
export function loadDate(db: BookDb, id: string, date: IsoDate, newId: string): Promise<LoadedDate | null> {
  return Promise.all([db.recurring.get(id), db.drafts.get(id), loadBook(db)]).then(
    ([recurring, pattern, { business }]) => {
      if (recurring === undefined || pattern === undefined) return null;
      const listId = dueChanges(recurring, date).findLast(({ priceListId }) => priceListId !== '')?.priceListId ?? '';
      const dated = { ...pattern, issueDate: date, taxPoint: '' };
      return Promise.all([
        db.customers.get(pattern.customerId),
        listId === '' ? undefined : db.priceLists.get(listId),
        db.items.bulkGet(pattern.lines.map(({ itemId }) => itemId || '-')),
      ]).then(([customer, list, items]) =>
        loadSetting(db, dated, customer ?? null).then((setting): LoadedDate => {
          const listed: ListedPrices = new Map(
            pattern.lines.flatMap((line, i) => {
              const item = items[i];
              if (list === undefined || item === undefined || !list.prices.some(({ itemId }) => itemId === item.id))
                return [];
              return [[line.id, priceOn(line, item, list, dated, customer ?? null, setting)] as const];
            }),
          );
          const language = customer?.language ?? 'en';
          const draft = draftOfDate(recurring, pattern, date, newId, business.homeCurrency, language, listed);
          return { recurring, draft, customer, setting };
        }),
      );
    },
  );
}

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
    return makeDate({ ...found, known: known !== undefined, made }, moment);
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
