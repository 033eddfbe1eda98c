import { zlibSync } from 'fflate';
import { PDFArray, PDFDict, PDFDocument, PDFName, PDFString } from 'pdf-lib';
import { wordRefusals } from '@/core/wording/refusals';
import { invoiceInside } from './readHybrid';
import { unpacksWithin } from './unpacks';

const MEGA = 2 ** 20;
const zeros = (size: number) => new Uint8Array(size);
const text = (words: string) => new TextEncoder().encode(words);

/** Something like a PDF that holds these streams. */
function pdfWith(...streams: readonly Uint8Array[]): Uint8Array {
  const parts = streams.flatMap((stream, i) => [
    text(`\n${i + 1} 0 obj << /Length ${stream.length} >>\nstream\r\n`),
    stream,
    text('\nendstream\nendobj\n'),
  ]);
  return Buffer.concat([text('%PDF-1.7\n'), ...parts]);
}

describe('what a PDF unpacks to', () => {
  test.each<[string, Uint8Array, boolean]>([
    ['nothing packed', pdfWith(text('BT (streams of words) ET')), true],
    ['a little', pdfWith(zlibSync(zeros(MEGA))), true],
    ['a lot in one stream', pdfWith(zlibSync(zeros(9 * MEGA))), false],
    ['a lot in many', pdfWith(...Array.from({ length: 9 }, () => zlibSync(zeros(MEGA)))), false],
    ['a lot, packed twice', pdfWith(zlibSync(zlibSync(zeros(9 * MEGA)))), false],
    ['what only looks packed', pdfWith(new Uint8Array([0x78, 0x9c, 0xff, 0xff, 0xff])), true],
    ['a stream that is cut off', pdfWith(zlibSync(zeros(MEGA)).subarray(0, 500)), true],
  ])('%s', (_, pdf, within) => {
    expect(unpacksWithin(pdf, 8 * MEGA)).toBe(within);
  });

  test('a PDF that unpacks to too much, or is packed as none may be, is not handed to the library at all', async () => {
    const library = () => Promise.reject(new Error('it was read'));
    const bomb = await invoiceInside(pdfWith(zlibSync(zeros(65 * MEGA))), library);
    expect(bomb.ok ? '' : bomb.refusals[0]?.code).toBe('too-large');
    const filters = [
      '/LZWDecode',
      '/RunLengthDecode',
      '/L#5aWDecode',
      '/ASCIIHexDecode',
      '/ASCII85Decode',
      '/A#53CIIHexDecode',
    ];
    for (const filter of filters) {
      const odd = await invoiceInside(pdfWith(text(filter)), library);
      expect(odd.ok ? '' : wordRefusals(odd.refusals)).toContain('packed in a way');
    }
  });
});

describe('the e-invoice inside a PDF', () => {
  const invoice = text('<Invoice/>');

  /** A PDF with attached files, and its name tree as a test wants it. */
  async function pdfAttaching(
    files: readonly { readonly name: string; readonly bytes: Uint8Array }[],
    change: (document: PDFDocument, names: PDFArray) => void = () => undefined,
  ): Promise<Uint8Array> {
    const document = await PDFDocument.create();
    document.addPage();
    for (const { name, bytes } of files) await document.attach(bytes, name, { mimeType: 'text/xml' });
    await document.flush();
    const { catalog, context } = document;
    const tree = context.lookup(catalog.get(PDFName.of('Names')), PDFDict);
    const embedded = context.lookup(tree.get(PDFName.of('EmbeddedFiles')), PDFDict);
    change(document, context.lookup(embedded.get(PDFName.of('Names')), PDFArray));
    return document.save({ useObjectStreams: false });
  }

  test('is found by its name, whatever stands beside it', async () => {
    const files = ['sheet.xml', 'Factur-X.xml', 'notes.txt'].map((name) => ({
      name,
      bytes: name === 'Factur-X.xml' ? invoice : text('<Other/>'),
    }));
    const found = await invoiceInside(await pdfAttaching(files));
    expect(found.ok && new TextDecoder().decode(found.value)).toBe('<Invoice/>');
  });

  test('that a thousand names lead to is unpacked once', async () => {
    const large = { name: 'factur-x.xml', bytes: zeros(15 * MEGA) };
    const pdf = await pdfAttaching([large], (_, names) => {
      const spec = names.get(1);
      for (let i = 0; i < 900; i++) for (const one of [PDFString.of(`copy-${i}.xml`), spec]) names.push(one);
    });
    expect(pdf.length).toBeLessThan(MEGA);
    const before = process.memoryUsage().rss;
    const found = await invoiceInside(pdf);
    expect(found.ok && found.value.length).toBe(15 * MEGA);
    expect(process.memoryUsage().rss - before).toBeLessThan(200 * MEGA);
  });

  test.each<[string, () => Promise<Uint8Array>, string]>([
    [
      'that names more files than are read',
      () =>
        pdfAttaching([{ name: 'factur-x.xml', bytes: invoice }], (_, names) => {
          const spec = names.get(1);
          for (let i = 0; i < 5000; i++) for (const one of [PDFString.of(`${i}.xml`), spec]) names.push(one);
        }),
      'too-large',
    ],
    [
      'whose name tree leads back to itself',
      () =>
        pdfAttaching([{ name: 'sheet.txt', bytes: invoice }], ({ context, catalog }) => {
          const tree = context.lookup(catalog.get(PDFName.of('Names')), PDFDict);
          const embedded = context.lookup(tree.get(PDFName.of('EmbeddedFiles')), PDFDict);
          const self = context.register(embedded);
          embedded.set(PDFName.of('Kids'), context.obj([self, self]));
        }),
      'too-large',
    ],
    [
      'whose file unpacks to more than an e-invoice may',
      () => pdfAttaching([{ name: 'factur-x.xml', bytes: zeros(25 * MEGA) }]),
      'too-large',
    ],
    ['without any file', async () => (await PDFDocument.create()).save(), 'invalid'],
    ['that is no more than a beginning', async () => text('%PDF-1.7\n'), 'invalid'],
  ])('%s is refused', async (_, make, code) => {
    const found = await invoiceInside(await make());
    expect(found.ok ? 'read' : found.refusals[0]?.code).toBe(code);
  });
});
