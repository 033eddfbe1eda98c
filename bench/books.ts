import type { Moment } from '@/core/book/changes';
import { blankDraft, blankLine, type Draft, type DraftLine } from '@/core/documents/draft';
import { type IsoDate, isoDate } from '@/core/kernel/date';
import { DEMO_CUSTOMERS, demoBeginning } from '@/demo/setup';
import { type Action, perform } from '@/store/perform';
import { BookDb } from '@/store/schema';
import { begin, changeCustomer } from '@/store/setup/actions/setup';

/* Books to measure with, inside Chromium, and what measures them. Times in milliseconds. */

export const KEPT_FROM = isoDate('2026-01-01');

export function momentOn(today: IsoDate): Moment {
  return { now: `${today}T09:00:00.000Z`, today, operator: 'Bench', newId: () => crypto.randomUUID() };
}

export async function act<Input, Value>(
  db: BookDb,
  action: Action<Input, Value>,
  input: Input,
  today: IsoDate,
): Promise<Value> {
  const result = await perform(db, action, input, momentOn(today));
  if (!result.ok) throw new Error(JSON.stringify(result.refusals));
  return result.value;
}

export async function freshBook(name: string): Promise<BookDb> {
  const db = new BookDb(name);
  await db.delete();
  await db.open();
  await act(db, begin, demoBeginning(KEPT_FROM), KEPT_FROM);
  for (const customer of DEMO_CUSTOMERS) await act(db, changeCustomer, customer, KEPT_FROM);
  return db;
}

const CODES = ['IE-S', 'IE-R', 'IE-Z'];

export function draftOf(i: number, day: IsoDate): Draft {
  const line = (j: number): DraftLine => ({
    ...blankLine(`${i}-${j}`, '4000'),
    description: `Sensor ${j}`,
    quantity: String(1 + ((i + j) % 9)),
    price: `${10 + ((i * 7 + j) % 90)}.${10 + (j % 80)}`,
    discount: j % 3 === 0 ? '5%' : '',
    taxClass: ['standard', 'reduced', 'zero'][(i + j) % 3] ?? 'standard',
    taxCode: CODES[(i + j) % 3] ?? 'IE-S',
  });
  return {
    ...blankDraft(crypto.randomUUID(), 'invoice', 'ie-vat', day),
    customerId: DEMO_CUSTOMERS[i % 4]?.id ?? 'clewbay',
    priceMode: i % 2 === 0 ? 'net' : 'gross',
    buyerReference: `R-${i}`,
    lines: [line(1), line(2), line(3), line(4), line(5)],
  };
}

const median = (times: number[]): number => times.sort((a, b) => a - b)[Math.floor(times.length / 2)] ?? 0;

export async function timed(runs: number, work: () => Promise<unknown>): Promise<number> {
  const times: number[] = [];
  for (let i = 0; i < runs; i++) {
    const began = performance.now();
    await work();
    times.push(performance.now() - began);
  }
  return median(times);
}

/** Rows a query takes out of the tables, counted by the database's own reading hook. */
export async function rowsRead(db: BookDb, work: () => Promise<unknown>): Promise<number> {
  let rows = 0;
  const count = <T>(row: T): T => {
    rows++;
    return row;
  };
  for (const table of db.tables) table.hook('reading', count);
  await work();
  for (const table of db.tables) table.hook('reading').unsubscribe(count);
  return rows;
}
