import { zlibSync } from 'fflate';
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
    const library = {
      getDocument: () => {
        throw new Error('it was read');
      },
    };
    const bomb = await invoiceInside(pdfWith(zlibSync(zeros(65 * MEGA))), library);
    expect(bomb.ok ? '' : bomb.refusals[0]?.code).toBe('too-large');
    for (const filter of ['/LZWDecode', '/RunLengthDecode', '/L#5aWDecode']) {
      const odd = await invoiceInside(pdfWith(text(filter)), library);
      expect(odd.ok ? '' : odd.refusals[0]?.expected).toContain('PDF/A forbids');
    }
  });
});
