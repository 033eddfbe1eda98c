import { act, momentOn, newBook, refusalCodes } from 'tests/book';
import { expectSoundBook } from 'tests/soundBook';
import { perform } from '../../perform';
import type { BookDb } from '../../schema';
import { enterOpening, importOpenings } from './takings';

const HEADS = 'customer,number,date,due,amount';
const ON = '2026-01-15';

const openings = async (db: BookDb) =>
  (await db.documents.where('[kind+issueDate]').between(['opening', ''], ['opening', '9']).toArray())
    .map(({ number, customerId, content, open, dueDate }) => [
      number,
      customerId,
      content.buyerReference,
      dueDate,
      open,
    ])
    .sort();

async function imported(...rows: string[]): Promise<{ db: BookDb; result: Awaited<ReturnType<typeof tried>> }> {
  const db = await newBook();
  return { db, result: await tried(db, [HEADS, ...rows].join('\r\n')) };
}

function tried(db: BookDb, text: string) {
  return perform(db, importOpenings, { text }, momentOn(ON));
}

describe('a file of opening invoices', () => {
  test('is the same as entering each, and the book stays sound', async () => {
    const { db, result } = await imported(
      'salish,OLD-1,2025-11-30,2025-12-30,120.00',
      'Salish,OLD-2,30 Nov 2025,,"1,080.50"',
    );
    expect(result.ok ? result.value.length : result.refusals).toBe(2);
    const one = await newBook();
    for (const [number, due, amount] of [
      ['OLD-1', '2025-12-30', '120.00'],
      ['OLD-2', '2025-11-30', '1080.50'],
    ] as const)
      await act(one, enterOpening, { customerId: 'salish', number, date: '2025-11-30', due, amount }, ON);
    expect(await openings(db)).toEqual(await openings(one));
    expect(await db.accountMonths.toArray()).toEqual(await one.accountMonths.toArray());
    expect(await db.customerBalances.toArray()).toEqual(await one.customerBalances.toArray());
    await expectSoundBook(db);
  });

  test.each<[string, string[], string[]]>([
    ['a customer nobody knows', ['nobody,OLD-1,2025-11-30,,120.00'], ['row 2, customer']],
    ['one number twice', ['salish,OLD-1,2025-11-30,,1.00', 'salish, OLD-1,2025-11-30,,2.00'], ['row 3, number']],
    ['what is no day and no amount', ['salish,OLD-1,soon,,much'], ['row 2, date', 'row 2, due', 'row 2, amount']],
    ['an invoice due before its date', ['salish,OLD-1,2025-11-30,2025-11-01,1.00'], ['row 2, due']],
    ['a good row beside a wrong one', ['salish,OLD-1,2025-11-30,,1.00', 'salish,,2025-11-30,,1.00'], ['row 3, number']],
  ])('with %s is refused at its rows, and nothing is written', async (_what, rows, paths) => {
    const { db, result } = await imported(...rows);
    expect(result.ok ? [] : result.refusals.map(({ path }) => path)).toEqual(paths);
    expect(await openings(db)).toEqual([]);
  });

  test('read a second time is refused', async () => {
    const row = 'salish,OLD-1,2025-11-30,,120.00';
    const { db } = await imported(row);
    expect(refusalCodes(await tried(db, `${HEADS}\n${row}`))).toEqual(['duplicate']);
    expect(await openings(db)).toHaveLength(1);
  });

  test('without its heads is refused', async () => {
    const db = await newBook();
    expect((await tried(db, 'who,what\nsalish,1')).ok).toBe(false);
  });
});
