import type { MailFileToSend, MailToQueue } from '@/core/decisions/delivery/mailing';
import { filesFor, type Proposed, proposed, purposeOf, receiversFor, valuesOfDocument } from '@/core/delivery/compose';
import type { MailPurpose, MailView } from '@/core/delivery/mail';
import { templateFor } from '@/core/delivery/messageTemplate';
import { type Attachment, goingOut } from '@/core/documents/attachment';
import type { Content } from '@/core/documents/content';
import type { IssuedDocument } from '@/core/documents/issued';
import { KINDS } from '@/core/documents/kinds';
import { einvoiceOf } from '@/core/einvoice/fromDocument';
import { writeEInvoice } from '@/core/einvoice/syntax';
import { digestOf } from '@/core/kernel/digest';
import type { Customer, SentFile } from '@/core/parties/customer';
import type { CalcResult } from '@/core/tax/calcTypes';
import { fileName, printed, printName } from '@/print/words';
import { loadBook } from '@/store/load';
import { allOf, recordOf } from '@/store/records';
import { attachmentsOf } from '@/store/sales/queries/family';
import { bookDb } from '../book';
import { hybridPdf, printedPdf } from '../documentPrint';
import { base64OfBytes, bytesOf } from '../fileBytes';
import { mailWriter } from './sampleValues';

/** Bytes as a file of a message. */
export function fileToSend(name: string, type: string, bytes: Uint8Array): MailFileToSend {
  return { name, type, size: bytes.length, sha256: digestOf(bytes), data: base64OfBytes(bytes) };
}

/** A file of the book as one of a message. */
export function attachmentToSend(file: Attachment): MailFileToSend {
  return fileToSend(file.name, file.type, bytesOf(file));
}

/** What goes along of a document, made now. */
export async function documentFilesToSend(
  document: IssuedDocument,
  kinds: readonly SentFile[],
): Promise<readonly MailFileToSend[]> {
  const { content, figures } = document;
  const attachments = goingOut(await attachmentsOf(bookDb(), document.id));
  const files: MailFileToSend[] = [];
  // With the e-invoice inside it is the same page: one of the two is enough.
  if (kinds.includes('hybrid'))
    files.push(fileToSend(printName(content), 'application/pdf', await hybridPdf(document, attachments)));
  else if (kinds.includes('pdf'))
    files.push(fileToSend(printName(content), 'application/pdf', await printedPdf(document)));
  if (kinds.includes('ubl')) {
    const xml = writeEInvoice(einvoiceOf(content, figures, attachments), 'ubl');
    files.push(fileToSend(fileName(content, 'xml'), 'application/xml', new TextEncoder().encode(xml)));
  }
  if (kinds.includes('delivery-note'))
    files.push(
      fileToSend(
        printName(content, 'delivery-note'),
        'application/pdf',
        await printedPdf(document, { variant: 'delivery-note' }),
      ),
    );
  return files;
}

/** A document as it stands in a message, in the language of the message. */
export function viewOfDocument({ content, figures }: IssuedDocument, language: string): MailView {
  return viewOfContent(content, figures, language);
}

/** The same of what is not issued yet. */
export function viewOfContent(content: Content, figures: CalcResult, language: string): MailView {
  const { title, number, facts, lines, totals } = printed(content, figures, { language });
  return {
    title: `${title} ${number}`,
    facts,
    lines: lines.map((line) => [line.title, [line.detail, line.quantity].filter(Boolean).join('\n'), line.value]),
    totals,
  };
}

/** A message about a document as it is proposed to the person, or sent by itself. */
export interface ProposedMail extends Proposed {
  readonly customer: Customer | null;
  readonly purpose: MailPurpose;
  readonly language: string;
  readonly files: readonly SentFile[];
  readonly attachments: readonly Attachment[];
}

/** Writes and fills the words of a message about a document, for whoever gets such messages at its customer. */
export async function proposeMail(
  document: IssuedDocument,
  purpose: MailPurpose = purposeOf(document),
): Promise<ProposedMail> {
  const db = bookDb();
  const [{ business }, customer, templates, attachments] = await Promise.all([
    loadBook(db),
    recordOf(db, 'customers', document.customerId),
    allOf(db, 'messageTemplates'),
    attachmentsOf(db, document.id),
  ]);
  const language = customer?.language ?? document.content.buyer.language ?? 'en';
  const { to, contact } = customer === null ? { to: [], contact: null } : receiversFor(customer, purpose);
  const write = mailWriter(language, document.content.currency);
  const values = valuesOfDocument(document, business.name, contact?.name ?? '', write);
  const words = proposed(templateFor(templates, purpose, language), values, to);
  const { eInvoice } = KINDS[document.kind];
  return {
    ...words,
    customer,
    purpose,
    language,
    files: customer === null ? ['pdf'] : filesFor(customer, eInvoice),
    attachments,
  };
}

/** The message as it is put into the queue. */
export async function mailAbout(
  document: IssuedDocument,
  {
    to,
    cc,
    bcc,
    subject,
    text,
    purpose,
    language,
  }: Omit<ProposedMail, 'missing' | 'customer' | 'files' | 'attachments'>,
  options: {
    readonly files: readonly SentFile[];
    readonly attachments: readonly Attachment[];
    readonly view: boolean;
    readonly copy: boolean;
    readonly replaces?: string;
  },
): Promise<MailToQueue> {
  return {
    to,
    cc,
    bcc,
    subject,
    text,
    purpose,
    language,
    customerId: document.customerId,
    documentIds: [document.id],
    about: document.number,
    copy: options.copy,
    view: options.view ? viewOfDocument(document, language) : null,
    files: [...(await documentFilesToSend(document, options.files)), ...options.attachments.map(attachmentToSend)],
    replaces: options.replaces ?? '',
  };
}
