import PDFDocument from 'pdfkit';
import { toBytes } from 'pdfkit/output';
import type { PrintFonts } from './fonts';
import { PAGE, Sheet } from './sheet';
import type { PrintedDocument } from './words';

/** What is to be written, with a question mark for characters the typeface has no glyph for: legible, and legal in a PDF. */
export function withGlyphs<T>(value: T, doc: PDFKit.PDFDocument): T {
  doc.font('text');
  const font = (doc as unknown as { _font: { font: { hasGlyphForCodePoint(code: number): boolean } } })._font.font;
  const safe = (text: string) =>
    [...text].map((c) => (c === '\n' || font.hasGlyphForCodePoint(c.codePointAt(0) ?? 0) ? c : '?')).join('');
  const each = (one: unknown): unknown => {
    if (typeof one === 'string') return safe(one);
    if (Array.isArray(one)) return one.map(each);
    if (one === null || typeof one !== 'object') return one;
    return Object.fromEntries(Object.entries(one).map(([key, member]) => [key, each(member)]));
  };
  return each(value) as T;
}

/** A document as it can be written; its logo and the text of its code are no words. */
function writable(page: PrintedDocument, doc: PDFKit.PDFDocument): PrintedDocument {
  const { logo, code } = page;
  const words = withGlyphs({ ...page, logo: '', code: null }, doc);
  return { ...words, logo, code: code === null ? null : { text: code.text, words: withGlyphs(code.words, doc) } };
}

/** The library writes these into the metadata without escaping what XML reads as its own. */
const plain = (text: string): string => text.replaceAll('&', '+').replace(/[<>]/g, '');

/** What a file says of itself. */
export interface AboutFile {
  /** ISO 639-1. */
  readonly language: string;
  readonly title: string;
  readonly author: string;
  /** ISO instant; the same one gives the same bytes. */
  readonly at: string;
}

/** An empty file with the typefaces in it. */
export function newPdf({ language, title, author, at }: AboutFile, fonts: PrintFonts, archival: boolean) {
  const doc = new PDFDocument({
    size: 'A4',
    margins: { top: PAGE.top, bottom: 0, left: PAGE.left, right: PAGE.right },
    pdfVersion: '1.7',
    ...(archival && { subset: 'PDF/A-3b' as const }),
    lang: language,
    displayTitle: true,
    autoFirstPage: false,
    bufferPages: true,
    font: null as unknown as string,
    info: {
      Title: plain(title),
      Author: plain(author),
      CreationDate: new Date(at),
    },
  });
  doc.registerFont('text', fonts.text as Buffer);
  doc.registerFont('strong', fonts.strong as Buffer);
  doc.registerFont('title', fonts.title as Buffer);
  return doc;
}

function newDocument(pages: readonly PrintedDocument[], fonts: PrintFonts, at: string, archival: boolean) {
  const [first] = pages;
  if (first === undefined) throw new RangeError('nothing to print');
  const title =
    pages.length === 1 ? `${first.title} ${first.number}` : `${first.title} ${first.number} – ${pages.at(-1)?.number}`;
  return newPdf({ language: first.language, title, author: first.seller[0] ?? '', at }, fonts, archival);
}

/**
 * Documents as one PDF, each numbering its own pages. The same documents and `issuedAt` (an ISO
 * instant) give the same bytes. `onDrawn` is told after each document how many are done.
 */
export async function writePdf(
  pages: readonly PrintedDocument[],
  fonts: PrintFonts,
  issuedAt: string,
  onDrawn: (done: number) => void = () => undefined,
): Promise<Uint8Array> {
  const doc = newDocument(pages, fonts, issuedAt, false);
  const bytes = toBytes(doc);
  pages.forEach((page, i) => {
    new Sheet(doc, writable(page, doc)).draw();
    doc.flushPages();
    onDrawn(i + 1);
  });
  doc.end();
  return bytes;
}

/** Name of the e-invoice inside a hybrid PDF, and of the schema of its metadata: the open Factur-X 1.0 specification. */
export const HYBRID_FILE = 'factur-x.xml';

/** XMP: what the attached file is, with the extension schema that PDF/A asks for (ISO 19005-3, 6.6.2.3). */
function hybridMetadata(): string {
  const property = (name: string, description: string) =>
    `<rdf:li rdf:parseType="Resource"><pdfaProperty:name>${name}</pdfaProperty:name><pdfaProperty:valueType>Text</pdfaProperty:valueType><pdfaProperty:category>external</pdfaProperty:category><pdfaProperty:description>${description}</pdfaProperty:description></rdf:li>`;
  return `
<rdf:Description rdf:about="" xmlns:pdfaExtension="http://www.aiim.org/pdfa/ns/extension/" xmlns:pdfaSchema="http://www.aiim.org/pdfa/ns/schema#" xmlns:pdfaProperty="http://www.aiim.org/pdfa/ns/property#"><pdfaExtension:schemas><rdf:Bag><rdf:li rdf:parseType="Resource"><pdfaSchema:schema>Factur-X PDFA Extension Schema</pdfaSchema:schema><pdfaSchema:namespaceURI>urn:factur-x:pdfa:CrossIndustryDocument:invoice:1p0#</pdfaSchema:namespaceURI><pdfaSchema:prefix>fx</pdfaSchema:prefix><pdfaSchema:property><rdf:Seq>${property('DocumentFileName', 'name of the embedded XML invoice file')}${property('DocumentType', 'INVOICE')}${property('Version', 'version of the XML invoice data')}${property('ConformanceLevel', 'profile of the XML invoice data')}</rdf:Seq></pdfaSchema:property></rdf:li></rdf:Bag></pdfaExtension:schemas></rdf:Description>
<rdf:Description rdf:about="" xmlns:fx="urn:factur-x:pdfa:CrossIndustryDocument:invoice:1p0#"><fx:DocumentType>INVOICE</fx:DocumentType><fx:DocumentFileName>${HYBRID_FILE}</fx:DocumentFileName><fx:Version>1.0</fx:Version><fx:ConformanceLevel>EN 16931</fx:ConformanceLevel></rdf:Description>`;
}

/** A document as PDF/A-3 with its e-invoice in CII inside, as an alternative of what is seen. */
export async function writeHybridPdf(
  page: PrintedDocument,
  cii: string,
  fonts: PrintFonts,
  issuedAt: string,
): Promise<Uint8Array> {
  const doc = newDocument([page], fonts, issuedAt, true);
  const bytes = toBytes(doc);
  new Sheet(doc, writable(page, doc)).draw();
  doc.file(
    new TextEncoder().encode(cii) as Buffer,
    {
      name: HYBRID_FILE,
      type: 'text/xml',
      description: `E-invoice ${page.number}`,
      relationship: 'Alternative',
      creationDate: new Date(issuedAt),
      modifiedDate: new Date(issuedAt),
    } as PDFKit.Mixins.PDFAttachmentOptions,
  );
  (doc as unknown as { appendXML(xml: string): void }).appendXML(hybridMetadata());
  doc.end();
  return bytes;
}
