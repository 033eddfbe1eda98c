'use client';

import { RecordSheet } from '../shared/RecordSheet';
import { CATALOGUE } from './sections';

/** Customers, items and price lists, beside the documents they are for. */
export function CatalogueScreen({ section, id }: { readonly section: string; readonly id: string }) {
  return <RecordSheet section={CATALOGUE.find(({ path }) => path === section)} id={id} area="Sales" />;
}
