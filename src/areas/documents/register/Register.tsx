'use client';

import { useState } from 'react';
import { toast } from 'sonner';
import { signed } from '@/core/documents/content';
import {
  type DocumentFilter,
  INDEX_COLUMNS,
  type IndexColumnName,
  NO_FILTER,
  type SavedView,
} from '@/core/documents/documentFilter';
import type { IssuedDocument } from '@/core/documents/issued';
import { documentsCsv } from '@/core/files/documentsCsv';
import { isIsoDate, writeDate } from '@/core/kernel/date';
import { wordRefusals } from '@/core/wording/refusals';
import { dropView, keepView } from '@/store/sales/actions/views';
import { savedViews } from '@/store/sales/queries/documents';
import { findDocuments } from '@/store/sales/queries/findDocuments';
import { Button } from '@/ui/Button';
import { type DataColumn, DataTable } from '@/ui/DataTable';
import Link from '@/ui/Link';
import { Mark } from '@/ui/Mark';
import { Money } from '@/ui/Money';
import { Sheet, SheetTitle } from '@/ui/Page';
import { SendEachList } from '../../shared/delivery/SendEachList';
import { SendList } from '../../shared/delivery/SendList';
import { documentMark, KIND_WORDS } from '../../shared/documentMark';
import { act, bookDb, today, useBook } from '../../shell/book';
import { routes } from '../../shell/routes';
import { saveFile } from '../../shell/saveFile';
import { BatchPrint } from './BatchPrint';
import { FilterBar } from './FilterBar';
import { SumsNote } from './SumsNote';

const PAGE = 50;
/** A file or a print of more than this is asked for in parts. */
const LARGEST_EXPORT = 5000;

type Shown = Pick<SavedView, 'query' | 'filter' | 'columns'>;

const FIRST: Shown = { query: '', filter: NO_FILTER, columns: ['customer', 'issued', 'due', 'state', 'open'] };

const COLUMNS: Readonly<
  Record<IndexColumnName, Omit<DataColumn<IssuedDocument>, 'head'> & { readonly words: string }>
> = {
  customer: { words: 'Customer', cell: (d) => d.customerName },
  issued: { words: 'Issued', width: '96px', value: (d) => d.issueDate, cell: (d) => writeDate(d.issueDate) },
  due: { words: 'Due', width: '96px', value: (d) => d.dueDate, cell: (d) => writeDate(d.dueDate) },
  state: {
    words: 'State',
    value: (d) => documentMark(d, today()).word,
    width: '120px',
    cell: (d) => {
      const { kind, word } = documentMark(d, today());
      return (
        <span className="whitespace-nowrap">
          <Mark kind={kind} /> {word}
        </span>
      );
    },
  },
  open: {
    words: 'Open',
    value: (d) => d.open,
    align: 'right',
    width: '92px',
    cell: (d) => (d.open === 0n ? '' : <Money amount={d.open} currency={d.content.currency} />),
  },
  reference: {
    words: 'References',
    cell: (d) => [d.content.buyerReference, d.content.orderNumber].filter(Boolean).join(', '),
  },
  tags: { words: 'Tags', cell: (d) => d.tags.join(', ') },
  period: {
    words: 'Period from',
    value: (d) => d.periodId.split('|')[1] ?? '',
    cell: (d) => {
      const start = d.periodId.split('|')[1];
      return isIsoDate(start) ? writeDate(start) : '';
    },
  },
};

