import type { MailToQueue } from '@/core/decisions/delivery/mailing';
import { proposed, receiversFor, valuesOfDocument } from '@/core/delivery/compose';
import { templateFor } from '@/core/delivery/messageTemplate';
import { isoDate } from '@/core/kernel/date';
import { minor } from '@/core/kernel/money';
import { blankCustomer } from '@/core/parties/customer';
import { Writer } from '@/print/writer';
import { sendMails } from '@/store/delivery/actions/mail';
import { present } from '@/store/load';
import { keepDraft } from '@/store/sales/actions/drafts';
import { issueInvoice } from '@/store/sales/actions/issueInvoice';
import { addToRun, makeRunDocument, runOfDraft } from '@/store/sales/actions/runs';
import { rowsOfRun } from '@/store/sales/queries/runs';
import type { BookDb } from '@/store/schema';
import { act, draftOf, freshBook, KEPT_FROM } from './books';

const DAY = isoDate('2026-01-15');

/** A book of so many customers with an address for mail, and their ids. */
async function customersBook(
  name: string,
  count: number,
): Promise<{ readonly db: BookDb; readonly ids: readonly string[] }> {
  const db = await freshBook(name);
  const ids = Array.from({ length: count }, (_, i) => `run-${i}`);
  const address = { street: '1 Quay', city: 'Galway', region: '', postalCode: 'H91 X0X0', country: 'IE' };
  await db.customers.bulkAdd(
    ids.map((id) => ({ ...blankCustomer(id, id, 'IE'), address, email: `${id}@x.example`, keys: [] })),
  );
  return { db, ids };
}

/** A message about a document, as it is proposed, without its files. */
async function mailOf(db: BookDb, documentId: string): Promise<MailToQueue> {
  const document = present(await db.documents.get(documentId), 'the document');
  const customer = present(await db.customers.get(document.customerId), 'the customer');
  const write = new Writer('en', document.content.currency);
  const values = valuesOfDocument(document, 'Bench', '', {
    money: (amount, currency) => `${write.money(minor(amount))} ${currency}`,
    day: (day) => write.day(day),
    colon: ':',
  });
  const { missing: _, ...words } = proposed(
    templateFor([], 'invoice', 'en'),
    values,
    receiversFor(customer, 'invoice').to,
  );
  return {
    ...words,
    purpose: 'invoice',
    language: 'en',
    customerId: customer.id,
    documentIds: [document.id],
    about: document.number,
    copy: true,
    view: null,
    files: [],
    replaces: '',
  };
}

/** (k) A run for many customers, issued and its messages written, against issuing the same drafts by the plain action. */
export async function runAgainstPlain(
  count: number,
): Promise<{ run: number; plain: number; issued: number; mails: number }> {
  const { db, ids } = await customersBook('bench-run', count);
  const pattern = { ...draftOf(1, DAY), id: 'run', priceMode: 'net' as const };
  await act(db, keepDraft, pattern, KEPT_FROM);
  await act(db, runOfDraft, { draftId: 'run', name: 'Run' }, DAY);
  await act(db, addToRun, { runId: 'run', customerIds: ids }, DAY);
  const rows = (await rowsOfRun(db, 'run')).filter(({ customerId }) => customerId.startsWith('run-'));
  let began = performance.now();
  for (const { id } of rows) {
    const made = await act(db, makeRunDocument, { rowId: id, does: 'issue-all' }, DAY);
    await act(db, sendMails, { mails: [await mailOf(db, made.documentId)] }, DAY);
  }
  const run = performance.now() - began;
  const plainBook = await customersBook('bench-plain', count);
  const drafts: string[] = [];
  for (const customerId of plainBook.ids) {
    const draft = { ...pattern, id: crypto.randomUUID(), customerId };
    drafts.push((await act(plainBook.db, keepDraft, draft, KEPT_FROM)).id);
  }
  began = performance.now();
  for (const draftId of drafts) await act(plainBook.db, issueInvoice, { draftId }, DAY);
  const plain = performance.now() - began;
  return { run, plain, issued: await db.documents.count(), mails: await db.mails.count() };
}
