'use client';

import { useRouter } from 'next/navigation';
import type { ReactNode } from 'react';
import { Button } from '@/ui/Button';
import type { DataColumn, RowData } from '@/ui/DataTable';
import Link from '@/ui/Link';
import { Empty, SheetTitle } from '@/ui/Page';
import { ListTable } from './ListTable';

interface RecordListProps<Row> {
  readonly title: string;
  readonly path: string;
  readonly addLabel: string;
  readonly rows: readonly Row[] | undefined;
  readonly keyOf: (row: Row) => string;
  readonly columns: readonly DataColumn<Row>[];
  readonly empty: string;
  /** The way to more rows, where there are any. */
  readonly onMore?: (() => void) | undefined;
  readonly find?: { readonly query: string; readonly onQuery: (query: string) => void };
}

/** A list of records with a way to add one, and find-as-you-type where there may be many. */
export function RecordList<Row extends RowData>({
  title,
  path,
  addLabel,
  rows,
  keyOf,
  columns,
  empty,
  find,
  onMore,
}: RecordListProps<Row>) {
  const router = useRouter();
  return (
    <>
      <SheetTitle
        aside={
          <Button weight="main" onClick={() => router.push(`${path}/new`)}>
            {addLabel}
          </Button>
        }
      >
        {title}
      </SheetTitle>
      {find !== undefined && (
        <input
          type="search"
          aria-label={`Find in ${title}`}
          placeholder="Any part of any word…"
          value={find.query}
          onChange={(event) => find.onQuery(event.target.value)}
          className="mb-3 h-8 w-[280px] border-rule border-b bg-transparent px-1"
        />
      )}
      {rows?.length === 0 && <Empty>{empty}</Empty>}
      {rows !== undefined && rows.length > 0 && (
        <ListTable caption={title} rows={rows} keyOf={keyOf} columns={columns} onMore={onMore} />
      )}
    </>
  );
}

export function RecordLink({ path, children }: { readonly path: string; readonly children: ReactNode }) {
  return (
    <Link href={path} className="underline decoration-rule underline-offset-4">
      {children}
    </Link>
  );
}

interface RecordPageProps<T> {
  /** `new` for a record that is yet to be made. */
  readonly id: string;
  /** Undefined while it is read, null when there is none. */
  readonly record: T | null | undefined;
  /** What it is, in singular: `price list`. */
  readonly what: string;
  readonly nameOf: (record: T) => string;
  readonly children: (record: T | undefined) => ReactNode;
}

/** One record under its name, a blank one when it is new, or a word that it is not there. */
export function RecordPage<T>({ id, record, what, nameOf, children }: RecordPageProps<T>) {
  if (record === undefined) return null;
  if (record === null && id !== 'new') return <Empty>There is no such {what}.</Empty>;
  return (
    <>
      <SheetTitle>{record === null ? `New ${what}` : nameOf(record)}</SheetTitle>
      {children(record ?? undefined)}
    </>
  );
}
