import type { Book, CustomerRow, ItemRow } from '@/core/decisions/changes';
import { beginBook, saveBusiness, saveCustomer, saveItem, saveRegistration, saveTaxCode } from '@/core/decisions/setup';
import type { Item } from '@/core/documents/item';
import { refuse } from '@/core/kernel/result';
import type { Business } from '@/core/parties/business';
import type { Customer } from '@/core/parties/customer';
import type { Registration } from '@/core/tax/registration';
import type { TaxCode } from '@/core/tax/taxCode';
import { loadBook } from '../load';
import type { Action } from '../perform';

/** Begins a book in an empty browser. */
export const begin: Action<{ business: Business; registration: Registration; codes: readonly TaxCode[] }, Book> = {
  name: 'begin book',
  async decide(db, { business, registration, codes }, moment) {
    if ((await db.book.count()) > 0) return refuse({ code: 'book-exists', path: '' });
    return beginBook(business, registration, codes, moment);
  },
};

export const changeBusiness: Action<Business, Book> = {
  name: 'change business',
  async decide(db, business) {
    return saveBusiness(business, await loadBook(db));
  },
};

export const changeRegistration: Action<Registration, Registration> = {
  name: 'change registration',
  async decide(db, registration) {
    const before = await db.registrations.get(registration.id);
    if (before === undefined) return refuse({ code: 'not-found', path: 'id' });
    return saveRegistration(registration, before, (await db.taxPeriods.count()) > 0);
  },
};

export const changeTaxCode: Action<{ code: TaxCode; isNew: boolean }, TaxCode> = {
  name: 'change tax code',
  async decide(db, { code, isNew }) {
    return saveTaxCode(code, await db.taxCodes.get(code.id), isNew);
  },
};

export const changeCustomer: Action<Customer, CustomerRow> = {
  name: 'change customer',
  async decide(db, customer) {
    return saveCustomer(customer, await db.customers.get(customer.id));
  },
};

export const changeItem: Action<Item, ItemRow> = {
  name: 'change item',
  async decide(db, item) {
    return saveItem(item, await db.items.get(item.id));
  },
};
