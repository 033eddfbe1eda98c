import { inBatches } from './batches';

/** Rows 1 to `count`, as a table gives them. */
const table = (count: number, size: number, asked: (number | undefined)[]) => async (after: number | undefined) => {
  asked.push(after);
  const from = after ?? 0;
  return Array.from({ length: Math.min(size, count - from) }, (_, i) => from + i + 1);
};

test.each([
  [0, [undefined]],
  [2, [undefined]],
  [3, [undefined, 3]],
  [7, [undefined, 3, 6]],
])('%i rows come once each, in order, a batch of three at a time', async (count, asks) => {
  const [asked, seen]: [(number | undefined)[], number[]] = [[], []];
  await inBatches(3, table(count, 3, asked), (rows) => seen.push(...rows));
  expect(seen).toEqual(Array.from({ length: count }, (_, i) => i + 1));
  expect(asked).toEqual(asks);
});

test('the next batch is asked for before one is worked on', async () => {
  const told: string[] = [];
  const rows = table(4, 3, []);
  await inBatches<number>(
    3,
    (after) => {
      told.push(`after ${after ?? 'none'}`);
      return rows(after);
    },
    (batch) => told.push(`work ${batch.join()}`),
  );
  expect(told).toEqual(['after none', 'after 3', 'work 1,2,3', 'work 4']);
});

test('work that throws ends it, though the next batch fails after it', async () => {
  const read = (after: number | undefined) =>
    after === undefined ? Promise.resolve([1, 2, 3]) : Promise.reject(new Error('gone'));
  const work = () => {
    throw new RangeError('not this one');
  };
  await expect(inBatches<number>(3, read, work)).rejects.toThrow('not this one');
});
