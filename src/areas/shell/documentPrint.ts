import type { IssuedDocument } from '@/core/documents/issued';
import { sealCode } from '@/core/documents/seal';
import type { EFile } from '@/core/einvoice/fromDocument';
import type { PrintOptions } from '@/print/words';
import { filesGoingOut } from '@/store/sales/queries/family';
import { stylesFor } from '@/store/sales/queries/styles';
import { inPrinter } from '@/workers/client';
import type { PrintJob } from '@/workers/print.worker';
import { bookDb } from './book';

type Options = Pick<PrintOptions, 'variant' | 'language' | 'received'>;

/** What the printing worker needs of documents, each in its own style. */
export async function printJobs(
  documents: readonly IssuedDocument[],
  options: Options = {},
): Promise<readonly PrintJob[]> {
  const [styles, files] = await Promise.all([
    stylesFor(bookDb(), documents),
    filesGoingOut(
      bookDb(),
      documents.map(({ id }) => id),
    ),
  ]);
  return documents.map((document, i) => {
    const style = styles[i];
    const { id, content, figures, issuedAt, seal, cancelled } = document;
    const attachments = files.get(id) ?? [];
    return {
      ...options,
      ...(style && { style }),
      content,
      figures,
      issuedAt,
      seal: sealCode(seal),
      cancelled,
      attachments,
    };
  });
}

/** A document as a PDF, made in a worker. */
export async function printedPdf(document: IssuedDocument, options: Options = {}): Promise<Uint8Array> {
  const [job] = await printJobs([document], options);
  if (job === undefined) throw new RangeError('nothing to print');
  return inPrinter((face) => face.pdf(job));
}

/** A document as PDF/A-3 with its e-invoice inside, which takes `files` along, made in a worker. */
export async function hybridPdf(document: IssuedDocument, files: readonly EFile[]): Promise<Uint8Array> {
  const [job] = await printJobs([document]);
  if (job === undefined) throw new RangeError('nothing to print');
  return inPrinter((face) => face.hybrid(job, files));
}
