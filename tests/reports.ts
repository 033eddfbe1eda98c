import { isoDate } from '@/core/kernel/date';
import type { Minor } from '@/core/kernel/money';
import type { Report, ReportCell } from '@/core/reports/report';
import type { ReportSpan } from '@/core/reports/span';
import { reportKind } from '@/store/reports/catalogue';
import type { BookDb } from '@/store/schema';

/** The year of test books. */
export const YEAR: ReportSpan = { from: isoDate('2026-01-01'), until: isoDate('2026-12-31') };

/** A report of a book by its name; `chosen` is what it is asked for, as an account. @throws Error when there is no such report. */
export async function made(db: BookDb, name: string, span: ReportSpan = YEAR, chosen?: string): Promise<Report> {
  const kind = reportKind(name);
  if (kind === null) throw new Error(`no report ${name}`);
  return kind.make(db, span, chosen);
}

/** What stands in a cell. */
export const shown = (cell: ReportCell): string | Minor => (typeof cell === 'string' ? cell : cell.amount);

/** The rows of one of its tables, each as the words and amounts in its cells. */
export function rowsOf(report: Report, table = 0): (string | Minor)[][] {
  return report.tables[table]?.rows.map(({ cells }) => cells.map(shown)) ?? [];
}
