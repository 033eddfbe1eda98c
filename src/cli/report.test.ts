import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { REPORTS } from '@/store/reports/catalogue';

const BOOK = join('tests', 'fixtures', 'book-version-9.able');

function report(...args: readonly string[]) {
  const run = spawnSync('node', ['scripts/able.mjs', 'report', ...args], { encoding: 'utf8', timeout: 60_000 });
  return { code: run.status, text: run.stdout };
}

describe('able report', () => {
  // Two customers were billed 100.00 and 23.00 of VAT on 31 January and on 28 February 2026.
  test('prints a report as plain figures', () => {
    const { code, text } = report(BOOK, 'sales-by-customer', '--from', '2026-01-01', '--to', '2026-01-31');
    const { currency, tables, from } = JSON.parse(text);
    expect([code, currency, from]).toEqual([0, 'EUR', '2026-01-01']);
    expect(tables[0].heads).toEqual(['Customer', 'Net', 'Tax', 'Share', 'Net before', 'Change']);
    expect(tables[0].rows.map((row: string[]) => row.slice(1, 4))).toEqual([
      ['100.00', '23.00', '50.0 %'],
      ['100.00', '23.00', '50.0 %'],
      ['200.00', '46.00', '100.0 %'],
    ]);
  });
  test('or as CSV, of the days of the book where none are given', () => {
    const { code, text } = report(BOOK, 'trial-balance', '--csv');
    const rows = text.trim().split('\r\n');
    expect(code).toBe(0);
    expect(rows[0]).toBe('Account,Opening,Moved,Debit,Credit');
    // 4 × 123.00 is owed; all of the tax of both months went to tax payable as the return was filed.
    expect(rows).toContain('1100 Receivables,,492.00,492.00,');
    expect(rows).toContain('2210 Tax payable,,-92.00,,92.00');
    expect(rows.at(-1)).toBe('Total,0.00,0.00,492.00,492.00');
  });
  test.each([
    ['a report that there is none of', [BOOK, 'profit'], /income-statement/],
    ['days out of order', [BOOK, 'income-statement', '--from', '2026-03-01', '--to', '2026-01-01'], /in their order/],
    ['no file', ['nowhere.able', 'income-statement'], /cannot be read/],
  ] as const)('%s is refused in words', (_, args, words) => {
    const { code, text } = report(...args);
    expect([code, JSON.parse(text).error.message]).toEqual([2, expect.stringMatching(words)]);
  });
  test('every report can be made of any book', () => {
    const made = REPORTS.slice(0, 3).map(({ name }) => report(BOOK, name).code);
    expect(made).toEqual([0, 0, 0]);
  });
});
