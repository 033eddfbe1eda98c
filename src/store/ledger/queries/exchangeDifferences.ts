import Dexie from 'dexie';
import { addDays, type IsoDate } from '@/core/kernel/date';
import { accountFor } from '@/core/ledger/account';
import type { ExchangeMaterial } from '@/core/reports/exchangeDifferences';
import { loadBook } from '../../load';
import type { BookDb } from '../../schema';

/** What the report of exchange differences between two days is made of. */
export async function exchangeMaterial(db: BookDb, from: IsoDate, until: IsoDate): Promise<ExchangeMaterial> {
  const [{ business }, chart, made, undone, revaluations] = await Promise.all([
    loadBook(db),
    db.accounts.toArray(),
    db.allocations.where('date').between(from, until, true, true).toArray(),
    db.allocations.where('undoneOn').between(from, until, true, true).toArray(),
    db.revaluations.where('date').between(addDays(from, -1), until, true, true).toArray(),
  ]);
  const linesOf = (role: 'exchange' | 'exchange-unrealised') => {
    const code = accountFor(chart, role);
    return db.journalLines
      .where('[account+date+id]')
      .between([code, from, Dexie.minKey], [code, until, Dexie.maxKey])
      .toArray();
  };
  const [realised, unrealised] = await Promise.all([linesOf('exchange'), linesOf('exchange-unrealised')]);
  const ids = [...new Set([...realised, ...unrealised].map(({ entryId }) => entryId))];
  const entries = (await db.journal.bulkGet(ids)).flatMap((entry) => entry ?? []);
  const allocations = [...new Map([...made, ...undone].map((one) => [one.id, one])).values()];
  return { from, until, home: business.homeCurrency, realised, unrealised, entries, allocations, revaluations };
}
