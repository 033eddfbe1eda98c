import type { BookContent, CustomerRow } from '@/core/decisions/changes';
import type { Attachment } from '@/core/documents/attachment';
import type { Business } from '@/core/parties/business';
import { NO_MANDATE } from '@/core/parties/mandate';

/** Tables of version 3, as far as they are read here; all others stay as they are. */
export interface BookContentV3 {
  readonly book: readonly (Omit<BookContent['book'][number], 'business'> & {
    readonly business: Omit<Business, 'creditorId'>;
  })[];
  readonly customers: readonly Omit<CustomerRow, 'mandate'>[];
  readonly attachments: readonly Omit<Attachment, 'goesOut'>[];
}

/** The tables that the upgrade writes anew. */
type UpgradedV3 = Pick<BookContent, 'book' | 'customers' | 'attachments' | 'transmissions'>;

/** A book of version 3 in the shape of version 4: files that go out with their documents, the exchange, direct debit. */
export function upgradeV3(old: BookContentV3): UpgradedV3 {
  // What was kept before was for ourselves: nobody was told that it might be sent.
  return {
    book: old.book.map((row) => ({ ...row, business: { ...row.business, creditorId: '' } })),
    customers: old.customers.map((customer) => ({ ...customer, mandate: NO_MANDATE })),
    attachments: old.attachments.map((file) => ({ ...file, goesOut: false })),
    transmissions: [],
  };
}
