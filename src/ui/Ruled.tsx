import type { ComponentProps, ReactNode } from 'react';

export interface RuledColumn<Row> {
  readonly head: string;
  readonly align?: 'left' | 'right';
  readonly width?: string;
  readonly cell: (row: Row) => ReactNode;
}

interface RuledProps<Row> extends Omit<ComponentProps<'table'>, 'children'> {
  /** What the table holds, for screen readers. */
  readonly caption: string;
  readonly columns: readonly RuledColumn<Row>[];
  readonly rows: readonly Row[];
  readonly keyOf: (row: Row) => string;
  /** Sums below, one for each column; empty ones are blank. */
  readonly sums?: readonly ReactNode[];
}

/** A dense ruled table, 28 px a row. */
export function Ruled<Row>({ caption, columns, rows, keyOf, sums, className = '', ...rest }: RuledProps<Row>) {
  const alignOf = (column: RuledColumn<Row>) => (column.align === 'right' ? 'text-right' : 'text-left');
  return (
    <table className={`w-full border-collapse ${className}`} {...rest}>
      <caption className="sr-only">{caption}</caption>
      <thead>
        <tr>
          {columns.map((column) => (
            <th
              key={column.head}
              scope="col"
              style={{ width: column.width }}
              className={`border-ink border-b px-1.5 pb-1 font-normal text-soft text-sm ${alignOf(column)}`}
            >
              {column.head}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.map((row) => (
          <tr key={keyOf(row)} className="border-rule border-b">
            {columns.map((column) => (
              <td key={column.head} className={`px-1.5 py-1 align-top tabular-nums ${alignOf(column)}`}>
                {column.cell(row)}
              </td>
            ))}
          </tr>
        ))}
      </tbody>
      {sums !== undefined && (
        <tfoot>
          <tr className="sum-rule">
            {columns.map((column, i) => (
              <td key={column.head} className={`h-8 px-1.5 tabular-nums ${alignOf(column)}`}>
                {sums[i]}
              </td>
            ))}
          </tr>
        </tfoot>
      )}
    </table>
  );
}