/** Every document of the book: searched, narrowed, shown in the columns one wants, and taken out as file or print. */
export function Register() {
  const [shown, setShown] = useState<Shown>(FIRST);
  const [limit, setLimit] = useState(PAGE);
  const [printing, setPrinting] = useState(false);
  const [sending, setSending] = useState<'e-invoices' | 'each' | null>(null);
  const [choosing, setChoosing] = useState(false);
  const [name, setName] = useState('');
  const views = useBook((db) => savedViews(db)) ?? [];
  const { query, filter, columns } = shown;
  const found = useBook(
    (db) => findDocuments(db, query, limit, filter, today()),
    [],
    [query, JSON.stringify(filter), limit],
  );
  const change = (patch: Partial<Shown>) => {
    setShown({ ...shown, ...patch });
    setLimit(PAGE);
  };
  const all = async () => (await findDocuments(bookDb(), query, LARGEST_EXPORT, filter, today())).documents;
  const save = async () => {
    const documents = await all();
    saveFile('documents.csv', documentsCsv(documents, columns, today()), 'text/csv;charset=utf-8');
    if (documents.length === LARGEST_EXPORT)
      toast(`The first ${LARGEST_EXPORT} are saved: narrow the list for the rest.`);
  };
  const keep = async () => {
    const same = views.find((view) => view.name === name.trim());
    const view: SavedView = { ...shown, id: same?.id ?? crypto.randomUUID(), name: name.trim() };
    const result = await act(keepView, view);
    if (!result.ok) return toast.error(wordRefusals(result.refusals));
    setName('');
    toast(`“${view.name}” is saved`);
  };
  const current = views.find(
    (view) =>
      JSON.stringify({ query: view.query, filter: view.filter, columns: view.columns }) ===
      JSON.stringify({ query, filter, columns }),
  );
  return (
    <Sheet label="Sales">
      <SheetTitle
        aside={
          <select
            aria-label="Saved view"
            className="cursor-pointer bg-transparent"
            value={current?.id ?? ''}
            onChange={({ target: { value } }) => {
              const view = views.find((v) => v.id === value);
              change(view === undefined ? FIRST : { query: view.query, filter: view.filter, columns: view.columns });
            }}
          >
            <option value="">{current === undefined && shown !== FIRST ? 'an unsaved view' : 'all documents'}</option>
            {views.map((view) => (
              <option key={view.id} value={view.id}>
                {view.name}
              </option>
            ))}
          </select>
        }
      >
        Sales
      </SheetTitle>
      <input
        type="search"
        aria-label="Find in all documents"
        placeholder="Any part of a number, name, reference, text, tag or amount…"
        className="mb-2 h-8 w-full rounded-sm border border-rule bg-sheet px-2 hover:border-soft"
        value={query}
        onChange={(event) => change({ query: event.target.value })}
      />
      <FilterBar filter={filter} onChange={(next: DocumentFilter) => change({ filter: next })} />
      <DataTable
        chosen
        onMore={found?.more === true ? () => setLimit(limit + PAGE) : undefined}
        caption="Documents"
        keyOf={(d) => d.id}
        rows={found?.documents ?? []}
        columns={[
          {
            head: 'Document',
            value: (d) => d.number,
            cell: (d) => (
              <Link
                href={routes.document(d.id)}
                className="whitespace-nowrap underline decoration-rule underline-offset-4"
                title={KIND_WORDS[d.kind]}
              >
                {d.number}
                {(d.content.version ?? 1) > 1 && ` v${d.content.version}`}
              </Link>
            ),
          },
          ...columns.map((column): DataColumn<IssuedDocument> => {
            const { words, ...rest } = COLUMNS[column];
            return { head: words, ...rest };
          }),
          {
            head: 'Total',
            value: (d) => signed(d.content, d.figures.totals.payable),
            align: 'right',
            width: '120px',
            cell: (d) => (
              <Money amount={signed(d.content, d.figures.totals.payable)} currency={d.content.currency} withCode />
            ),
          },
        ]}
      />
      {found?.documents.length === 0 && (
        <p className="py-3 text-soft">
          {shown === FIRST
            ? 'No documents yet: write the first invoice.'
            : 'Nothing matches. Remove a filter, or try a shorter part of a word.'}
        </p>
      )}
      {found !== undefined && <SumsNote shown={found.documents} more={found.more} all={all} />}
      <div className="mt-auto flex flex-wrap items-end gap-2.5 pt-5">
        <Button onClick={() => void save()}>Save as CSV</Button>
        <Button onClick={() => setPrinting(true)}>Print the list…</Button>
        <Button onClick={() => setSending('each')}>Send the list…</Button>
        <Button onClick={() => setSending('e-invoices')}>Send as e-invoices…</Button>
        <Button onClick={() => setChoosing(!choosing)} aria-expanded={choosing}>
          Columns and view…
        </Button>
        {shown !== FIRST && (
          <Button weight="quiet" onClick={() => change(FIRST)}>
            Show all
          </Button>
        )}
      </div>
      {choosing && (
        <section aria-label="Columns and view" className="mt-3 border-rule border-t pt-2">
          <div className="flex flex-wrap gap-x-4 gap-y-1">
            {INDEX_COLUMNS.map((column) => (
              <label key={column} className="cursor-pointer">
                <input
                  type="checkbox"
                  className="accent-rust"
                  checked={columns.includes(column)}
                  onChange={({ target: { checked } }) =>
                    change({
                      columns: INDEX_COLUMNS.filter((c) => (c === column ? checked : columns.includes(c))),
                    })
                  }
                />{' '}
                {COLUMNS[column].words}
              </label>
            ))}
          </div>
          <form
            className="mt-2 flex items-end gap-2.5"
            onSubmit={(event) => {
              event.preventDefault();
              void keep();
            }}
          >
            <label className="text-soft text-sm">
              Save this view as
              <input
                className="block h-8 rounded-sm border border-rule bg-sheet px-2 text-ink"
                value={name}
                onChange={(event) => setName(event.target.value)}
              />
            </label>
            <Button type="submit">Save</Button>
            {current !== undefined && (
              <Button weight="quiet" onClick={() => void act(dropView, { id: current.id })}>
                Delete “{current.name}”
              </Button>
            )}
          </form>
        </section>
      )}
      {sending === 'e-invoices' && <SendList all={all} onClose={() => setSending(null)} />}
      {sending === 'each' && (
        <SendEachList all={async () => (await all()).map(({ id }) => id)} onClose={() => setSending(null)} />
      )}
      {printing && <BatchPrint all={all} onClose={() => setPrinting(false)} />}
    </Sheet>
  );
}
