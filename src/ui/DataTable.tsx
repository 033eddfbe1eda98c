'use client';

import {
  type ColumnDef,
  columnVisibilityFeature,
  createSortedRowModel,
  type RowData,
  rowSortingFeature,
  type SortingState,
  tableFeatures,
  useTable,
} from '@tanstack/react-table';
import { useVirtualizer } from '@tanstack/react-virtual';
import { type ReactNode, useEffect, useLayoutEffect, useRef, useState } from 'react';
import { compare, type Ratio } from '@/core/kernel/ratio';
import { Button } from './Button';
import { CheckMenu } from './Menu';
import type { RuledColumn } from './Ruled';
import { type RowKeys, rowKeys } from './rowKeys';
import { useKeptList } from './useKeptList';

/** What a row may be. */
export type { RowData };

/** A column of a list that can be sorted and saved to a file. */
export interface DataColumn<Row> extends RuledColumn<Row> {
  /** What it is sorted by and says in a file. Needed where the cell is more than text; a bare cell is neither. */
  readonly value?: (row: Row) => string | number | bigint | Ratio;
  /** What it says in a file, where that is not the value; needed beside a fraction. */
  readonly text?: (row: Row) => string;
}

export interface DataTableProps<Row> {
  /** What the table holds, for screen readers; what is chosen for it is kept under this name. */
  readonly caption: string;
  readonly columns: readonly DataColumn<Row>[];
  readonly rows: readonly Row[];
  readonly keyOf: (row: Row) => string;
  /** Sums below, one for each column; empty ones are blank. */
  readonly sums?: readonly ReactNode[];
  /** Goes on: there are more rows than these, so that they can't be put in another order here. */
  readonly onMore?: (() => void) | undefined;
  /** The order means something, as that of a balance carried forward: it stays. */
  readonly ordered?: boolean;
  /** The columns are chosen elsewhere. */
  readonly chosen?: boolean;
  /** Takes what is shown to a file. */
  readonly onSave?: (heads: readonly string[], rows: readonly (readonly string[])[]) => void;
}

const FEATURES = tableFeatures({ rowSortingFeature, columnVisibilityFeature, sortedRowModel: createSortedRowModel() });

const COLLATOR = new Intl.Collator(undefined, { numeric: true });

type Value = string | number | bigint | Ratio;

function compared(a: Value, b: Value): number {
  if (typeof a === 'object' && typeof b === 'object') return compare(a, b);
  if (typeof a === 'string' || typeof b === 'string') return COLLATOR.compare(String(a), String(b));
  return a < b ? -1 : a > b ? 1 : 0;
}

/** The value of a column in a row; undefined where it has none. */
function valueIn<Row>(column: DataColumn<Row>, row: Row): Value | undefined {
  if (column.value !== undefined) return column.value(row);
  const cell = column.cell(row);
  return typeof cell === 'string' || typeof cell === 'number' ? cell : undefined;
}

const textIn = <Row,>(column: DataColumn<Row>, row: Row): string =>
  column.text?.(row) ?? String(valueIn(column, row) ?? '');

/** Rows beyond these are drawn when they come near; a row is 29 px high unless it is measured to be more. */
const DRAWN = 200;
const ROW_HEIGHT = 29;

/** The nearest thing around an element that scrolls. */
function scrollerOf(element: HTMLElement | null): HTMLElement | null {
  let at = element?.parentElement ?? null;
  while (at !== null && !/auto|scroll/.test(getComputedStyle(at).overflowY)) at = at.parentElement;
  return at;
}

/** True while the page is printed: then every row is drawn. */
function usePrinting(): boolean {
  const [printing, setPrinting] = useState(false);
  useEffect(() => {
    const [begin, end] = [() => setPrinting(true), () => setPrinting(false)];
    addEventListener('beforeprint', begin);
    addEventListener('afterprint', end);
    return () => {
      removeEventListener('beforeprint', begin);
      removeEventListener('afterprint', end);
    };
  }, []);
  return printing;
}

const SORTS = { asc: 'ascending', desc: 'descending' } as const;

/**
 * A list: sorted by its heads, its columns chosen and kept in this browser, gone through by the arrow keys, saved as it is
 * shown. Thousands of rows are drawn as they come near.
 */
