import Dexie from 'dexie';
import type { AuditEvent } from '@/core/book/rows';
import type { IsoDate } from '@/core/kernel/date';
import { grouped } from '@/core/kernel/grouped';
import { type Minor, NOTHING, plus } from '@/core/kernel/money';
import type { JournalEntry, JournalLine, PostedEntry } from '@/core/ledger/entry';
import type { Span } from '@/core/returns/calendar';
import type { BookDb } from '../../schema';

async function withLines(db: BookDb, entries: readonly JournalEntry[]): Promise<PostedEntry[]> {
  const lines = await db.journalLines
    .where('entryId')
    .anyOf(entries.map((entry) => entry.id))
    .toArray();
  const byEntry = grouped(lines, (line) => line.entryId);
  return entries.map((entry) => ({ entry, lines: byEntry.get(entry.id) ?? [] }));
}

/** Entries dated within a period, newest first. */
export async function journalOf(db: BookDb, { start, end }: Span, limit: number): Promise<PostedEntry[]> {
  const entries = await db.journal
    .where('[date+id]')
    .between([start, Dexie.minKey], [end, Dexie.maxKey])
    .reverse()
    .limit(limit)
    .toArray();
  return withLines(db, entries);
}

/** One entry with its lines, or an empty list. */
export async function journalEntry(db: BookDb, id: string): Promise<PostedEntry[]> {
  const entry = await db.journal.get(id);
  return entry === undefined ? [] : withLines(db, [entry]);
}

/** Lines of one account within a period, with the balance it brought in. */
export interface AccountPage {
  readonly opening: Minor;
  readonly lines: readonly JournalLine[];
  readonly closing: Minor;
  /** More lines lie in the period than were asked for. */
  readonly more: boolean;
}

/** The account's lines of a period, oldest first. Opening comes from the kept monthly balances. */
export async function accountPage(
  db: BookDb,
  account: string,
  { start, end }: Span,
  limit: number,
): Promise<AccountPage> {
  const sum = async (from: unknown, to: IsoDate, upper: boolean): Promise<Minor> => {
    const months = await db.accountMonths
      .where('[account+month]')
      .between([account, from], [account, to.slice(0, 7)], true, upper)
      .toArray();
    return months.reduce((all, month) => plus(all, month.amount), NOTHING);
  };
  const [opening, moved, lines] = await Promise.all([
    sum(Dexie.minKey, start, false),
    sum(start.slice(0, 7), end, true),
    db.journalLines
      .where('[account+date+id]')
      .between([account, start, Dexie.minKey], [account, end, Dexie.maxKey])
      .limit(limit + 1)
      .toArray(),
  ]);
  return { opening, lines: lines.slice(0, limit), closing: plus(opening, moved), more: lines.length > limit };
}

/** How many entries the journal holds: it grows with everything that is posted. */
export function countEntries(db: BookDb): Promise<number> {
  return db.journal.count();
}

/** Events that hold every word of a text in what was done, about what, by whom or on which day; newest first. */
export function latestEvents(db: BookDb, text: string, limit: number): Promise<AuditEvent[]> {
  const words = text.toLowerCase().split(/\s+/).filter(Boolean);
  const newest = db.audit.orderBy('at').reverse();
  const holds = ({ action, subject, operator, at }: AuditEvent): boolean => {
    const said = `${action} ${subject} ${operator} ${at}`.toLowerCase();
    return words.every((word) => said.includes(word));
  };
  return (words.length === 0 ? newest : newest.filter(holds)).limit(limit).toArray();
}
