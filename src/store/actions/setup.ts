import type { Book, CustomerRow, ItemRow } from '@/core/decisions/changes';
import { type Beginning, beginBook, saveBusiness, saveCustomer, saveItem } from '@/core/decisions/setup';
import type { Item } from '@/core/documents/item';
import { refuse } from '@/core/kernel/result';
import type { Business } from '@/core/parties/business';
import type { Customer } from '@/core/parties/customer';
import { loadBook } from '../load';
import type { Action } from '../perform';

/** Begins a book in an empty browser. */
export const begin: Action<Beginning, Book> = {
  name: 'begin book',
  async decide(db, beginning, moment) {
    if ((await db.book.count()) > 0) return refuse({ code: 'book-exists', path: '' });
    return beginBook(beginning, moment);
  },
};

export const changeBusiness: Action<Business, Book> = {
  name: 'change business',
  async decide(db, business) {
    return saveBusiness(business, await loadBook(db));
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
