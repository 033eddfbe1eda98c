'use client';

import { createContext, useContext } from 'react';
import type { Currency } from '@/core/kernel/currency';
import type { Account } from '@/core/ledger/account';
import type { Business } from '@/core/parties/business';
import type { Registration } from '@/core/tax/registration';
import type { TaxCode } from '@/core/tax/taxCode';
import type { TaxRecords } from '@/core/tax/taxSetup';

/** What nearly every screen of an open book needs. */
export interface OpenBook {
  readonly business: Business;
  readonly currency: Currency;
  /** The one that is picked at the head of the ribbon. */
  readonly registration: Registration;
  readonly registrations: readonly Registration[];
  /** The tax set-up but its places, which may be many. */
  readonly records: TaxRecords;
  readonly codes: readonly TaxCode[];
  readonly accounts: readonly Account[];
}

export const BookContext = createContext<OpenBook | null>(null);

/** @throws Error outside an open book; the shell renders its screens inside one. */
export function useOpenBook(): OpenBook {
  const book = useContext(BookContext);
  if (book === null) throw new Error('no book is open');
  return book;
}
