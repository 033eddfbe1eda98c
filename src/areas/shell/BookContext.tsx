'use client';

import { createContext, useContext } from 'react';
import type { Currency } from '@/core/kernel/currency';
import type { Account } from '@/core/ledger/account';
import type { Business } from '@/core/parties/business';
import type { Registration } from '@/core/tax/registration';
import type { TaxCode } from '@/core/tax/taxCode';

/** What nearly every screen of an open book needs. */
export interface OpenBook {
  readonly business: Business;
  readonly currency: Currency;
  readonly registration: Registration;
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
