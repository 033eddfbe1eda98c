/* Version 3 to version 4; frozen, see `v1.ts`. */

/** Tables of version 3, as far as they are read here; all others stay as they are. */
export interface BookContentV3 {
  readonly book: readonly { readonly business: object }[];
  readonly customers: readonly object[];
  readonly attachments: readonly object[];
}

/** No direct debit was agreed with anybody yet. */
const NO_MANDATE = { reference: '', iban: '' };

/**
 * A book of version 3 in the shape of version 4: files that go out with their documents, the exchange, direct debit. Gives
 * the tables that are written anew.
 */
export function upgradeV3(old: BookContentV3): Readonly<Record<string, readonly object[]>> {
  // What was kept before was for ourselves: nobody was told that it might be sent.
  return {
    book: old.book.map((row) => ({ ...row, business: { ...row.business, creditorId: '' } })),
    customers: old.customers.map((customer) => ({ ...customer, mandate: NO_MANDATE })),
    attachments: old.attachments.map((file) => ({ ...file, goesOut: false })),
    transmissions: [],
  };
}
