import Dexie from 'dexie';
import type { CustomerRow } from '@/core/book/rows';
import { numberOf } from '@/core/decisions/sales/issue';
import { priceOn } from '@/core/documents/determineLine';
import type { Draft } from '@/core/documents/draft';
import { decideTaxes } from '@/core/documents/lineTax';
import {
  draftOfDate,
  dueChanges,
  type ListedPrices,
  type Recurring,
  type RecurringMade,
} from '@/core/documents/recurring';
import type { Setting } from '@/core/documents/setting';
import type { IsoDate } from '@/core/kernel/date';
import { loadBook, loadSetting } from '../../load';
import type { BookDb } from '../../schema';

/** A recurring document with what it says and for whom. */
export interface RecurringFile {
  readonly recurring: Recurring;
  readonly pattern: Draft | null;
  readonly customer: string;
  /** Empty where nothing was made. */
  readonly lastMade: IsoDate | '';
}

async function filesOf(db: BookDb, all: readonly Recurring[]): Promise<readonly RecurringFile[]> {
  const patterns = await db.drafts.bulkGet(all.map(({ id }) => id));
  const customers = await db.customers.bulkGet(patterns.map((one) => one?.customerId || '-'));
  const last = await Promise.all(
    all.map(({ id }) =>
      db.recurringMade.where('[recurringId+date]').between([id, Dexie.minKey], [id, Dexie.maxKey]).last(),
    ),
  );
  return all.map((recurring, i) => ({
    recurring,
    pattern: patterns[i] ?? null,
    customer: customers[i]?.name ?? '',
    lastMade: last[i]?.date ?? '',
  }));
}

/** All recurring documents, those that come next first; paused and ended ones last. */
export async function recurringDocuments(db: BookDb): Promise<readonly RecurringFile[]> {
  const all = await db.recurring.toArray();
  const order = ({ nextDue, name }: Recurring) => `${nextDue || '~'} ${name}`;
  return filesOf(
    db,
    all.sort((a, b) => (order(a) < order(b) ? -1 : 1)),
  );
}

/** One recurring document; null where there is none of this id. */
export async function recurringFile(db: BookDb, id: string): Promise<RecurringFile | null> {
  const recurring = await db.recurring.get(id);
  if (recurring === undefined) return null;
  return (await filesOf(db, [recurring]))[0] ?? null;
}

/** What was made of a recurring document, newest first, with the number of what was issued. */
export async function madeOfRecurring(
  db: BookDb,
  id: string,
  limit: number,
): Promise<readonly { readonly made: RecurringMade; readonly number: string }[]> {
  const made = await db.recurringMade
    .where('[recurringId+date]')
    .between([id, Dexie.minKey], [id, Dexie.maxKey])
    .reverse()
    .limit(limit)
    .toArray();
  const documents = await db.documents.bulkGet(made.map(({ documentId }) => documentId));
  return made.map((one, i) => ({ made: one, number: documents[i]?.number ?? '' }));
}

/** Recurring documents that are due on or before a day, longest due first. */
export function dueRecurring(db: BookDb, today: IsoDate, limit: number): Promise<Recurring[]> {
  return db.recurring.where('nextDue').between('0', today, true, true).limit(limit).toArray();
}

/** Dates that something is still done with: to be issued, or to be sent. */
export function goingRecurring(db: BookDb, limit: number): Promise<RecurringMade[]> {
  return db.recurringMade.where('isGoing').equals(1).limit(limit).toArray();
}

/** What waits for a person and was not settled meanwhile: its draft is still there. */
export async function waitingRecurring(
  db: BookDb,
  limit: number,
): Promise<readonly { readonly made: RecurringMade; readonly draft: Draft; readonly name: string }[]> {
  const waiting = await db.recurringMade.where('state').equals('waits').limit(limit).toArray();
  const [drafts, recurring] = await Promise.all([
    db.drafts.bulkGet(waiting.map(({ documentId }) => documentId)),
    db.recurring.bulkGet(waiting.map(({ recurringId }) => recurringId)),
  ]);
  return waiting.flatMap((made, i) => {
    const draft = drafts[i];
    return draft === undefined ? [] : [{ made, draft, name: recurring[i]?.name ?? '' }];
  });
}

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

/** What a date will be, with its taxes decided and the number it would have now; null where the document is gone. */
export async function dateOfRecurring(
  db: BookDb,
  id: string,
  date: IsoDate,
): Promise<(LoadedDate & { readonly number: string }) | null> {
  const found = await loadDate(db, id, date, id);
  if (found === null) return null;
  const { customer, setting } = found;
  const draft = decideTaxes(found.draft, customer ?? null, setting);
  return { ...found, draft, number: numberOf(draft, await db.series.toArray()) };
}
