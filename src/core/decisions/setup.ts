import { type Item, itemSchema } from '@/core/documents/item';
import { FIRST_SERIES } from '@/core/documents/series';
import { accept, type Refusal, refuse } from '@/core/kernel/result';
import { validated } from '@/core/kernel/validate';
import { searchKeys } from '@/core/kernel/words';
import { FIRST_CHART } from '@/core/ledger/account';
import { type Business, businessSchema } from '@/core/parties/business';
import { type Customer, customerSchema } from '@/core/parties/customer';
import { spanOf } from '@/core/periods/calendar';
import { type Registration, registrationSchema } from '@/core/tax/registration';
import { type TaxCode, taxCodeSchema } from '@/core/tax/taxCode';
import type { Book, CustomerRow, Decision, ItemRow, Moment } from './changes';

const under = (path: string, refusals: readonly Refusal[]): Refusal[] =>
  refusals.map((refusal) => ({ ...refusal, path: `${path}.${refusal.path}` }));

/** Begins an empty book: business, its registration, first codes, chart of accounts and number series. */
export function beginBook(
  business: Business,
  registration: Registration,
  codes: readonly TaxCode[],
  moment: Moment,
): Decision<Book> {
  const checkedBusiness = validated<Business>(businessSchema, business);
  const checkedRegistration = validated<Registration>(registrationSchema, registration);
  const refusals = [
    ...(checkedBusiness.ok ? [] : under('business', checkedBusiness.refusals)),
    ...(checkedRegistration.ok ? [] : under('registration', checkedRegistration.refusals)),
  ];
  if (refusals.length > 0) return refuse(...refusals);
  const book: Book = { id: 'book', business, begunAt: moment.now };
  const keptFrom = spanOf(registration.frequency, registration.keptFrom).start;
  return accept({
    value: book,
    changes: {
      add: {
        book: [book],
        registrations: [{ ...registration, keptFrom, filedUntil: '' }],
        taxCodes: codes,
        accounts: FIRST_CHART,
        series: FIRST_SERIES,
      },
      audit: { subject: business.name },
    },
  });
}

export function saveBusiness(business: Business, book: Book): Decision<Book> {
  const checked = validated<Business>(businessSchema, business);
  if (!checked.ok) return checked;
  // Amounts already written are in the home currency; another one would make them lies.
  if (business.homeCurrency !== book.business.homeCurrency)
    return refuse({ code: 'in-use', path: 'homeCurrency', expected: book.business.homeCurrency });
  const saved: Book = { ...book, business };
  return accept({
    value: saved,
    changes: { put: { book: [saved] }, audit: { subject: business.name, before: book.business, after: business } },
  });
}

/** The periods already in use keep their frequency and their first day. */
export function saveRegistration(
  registration: Registration,
  before: Registration,
  used: boolean,
): Decision<Registration> {
  const checked = validated<Registration>(registrationSchema, registration);
  if (!checked.ok) return checked;
  const keptFrom = spanOf(registration.frequency, registration.keptFrom).start;
  if (used && registration.frequency !== before.frequency)
    return refuse({ code: 'in-use', path: 'frequency', expected: before.frequency });
  if (used && keptFrom !== before.keptFrom)
    return refuse({ code: 'in-use', path: 'keptFrom', expected: before.keptFrom });
  const saved = { ...registration, keptFrom, filedUntil: before.filedUntil };
  return accept({
    value: saved,
    changes: { put: { registrations: [saved] }, audit: { subject: saved.name, before, after: saved } },
  });
}

export function saveTaxCode(code: TaxCode, before: TaxCode | undefined, isNew: boolean): Decision<TaxCode> {
  const checked = validated<TaxCode>(taxCodeSchema, code);
  if (!checked.ok) return checked;
  if (isNew && before !== undefined) return refuse({ code: 'duplicate', path: 'id', found: code.id });
  const saved = { ...code, rates: [...code.rates].sort((a, b) => (a.from < b.from ? -1 : 1)) };
  return accept({
    value: saved,
    changes: { put: { taxCodes: [saved] }, audit: { subject: code.id, before, after: saved } },
  });
}

export function saveCustomer(customer: Customer, before: Customer | undefined): Decision<CustomerRow> {
  const checked = validated<Customer>(customerSchema, customer);
  if (!checked.ok) return checked;
  const { name, address, taxNumber, email } = customer;
  const saved: CustomerRow = { ...customer, keys: searchKeys([name, address.city, taxNumber, email]) };
  return accept({
    value: saved,
    changes: { put: { customers: [saved] }, audit: { subject: name, before, after: customer } },
  });
}

export function saveItem(item: Item, before: Item | undefined): Decision<ItemRow> {
  const checked = validated<Item>(itemSchema, item);
  if (!checked.ok) return checked;
  const saved: ItemRow = { ...item, keys: searchKeys([item.name, item.description]) };
  return accept({
    value: saved,
    changes: { put: { items: [saved] }, audit: { subject: item.name, before, after: item } },
  });
}
