'use client';

import { useRouter } from 'next/navigation';
import { type ReactNode, useState } from 'react';
import { unitWord } from '@/core/catalogue/item';
import { isIsoDate, writeDate } from '@/core/kernel/date';
import { showNumber, showPrice } from '@/core/kernel/show';
import { isActive, type Registration } from '@/core/tax/registration';
import { resolveTax } from '@/core/tax/resolve';
import { plainName } from '@/core/tax/taxCode';
import { prepareSetup } from '@/core/tax/taxSetup';
import { withholdingRateOn } from '@/core/tax/withholding';
import { allOf, recordOf } from '@/store/records';
import { findItems } from '@/store/sales/queries/documents';
import Link from '@/ui/Link';
import { Empty, IndexColumn, Margin, Sheet } from '@/ui/Page';
import { ItemForm } from '../shared/ItemForm';
import { useOpenBook } from '../shell/BookContext';
import { today, useBook } from '../shell/book';
import { routes } from '../shell/routes';
import { BusinessForm } from './BusinessForm';
import { TaxCodeForm } from './codes/TaxCodeForm';
import { CustomerList, CustomerPage } from './customers/Customers';
import { BookFile } from './files/BookFile';
import { CsvFiles } from './files/CsvFiles';
import { JurisdictionPage } from './jurisdictions/JurisdictionPage';
import { JurisdictionTree } from './jurisdictions/JurisdictionTree';
import { PackList } from './packs/PackList';
import { PlaceList, PlacePage } from './places/PlaceList';
import { PriceListForm } from './prices/PriceListForm';
import { RecordLink, RecordList, RecordPage } from './RecordList';
import { ExchangeRates } from './rates/ExchangeRates';
import { RateChange } from './rates/RateChange';
import { RegistrationForm } from './registrations/RegistrationForm';
import { SeriesList, SeriesPage } from './series/SeriesPages';
import { StyleList, StylePage } from './styles/StylePages';
import { DecisionTable } from './table/DecisionTable';
import { Tester } from './table/Tester';
import { WithholdingForm } from './withholding/WithholdingForm';

interface Section {
  readonly path: string;
  readonly name: string;
  /** `id` is empty for the section's own page, `new` for a new record. */
  readonly render: (id: string) => ReactNode;
  /** What stands in the margin beside it. */
  readonly margin?: () => ReactNode;
}

const SECTIONS: readonly { readonly title: string; readonly sections: readonly Section[] }[] = [
  {
    title: 'Who we are',
    sections: [
      { path: 'business', name: 'Business', render: () => <BusinessForm /> },
      {
        path: 'registrations',
        name: 'Registrations',
        render: (id) => (id === '' ? <RegistrationList /> : <RegistrationPage id={id} />),
      },
    ],
  },
  {
    title: 'Tax',
    sections: [
      { path: 'packs', name: 'Starter packs', render: () => <PackList /> },
      {
        path: 'jurisdictions',
        name: 'Jurisdictions and rates',
        render: (id) => (id === '' ? <JurisdictionTree /> : <JurisdictionPage id={id} />),
      },
      { path: 'places', name: 'Places', render: (id) => (id === '' ? <PlaceList /> : <PlacePage id={id} />) },
      { path: 'tax-codes', name: 'Tax codes', render: (id) => (id === '' ? <TaxCodeList /> : <TaxCodePage id={id} />) },
      { path: 'table', name: 'Decision table', render: () => <DecisionTable />, margin: () => <Tester /> },
      {
        path: 'withholding',
        name: 'Withholding',
        render: (id) => (id === '' ? <WithholdingList /> : <WithholdingPage id={id} />),
      },
      { path: 'rate-change', name: 'What if a rate changes', render: () => <RateChange /> },
      { path: 'exchange-rates', name: 'Exchange rates', render: () => <ExchangeRates /> },
    ],
  },
  {
    title: 'Who buys what',
    sections: [
      {
        path: 'customers',
        name: 'Customers',
        render: (id) => (id === '' ? <CustomerList /> : <CustomerPage id={id} />),
      },
      { path: 'items', name: 'Items', render: (id) => (id === '' ? <ItemList /> : <ItemPage id={id} />) },
      { path: 'prices', name: 'Price lists', render: (id) => (id === '' ? <PriceLists /> : <PriceListPage id={id} />) },
    ],
  },
  {
    title: 'Documents',
    sections: [
      { path: 'numbers', name: 'Numbers', render: (id) => (id === '' ? <SeriesList /> : <SeriesPage id={id} />) },
      { path: 'styles', name: 'Document styles', render: (id) => (id === '' ? <StyleList /> : <StylePage id={id} />) },
    ],
  },
  {
    title: 'Files',
    sections: [
      { path: 'csv', name: 'Tables as CSV', render: () => <CsvFiles /> },
      { path: 'book', name: 'Book file', render: () => <BookFile /> },
    ],
  },
];

