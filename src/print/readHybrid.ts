import { Unzlib } from 'fflate';
import type { PDFDict, PDFDocument, PDFObject, PDFRawStream } from 'pdf-lib';
import { LARGEST_FILE } from '@/core/einvoice/xml/readXml';
import { accept, type Result, refuse } from '@/core/kernel/result';
import type { Wanted } from '@/core/kernel/wanted';
import { unpacksWithin } from './unpacks';

/** What the streams of a PDF may come to, all together. */
const MOST_UNPACKED = 40 * 2 ** 20;
/** Largest PDF that is read. */
const LARGEST_PDF = 20 * 2 ** 20;
/** Names of attached files, and nodes of the tree that holds them, that are looked at. */
const MOST_NAMES = 1000;
/**
 * Ways of packing that are not read, also with their names disguised: those that PDF/A forbids (ISO 19005-3, 6.1.7),
 * and those that hide how much comes out of another one behind them.
 */
const FORBIDDEN = /\/(?:LZW|RunLength|ASCIIHex|ASCII85|Crypt)Decode|\/[A-Za-z0-9]*#[0-9A-Fa-f]{2}[A-Za-z0-9#]*Decode/;
const latin = (bytes: Uint8Array): string => new TextDecoder('latin1').decode(bytes);

/** True for the bytes of a PDF. */
export const isPdf = (bytes: Uint8Array): boolean => String.fromCharCode(...bytes.subarray(0, 5)) === '%PDF-';

/** Names under which the open specifications of hybrid invoices attach the file, newest first. */
const NAMES = ['factur-x.xml', 'xrechnung.xml', 'zugferd-invoice.xml'];

type Library = typeof import('pdf-lib');

/** An attached file, not unpacked yet. */
interface Attached {
  readonly name: string;
  readonly stream: PDFRawStream;
}

class TooMany extends Error {}

/** Every file that the name tree of a document lists (ISO 32000-1, 7.7.4 and 7.9.6), a bounded number of them. */
function attachedTo(document: PDFDocument, lib: Library): readonly Attached[] {
  const { PDFDict, PDFName, PDFArray, PDFRawStream, PDFString, PDFHexString } = lib;
  const { context, catalog } = document;
  const dictAt = (dict: PDFDict, key: string): PDFDict | null => {
    const found = context.lookup(dict.get(PDFName.of(key)));
    return found instanceof PDFDict ? found : null;
  };
  const found: Attached[] = [];
  let looked = 0;
  const fileOf = (name: string, spec: PDFObject | undefined) => {
    if (!(spec instanceof PDFDict)) return;
    const files = dictAt(spec, 'EF');
    for (const key of ['UF', 'F']) {
      const stream = files === null ? undefined : context.lookup(files.get(PDFName.of(key)));
      if (!(stream instanceof PDFRawStream)) continue;
      const said = context.lookup(spec.get(PDFName.of(key)));
      const own = said instanceof PDFString || said instanceof PDFHexString ? said.decodeText() : name;
      found.push({ name: own, stream });
      return;
    }
  };
  const walk = (node: PDFDict) => {
    looked += 1;
    if (looked > MOST_NAMES) throw new TooMany();
    const names = context.lookup(node.get(PDFName.of('Names')));
    if (names instanceof PDFArray)
      for (let i = 0; i + 1 < names.size(); i += 2) {
        looked += 1;
        if (looked > MOST_NAMES) throw new TooMany();
        const name = context.lookup(names.get(i));
        const text = name instanceof PDFString || name instanceof PDFHexString ? name.decodeText() : '';
        fileOf(text, context.lookup(names.get(i + 1)));
      }
    const kids = context.lookup(node.get(PDFName.of('Kids')));
    if (kids instanceof PDFArray)
      for (let i = 0; i < kids.size(); i++) {
        const kid = context.lookup(kids.get(i));
        if (kid instanceof PDFDict) walk(kid);
      }
  };
  const tree = dictAt(catalog, 'Names');
  const files = tree === null ? null : dictAt(tree, 'EmbeddedFiles');
  if (files !== null) walk(files);
  return found;
}

/** The bytes of one attached file, never more than an e-invoice may have; null where it can't be unpacked. */
function unpacked({ stream }: Attached, { PDFName, PDFArray }: Library): Uint8Array | null {
  const filter = stream.dict.context.lookup(stream.dict.get(PDFName.of('Filter')));
  const only = filter instanceof PDFArray && filter.size() === 1 ? stream.dict.context.lookup(filter.get(0)) : filter;
  if (only === undefined) return stream.contents.length > LARGEST_FILE ? null : stream.contents;
  if (only !== PDFName.of('FlateDecode')) return null;
  const parts: Uint8Array[] = [];
  let size = 0;
  const unzlib = new Unzlib((chunk) => {
    size += chunk.length;
    if (size > LARGEST_FILE) throw new TooMany();
    parts.push(chunk);
  });
  unzlib.push(stream.contents, true);
  const bytes = new Uint8Array(size);
  let at = 0;
  for (const part of parts) {
    bytes.set(part, at);
    at += part.length;
  }
  return bytes;
}

/**
 * The bytes of the e-invoice inside a hybrid PDF. Refuses a PDF without one, or one that can't be read.
 * Only the one file that is wanted is unpacked, whatever else the PDF names.
 */
export async function invoiceInside(
  bytes: Uint8Array,
  load: () => Promise<Library> = () => import('pdf-lib'),
): Promise<Result<Uint8Array>> {
  const bad = (wanted: Wanted) => refuse({ code: 'invalid', path: '', wanted });
  const tooLarge = (wanted: Wanted) => refuse({ code: 'too-large', path: '', wanted });
  if (bytes.length > LARGEST_PDF) return tooLarge('pdf-of-20-mb');
  if (FORBIDDEN.test(latin(bytes))) return bad('pdf-packed-plainly');
  if (!unpacksWithin(bytes, MOST_UNPACKED)) return tooLarge('pdf-unpacking-to-40-mb');
  const lib = await load();
  try {
    const document = await lib.PDFDocument.load(bytes, { updateMetadata: false, throwOnInvalidObject: true });
    const attached = attachedTo(document, lib).filter(({ name }) => /\.xml$/i.test(name));
    const found =
      NAMES.map((name) => attached.find((one) => one.name.toLowerCase() === name)).find(Boolean) ?? attached[0];
    if (found === undefined) return bad('pdf-with-e-invoice');
    const content = unpacked(found, lib);
    return content === null ? bad('pdf-that-unpacks') : accept(content);
  } catch (error) {
    if (error instanceof TooMany) return tooLarge('pdf-of-fewer-files');
    return bad('readable-pdf');
  }
}
