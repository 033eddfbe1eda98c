import type { Moment } from '@/core/book/changes';
import { onePart } from '@/core/decisions/payments/onePart';
import { blankDraft, blankLine } from '@/core/documents/draft';
import { writeCanonical } from '@/core/kernel/canonical';
import { isoDate } from '@/core/kernel/date';
import { buildDemo } from '@/demo/buildDemo';
import { DEMO_CUSTOMERS } from '@/demo/setup';
import { archiveBook } from '@/store/archive';
import { openArchive } from '@/store/openArchive';
import { recordReceipt } from '@/store/payments/actions/recordReceipt';
import { type Action, perform } from '@/store/perform';
import { hasBook } from '@/store/records';
import { creditInvoice } from '@/store/sales/actions/creditInvoice';
import { keepDraft } from '@/store/sales/actions/drafts';
import { issueInvoice } from '@/store/sales/actions/issueInvoice';
import { BookDb } from '@/store/schema';
import { isUnfinished } from '@/store/unfinished';

/* Runs in the browser; offers the store to tests of real IndexedDB. */

const TODAY = isoDate('2026-11-23');
const db = new BookDb();

const moment = (): Moment => ({
  now: `${TODAY}T09:00:00.000Z`,
  today: TODAY,
  operator: 'Page',
  newId: () => crypto.randomUUID(),
});

async function act<Input, Value>(action: Action<Input, Value>, input: Input): Promise<Value> {
  const result = await perform(db, action, input, moment());
  if (!result.ok) throw new Error(JSON.stringify(result.refusals));
  return result.value;
}

const page = {
  begin: () => buildDemo(db, TODAY),

  /** All tables as text, rows in a fixed order. */
  async contents(): Promise<Record<string, string>> {
    const tables: Record<string, string> = {};
    for (const table of db.tables) tables[table.name] = (await table.toArray()).map(writeCanonical).sort().join('\n');
    return tables;
  },

  /** Issues invoices one after the other and gives their numbers. */
  async issue(count: number, price: string): Promise<string[]> {
    const numbers: string[] = [];
    for (let i = 0; i < count; i++) {
      const draft = await act(keepDraft, {
        ...blankDraft(crypto.randomUUID(), 'invoice', 'ie-vat', TODAY),
        customerId: DEMO_CUSTOMERS[0]?.id ?? '',
        buyerReference: 'X',
        lines: [
          {
            ...blankLine('1', '4000'),
            description: 'Sensor',
            price,
            supply: 'service',
            taxCode: 'IE-S',
          },
        ],
      });
      numbers.push((await act(issueInvoice, { draftId: draft.id })).number);
    }
    return numbers;
  },

  /** Runs an action whose transaction throws when it reaches a table; tells what came out. */
  async cut(action: 'issue' | 'credit' | 'receive', table: string): Promise<string> {
    const invoice = (await db.documents.toArray()).find(
      (d) => d.kind === 'invoice' && d.open > 0n && d.creditNotes.length === 0,
    );
    const draft = (await db.drafts.toArray()).find((d) => d.customerId === 'ballyvaughan');
    if (invoice === undefined || draft === undefined) throw new Error('the sample has no such documents');
    const fail = () => {
      throw new Error('cut in the middle');
    };
    db.table(table).hook('creating', fail);
    try {
      if (action === 'issue') await act(issueInvoice, { draftId: draft.id });
      else if (action === 'credit')
        await act(creditInvoice, { documentId: invoice.id, date: TODAY, reason: 'Returned' });
      else {
        const allocations = [{ documentId: invoice.id, number: invoice.number, amount: invoice.open }];
        await act(
          recordReceipt,
          onePart({
            customerId: invoice.customerId,
            date: TODAY,
            method: 'bank',
            reference: '',
            allocations,
          }),
        );
      }
      return 'done';
    } catch (error) {
      return (error as Error).message;
    } finally {
      db.table(table).hook('creating').unsubscribe(fail);
    }
  },

  /** Saves the book, changes it, and begins to open the saved one again without waiting for the end. */
  async openAgain(): Promise<void> {
    const bytes = await archiveBook(db, `${TODAY}T09:00:00.000Z`);
    await page.issue(1, '5.00');
    void openArchive(db, bytes);
  },

  /** Begins to open the sample into the emptied browser, in many transactions, and waits until some of it is written. */
  async openFirst(): Promise<void> {
    const bytes = await archiveBook(db, `${TODAY}T09:00:00.000Z`);
    await db.delete();
    await db.open();
    const some = new Promise<void>((resolve) => {
      void openArchive(db, bytes, { replace: false, copyAt: null, atOnce: 20 }, (done, of) => {
        if (done > 0.6 * of) resolve();
      });
    });
    await some;
  },

  /** What stands in the browser: a book, a part of one, or nothing. */
  async standing(): Promise<string> {
    return (await hasBook(db)) ? 'book' : (await isUnfinished(db)) ? 'unfinished' : 'nothing';
  },

  /** Opens the sample, made anew beside the book, into the browser as it is. */
  async openSample(): Promise<boolean> {
    const beside = new BookDb('beside');
    await buildDemo(beside, TODAY);
    const opened = await openArchive(db, await archiveBook(beside, `${TODAY}T09:00:00.000Z`), {
      replace: false,
      copyAt: null,
    });
    return opened.ok;
  },
};

Object.assign(globalThis, { storePage: page });

export type StorePage = typeof page;