const ALL = SECTIONS.flatMap((group) => group.sections);

/** Setup: one section on the sheet, all of them in the index. */
export function SetupScreen({ section, id }: { readonly section: string; readonly id: string }) {
  const current = ALL.find((s) => s.path === section);
  return (
    <>
      <IndexColumn title="Setup">
        <div className="min-h-0 flex-1 overflow-auto">
          {SECTIONS.map(({ title, sections }) => (
            <section key={title} aria-label={title} className="mb-2">
              <h2 className="px-3.5 pt-1 text-soft text-sm">{title}</h2>
              <ul className="pl-3.5">
                {sections.map(({ path, name }) => (
                  <li key={path} className="border-rule border-b">
                    <Link
                      href={routes.section(path)}
                      aria-current={path === section ? 'page' : undefined}
                      className={`-ml-3.5 block border-l-[3px] py-1 pl-[17px] ${path === section ? 'border-rust bg-sheet' : 'border-transparent hover:bg-sheet'}`}
                    >
                      {name}
                    </Link>
                  </li>
                ))}
              </ul>
            </section>
          ))}
        </div>
      </IndexColumn>
      <Sheet label={current?.name ?? 'Setup'}>
        {current === undefined ? (
          <Empty>There is no such part of Setup.</Empty>
        ) : (
          <div key={id}>{current.render(id)}</div>
        )}
      </Sheet>
      {current?.margin !== undefined && <Margin>{current.margin()}</Margin>}
    </>
  );
}

const MOST_SHOWN = 100;

function inForce(registration: Registration): string {
  if (isActive(registration, today())) return 'in force';
  return isIsoDate(registration.from) && registration.from > today() ? `from ${writeDate(registration.from)}` : 'ended';
}

function RegistrationList() {
  const { registrations, records } = useOpenBook();
  return (
    <RecordList
      title="Registrations"
      path={routes.section('registrations')}
      addLabel="New registration"
      rows={registrations}
      keyOf={(row) => row.id}
      empty="No registrations yet."
      columns={[
        {
          head: 'Name',
          cell: (row) => <RecordLink path={routes.record('registrations', row.id)}>{row.name}</RecordLink>,
        },
        { head: 'Number', cell: (row) => row.number },
        {
          head: 'Territory',
          cell: (row) => records.jurisdictions.find((j) => j.id === row.jurisdictionId)?.name ?? row.jurisdictionId,
        },
        { head: 'Return', cell: (row) => `${row.frequency}, ${row.filingCurrency}` },
        { head: 'State', cell: inForce },
      ]}
    />
  );
}

function RegistrationPage({ id }: { readonly id: string }) {
  const router = useRouter();
  const registration = useOpenBook().registrations.find((r) => r.id === id) ?? null;
  return (
    <RecordPage id={id} record={registration} what="registration" nameOf={(r) => r.name}>
      {(known) => (
        <RegistrationForm
          {...(known && { registration: known })}
          onSaved={() => router.push(routes.section('registrations'))}
        />
      )}
    </RecordPage>
  );
}

function ItemList() {
  const [query, setQuery] = useState('');
  const { currency } = useOpenBook();
  const rows = useBook((db) => findItems(db, query, MOST_SHOWN), [], [query]);
  return (
    <RecordList
      title="Items"
      path={routes.section('items')}
      addLabel="New item"
      rows={rows}
      keyOf={(row) => row.id}
      empty={
        query === '' ? 'No items yet: lines can be typed freely, or made from items kept here.' : 'No item holds this.'
      }
      find={{ query, onQuery: setQuery }}
      columns={[
        { head: 'Name', cell: (row) => <RecordLink path={routes.record('items', row.id)}>{row.name}</RecordLink> },
        { head: 'Unit', cell: (row) => unitWord(row.unit) },
        { head: 'Supply', cell: (row) => row.supply },
        { head: 'Tax class', cell: (row) => row.taxClass },
        { head: 'Account', cell: (row) => row.account },
        {
          head: 'Price',
          align: 'right',
          cell: (row) => (
            <>
              {row.priceMode === 'gross' && <span className="text-soft text-sm">with tax </span>}
              {showPrice(row.price, currency)}
            </>
          ),
        },
      ]}
    />
  );
}

