import { type MailWriter, valuesOfAccount, valuesOfDocument } from '@/core/delivery/compose';
import type { MailPurpose } from '@/core/delivery/mail';
import type { PlaceholderValues } from '@/core/delivery/messageTemplate';
import type { Currency } from '@/core/kernel/currency';
import { minor } from '@/core/kernel/money';
import { Writer } from '@/print/writer';
import { loadBook } from '@/store/load';
import { newestOfKind, overdueInvoices } from '@/store/sales/queries/documents';
import type { BookDb } from '@/store/schema';
import { today } from '../book';

/** Amounts with their currency and days, in the language of a message. */
export function mailWriter(language: string, currency: Currency): MailWriter {
  const write = new Writer(language, currency);
  return {
    money: (amount, of) => `${write.money(minor(amount), of as Currency)} ${of}`,
    day: (day) => write.day(day),
    colon: write.wording.language === 'fr' ? '\u00a0:' : ':',
  };
}

const KIND_OF = { quote: 'quote', 'credit-note': 'credit-note', invoice: 'invoice', recurring: 'invoice' } as const;
const SHOWN = 3;

/** What placeholders stand for in a message of a purpose about something of the book, and what that is; empty for nothing. */
export async function sampleValues(
  db: BookDb,
  purpose: MailPurpose,
  language: string,
): Promise<{ readonly of: string; readonly values: PlaceholderValues }> {
  const { business } = await loadBook(db);
  const write = mailWriter(language, business.homeCurrency);
  const kind = purpose in KIND_OF ? KIND_OF[purpose as keyof typeof KIND_OF] : null;
  if (kind !== null) {
    const document = await newestOfKind(db, kind);
    return document === undefined
      ? { of: '', values: {} }
      : { of: document.number, values: valuesOfDocument(document, business.name, '', write) };
  }
  const [first, ...more] = await overdueInvoices(db, today(), SHOWN);
  if (first === undefined) return { of: '', values: {} };
  const told = [first, ...more].filter(({ customerId }) => customerId === first.customerId);
  const items = told.map(({ number, dueDate, open, content }) => ({
    number,
    due: dueDate,
    open,
    currency: content.currency,
  }));
  const names = { customer: first.customerName, contact: '', business: business.name };
  const receipt = {
    number: 'REC-2026-0001',
    date: write.day(today()),
    total: write.money(first.open, items[0]?.currency ?? ''),
  };
  return { of: first.customerName, values: { ...receipt, ...valuesOfAccount(items, today(), names, write) } };
}
