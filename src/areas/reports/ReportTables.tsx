'use client';

import { writeMoney } from '@/core/kernel/money';
import type { Behind, Report, ReportCell, ReportColumn, ReportRow, ReportTable } from '@/core/reports/report';
import { shownCell } from '@/core/reports/report';
import type { DataColumn } from '@/ui/DataTable';
import Link from '@/ui/Link';
import { Money } from '@/ui/Money';
import { Empty } from '@/ui/Page';
import { ListTable } from '../shared/ListTable';
import { routes } from '../shell/routes';
import { ReportPicture } from './ReportPicture';

const pathOf = ({ kind, id }: Behind): string =>
  ({
    document: routes.document,
    receipt: routes.receipt,
    entry: routes.entry,
    customer: routes.customer,
    account: routes.account,
  })[kind](id);

function Cell({
  cell,
  column,
  currency,
}: {
  readonly cell: ReportCell;
  readonly column: ReportColumn;
  readonly currency: Report['currency'];
}) {
  if (typeof cell === 'string') return shownCell(cell, column, currency);
  return <Money amount={cell.amount} currency={cell.currency} withCode={cell.currency !== currency} />;
}

/** A row opens what is behind it by its first cell of words. */
function columnsOf(table: ReportTable, currency: Report['currency']): readonly DataColumn<ReportRow>[] {
  const named = table.columns.findIndex(({ kind }) => kind === 'words');
  return table.columns.map((column, i): DataColumn<ReportRow> => {
    const cellOf = ({ cells }: ReportRow): ReportCell => cells[i] ?? '';
    return {
      head: column.head,
      ...(column.kind === 'amount' && { align: 'right' as const }),
      value: (row) => {
        const cell = cellOf(row);
        return typeof cell === 'string' ? cell : cell.amount;
      },
      text: (row) => {
        const cell = cellOf(row);
        return typeof cell === 'string' ? cell : writeMoney(cell.amount, cell.currency);
      },
      cell: (row) => {
        const shown = <Cell cell={cellOf(row)} column={column} currency={currency} />;
        return i === named && row.behind !== undefined ? (
          <Link href={pathOf(row.behind)} className="underline decoration-rule underline-offset-4">
            {shown}
          </Link>
        ) : (
          shown
        );
      },
    };
  });
}

/** The tables of a report, each row leading to what is behind it, and its notes below. */
export function ReportTables({ report }: { readonly report: Report }) {
  const { currency, tables, notes, chart } = report;
  return (
    <>
      {chart !== undefined && <ReportPicture chart={chart} currency={currency} />}
      {tables.map((table) => (
        <section key={table.caption} className="mt-6" aria-label={table.caption}>
          <h2 className="mb-1 font-semibold font-serif">{table.caption}</h2>
          {table.rows.length === 0 ? (
            <Empty>{table.nothing}</Empty>
          ) : (
            <ListTable
              caption={`${report.title}, ${table.caption.toLowerCase()}`}
              rows={table.rows}
              keyOf={({ key }) => key}
              columns={columnsOf(table, currency)}
              {...(table.sums !== null && {
                sums: table.sums.map((cell, i) => {
                  const column = table.columns[i];
                  return column === undefined ? (
                    ''
                  ) : (
                    <Cell key={column.head} cell={cell} column={column} currency={currency} />
                  );
                }),
              })}
            />
          )}
        </section>
      ))}
      {notes.map((note) => (
        <p key={note} className="mt-4 text-brick">
          ▲ {note}
        </p>
      ))}
    </>
  );
}