function TaxCodeList() {
  const { codes, records } = useOpenBook();
  const setup = prepareSetup(records);
  return (
    <RecordList
      title="Tax codes"
      path={routes.section('tax-codes')}
      addLabel="New tax code"
      rows={codes}
      keyOf={(row) => row.id}
      empty="No tax codes yet: a starter pack brings those of a country."
      columns={[
        {
          head: 'Code',
          width: '100px',
          cell: (row) => <RecordLink path={routes.record('tax-codes', row.id)}>{row.id}</RecordLink>,
        },
        { head: 'Name', cell: plainName },
        { head: 'Category', width: '80px', cell: (row) => row.category },
        {
          head: 'Taxes',
          cell: (row) => row.components.map((c) => [c.taxId, c.taxClass].filter(Boolean).join(' ')).join(', '),
        },
        {
          head: 'Rate today',
          align: 'right',
          width: '110px',
          cell: (row) => {
            const tax = resolveTax(setup, row.id, today(), () => null, 'en');
            return 'problem' in tax ? 'none today' : `${showNumber(tax.percent)} %`;
          },
        },
      ]}
    />
  );
}

function TaxCodePage({ id }: { readonly id: string }) {
  const router = useRouter();
  const code = useOpenBook().codes.find((c) => c.id === id) ?? null;
  return (
    <RecordPage id={id} record={code} what="tax code" nameOf={plainName}>
      {(known) => (
        <TaxCodeForm {...(known && { code: known })} onSaved={() => router.push(routes.section('tax-codes'))} />
      )}
    </RecordPage>
  );
}

function WithholdingList() {
  const { records } = useOpenBook();
  return (
    <RecordList
      title="Withholding"
      path={routes.section('withholding')}
      addLabel="New withholding type"
      rows={records.withholdingTypes}
      keyOf={(row) => row.id}
      empty="No withholding types yet: they say what customers keep back from what they pay."
      columns={[
        {
          head: 'Name',
          cell: (row) => <RecordLink path={routes.record('withholding', row.id)}>{row.name}</RecordLink>,
        },
        { head: 'Of', cell: (row) => row.base },
        { head: 'Kept back', cell: (row) => (row.when === 'on-issue' ? 'on issue' : 'on payment') },
        {
          head: 'Rate today',
          align: 'right',
          cell: (row) => {
            const rate = withholdingRateOn(row, today());
            return rate === null ? 'none yet' : `${showNumber(rate.percent)} %`;
          },
        },
        { head: 'Legal source', cell: (row) => row.source },
      ]}
    />
  );
}

function WithholdingPage({ id }: { readonly id: string }) {
  const router = useRouter();
  const type = useOpenBook().records.withholdingTypes.find((t) => t.id === id) ?? null;
  return (
    <RecordPage id={id} record={type} what="withholding type" nameOf={(t) => t.name}>
      {(known) => (
        <WithholdingForm {...(known && { type: known })} onSaved={() => router.push(routes.section('withholding'))} />
      )}
    </RecordPage>
  );
}

function PriceLists() {
  const rows = useBook((db) => allOf(db, 'priceLists'));
  return (
    <RecordList
      title="Price lists"
      path={routes.section('prices')}
      addLabel="New price list"
      rows={rows}
      keyOf={(row) => row.id}
      empty="No price lists yet: customers pay the items’ own prices."
      columns={[
        { head: 'Name', cell: (row) => <RecordLink path={routes.record('prices', row.id)}>{row.name}</RecordLink> },
        { head: 'Prices hold', cell: (row) => (row.priceMode === 'gross' ? 'the tax' : 'no tax') },
        { head: 'Prices', align: 'right', cell: (row) => row.prices.length },
      ]}
    />
  );
}

function PriceListPage({ id }: { readonly id: string }) {
  const router = useRouter();
  const list = useBook((db) => recordOf(db, 'priceLists', id), [id]);
  return (
    <RecordPage id={id} record={list} what="price list" nameOf={(l) => l.name}>
      {(known) => (
        <PriceListForm {...(known && { list: known })} onSaved={() => router.push(routes.section('prices'))} />
      )}
    </RecordPage>
  );
}

function ItemPage({ id }: { readonly id: string }) {
  const router = useRouter();
  const item = useBook((db) => recordOf(db, 'items', id), [id]);
  return (
    <RecordPage id={id} record={item} what="item" nameOf={(i) => i.name}>
      {(known) => <ItemForm {...(known && { item: known })} onSaved={() => router.push(routes.section('items'))} />}
    </RecordPage>
  );
}
