import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { inflateSync } from 'node:zlib';
import { baseInvoice, elementsOf } from 'tests/einvoice';
import { writeEInvoice } from '@/core/einvoice/syntax';
import { readXml } from '@/core/einvoice/xml/readXml';
import { wordRefusals } from '@/core/wording/refusals';
import type { PrintFonts } from './fonts';
import { writeHybridPdf, writePdf } from './pdf';
import type { PrintedDocument } from './words';

const require = createRequire(__filename);
const font = (name: string) => new Uint8Array(readFileSync(require.resolve(`@expo-google-fonts/${name}`)));
const fonts: PrintFonts = {
  text: font('source-sans-3/400Regular/SourceSans3_400Regular.ttf'),
  strong: font('source-sans-3/600SemiBold/SourceSans3_600SemiBold.ttf'),
  title: font('literata/500Medium/Literata_500Medium.ttf'),
};
const AT = '2026-11-23T10:00:00.000Z';

const page = (lines: number, over: Partial<PrintedDocument> = {}): PrintedDocument => ({
  language: 'en',
  title: 'Invoice',
  stamp: '',
  stampLine: '',
  number: 'INV-2026-0001',
  currency: 'EUR',
  seller: ['Corran Point Instruments Ltd (sample)', 'Galway'],
  buyer: ['Ballyvaughan Harbour Board', 'Pier Road'],
  facts: [['Number', 'INV-2026-0001']],
  conditions: '',
  columns: [
    { field: 'title', head: 'Item' },
    { field: 'quantity', head: 'Quantity' },
    { field: 'price', head: 'Price' },
    { field: 'tax', head: 'Tax' },
    { field: 'value', head: 'Net' },
  ],
  valueHead: 'Net',
  lines: Array.from({ length: lines }, (_, i) => ({
    title: `Sensor ${i}`,
    detail: '',
    supplied: '',
    running: `${10 * (i + 1)}.00`,
    quantity: '1 each',
    price: '10.00',
    less: '',
    tax: 'Standard 23',
    value: '10.00',
  })),
  totals: [
    ['Net', '10.00'],
    ['Total', '12.30'],
  ],
  withheld: [],
  legends: [],
  terms: [],
  homeTax: '',
  payment: [],
  code: null,
  slip: null,
  note: '',
  foot: '',
  footer: '',
  seal: '',
  carried: 'Carried forward',
  brought: 'Brought forward',
  page: 'Page {page} of {count}',
  window: '',
  accent: '#1F2430',
  logo: '',
  ...over,
});

const asText = (pdf: Uint8Array) => Buffer.from(pdf).toString('latin1');
const pageCount = (pdf: Uint8Array) => asText(pdf).match(/\/Type \/Page\b(?!s)/g)?.length ?? 0;

/** All compressed streams of a PDF, opened. */
function streams(pdf: Uint8Array): string[] {
  const bytes = Buffer.from(pdf);
  const opened: string[] = [];
  for (let at = bytes.indexOf('stream\n'); at >= 0; at = bytes.indexOf('stream\n', at + 7)) {
    try {
      opened.push(inflateSync(bytes.subarray(at + 7)).toString('latin1'));
    } catch {
      // Not a compressed stream, or the word inside another one.
    }
  }
  return opened;
}

describe('the PDF', () => {
  test('is one page for a few lines, and as many as the lines need', async () => {
    expect(pageCount(await writePdf([page(3)], fonts, AT))).toBe(1);
    expect(pageCount(await writePdf([page(60)], fonts, AT))).toBe(3);
  });
  test('is the same, byte for byte, for the same document', async () => {
    expect(await writePdf([page(5)], fonts, AT)).toEqual(await writePdf([page(5)], fonts, AT));
  });
  test('embeds its typefaces and says its title and language', async () => {
    const text = asText(await writePdf([page(1)], fonts, AT));
    expect(text.startsWith('%PDF-1.7')).toBe(true);
    expect(text.match(/\/FontFile2/g)?.length).toBeGreaterThanOrEqual(3);
    expect(text).toContain('/Lang (en)');
  });
  test('writes a question mark for a character that no typeface has, and no missing glyph', async () => {
    const strange = await writePdf([page(1, { note: 'a\u{1F6A2}b' })], fonts, AT);
    const plain = await writePdf([page(1, { note: 'a?b' })], fonts, AT);
    expect(streams(strange)).toEqual(streams(plain));
  });
  test('a very long word does not stop it', async () => {
    const lines = [
      {
        title: 'x'.repeat(500),
        detail: 'y'.repeat(300),
        supplied: '',
        running: '1',
        quantity: '1',
        price: '1',
        less: '',
        tax: 'S',
        value: '1',
      },
    ];
    expect(pageCount(await writePdf([page(0, { lines })], fonts, AT))).toBe(1);
  });
});

