'use client';

import { useRouter } from 'next/navigation';
import { allOf, recordOf } from '@/store/records';
import { RecordEnd } from '../../shared/RecordEnd';
import { RecordLink, RecordList, RecordPage } from '../../shared/RecordList';
import { useBook } from '../../shell/book';
import { routes } from '../../shell/routes';
import { PriceListForm } from './PriceListForm';

/** Price lists that customers may have. */
export function PriceLists() {
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
        {
          head: 'Name',
          value: (row) => row.name,
          cell: (row) => <RecordLink path={routes.record('prices', row.id)}>{row.name}</RecordLink>,
        },
        { head: 'Prices', cell: (row) => (row.priceMode === 'gross' ? 'include tax' : 'exclude tax') },
        { head: 'Items', align: 'right', cell: (row) => row.prices.length },
      ]}
    />
  );
}

/** One price list, or a new one. */
export function PriceListPage({ id }: { readonly id: string }) {
  const router = useRouter();
  const list = useBook((db) => recordOf(db, 'priceLists', id), [id]);
  return (
    <RecordPage id={id} record={list} what="price list" nameOf={(l) => l.name}>
      {(known) => (
        <>
          <PriceListForm {...(known && { list: known })} onSaved={() => router.push(routes.section('prices'))} />
          {known !== undefined && (
            <RecordEnd table="priceLists" record={known} onDeleted={() => router.push(routes.section('prices'))} />
          )}
        </>
      )}
    </RecordPage>
  );
}
