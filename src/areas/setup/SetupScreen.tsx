'use client';

import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { type ReactNode, useState } from 'react';
import { unitWord } from '@/core/documents/item';
import { showNumber, showPrice } from '@/core/kernel/show';
import { rateOn } from '@/core/tax/taxCode';
import { findCustomers, findItems } from '@/store/queries/documents';
import { Button } from '@/ui/Button';
import { Empty, IndexColumn, Sheet, SheetTitle } from '@/ui/Page';
import { Ruled, type RuledColumn } from '@/ui/Ruled';
import { useOpenBook } from '../shell/BookContext';
import { today, useBook } from '../shell/book';
import { BookFile } from './BookFile';
import { BusinessForm } from './BusinessForm';
import { CustomerForm } from './CustomerForm';
import { ItemForm } from './ItemForm';
import { RegistrationForm } from './RegistrationForm';
import { TaxCodeForm } from './TaxCodeForm';

interface Section {
  readonly path: string;
  readonly name: string;
  /** `id` is empty for the section's own page, `new` for a new record. */
  readonly render: (id: string) => ReactNode;
}

const SECTIONS: readonly Section[] = [
  { path: 'business', name: 'Business', render: () => <BusinessForm /> },
  { path: 'registration', name: 'Registration', render: () => <RegistrationForm /> },
  { path: 'tax-codes', name: 'Tax codes', render: (id) => (id === '' ? <TaxCodeList /> : <TaxCodePage id={id} />) },
  { path: 'customers', name: 'Customers', render: (id) => (id === '' ? <CustomerList /> : <CustomerPage id={id} />) },
  { path: 'items', name: 'Items', render: (id) => (id === '' ? <ItemList /> : <ItemPage id={id} />) },
  { path: 'book', name: 'Book file', render: () => <BookFile /> },
];

/** Setup: one section on the sheet, all of them in the index. */
export function SetupScreen({ section, id }: { readonly section: string; readonly id: string }) {
  const current = SECTIONS.find((s) => s.path === section);
  return (
    <>
      <IndexColumn title="Setup">
        <ul className="pl-3.5">
          {SECTIONS.map(({ path, name }) => (
            <li key={path} className="border-rule border-b">
              <Link
                href={`/setup/${path}`}
                aria-current={path === section ? 'page' : undefined}
                className={`-ml-3.5 block border-l-[3px] py-1 pl-[17px] ${path === section ? 'border-rust bg-sheet' : 'border-transparent hover:bg-sheet'}`}
              >
                {name}
              </Link>
            </li>
          ))}
        </ul>
      </IndexColumn>
      <Sheet label={current?.name ?? 'Setup'}>
        {current === undefined ? (
          <Empty>There is no such part of Setup.</Empty>
        ) : (
          <div key={id}>{current.render(id)}</div>
        )}
      </Sheet>
    </>
  );
}

interface RecordListProps<Row> {
  readonly title: string;
  readonly path: string;
  readonly addLabel: string;
  readonly rows: readonly Row[] | undefined;
  readonly keyOf: (row: Row) => string;
  readonly columns: readonly RuledColumn<Row>[];
  readonly empty: string;
  readonly find?: { readonly query: string; readonly onQuery: (query: string) => void };
}

/** A list of records with a way to add one, and find-as-you-type where there may be many. */
function RecordList<Row>({ title, path, addLabel, rows, keyOf, columns, empty, find }: RecordListProps<Row>) {
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
      {rows !== undefined && rows.length > 0 && <Ruled caption={title} rows={rows} keyOf={keyOf} columns={columns} />}
    </>
  );
}

const MOST_SHOWN = 100;

function RecordLink({ path, children }: { readonly path: string; readonly children: ReactNode }) {
  return (
    <Link href={path} className="underline decoration-rule underline-offset-4">
      {children}
    </Link>
  );
}

