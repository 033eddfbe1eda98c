import { monthOf } from '@/core/kernel/date';
import { grouped } from '@/core/kernel/grouped';
import { type Minor, NOTHING, negated, plus, total } from '@/core/kernel/money';
import { wordEndings } from '@/core/kernel/words';
import type { JournalLine } from '@/core/ledger/entry';
import { addToBalances } from '@/core/returns/return';
import type { TaxEntry } from '@/core/returns/taxEntry';
import type { OnReceivables } from '@/core/settlement/receipt';
import type { BookDb } from './schema';
import { type Worded, wordCounts } from './vocabulary';

/** Adds journal lines to the kept balances of account × month. */
export async function moveAccounts(db: BookDb, lines: readonly JournalLine[]): Promise<void> {
  const groups = [...grouped(lines, (line) => `${line.account}|${monthOf(line.date)}`).values()];
  const keys = groups.map(
    ([first]) => [first?.account ?? '', monthOf((first as JournalLine).date)] as [string, string],
  );
  const rows = await db.accountMonths.bulkGet(keys);
  await db.accountMonths.bulkPut(
    groups.map((group, i) => {
      const { account, date } = group[0] as JournalLine;
      const amount = plus(rows[i]?.amount ?? NOTHING, total(group.map((line) => line.amount)));
      return { account, month: monthOf(date), amount };
    }),
  );
}

/** Adds tax entries to the kept balances of period × code × rate. */
export async function moveTax(db: BookDb, entries: readonly TaxEntry[]): Promise<void> {
  for (const [periodId, group] of grouped(entries, (entry) => entry.periodId)) {
    const rows = await db.taxRows.where('periodId').equals(periodId).toArray();
    await db.taxRows.bulkPut([...addToBalances(rows, group)]);
  }
}

/** Moves the kept open balance of customers by how far their documents' open amounts moved. */
export async function moveCustomers(
  db: BookDb,
  moves: readonly { readonly customerId: string; readonly by: Minor }[],
): Promise<void> {
  const groups = [...grouped(moves, (move) => move.customerId)];
  const rows = await db.customerBalances.bulkGet(groups.map(([customerId]) => customerId));
  await db.customerBalances.bulkPut(
    groups.map(([customerId, group], i) => ({
      customerId,
      open: plus(rows[i]?.open ?? NOTHING, total(group.map((move) => move.by))),
    })),
  );
}

/**
 * How far open amounts move, in home currency, when these rows are written over the stored ones.
 * One that moved to another customer takes its open amount along.
 */
export function openMoves(
  after: readonly OnReceivables[],
  before: readonly (OnReceivables | undefined)[],
): { customerId: string; by: Minor }[] {
  return after.flatMap((document, i) => {
    const was = before[i];
    return [
      { customerId: document.customerId, by: document.openHome },
      ...(was === undefined ? [] : [{ customerId: was.customerId, by: negated(was.openHome) }]),
    ];
  });
}

/** Counts the words of documents that are written over others; `before` holds those that were there. */
export async function moveVocabulary(
  db: BookDb,
  after: readonly Worded[],
  before: readonly (Worded | undefined)[],
): Promise<void> {
  const moved = wordCounts(after);
  for (const [word, count] of wordCounts(before.filter((row) => row !== undefined)))
    moved.set(word, (moved.get(word) ?? 0) - count);
  const words = [...moved].filter(([, by]) => by !== 0);
  if (words.length === 0) return;
  const rows = await db.vocabulary.bulkGet(words.map(([word]) => word));
  await db.vocabulary.bulkPut(
    words.map(([word, by], i) => ({
      word,
      count: (rows[i]?.count ?? 0) + by,
      endings: rows[i]?.endings ?? wordEndings(word),
    })),
  );
}
