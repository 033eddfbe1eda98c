'use client';

import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { mainNumber } from '@/core/parties/customer';
import { recordOf } from '@/store/records';
import { allCustomers } from '@/store/sales/queries/documents';
import { CustomerForm } from '../../shared/CustomerForm';
import { NumberChecks } from '../../shared/NumberChecks';
import { RecordEnd } from '../../shared/RecordEnd';
import { RecordLink, RecordList, RecordPage } from '../../shared/RecordList';
import { useMore } from '../../shared/useMore';
import { useOpenBook } from '../../shell/BookContext';
import { useBook } from '../../shell/book';
import { routes } from '../../shell/routes';
import { Certificates } from './Certificates';
import { CustomerFile } from './CustomerFile';

export function CustomerList() {
  const [query, setQuery] = useState('');
  const more = useMore();
  const { codes } = useOpenBook();
  const rows = useBook((db) => allCustomers(db, query, more.ask), [], [query, more.ask]);
  return (
    <RecordList
      title="Customers"
      path={routes.section('customers')}
      addLabel="New customer"
      {...more.of(rows)}
      keyOf={(row) => row.id}
      empty={query === '' ? 'No customers yet: the first invoice can make one too.' : 'No customer matches.'}
      find={{ query, onQuery: setQuery }}
      columns={[
        {
          head: 'Name',
          value: (row) => row.name,
          cell: (row) => (
            <>
              <RecordLink path={routes.record('customers', row.id)}>{row.name}</RecordLink>
              {row.archived && <span className="text-soft text-sm"> archived</span>}
            </>
          ),
        },
        { head: 'Customer type', cell: (row) => row.kind },
        { head: 'Town', cell: (row) => `${row.address.city}, ${row.address.country}` },
        { head: 'Tax number', cell: (row) => mainNumber(row) },
        { head: 'Terms', cell: (row) => row.terms },
        { head: 'Default tax code', cell: (row) => codes.find((code) => code.id === row.taxCode)?.id ?? '' },
      ]}
    />
  );
}

/** One customer with its tax side: numbers and what the registry said of them, certificates. */
export function CustomerPage({ id }: { readonly id: string }) {
  const router = useRouter();
  const customer = useBook((db) => recordOf(db, 'customers', id), [id]);
  return (
    <RecordPage id={id} record={customer} what="customer" nameOf={(c) => c.name}>
      {(known) => (
        <>
          <CustomerForm
            {...(known && { customer: known })}
            onSaved={(kept) =>
              router.push(known === undefined ? routes.record('customers', kept) : routes.section('customers'))
            }
          />
          {known !== undefined && (
            <>
              <NumberChecks customer={known} />
              <Certificates customerId={known.id} />
              <CustomerFile customer={known} />
              <RecordEnd
                table="customers"
                record={known}
                archivable
                onDeleted={() => router.push(routes.section('customers'))}
              />
            </>
          )}
        </>
      )}
    </RecordPage>
  );
}