function CustomerList() {
  const [query, setQuery] = useState('');
  const { codes } = useOpenBook();
  const rows = useBook((db) => findCustomers(db, query, MOST_SHOWN), [query]);
  return (
    <RecordList
      title="Customers"
      path="/setup/customers"
      addLabel="New customer"
      rows={rows}
      keyOf={(row) => row.id}
      empty={query === '' ? 'No customers yet: the first invoice can make one too.' : 'No customer holds this.'}
      find={{ query, onQuery: setQuery }}
      columns={[
        { head: 'Name', cell: (row) => <RecordLink path={`/setup/customers/${row.id}`}>{row.name}</RecordLink> },
        { head: 'Town', cell: (row) => `${row.address.city}, ${row.address.country}` },
        { head: 'Tax number', cell: (row) => row.taxNumber },
        { head: 'Terms', cell: (row) => row.terms },
        { head: 'Own tax code', cell: (row) => codes.find((code) => code.id === row.taxCode)?.name ?? '' },
      ]}
    />
  );
}

function ItemList() {
  const [query, setQuery] = useState('');
  const { currency } = useOpenBook();
  const rows = useBook((db) => findItems(db, query, MOST_SHOWN), [query]);
  return (
    <RecordList
      title="Items"
      path="/setup/items"
      addLabel="New item"
      rows={rows}
      keyOf={(row) => row.id}
      empty={
        query === '' ? 'No items yet: lines can be typed freely, or made from items kept here.' : 'No item holds this.'
      }
      find={{ query, onQuery: setQuery }}
      columns={[
        { head: 'Name', cell: (row) => <RecordLink path={`/setup/items/${row.id}`}>{row.name}</RecordLink> },
        { head: 'Unit', cell: (row) => unitWord(row.unit) },
        { head: 'Tax class', cell: (row) => row.taxClass },
        { head: 'Account', cell: (row) => row.account },
        { head: 'Price', align: 'right', cell: (row) => showPrice(row.price, currency) },
      ]}
    />
  );
}

function TaxCodeList() {
  const { codes } = useOpenBook();
  return (
    <RecordList
      title="Tax codes"
      path="/setup/tax-codes"
      addLabel="New tax code"
      rows={codes}
      keyOf={(row) => row.id}
      empty="No tax codes yet: a line can't be issued without one."
      columns={[
        {
          head: 'Code',
          width: '90px',
          cell: (row) => <RecordLink path={`/setup/tax-codes/${row.id}`}>{row.id}</RecordLink>,
        },
        { head: 'Name', cell: (row) => row.name },
        { head: 'Category', width: '80px', cell: (row) => row.category },
        { head: 'Class', cell: (row) => row.taxClass },
        {
          head: 'Rate today',
          align: 'right',
          width: '110px',
          cell: (row) => {
            const rate = rateOn(row, today());
            return rate === null ? 'none yet' : `${showNumber(rate.percent)} %`;
          },
        },
      ]}
    />
  );
}

function TaxCodePage({ id }: { readonly id: string }) {
  const router = useRouter();
  const code = useOpenBook().codes.find((c) => c.id === id);
  const back = () => router.push('/setup/tax-codes');
  if (id !== 'new' && code === undefined) return <Empty>There is no tax code {id}.</Empty>;
  return (
    <>
      <SheetTitle>{code?.name ?? 'New tax code'}</SheetTitle>
      <TaxCodeForm {...(code && { code })} onSaved={back} />
    </>
  );
}

function CustomerPage({ id }: { readonly id: string }) {
  const router = useRouter();
  const customer = useBook(async (db) => (await db.customers.get(id)) ?? null, [id]);
  if (customer === undefined) return null;
  if (customer === null && id !== 'new') return <Empty>This book holds no such customer.</Empty>;
  return (
    <>
      <SheetTitle>{customer?.name ?? 'New customer'}</SheetTitle>
      <CustomerForm {...(customer && { customer })} onSaved={() => router.push('/setup/customers')} />
    </>
  );
}

function ItemPage({ id }: { readonly id: string }) {
  const router = useRouter();
  const item = useBook(async (db) => (await db.items.get(id)) ?? null, [id]);
  if (item === undefined) return null;
  if (item === null && id !== 'new') return <Empty>This book holds no such item.</Empty>;
  return (
    <>
      <SheetTitle>{item?.name ?? 'New item'}</SheetTitle>
      <ItemForm {...(item && { item })} onSaved={() => router.push('/setup/items')} />
    </>
  );
}
