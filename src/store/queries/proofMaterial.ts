import Dexie from 'dexie';
import type { IssuedDocument } from '@/core/documents/issued';
import type { IsoDate } from '@/core/kernel/date';
import type { JournalLine } from '@/core/ledger/entry';
import { outputAccountOf } from '@/core/ledger/posting';
import { periodIdOf, type Span, spanOf } from '@/core/periods/calendar';
import type { ProofMaterial } from '@/core/periods/proof';
import type { TaxEntry } from '@/core/periods/taxEntry';
import type { Registration } from '@/core/tax/registration';
import type { BookDb } from '../schema';

/** Lines that manual journals wrote to a tax account inside a period. */
export function manualTaxLines(db: BookDb, account: string, { start, end }: Span): Promise<JournalLine[]> {
  return db.journalLines
    .where('[account+taxPeriodId+date]')
    .between([account, '', start], [account, '', end], true, true)
    .toArray();
}

/**
 * Documents on payment basis that receipts of a period paid of: those that its tax entries name, and
 * those that a receipt dated in it paid of without leaving any entry.
 */
function releasesOf(
  db: BookDb,
  registration: Registration,
  span: Span,
  entered: readonly TaxEntry[],
): Promise<Released> {
  return db.receipts
    .where('[date+number]')
    .between([span.start, Dexie.minKey], [span.end, Dexie.maxKey])
    .toArray()
    .then((dated) => {
      const named = dated.flatMap((receipt) => receipt.allocations.map((allocation) => allocation.documentId));
      return db.documents.bulkGet([...new Set([...entered.map((e) => e.documentId), ...named])]).then((found) => {
        const documents = found.flatMap((d) =>
          d?.content.basis === 'on-payment' && d.content.registrationId === registration.id ? [d] : [],
        );
        const customers = [...new Set(documents.map((d) => d.customerId))];
        return Promise.all([
          db.receipts.where('customerId').anyOf(customers).toArray(),
          db.taxEntries
            .where('documentId')
            .anyOf(documents.map((d) => d.id))
            .toArray(),
        ]).then(([receipts, all]) => {
          const placed = new Set(all.map((entry) => entry.receiptId));
          const here = dated.filter((receipt) => !placed.has(receipt.id)).map((receipt) => receipt.id);
          const paidOf = (document: IssuedDocument) =>
            receipts.filter((r) => r.allocations.some((a) => a.documentId === document.id));
          return {
            releases: documents.map((document) => ({ document, registration, receipts: paidOf(document) })),
            receiptIds: new Set([...entered.map((entry) => entry.receiptId), ...here]),
          };
        });
      });
    });
}

type Released = Pick<ProofMaterial, 'releases' | 'receiptIds'>;

const NONE_RELEASED: Released = { releases: [], receiptIds: new Set() };

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
  const entered = taxEntries.filter((entry) => entry.receiptId !== '');
  const span = spanOf(registration.frequency, start);
  const { releases, receiptIds } =
    registration.basis === 'on-payment' || entered.length > 0
      ? await releasesOf(db, registration, span, entered)
      : NONE_RELEASED;
  return {
    releases,
    receiptIds,
    documents,
    taxEntries,
    balances,
    ledgerLines: [...marked.filter((line) => line.account === account && line.entryId !== filing), ...manual],
  };
}
