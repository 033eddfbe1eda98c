import Dexie from 'dexie';
import type { Book, CustomerRow, ItemRow } from '@/core/book/rows';
import type { Item } from '@/core/catalogue/item';
import { saveBankAccount } from '@/core/decisions/setup/bankAccount';
import { type Beginning, beginBook, saveBusiness } from '@/core/decisions/setup/begin';
import { saveRecord } from '@/core/decisions/setup/records';
import { writeCanonical } from '@/core/kernel/canonical';
import { refuse } from '@/core/kernel/result';
import type { BankAccount } from '@/core/parties/bankAccount';
import type { Business } from '@/core/parties/business';
import type { Customer } from '@/core/parties/customer';
import { NO_RECORDS } from '@/core/tax/taxSetup';
import { loadBook } from '../../load';
import type { Action } from '../../perform';

/** Begins a book in an empty browser. */
export const begin: Action<Beginning, Book> = {
  name: 'begin book',
  async decide(db, beginning, moment) {
    if ((await db.book.count()) > 0) return refuse({ code: 'book-exists', path: '' });
    return beginBook(beginning, moment);
  },
};

/** `before` is the business that a form began with: one that was changed since is refused as stale. */
export const changeBusiness: Action<{ readonly value: Business; readonly before: Business }, Book> = {
  name: 'change business',
  async decide(db, { value, before }) {
    const book = await loadBook(db);
    if (writeCanonical(book.business) !== writeCanonical(before)) return refuse({ code: 'stale', path: '' });
    return saveBusiness(value, book);
  },
};

export const keepBankAccount: Action<{ readonly value: BankAccount; readonly isNew: boolean }, BankAccount> = {
  name: 'keep bank account',
  async decide(db, { value, isNew }) {
    const [before, others, chart] = await Promise.all([
      db.bankAccounts.get(value.id),
      db.bankAccounts.toArray(),
      db.accounts.toArray(),
    ]);
    const used =
      before !== undefined &&
      (await db.accountMonths
        .where('[account+month]')
        .between([before.account, Dexie.minKey], [before.account, Dexie.maxKey])
        .count()) > 0;
    return saveBankAccount(value, { before, isNew, others, chart, used });
  },
};

/** Nothing of a customer or an item hangs on the tax set-up. */
const plain = { isNew: false, records: NO_RECORDS, usedUntil: null };

export const changeCustomer: Action<Customer, CustomerRow> = {
  name: 'change customer',
  async decide(db, customer) {
    const before = await db.customers.get(customer.id);
    return saveRecord('customers', { ...customer, keys: [] }, { before, ...plain });
  },
};

export const changeItem: Action<Item, ItemRow> = {
  name: 'change item',
  async decide(db, item) {
    const [before, accounts] = await Promise.all([db.items.get(item.id), db.accounts.toCollection().primaryKeys()]);
    return saveRecord('items', { ...item, keys: [] }, { ...plain, before, accounts: new Set(accounts) });
  },
};
