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
  withDaysFilled,
} from '@/core/documents/recurring';
import { draftForCustomer } from '@/core/documents/run';
import type { Setting } from '@/core/documents/setting';
import type { IsoDate } from '@/core/kernel/date';
import { loadBook, loadSetting } from '../../load';
import type { BookDb } from '../../schema';
import { membersOf, rowsOfRun } from './runs';

/** A recurring document with what it says and for whom. */
export interface RecurringFile {
  readonly recurring: Recurring;
  readonly pattern: Draft | null;
  /** Name of the customer that its draft names; empty for none. */
  readonly customer: string;
  /** Name of the group that it is for; empty for none. */
  readonly group: string;
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
  const groups = await db.customerGroups.bulkGet(all.map(({ groupId }) => groupId || '-'));
  return all.map((recurring, i) => ({
    recurring,
    pattern: patterns[i] ?? null,
    customer: customers[i]?.name ?? '',
    group: groups[i]?.name ?? '',
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

/** What came of one date. */
export interface MadeFile {
  readonly made: RecurringMade;
  /** Of the document; empty while it is a draft, and for a run. */
  readonly number: string;
  readonly isRun: boolean;
}

/** What was made of a recurring document, newest first, with the number of what was issued. */
export async function madeOfRecurring(db: BookDb, id: string, limit: number): Promise<readonly MadeFile[]> {
  const made = await db.recurringMade
    .where('[recurringId+date]')
    .between([id, Dexie.minKey], [id, Dexie.maxKey])
    .reverse()
    .limit(limit)
    .toArray();
  const ids = made.map(({ documentId }) => documentId);
  const [documents, runs] = await Promise.all([db.documents.bulkGet(ids), db.runs.bulkGet(ids)]);
  return made.map((one, i) => ({
    made: one,
    number: documents[i]?.number ?? '',
    isRun: runs[i] !== undefined,
  }));
}

/** Recurring documents that are due on or before a day, longest due first. */
export function dueRecurring(db: BookDb, today: IsoDate, limit: number): Promise<Recurring[]> {
  return db.recurring.where('nextDue').between('0', today, true, true).limit(limit).toArray();
}

/** Dates that something is still done with: to be issued, or to be sent. */
export function goingRecurring(db: BookDb, limit: number): Promise<RecurringMade[]> {
  return db.recurringMade.where('isGoing').equals(1).limit(limit).toArray();
}

/** A date that waits for a person. */
export interface WaitingDate {
  readonly made: RecurringMade;
  /** Name of the recurring document. */
  readonly name: string;
  readonly isRun: boolean;
}

/** Whether something of a date is still to be looked at: its draft is there, or one of its run, or the run has nobody. */
async function stillWaits(db: BookDb, documentId: string, isRun: boolean): Promise<boolean> {
  if (!isRun) return (await db.drafts.get(documentId)) !== undefined;
  const rows = await rowsOfRun(db, documentId);
  const waiting = rows.filter(({ state }) => state === 'waits');
  const drafts = await db.drafts.bulkGet(waiting.map((row) => row.documentId));
  return rows.length === 0 || drafts.some((draft) => draft !== undefined);
}

/** What waits for a person and was not settled meanwhile. */
export async function waitingRecurring(db: BookDb, limit: number): Promise<readonly WaitingDate[]> {
  const waiting = await db.recurringMade.where('state').equals('waits').limit(limit).toArray();
  const [runs, recurring] = await Promise.all([
    db.runs.bulkGet(waiting.map(({ documentId }) => documentId)),
    db.recurring.bulkGet(waiting.map(({ recurringId }) => recurringId)),
  ]);
  const found = await Promise.all(
    waiting.map(async (made, i): Promise<readonly WaitingDate[]> => {
      const isRun = runs[i] !== undefined;
      return (await stillWaits(db, made.documentId, isRun)) ? [{ made, name: recurring[i]?.name ?? '', isRun }] : [];
    }),
  );
  return found.flat();
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
          const dateDraft = draftOfDate(recurring, pattern, date, newId, business.homeCurrency, listed);
          return { recurring, draft: dateDraft, customer, setting };
        }),
      );
    },
  );
}

/**
 * What a date will be, with its taxes decided and the number it would have now; for a group, what the first of it gets. Null
 * where the document is gone.
 */
export async function dateOfRecurring(
  db: BookDb,
  id: string,
  date: IsoDate,
): Promise<(LoadedDate & { readonly number: string }) | null> {
  const found = await loadDate(db, id, date, id);
  if (found === null) return null;
  const series = await db.series.toArray();
  const { recurring, setting } = found;
  const group = recurring.groupId ? await db.customerGroups.get(recurring.groupId) : undefined;
  const [first] = group === undefined ? [] : await membersOf(db, group);
  const customer = first ?? found.customer;
  const filled = withDaysFilled(found.draft, recurring, date, customer?.language ?? 'en');
  if (first === undefined) {
    const draft = decideTaxes(filled, customer ?? null, setting);
    return { ...found, draft, number: numberOf(draft, series) };
  }
  const forFirst = await loadSetting(db, filled, first);
  const draft = draftForCustomer({ date }, filled, { quantity: '', price: '' }, first, forFirst, id);
  return { ...found, customer: first, setting: forFirst, draft, number: numberOf(draft, series) };
}
