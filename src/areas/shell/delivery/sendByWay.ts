import { purposeOf } from '@/core/delivery/compose';
import type { IssuedDocument } from '@/core/documents/issued';
import { KINDS } from '@/core/documents/kinds';
import { sendingOf } from '@/core/parties/customer';
import { wordRefusal, wordRefusals } from '@/core/wording/refusals';
import { sendEInvoices } from '@/store/delivery/actions/sending';
import { mailsAbout } from '@/store/delivery/queries/mail';
import { recordOf } from '@/store/records';
import { act, bookDb } from '../book';
import { writeAboutDocument } from './mailing';
import { sendWritten } from './writtenMail';

/** What came of sending a document by its customer's own way. */
export type SentByWay =
  /** `words` say how it goes: `by mail to accounts@example.com`. */
  | { readonly kind: 'sent'; readonly words: string }
  /** Printed and posted: it is for a person to do. */
  | { readonly kind: 'post'; readonly words: string }
  /** Not sent by itself: `words` say why, and what to do. */
  | { readonly kind: 'waits'; readonly words: string };

async function byEInvoice({ id }: IssuedDocument): Promise<SentByWay> {
  const result = await act(sendEInvoices, { documentIds: [id] });
  if (!result.ok) return { kind: 'waits', words: wordRefusals(result.refusals) };
  const fault = result.value[0]?.fault ?? null;
  return fault === null ? { kind: 'sent', words: 'as e-invoice' } : { kind: 'waits', words: wordRefusal(fault) };
}

async function byMail(document: IssuedDocument): Promise<SentByWay> {
  const before = await mailsAbout(bookDb(), document.id);
  if (before.some(({ purpose, phase }) => purpose === purposeOf(document) && phase !== 'closed'))
    return { kind: 'waits', words: 'A message about it is on its way, or did not arrive: look at the outbox.' };
  const written = await writeAboutDocument(document);
  const why = await sendWritten(written);
  return why === '' ? { kind: 'sent', words: `by mail to ${written.to.join(', ')}` } : { kind: 'waits', words: why };
}

/** Sends a document as its customer is sent documents, without asking; what can't go by itself is said. */
export async function sendByWay(documentId: string): Promise<SentByWay> {
  const db = bookDb();
  const document = await recordOf(db, 'documents', documentId);
  const customer = document === null ? null : await recordOf(db, 'customers', document.customerId);
  if (document === null || customer === null) return { kind: 'waits', words: 'Its customer is not in the book.' };
  const { way } = sendingOf(customer);
  // What can't be an e-invoice, as a quote, goes by mail.
  if (way === 'e-invoice' && KINDS[document.kind].eInvoice) return byEInvoice(document);
  if (way === 'mail' || way === 'e-invoice') return byMail(document);
  if (way === 'print') return { kind: 'post', words: 'It goes by post: print it and mark it as sent.' };
  return { kind: 'waits', words: 'This customer is sent nothing.' };
}
