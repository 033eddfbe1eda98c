import Dexie from 'dexie';
import type { IssuedDocument } from '@/core/documents/issued';
import { OWED_KINDS } from '@/core/documents/kinds';
import type { IsoDate } from '@/core/kernel/date';
import { type Minor, minor, NOTHING, plus } from '@/core/kernel/money';
import { FIRST_REMINDER_RULES } from '@/core/parties/reminderRules';
import type { Reached, Reminder, ReminderHold, ReminderMaterial } from '@/core/settlement/reminder';
import { loadBook } from '../../load';
import type { BookDb } from '../../schema';

/** Debts that are open and due before a day: of one customer, or of all. */
function overdueBy(db: BookDb, today: IsoDate, customerId: string): Promise<IssuedDocument[]> {
  if (customerId !== '')
    return db.documents
      .where('[customerId+isOpen]')
      .equals([customerId, 1])
      .filter(({ kind, open, dueDate }) => OWED_KINDS.includes(kind as never) && open > 0n && dueDate < today)
      .toArray();
  return Promise.all(
    OWED_KINDS.map((kind) =>
      db.documents
        .where('[isOpen+kind+dueDate]')
        .between([1, kind, Dexie.minKey], [1, kind, today], true, false)
        .toArray(),
    ),
  ).then((found) => found.flat().filter(({ open }) => open > 0n));
}

/** What is held for customers by currency: money on account, and what credit notes have left. */
function heldFor(db: BookDb, customerIds: readonly string[]): Promise<ReadonlyMap<string, Minor>> {
  const keys = customerIds.map((id) => [id, 1]);
  return Promise.all([
    db.receipts.where('[customerId+isOpen]').anyOf(keys).toArray(),
    db.documents.where('[customerId+isOpen]').anyOf(keys).toArray(),
  ]).then(([receipts, documents]) => {
    const held = new Map<string, Minor>();
    const add = (key: string, amount: Minor) => held.set(key, plus(held.get(key) ?? NOTHING, amount));
    for (const { customerId, currency, open } of receipts) add(`${customerId}|${currency}`, open);
    for (const { customerId, content, open } of documents)
      if (open < 0n) add(`${customerId}|${content.currency}`, minor(-open));
    return held;
  });
}

/** Everything that decides whom to remind on a day: of one customer, or of all where none is named. */
export function reminderMaterial(db: BookDb, today: IsoDate, customerId = ''): Promise<ReminderMaterial> {
  return Promise.all([loadBook(db), overdueBy(db, today, customerId)]).then(([{ business }, overdue]) => {
    const ids = overdue.map(({ id }) => id);
    const customerIds = [...new Set(overdue.map((one) => one.customerId))];
    return Promise.all([
      heldFor(db, customerIds),
      db.reminderHolds.bulkGet(ids),
      db.reminders.where('documentIds').anyOf(ids).distinct().toArray(),
      db.customers.bulkGet(customerIds),
    ]).then(([held, holds, sent, customers]): ReminderMaterial => {
      const reached = new Map<string, Reached>();
      for (const { documentIds, level, on } of sent)
        for (const id of documentIds) if (level >= (reached.get(id)?.level ?? 0)) reached.set(id, { level, on });
      return {
        today,
        homeCurrency: business.homeCurrency,
        rules: business.reminders ?? FIRST_REMINDER_RULES,
        overdue,
        held,
        holds: new Map(holds.flatMap((hold) => (hold === undefined ? [] : [[hold.documentId, hold] as const]))),
        reached,
        off: new Set(customers.flatMap((one) => (one?.notReminded === true ? [one.id] : []))),
      };
    });
  });
}

/** Reminders that told of a document, newest first, and what keeps it from being told of. */
export async function remindersOf(
  db: BookDb,
  documentId: string,
): Promise<{ readonly sent: readonly Reminder[]; readonly hold: ReminderHold | null }> {
  const [sent, hold] = await Promise.all([
    db.reminders.where('documentIds').equals(documentId).toArray(),
    db.reminderHolds.get(documentId),
  ]);
  return { sent: sent.sort((a, b) => (a.at < b.at ? 1 : -1)), hold: hold ?? null };
}
