import 'fake-indexeddb/auto';
import { writeCsv } from '@/core/files/csv';
import { isIsoDate } from '@/core/kernel/date';
import { plainTable } from '@/core/reports/report';
import { wordRefusals } from '@/core/wording/refusals';
import { REPORTS, reportKind } from '@/store/reports/catalogue';
import { openBookFile } from './bookFile';

export interface ReportOptions {
  /** ISO dates; a report as at a day takes the last. */
  readonly from?: string;
  readonly to?: string;
  /** A value of what the report can be chosen for, such as an account. */
  readonly of?: string;
  readonly csv?: boolean;
}

const say = (text: string) => process.stdout.write(`${text}\n`);

function wrong(message: string): 2 {
  say(JSON.stringify({ error: { path: '', message } }));
  return 2;
}

/**
 * Prints a report of a book file, as JSON or CSV: amounts as plain decimals, ISO dates. Returns the exit code: 0, or 2 for a
 * file that can't be read, a report that there is none of, or days that are none.
 */
export async function runReport(
  file: string,
  name: string,
  { from, to, of, csv = false }: ReportOptions,
): Promise<0 | 2> {
  const kind = reportKind(name);
  if (kind === null) return wrong(`there is no report ${name}: ${REPORTS.map((one) => one.name).join(', ')}`);
  const found = await openBookFile(file);
  if (found.kind === 'unreadable') return wrong(found.words);
  if (found.kind === 'refused') return wrong(wordRefusals(found.refusals));
  const { db } = found;
  const newest = (await db.journal.orderBy('[date+id]').last())?.date;
  const until = to ?? newest ?? '';
  const first = kind.days === 'day' ? until : (from ?? `${until.slice(0, 4)}-01-01`);
  if (!isIsoDate(until) || !isIsoDate(first) || first > until)
    return wrong('give days in their order: --from 2026-01-01 --to 2026-12-31');
  const options = (await kind.choice?.options(db))?.map(({ value }) => value) ?? [];
  if (of !== undefined && !options.includes(of))
    return wrong(
      options.length === 0 ? `${name} has no --of` : `give --of one of: ${options.filter(Boolean).join(', ')}`,
    );
  const report = await kind.make(db, { from: first, until }, of);
  const tables = report.tables.map((table) => ({ caption: table.caption, ...plainTable(table, report.currency) }));
  if (csv) for (const { heads, rows } of tables) process.stdout.write(writeCsv(heads, rows));
  else
    say(
      JSON.stringify({
        report: name,
        title: report.title,
        from: report.from,
        until: report.until,
        currency: report.currency,
        tables,
        notes: report.notes,
      }),
    );
  return 0;
}
