import { type MailNames, receiversFor } from '@/core/delivery/compose';
import type { MailPurpose } from '@/core/delivery/mail';
import { type MessageTemplate, templateFor } from '@/core/delivery/messageTemplate';
import type { Currency } from '@/core/kernel/currency';
import type { Customer } from '@/core/parties/customer';
import { loadBook } from '@/store/load';
import { allOf, recordOf } from '@/store/records';
import { bookDb } from '../book';

/** Whom a message of a purpose goes to at a customer, who writes it, and in which words. */
export interface WritingTo {
  readonly customer: Customer;
  readonly to: readonly string[];
  readonly names: MailNames;
  readonly template: MessageTemplate;
  readonly homeCurrency: Currency;
}

/** Null where the customer is gone. */
export async function writingTo(customerId: string, purpose: MailPurpose): Promise<WritingTo | null> {
  const db = bookDb();
  const [{ business }, customer, templates] = await Promise.all([
    loadBook(db),
    recordOf(db, 'customers', customerId),
    allOf(db, 'messageTemplates'),
  ]);
  if (customer === null) return null;
  const { to, contact } = receiversFor(customer, purpose);
  return {
    customer,
    to,
    names: { customer: customer.name, contact: contact?.name ?? '', business: business.name },
    template: templateFor(templates, purpose, customer.language),
    homeCurrency: business.homeCurrency,
  };
}
