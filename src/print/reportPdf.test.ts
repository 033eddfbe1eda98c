import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { currency } from '@/core/kernel/currency';
import { isoDate } from '@/core/kernel/date';
import { minor } from '@/core/kernel/money';
import type { Report, ReportRow } from '@/core/reports/report';
import { FONT_FILES, type PrintFonts } from './fonts';
import { daysOf, writeReportPdf } from './reportPdf';

const EUR = currency('EUR');
const fontOf = (name: string) => new Uint8Array(readFileSync(join('public', 'fonts', name)));
const fonts: PrintFonts = {
  text: fontOf(FONT_FILES.text),
  strong: fontOf(FONT_FILES.strong),
  title: fontOf(FONT_FILES.title),
};
const AT = '2026-11-23T10:00:00.000Z';

const rowOf = (i: number): ReportRow => ({
  key: String(i),
  cells: [`Customer ${i} with a name that is long`, { amount: minor(BigInt(i) * 100n), currency: EUR }],
});

const report = (rows: number): Report => ({
  title: 'Sales by customer',
  from: isoDate('2026-01-01'),
  until: isoDate('2026-03-31'),
  currency: EUR,
  tables: [
    {
      caption: 'Sales',
      columns: [
        { head: 'Customer', kind: 'words' },
        { head: 'Net', kind: 'amount' },
      ],
      rows: Array.from({ length: rows }, (_, i) => rowOf(i)),
      sums: ['Total', { amount: minor(500n), currency: EUR }],
      nothing: 'Nothing was sold.',
    },
  ],
  notes: ['Something does not add up.'],
});

/** Pages of a PDF, as its page tree counts them. */
const pagesOf = (bytes: Uint8Array): number =>
  Number(/\/Type \/Pages[\s\S]*?\/Count (\d+)/.exec(Buffer.from(bytes).toString('latin1'))?.[1]);

test('a report runs over as many pages as its rows need, and comes out the same each time', async () => {
  const one = await writeReportPdf(report(5), 'Corran Point', fonts, AT);
  const long = await writeReportPdf(report(200), 'Corran Point', fonts, AT);
  expect([pagesOf(one), pagesOf(long) > 3]).toEqual([1, true]);
  expect(await writeReportPdf(report(5), 'Corran Point', fonts, AT)).toEqual(one);
});

test('a table without rows says so, and a chart of one sign or of none is drawn', async () => {
  const chart = {
    kind: 'steps' as const,
    caption: 'c',
    names: ['a', 'b'],
    series: [{ name: 's', amounts: [minor(0n), minor(0n)] }],
  };
  expect(pagesOf(await writeReportPdf({ ...report(0), chart }, 'Corran Point', fonts, AT))).toBe(1);
});

test('the days are those of a span, or of one day', () => {
  expect(daysOf(report(0))).toBe('1 Jan 2026 to 31 Mar 2026');
  expect(daysOf({ from: isoDate('2026-03-31'), until: isoDate('2026-03-31') })).toBe('as at 31 Mar 2026');
});
