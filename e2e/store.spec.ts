import { expect, type Page, test } from '@playwright/test';
import { servePage } from 'tests/servePage';
import type { StorePage } from 'tests/storePage';

/** Real IndexedDB in Chromium, without the interface. */
let served: Awaited<ReturnType<typeof servePage>>;
test.beforeAll(async () => {
  served = await servePage('tests/storePage.ts');
});
test.afterAll(() => served.close());

const store = <T>(page: Page, method: keyof StorePage, ...args: unknown[]): Promise<T> =>
  page.evaluate(
    ([name, given]) => {
      const offered = (globalThis as unknown as { storePage: Record<string, (...a: unknown[]) => Promise<unknown>> })
        .storePage;
      return offered[name as string]?.(...(given as unknown[])) as Promise<T>;
    },
    [method, args] as const,
  );

async function samplePage(page: Page): Promise<void> {
  await page.goto(served.address);
  await store(page, 'begin');
}

for (const [action, table] of [
  ['issue', 'journal'],
  ['issue', 'taxEntries'],
  ['issue', 'audit'],
  ['credit', 'journalLines'],
  ['receive', 'audit'],
] as const)
  test(`${action} cut in the middle, at ${table}, leaves the book as it was`, async ({ page }) => {
    await samplePage(page);
    const before = await store(page, 'contents');
    expect(await store(page, 'cut', action, table)).toContain('cut in the middle');
    expect(await store(page, 'contents')).toEqual(before);
    // The book goes on from where it was.
    expect(await store(page, 'issue', 1, '10.00')).toEqual(['INV-2026-0025']);
  });

test('two pages issuing at once never share or skip a number', async ({ page, context }) => {
  await samplePage(page);
  const other = await context.newPage();
  await other.goto(served.address);
  const [mine, theirs] = await Promise.all([
    store<string[]>(page, 'issue', 25, '1.00'),
    store<string[]>(other, 'issue', 25, '2.00'),
  ]);
  const numbers = [...mine, ...theirs].sort();
  expect(numbers).toEqual(Array.from({ length: 50 }, (_, i) => `INV-2026-${String(25 + i).padStart(4, '0')}`));
  expect(mine).toEqual([...mine].sort());
});

test('a page closed while it opens a book file leaves the old book or the new one, never a part', async ({
  page,
  context,
}) => {
  await samplePage(page);
  const saved = await store<Record<string, string>>(page, 'contents');
  await store(page, 'openAgain');
  await page.close();
  const next = await context.newPage();
  await next.goto(served.address);
  const found = await store<Record<string, string>>(next, 'contents');
  const changed = found.documents !== saved.documents;
  if (changed) expect(found.documents?.split('\n')).toHaveLength((saved.documents ?? '').split('\n').length + 1);
  else expect(found).toEqual(saved);
});

test('a page closed while it opens a first book file leaves no book, and the file opens again', async ({
  page,
  context,
}) => {
  await samplePage(page);
  const whole = await store<Record<string, string>>(page, 'contents');
  await store(page, 'openFirst');
  await page.close();
  const next = await context.newPage();
  await next.goto(served.address);
  expect(await store(next, 'standing')).toBe('unfinished');
  expect(await store(next, 'openSample')).toBe(true);
  expect(await store(next, 'standing')).toBe('book');
  const found = await store<Record<string, string>>(next, 'contents');
  expect(found.documents?.split('\n')).toHaveLength((whole.documents ?? '').split('\n').length);
  expect(found.accountMonths).toBe(whole.accountMonths);
});
