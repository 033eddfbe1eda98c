'use client';

import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { ratioOf } from '@/core/kernel/decimal';
import { showPrice } from '@/core/kernel/show';
import { unitWord } from '@/core/kernel/unit';
import { recordOf } from '@/store/records';
import { allItems } from '@/store/sales/queries/documents';
import { ItemForm } from '../../shared/ItemForm';
import { RecordEnd } from '../../shared/RecordEnd';
import { RecordLink, RecordList, RecordPage } from '../../shared/RecordList';
import { useMore } from '../../shared/useMore';
import { useOpenBook } from '../../shell/BookContext';
import { useBook } from '../../shell/book';
import { routes } from '../../shell/routes';

/** What is sold, found by any part of any word. */
export function ItemList() {
  const [query, setQuery] = useState('');
  const more = useMore();
  const { currency } = useOpenBook();
  const rows = useBook((db) => allItems(db, query, more.ask), [], [query, more.ask]);
  return (
    <RecordList
      title="Items"
      path={routes.section('items')}
      addLabel="New item"
      {...more.of(rows)}
      keyOf={(row) => row.id}
      empty={
        query === '' ? 'No items yet: lines can be typed freely, or made from items saved here.' : 'No item matches.'
      }
      find={{ query, onQuery: setQuery }}
      columns={[
        {
          head: 'Name',
          value: (row) => row.name,
          cell: (row) => (
            <>
              <RecordLink path={routes.record('items', row.id)}>{row.name}</RecordLink>
              {row.archived && <span className="text-soft text-sm"> archived</span>}
            </>
          ),
        },
        { head: 'Unit', cell: (row) => unitWord(row.unit) },
        { head: 'Supply', cell: (row) => row.supply },
        { head: 'Tax class', cell: (row) => row.taxClass },
        { head: 'Account', cell: (row) => row.account },
        {
          head: 'Price',
          align: 'right',
          value: (row) => ratioOf(row.price),
          text: (row) => row.price,
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

/** One item, or a new one. */
export function ItemPage({ id }: { readonly id: string }) {
  const router = useRouter();
  const item = useBook((db) => recordOf(db, 'items', id), [id]);
  return (
    <RecordPage id={id} record={item} what="item" nameOf={(i) => i.name}>
      {(known) => (
        <>
          <ItemForm {...(known && { item: known })} onSaved={() => router.push(routes.section('items'))} />
          {known !== undefined && (
            <RecordEnd table="items" record={known} archivable onDeleted={() => router.push(routes.section('items'))} />
          )}
        </>
      )}
    </RecordPage>
  );
}
