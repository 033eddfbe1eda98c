import Dexie from 'dexie';
import { isIsoDate } from '@/core/kernel/date';
import { type Minor, NOTHING, negated, total } from '@/core/kernel/money';
import { type Account, accountFor } from '@/core/ledger/account';
import type { Registration } from '@/core/tax/registration';
import type { BookDb } from '../../schema';

/** What stands on tax payable of a registration at the end of a day, above zero what we owe; home currency. */
export function payableOn(
  db: BookDb,
  registration: Registration | undefined,
  chart: readonly Account[],
  date: string,
): Promise<Minor> {
  if (registration === undefined || !isIsoDate(date)) return Promise.resolve(NOTHING);
  const account = registration.accounts.payable || accountFor(chart, 'tax-payable');
  return db.journalLines
    .where('[account+date+id]')
    .between([account, Dexie.minKey, Dexie.minKey], [account, date, Dexie.maxKey], true, true)
    .toArray()
    .then((lines) => negated(total(lines.map(({ amount }) => amount))));
}
