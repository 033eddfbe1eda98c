import type { Changes, Decision, Moment } from '@/core/book/changes';
import { type Delivery, LARGEST_MESSAGE, messageSize } from '@/core/delivery/accessPoint';
import { type Answer, answerWords, standingAnswer } from '@/core/delivery/answer';
import { handledBy, heard, newTransmission, type Transmission, takenUp, tried } from '@/core/delivery/transmission';
import { type Attachment, goingOut } from '@/core/documents/attachment';
import type { IssuedDocument } from '@/core/documents/issued';
import { KINDS } from '@/core/documents/kinds';
import { checkEInvoice } from '@/core/einvoice/check';
import { einvoiceOf } from '@/core/einvoice/fromDocument';
import { writeEInvoice } from '@/core/einvoice/syntax';
import { dayOf } from '@/core/kernel/date';
import type { Unsendable } from '@/core/kernel/result';
import { accept, type Refusal, refuse } from '@/core/kernel/result';

/** A document to send, with what the book knows of it. */
export interface ToSend {
  readonly document: IssuedDocument;
  /** What was sent of it before. */
  readonly before: readonly Transmission[];
  readonly attachments: readonly Attachment[];
}

const unsendable = (number: string, why: Unsendable): Refusal => ({ code: 'unsendable', path: '', number, why });

/** Why a document can't be sent as it stands, before its file is even looked at; null when it can. */
export function sendFault({ document, before }: Omit<ToSend, 'attachments'>): Refusal | null {
  const { kind, cancelled, content, number } = document;
  if (!KINDS[kind].eInvoice) return unsendable(number, 'kind');
  if (cancelled !== null) return unsendable(number, 'cancelled');
  if (content.buyer.endpoint.id === '') return unsendable(number, { addressless: document.customerName });
  if (content.seller.endpoint.id === '') return unsendable(number, { addressless: content.seller.name });
  const last = before.find(({ phase, receipt }) => receipt !== null || phase !== 'closed');
  if (last === undefined) return null;
  if (last.receipt === null) return unsendable(number, last.phase === 'queued' ? 'waits' : 'failed');
  const standing = standingAnswer(last.answers);
  return standing?.code === 'RE'
    ? unsendable(number, 'rejected')
    : unsendable(number, { sent: dayOf(last.receipt.at) });
}

/** The UBL that a document goes out as, or what keeps it from being a sound e-invoice. */
function fileOf({ document, attachments }: ToSend): { readonly file: string } | { readonly fault: Refusal } {
  const { content, figures } = document;
  const invoice = einvoiceOf(content, figures, goingOut(attachments));
  const [error] = checkEInvoice(invoice, 'peppol').filter(({ severity }) => severity === 'error');
  if (error !== undefined) return { fault: unsendable(document.number, { unsound: error.message, rule: error.rule }) };
  const file = writeEInvoice(invoice, 'ubl');
  const size = messageSize(file);
  if (size <= LARGEST_MESSAGE) return { file };
  return {
    fault: {
      code: 'too-large',
      path: '',
      wanted: { what: 'message-of', number: document.number, size, most: LARGEST_MESSAGE },
    },
  };
}

/** What became of a document that was to be sent. */
export interface Queued {
  readonly documentId: string;
  readonly number: string;
  /** Null where it is in the queue now. */
  readonly fault: Refusal | null;
  /** It was sent, or put into the queue, before. */
  readonly already: boolean;
}

/** Writes and checks the e-invoices of documents and puts the sound ones into the queue; the others are named. */
export function queueEInvoices(all: readonly ToSend[], moment: Moment): Decision<readonly Queued[]> {
  const queued: Transmission[] = [];
  const answers = all.map((toSend): Queued => {
    const { id, number } = toSend.document;
    const already = toSend.before.some(({ receipt, phase }) => receipt !== null || phase === 'queued');
    const answer = (fault: Refusal | null) => ({ documentId: id, number, fault, already });
    const early = sendFault(toSend);
    if (early !== null) return answer(early);
    const made = fileOf(toSend);
    if ('fault' in made) return answer(made.fault);
    queued.push(newTransmission(toSend.document, made.file, moment.newId(), moment.now));
    return answer(null);
  });
  const [first] = queued;
  if (first === undefined) return accept({ value: answers, changes: { audit: null } });
  return accept({
    value: answers,
    changes: {
      add: { transmissions: queued },
      audit: {
        subject: queued.length === 1 ? first.number : `${queued.length} e-invoices`,
        about: queued.map(({ documentId }) => documentId),
        after: queued.map(({ id, receiver, sha256 }) => ({ id, receiver, sha256 })),
      },
    },
  });
}

const changed = (transmission: Transmission, after: unknown): Changes => ({
  put: { transmissions: [transmission] },
  audit: { subject: transmission.number, about: [transmission.documentId, transmission.customerId], after },
});

/** Keeps what a try brought; a document that was taken went out that day. */
export function keepTry(
  before: Transmission,
  document: IssuedDocument,
  delivery: Delivery,
  moment: Moment,
): Decision<Transmission> {
  // Another tab had it done already.
  if (before.receipt !== null) return accept({ value: before, changes: { audit: null } });
  const value = tried(before, delivery, moment.now);
  const changes = changed(value, value.tries.at(-1));
  if (delivery.kind !== 'taken' || document.sentOn !== '') return accept({ value, changes });
  const documents = [{ ...document, sentOn: moment.today }];
  return accept({ value, changes: { ...changes, put: { ...changes.put, documents } } });
}

/** Keeps what was answered; an enquiry that brought nothing new is no event of business. */
export function keepAnswers(before: Transmission, answers: readonly Answer[], moment: Moment): Decision<Transmission> {
  const value = heard(before, answers, moment.now);
  const fresh = value.answers.slice(before.answers.length);
  if (fresh.length > 0) return accept({ value, changes: changed(value, { heard: fresh.map(answerWords) }) });
  return accept({ value, changes: { put: { transmissions: [value] }, audit: null } });
}

/** Tries again, with the same id, what could not be sent or waits for its next try. */
export function tryAgain(before: Transmission, document: IssuedDocument, moment: Moment): Decision<Transmission> {
  if (before.receipt !== null || before.handled !== null || document.cancelled !== null)
    return refuse(unsendable(before.number, 'put-aside'));
  const value = takenUp(before, moment.now);
  return accept({ value, changes: changed(value, { tries: value.tries.length }) });
}

/** Writes down that what a transmission asks for is done, or takes it out of the queue. */
export function putAside(before: Transmission, words: string, moment: Moment): Decision<Transmission> {
  if (words.trim() === '') return refuse({ code: 'missing', path: 'words', wanted: 'say-what-was-done' });
  const value = handledBy(before, words.trim(), moment.now);
  return accept({ value, changes: changed(value, { handled: words.trim() }) });
}

/** The transmissions of a document that ask for something, settled by what was done to the document. */
export function settledTransmissions(
  all: readonly Transmission[],
  words: string,
  moment: Moment,
): readonly Transmission[] {
  return all.filter(({ phase }) => phase === 'asks').map((one) => handledBy(one, words, moment.now));
}
