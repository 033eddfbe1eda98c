import { isAboutMoney, type MailFileToSend } from '@/core/decisions/delivery/mailing';
import { filesFor, proposed, purposeOf, receiversFor, valuesOfDocument } from '@/core/delivery/compose';
import type { Mail, MailPurpose, MailView } from '@/core/delivery/mail';
import { templateFor } from '@/core/delivery/messageTemplate';
import { type Attachment, goingOut } from '@/core/documents/attachment';
import type { Content } from '@/core/documents/content';
import type { IssuedDocument } from '@/core/documents/issued';
import { KINDS } from '@/core/documents/kinds';
import { einvoiceOf } from '@/core/einvoice/fromDocument';
import { writeEInvoice } from '@/core/einvoice/syntax';
import { SENT_FILES, type SentFile } from '@/core/parties/customer';
import type { CalcResult } from '@/core/tax/calcTypes';
import { fileName, printed, printName } from '@/print/words';
import { filesOfMail } from '@/store/delivery/queries/mail';
import { loadBook } from '@/store/load';
import { allOf, recordOf } from '@/store/records';
import { attachmentsOf } from '@/store/sales/queries/family';
import { bookDb } from '../book';
import { hybridPdf, printedPdf } from '../documentPrint';
import { bytesOf } from '../fileBytes';
import { mailWriter } from './sampleValues';
import { FILE_WORDS, fileToSend, type WrittenMail } from './writtenMail';

/** A file of the book as one of a message. */
function attachmentToSend(file: Attachment): MailFileToSend {
  return fileToSend(file.name, file.type, bytesOf(file));
}

/** What goes along of a document, made now. */
async function documentFilesToSend(
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
export function viewOfContent(content: Content, figures: CalcResult, language: string): MailView {
  const { title, number, facts, lines, totals } = printed(content, figures, { language });
  return {
    title: `${title} ${number}`,
    facts,
    lines: lines.map((line) => [line.title, [line.detail, line.quantity].filter(Boolean).join('\n'), line.value]),
    totals,
  };
}

/** Writes and fills the words of a message about a document, for whoever gets such messages at its customer. */
export async function writeAboutDocument(
  document: IssuedDocument,
  purpose: MailPurpose = purposeOf(document),
): Promise<WrittenMail> {
  const db = bookDb();
  const [{ business }, customer, templates, attachments] = await Promise.all([
    loadBook(db),
    recordOf(db, 'customers', document.customerId),
    allOf(db, 'messageTemplates'),
    attachmentsOf(db, document.id),
  ]);
  const { content, figures, number } = document;
  const language = customer?.language ?? content.buyer.language ?? 'en';
  const { to, contact } = customer === null ? { to: [], contact: null } : receiversFor(customer, purpose);
  const write = mailWriter(language, content.currency);
  const values = valuesOfDocument(document, business.name, contact?.name ?? '', write);
  const { eInvoice } = KINDS[document.kind];
  const usual = customer === null ? (['pdf'] as const) : filesFor(customer, eInvoice);
  const kinds = eInvoice ? SENT_FILES : (['pdf'] as const);
  return {
    ...proposed(templateFor(templates, purpose, language), values, to),
    purpose,
    language,
    customerId: document.customerId,
    documentIds: [document.id],
    about: number,
    offered: [
      ...kinds.map((kind) => ({ key: kind, label: FILE_WORDS[kind], on: usual.includes(kind) })),
      ...attachments.map(({ id, name, goesOut }) => ({ key: id, label: name, on: goesOut })),
    ],
    make: async (keys) => [
      ...(await documentFilesToSend(
        document,
        kinds.filter((kind) => keys.has(kind)),
      )),
      ...attachments.filter(({ id }) => keys.has(id)).map(attachmentToSend),
    ],
    view: viewOfContent(content, figures, language),
  };
}

/**
 * A message that did not arrive, as it is sent again in its own words: about a document with all that may go along, else
 * with the very files it had.
 */
export async function writeAgain(mail: Mail): Promise<WrittenMail> {
  const { to, cc, subject, text, purpose, language, customerId, documentIds, about, files, view } = mail;
  const own = { to, cc, bcc: [], subject, text, missing: [] };
  const [documentId, ...more] = isAboutMoney(purpose) ? [] : documentIds;
  const document =
    documentId === undefined || more.length > 0 ? null : await recordOf(bookDb(), 'documents', documentId);
  if (document !== null) return { ...(await writeAboutDocument(document, purpose)), ...own };
  return {
    ...own,
    purpose,
    language,
    customerId,
    documentIds,
    about,
    offered: files.map(({ sha256, name }) => ({ key: sha256, label: name, on: true })),
    make: async (keys) => {
      const bytes = new Map((await filesOfMail(bookDb(), mail)).map(({ sha256, data }) => [sha256, data]));
      return files
        .filter(({ sha256 }) => keys.has(sha256))
        .map((file) => ({ ...file, data: bytes.get(file.sha256) ?? '' }));
    },
    view,
  };
}