describe('a hybrid PDF', () => {
  const cii = '<?xml version="1.0" encoding="UTF-8"?>\n<invoice>1</invoice>\n';
  const seller = ['Smith & Sons <sample>'];
  const made = writeHybridPdf(page(3, { seller }), cii, fonts, AT);
  const latin = async () => Buffer.from(await made).toString('latin1');

  test('carries the e-invoice as an alternative, whole', async () => {
    const text = await latin();
    expect(text).toContain('/AFRelationship /Alternative');
    expect(text).toContain('(factur-x.xml)');
    expect(text).toMatch(/\/Subtype \/text#2Fxml/);
    const streams = text.match(/stream\r?\n[\s\S]*?\r?\nendstream/g) ?? [];
    const inflated = streams.flatMap((stream) => {
      try {
        const body = stream.replace(/^stream\r?\n/, '').replace(/\r?\nendstream$/, '');
        return [inflateSync(Buffer.from(body, 'latin1')).toString('utf8')];
      } catch {
        return [];
      }
    });
    expect(inflated).toContain(cii);
  });
  test('says in well-formed metadata that it is PDF/A-3 and what is inside', async () => {
    const [xmp = ''] = /<x:xmpmeta[\s\S]*<\/x:xmpmeta>/.exec(await latin()) ?? [];
    const metadata = readXml(xmp);
    if (!metadata.ok) throw new Error(wordRefusals(metadata.refusals));
    const said = [...elementsOf(metadata.value)].map(({ name, text }) => `${name.replace(/^.*}/, '')}=${text}`);
    expect(said).toEqual(
      expect.arrayContaining([
        'part=3',
        'conformance=B',
        'DocumentType=INVOICE',
        'DocumentFileName=factur-x.xml',
        'ConformanceLevel=EN 16931',
        'li=Smith + Sons sample',
      ]),
    );
  });
  test('has its typefaces and its colours inside, and comes out the same each time', async () => {
    const text = await latin();
    expect(text).toContain('/OutputIntents');
    expect(text.match(/\/FontFile2/g)?.length).toBeGreaterThan(0);
    expect(Buffer.from(await writeHybridPdf(page(3, { seller }), cii, fonts, AT)).equals(Buffer.from(await made))).toBe(
      true,
    );
  });
});

describe('a hybrid PDF, looked at by Debian’s own tools', () => {
  const folder = mkdtempSync(join(tmpdir(), 'able-pdf-'));
  const pdf = join(folder, 'hybrid.pdf');
  const cii = writeEInvoice(baseInvoice(), 'cii');
  const tool = (program: string, ...args: readonly string[]) => execFileSync(program, args, { encoding: 'utf8' });
  beforeAll(async () => writeFileSync(pdf, await writeHybridPdf(page(3), cii, fonts, AT)));
  afterAll(() => rmSync(folder, { recursive: true }));

  test('is sound, and lists its attachment as an associated file of the whole', () => {
    expect(tool('qpdf', '--check', pdf)).toContain('No syntax or stream encoding errors found');
    const { qpdf } = JSON.parse(tool('qpdf', '--json', '--json-stream-data=none', pdf)) as {
      qpdf: [unknown, Record<string, { value?: Record<string, unknown> }>];
    };
    const values = Object.values(qpdf[1]).map(({ value = {} }) => value);
    const catalog = values.find((value) => value['/Type'] === '/Catalog');
    const spec = values.find((value) => value['/Type'] === '/Filespec');
    expect(catalog?.['/AF']).toHaveLength(1);
    expect(spec?.['/AFRelationship']).toBe('/Alternative');
  });
  test('gives the e-invoice back to the byte', () => {
    expect(tool('pdfdetach', '-list', pdf)).toContain('factur-x.xml');
    const out = join(folder, 'out.xml');
    tool('pdfdetach', '-savefile', 'factur-x.xml', '-o', out, pdf);
    expect(readFileSync(out, 'utf8')).toBe(cii);
  });
  test('has every typeface inside and its text to be selected', () => {
    const rows = tool('pdffonts', pdf).trim().split('\n').slice(2);
    expect(rows.length).toBeGreaterThan(1);
    // Columns from the right: object, id, unicode, subset, embedded.
    for (const row of rows) expect(row.trim().split(/\s+/).at(-5)).toBe('yes');
    expect(tool('pdftotext', '-layout', pdf, '-')).toContain('Ballyvaughan Harbour Board');
  });

  describe('the address in the window of the envelope', () => {
    const MM = 72 / 25.4;
    /** Where the buyer's name begins on the page, in millimetres from the left and the top edge. */
    async function placeOfBuyer(window: PrintedDocument['window'], seller?: readonly string[]) {
      const file = join(folder, `window-${window}.pdf`);
      writeFileSync(
        file,
        await writePdf([page(3, { window, ...(seller === undefined ? {} : { seller }) })], fonts, AT),
      );
      const found = /xMin="([\d.]+)" yMin="([\d.]+)"[^>]*>Ballyvaughan</.exec(tool('pdftotext', '-bbox', file, '-'));
      return { x: Number(found?.[1]) / MM, y: Number(found?.[2]) / MM };
    }

    it.each([
      ['left', 15, 30],
      ['right', 109, 112],
    ] as const)('%s: within the 45 mm from 45 mm below the edge', async (side, from, to) => {
      const { x, y } = await placeOfBuyer(side);
      expect(y).toBeGreaterThan(45);
      expect(y).toBeLessThan(75);
      expect(x).toBeGreaterThan(from);
      expect(x).toBeLessThan(to);
    });

    it('stands under the business on the right, even one with many lines', async () => {
      const lines = ['Corran Point Instruments Ltd (sample)', ...Array.from({ length: 5 }, (_, i) => `Line ${i}`)];
      const few = await placeOfBuyer('right');
      expect((await placeOfBuyer('right', lines)).y).toBeGreaterThan(few.y);
    });

    it('changes nothing where no window is told', async () => {
      expect((await placeOfBuyer('')).y).not.toBeCloseTo((await placeOfBuyer('left')).y, 0);
    });
  });
});
