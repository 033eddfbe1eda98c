import dynamic from 'next/dynamic';
import type { RecordSection } from '../shared/RecordSheet';

/** Whom we sell to and what we sell; each is loaded when it is gone to. */
export const CATALOGUE: readonly RecordSection[] = [
  {
    path: 'customers',
    name: 'Customers',
    Page: dynamic(async () => (await import('./customers/Customers')).CustomerList),
    Record: dynamic(async () => (await import('./customers/Customers')).CustomerPage),
  },
  {
    path: 'items',
    name: 'Items',
    Page: dynamic(async () => (await import('./items/ItemPages')).ItemList),
    Record: dynamic(async () => (await import('./items/ItemPages')).ItemPage),
  },
  {
    path: 'prices',
    name: 'Price lists',
    Page: dynamic(async () => (await import('./prices/PriceListPages')).PriceLists),
    Record: dynamic(async () => (await import('./prices/PriceListPages')).PriceListPage),
  },
];
