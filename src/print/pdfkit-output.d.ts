declare module 'pdfkit/output' {
  /** All bytes of a document, once it has ended. */
  export function toBytes(document: PDFKit.PDFDocument): Promise<Uint8Array>;
}
