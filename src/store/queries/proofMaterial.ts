import Dexie from 'dexie';
import type { IsoDate } from '@/core/kernel/date';
import type { JournalLine } from '@/core/ledger/entry';
import { outputAccountOf } from '@/core/ledger/posting';
import { periodIdOf, type Span, spanOf } from '@/core/periods/calendar';
import type { ProofMaterial } from '@/core/periods/proof';
import type { Registration } from '@/core/tax/registration';
import type { BookDb } from '../schema';

/** Lines that manual journals wrote to a tax account inside a period. */
export function manualTaxLines(db: BookDb, account: string, { start, end }: Span): Promise<JournalLine[]> {
  return db.journalLines
    .where('[account+taxPeriodId+date]')
    .between([account, '', start], [account, '', end], true, true)
    .toArray();
}

/** Everything a proof of one period needs: the truth, and the kept balances that are held against it. */
export async function proofMaterial(db: BookDb, registration: Registration, start: IsoDate): Promise<ProofMaterial> {
  const periodId = periodIdOf(registration.id, start);
  const account = outputAccountOf(registration, await db.accounts.toArray());
  const [documents, taxEntries, marked, manual, period, balances] = await Promise.all([
    db.documents.where('[periodId+number]').between([periodId, Dexie.minKey], [periodId, Dexie.maxKey]).toArray(),
    db.taxEntries
      .where('[periodId+code+percent+jurisdictionId+taxId+kind+documentNumber]')
      .between([periodId, Dexie.minKey], [periodId, Dexie.maxKey])
      .toArray(),
    db.journalLines.where('taxPeriodId').equals(periodId).toArray(),
    manualTaxLines(db, account, spanOf(registration.frequency, start)),
    db.taxPeriods.get(periodId),
    db.taxRows.where('periodId').equals(periodId).toArray(),
  ]);
  const filing = period?.filed?.entryId;
  return {
    documents,
    taxEntries,
    balances,
    ledgerLines: [...marked.filter((line) => line.account === account && line.entryId !== filing), ...manual],
  };
}