export function DataTable<Row extends RowData>(props: DataTableProps<Row>) {
  const { caption, columns, rows, keyOf, sums, onMore, ordered = false, chosen = false, onSave } = props;
  const kept = useKeptList(caption);
  const printing = usePrinting();
  const sortable = !ordered && onMore === undefined;
  const [sorting, setSorting] = [kept.list.sorting as SortingState, (to: SortingState) => kept.keep({ sorting: to })];
  const table = useTable({
    features: FEATURES,
    data: rows as Row[],
    columns: columns.map(
      (column): ColumnDef<typeof FEATURES, Row> => ({
        id: column.head,
        accessorFn: (row: Row) => valueIn(column, row) ?? '',
        sortFn: (a, b) => compared(a.getValue(column.head), b.getValue(column.head)),
        sortDescFirst: column.align === 'right',
      }),
    ),
    getRowId: (row: Row) => keyOf(row),
    enableMultiSort: false,
    state: {
      sorting: sortable ? sorting.filter(({ id }) => columns.some(({ head }) => head === id)) : [],
      columnVisibility: Object.fromEntries(kept.list.hidden.map((head) => [head, false])),
    },
    onSortingChange: (change) => setSorting(typeof change === 'function' ? change(sorting) : change),
  });
  const ordinary = table.getRowModel().rows.map((row) => row.original);
  const shown = columns.filter(({ head }, i) => i === 0 || !kept.list.hidden.includes(head));

  const body = useRef<HTMLTableSectionElement>(null);
  const [scroller, setScroller] = useState<HTMLElement | null>(null);
  useLayoutEffect(() => setScroller(scrollerOf(body.current)), []);
  const whole = ordinary.length <= DRAWN || printing || scroller === null;
  const virtual = useVirtualizer({
    count: ordinary.length,
    enabled: !whole,
    getScrollElement: () => scroller,
    estimateSize: () => ROW_HEIGHT,
    overscan: 20,
    scrollMargin:
      body.current === null || scroller === null
        ? 0
        : body.current.getBoundingClientRect().top - scroller.getBoundingClientRect().top + scroller.scrollTop,
  });
  const drawn = whole ? ordinary.map((_, index) => index) : virtual.getVirtualItems().map(({ index }) => index);
  const items = virtual.getVirtualItems();
  const above = whole ? 0 : (items[0]?.start ?? 0) - virtual.options.scrollMargin;
  const below = whole ? 0 : virtual.getTotalSize() - ((items.at(-1)?.end ?? 0) - virtual.options.scrollMargin);
  const keys: RowKeys = rowKeys({
    count: ordinary.length,
    bring: (index) => whole || virtual.scrollToIndex(index, { align: 'auto' }),
  });

  const alignOf = (column: DataColumn<Row>) => (column.align === 'right' ? 'text-right' : 'text-left');
  const filler = (key: string, height: number) =>
    height > 0 && (
      <tr key={key}>
        <td colSpan={shown.length} style={{ height, padding: 0 }} />
      </tr>
    );
  const save = () => {
    const named = shown.filter(({ head }) => head !== '');
    onSave?.(
      named.map(({ head }) => head),
      ordinary.map((row) => named.map((column) => textIn(column, row))),
    );
  };
  return (
    <>
      <table className="w-full border-collapse" aria-rowcount={whole ? undefined : ordinary.length + 1}>
        <caption className="sr-only">{caption}</caption>
        <thead>
          <tr>
            {shown.map((column) => {
              const sorted = table.getColumn(column.head)?.getIsSorted() ?? false;
              const sorts =
                sortable && column.head !== '' && rows[0] !== undefined && valueIn(column, rows[0]) !== undefined;
              return (
                <th
                  key={column.head}
                  scope="col"
                  style={{ width: column.width }}
                  aria-sort={sorted === false ? undefined : SORTS[sorted]}
                  className={`border-ink border-b px-1.5 pb-1 font-normal text-soft text-sm ${alignOf(column)}`}
                >
                  {sorts ? (
                    <button
                      type="button"
                      className="cursor-pointer hover:text-ink"
                      title="Sort by this"
                      onClick={() => table.getColumn(column.head)?.toggleSorting()}
                    >
                      {column.head}
                      {sorted !== false && <span aria-hidden="true">{sorted === 'asc' ? ' ↑' : ' ↓'}</span>}
                    </button>
                  ) : (
                    column.head
                  )}
                </th>
              );
            })}
          </tr>
        </thead>
        <tbody ref={body} onKeyDown={keys}>
          {filler('above', above)}
          {drawn.map((index) => {
            const row = ordinary[index] as Row;
            return (
              <tr
                key={keyOf(row)}
                data-index={index}
                ref={whole ? undefined : virtual.measureElement}
                aria-rowindex={whole ? undefined : index + 2}
                className="border-rule border-b"
              >
                {shown.map((column) => (
                  <td key={column.head} className={`px-1.5 py-1 align-top tabular-nums ${alignOf(column)}`}>
                    {column.cell(row)}
                  </td>
                ))}
              </tr>
            );
          })}
          {filler('below', below)}
        </tbody>
        {sums !== undefined && (
          <tfoot>
            <tr className="sum-rule">
              {columns.map((column, i) =>
                shown.includes(column) ? (
                  <td key={column.head} className={`h-8 px-1.5 tabular-nums ${alignOf(column)}`}>
                    {sums[i]}
                  </td>
                ) : null,
              )}
            </tr>
          </tfoot>
        )}
      </table>
      <div className="mt-2 flex gap-2.5 print:hidden">
        {onMore !== undefined && <Button onClick={onMore}>Show more</Button>}
        <span className="flex-1" />
        {!chosen && columns.length > 2 && (
          <CheckMenu
            label="Columns"
            entries={columns.flatMap(({ head }, i) => (i === 0 || head === '' ? [] : [head]))}
            checked={(head) => !kept.list.hidden.includes(head)}
            onCheck={(head, on) =>
              kept.keep({ hidden: on ? kept.list.hidden.filter((one) => one !== head) : [...kept.list.hidden, head] })
            }
          />
        )}
        {onSave !== undefined && (
          <Button weight="quiet" onClick={save}>
            Save as CSV
          </Button>
        )}
      </div>
    </>
  );
}
