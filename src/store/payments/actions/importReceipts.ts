import type { Moment } from '@/core/book/changes';
import { type ReceiptsMaterial, readReceipts } from '@/core/files/receiptsFile';
import { accept, type Refusal, type Result, refuse } from '@/core/kernel/result';
import { loadBook } from '../../load';
import { perform } from '../../perform';
import type { BookDb } from '../../schema';
import { callsOf } from '../../setup/queries/importMaterial';
import { recordReceipt } from './recordReceipt';

/** Most refusals of a file that are told. */
const MOST_WRONG = 50;

/** What ends the transaction, so that nothing of it is written. */
class Undone extends Error {
  constructor(readonly refusals: readonly Refusal[]) {
    super('nothing of the file is written');
  }
}

async function receiptsMaterial(db: BookDb): Promise<Omit<ReceiptsMaterial, 'today'>> {
  const [{ business }, customers, open] = await Promise.all([
    loadBook(db),
    db.customers.toArray(),
    db.documents
      .where('[isOpen+kind+dueDate]')
      .between([1, ''], [1, '~'])
      .filter(({ open: left }) => left > 0n)
      .toArray(),
  ]);
  return {
    home: business.homeCurrency,
    customers: callsOf(customers),
    documents: new Map(open.map(({ number, id }) => [number, id])),
  };
}

/**
 * Takes in a file of receipts, one after the other in one transaction: all of them or none. Refusals say their rows.
 * @param write false only looks what would come of it.
 */
export async function importReceipts(
  db: BookDb,
  text: string,
  moment: Moment,
  write: boolean,
): Promise<Result<number>> {
  const read = readReceipts(text, { ...(await receiptsMaterial(db)), today: moment.today });
  if (!read.ok) return read;
  const { receipts, wrong } = read.value;
  if (wrong.length > 0) return refuse(...(wrong.slice(0, MOST_WRONG) as [Refusal]));
  if (receipts.length === 0) return refuse({ code: 'missing', path: '', wanted: 'rows-in-file' });
  try {
    await db.transaction('rw', db.tables, async () => {
      for (const { row, input } of receipts) {
        const done = await perform(db, recordReceipt, input, moment);
        if (!done.ok)
          throw new Undone(done.refusals.map((refusal) => ({ ...refusal, path: `row ${row}, ${refusal.path}` })));
      }
      if (!write) throw new Undone([]);
    });
  } catch (error) {
    if (!(error instanceof Undone)) throw error;
    const [first, ...more] = error.refusals;
    if (first !== undefined) return refuse(first, ...more);
  }
  return accept(receipts.length);
}
