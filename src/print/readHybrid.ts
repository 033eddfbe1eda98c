import { accept, type Result, refuse } from '@/core/kernel/result';
import { unpacksWithin } from './unpacks';

/** What the streams of a PDF may come to, all together. */
const MOST_UNPACKED = 40 * 2 ** 20;
/** Ways of packing whose size can't be told beforehand, also with their names disguised (ISO 19005-3, 6.1.7). */
const FORBIDDEN = /\/(?:LZW|RunLength)|\/[A-Za-z]*#[0-9A-Fa-f]{2}[A-Za-z]*Decode/;
const latin = (bytes: Uint8Array): string => new TextDecoder('latin1').decode(bytes);

/** True for the bytes of a PDF. */
export const isPdf = (bytes: Uint8Array): boolean => String.fromCharCode(...bytes.subarray(0, 5)) === '%PDF-';

/** Names under which the open specifications of hybrid invoices attach the file, newest first. */
const NAMES = ['factur-x.xml', 'xrechnung.xml', 'zugferd-invoice.xml'];

/** What reads PDFs; handed in, as it is loaded only when one comes. */
interface PdfLibrary {
  getDocument(options: object): {
    readonly promise: Promise<{ getAttachments(): Promise<unknown> }>;
    destroy(): Promise<void>;
  };
}

interface Attached {
  readonly filename: string;
  readonly content: Uint8Array;
}

/** The bytes of the e-invoice inside a hybrid PDF. Refuses a PDF without one, or one that can't be read. */
export async function invoiceInside(bytes: Uint8Array, library: PdfLibrary): Promise<Result<Uint8Array>> {
  const bad = (message: string) => refuse({ code: 'invalid', path: '', expected: message });
  if (!unpacksWithin(bytes, MOST_UNPACKED))
    return refuse({ code: 'too-large', path: '', expected: 'This PDF unpacks to more than 40 MB: it is not read.' });
  if (FORBIDDEN.test(latin(bytes))) return bad('This PDF is packed in a way that PDF/A forbids: it is not read.');
  // The library takes the bytes over; what was handed in stays whole.
  const loading = library.getDocument({ data: bytes.slice(), isEvalSupported: false, verbosity: 0 });
  try {
    const attached = Object.values(
      ((await (await loading.promise).getAttachments()) ?? {}) as Record<string, Attached>,
    );
    const ranked = attached.filter(({ filename }) => /\.xml$/i.test(filename));
    const found =
      NAMES.map((name) => ranked.find((one) => one.filename.toLowerCase() === name)).find(Boolean) ?? ranked[0];
    return found === undefined ? bad('This PDF has no e-invoice inside.') : accept(found.content);
  } catch {
    return bad('This PDF can not be read: it is damaged or locked.');
  } finally {
    await loading.destroy();
  }
}
