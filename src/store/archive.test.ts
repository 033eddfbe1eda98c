import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { day, newBook, wholeBook } from 'tests/book';
import { packArchive, unpackArchive } from '@/core/files/archive';
import { writeCanonical } from '@/core/kernel/canonical';
import { buildDemo } from '@/demo/buildDemo';
import { archiveBook, checkBook } from './archive';
import { keptCopy } from './copies';
import { bringBack, openArchive } from './openArchive';
import { BookDb } from './schema';

const AT = '2026-11-23T10:00:00.000Z';
let demo: BookDb;
let bytes: Uint8Array;

beforeAll(async () => {
  demo = new BookDb('archive-source');
  await buildDemo(demo, day('2026-11-23'));
  bytes = await archiveBook(demo, AT);
});

/** The archive with one of its files changed; hashes follow when `honest`. */
function changed(name: string, change: (text: string) => string, honest = true): Uint8Array {
  const files = unzipSync(bytes);
  const text = change(strFromU8(files[name] as Uint8Array));
  files[name] = strToU8(text);
  if (honest && name !== 'manifest.json') {
    const manifest = JSON.parse(strFromU8(files['manifest.json'] as Uint8Array));
    const table = name.replace('tables/', '').replace('.jsonl', '');
    const { createHash } = jest.requireActual<typeof import('node:crypto')>('node:crypto');
    manifest.tables[table] = {
      rows: text === '' ? 0 : text.split('\n').length,
      sha256: createHash('sha256').update(text).digest('hex'),
    };
    files['manifest.json'] = strToU8(JSON.stringify(manifest));
  }
  return zipSync(files);
}

describe('the book file', () => {
  test('opens in an empty browser as the very same book, kept balances included', async () => {
    const other = new BookDb('archive-target');
    expect(await openArchive(other, bytes)).toMatchObject({
      ok: true,
      value: { business: 'Corran Point Instruments Ltd (sample)', writtenAt: AT },
    });
    const [a, b] = [await wholeBook(demo), await wholeBook(other)];
    for (const [name, rows] of Object.entries(a))
      expect([name, rows.map(writeCanonical).sort()]).toEqual([name, (b[name] ?? []).map(writeCanonical).sort()]);
    expect(await archiveBook(other, AT)).toEqual(bytes);
  });

  test('replaces what was there', async () => {
    const other = await newBook();
    await openArchive(other, bytes);
    expect(await other.documents.count()).toBe(await demo.documents.count());
    expect((await other.registrations.toArray()).map((r) => r.filedUntil)).toEqual(['2026-08-31', '']);
  });
});

describe('a damaged or foreign file', () => {
  const row = (field: string, value: string) => (text: string) =>
    text.replace(new RegExp(`"${field}":("[^"]*"|\\{[^}]*\\})`), `"${field}":${value}`);
  test.each<[string, () => Uint8Array, string]>([
    ['words', () => strToU8('not a zip'), 'foreign'],
    ['nothing', () => new Uint8Array(), 'foreign'],
    ['half of the file', () => bytes.slice(0, bytes.length / 2), 'damaged'],
    ['a zip of something else', () => zipSync({ 'readme.txt': strToU8('hello') }), 'foreign'],
    ['a list of contents that is no JSON', () => changed('manifest.json', () => '{'), 'damaged'],
    ['another program’s list of contents', () => changed('manifest.json', () => '{"format":"x"}'), 'foreign'],
    ['a list of contents of nothing', () => changed('manifest.json', () => 'null'), 'foreign'],
    ['a newer version', () => changed('manifest.json', (t) => t.replace(/"version":\d+/, '"version":99')), 'too-new'],
    ['no version', () => changed('manifest.json', (t) => t.replace('"version":', '"v":')), 'damaged'],
    [
      'an amount changed behind the hashes',
      () => changed('tables/receipts.jsonl', row('amount', '{"minor":"1"}'), false),
      'damaged',
    ],
    ['a row that is no JSON', () => changed('tables/items.jsonl', (t) => t.replace('{', '')), 'damaged'],
    ['an amount that is none', () => changed('tables/receipts.jsonl', row('amount', '"lots"')), 'damaged'],
    ['a day that is none', () => changed('tables/journal.jsonl', row('date', '"2026-02-31"')), 'damaged'],
    ['a row that is no record', () => changed('tables/audit.jsonl', () => '5'), 'damaged'],
    ['a customer without a name', () => changed('tables/customers.jsonl', row('name', '""')), 'damaged'],
    ['terms in words', () => changed('tables/customers.jsonl', row('terms', '"soon"')), 'damaged'],
    [
      'an entry that does not balance',
      () => changed('tables/journalLines.jsonl', row('amount', '{"minor":"7"}')),
      'damaged',
    ],
    [
      'a document altered under its seal',
      () => changed('tables/documents.jsonl', row('orderNumber', '"forged"')),
      'damaged',
    ],
    [
      'figures that do not follow from the content',
      () => changed('tables/documents.jsonl', (t) => t.replace(/"gross":\{"minor":"\d+"\}/, '"gross":{"minor":"1"}')),
      'damaged',
    ],
    ['content of a wrong shape', () => changed('tables/documents.jsonl', row('priceMode', '5')), 'damaged'],
    ['no business', () => changed('tables/book.jsonl', () => ''), 'damaged'],
    ['no registration', () => changed('tables/registrations.jsonl', () => ''), 'damaged'],
    [
      'a book under another id',
      () => changed('tables/book.jsonl', (t) => t.replace('"id":"book"', '"id":"mine"')),
      'damaged',
    ],
    ['a receipt of nobody', () => changed('tables/receipts.jsonl', row('customerId', '"nobody"')), 'damaged'],
    [
      'an open amount that follows from nothing',
      () => changed('tables/documents.jsonl', (t) => t.replace(/"open":\{"minor":"\d+"\}/, '"open":{"minor":"7"}')),
      'damaged',
    ],
    [
      'a counter set back',
      () => changed('tables/series.jsonl', (t) => t.replace(/"2026":[2-9]/g, '"2026":1')),
      'damaged',
    ],
    [
      'a list of contents of megabytes',
      () => changed('manifest.json', (t) => t.replace('{', `{"x":"${'x'.repeat(2 ** 21)}",`)),
      'too-large',
    ],
  ])('%s is refused and changes nothing', async (_, file, code) => {
    const target = await newBook();
    const before = await wholeBook(target);
    const result = await openArchive(target, file());
    expect(result.ok ? 'opened' : result.refusals[0]?.code).toBe(code);
    expect(await wholeBook(target)).toEqual(before);
  });

  test('says where the damage is', () => {
    const result = unpackArchive(changed('tables/documents.jsonl', row('orderNumber', '"forged"')));
    expect(result.ok ? '' : result.refusals[0]?.path).toMatch(/^(invoice INV|credit-note CN)-2026-\d{4}$/);
  });

  test('the same row twice is refused by the book itself and leaves it as it was', async () => {
    const target = await newBook();
    const before = await wholeBook(target);
    const result = await openArchive(
      target,
      changed('tables/accounts.jsonl', (t) => `${t}\n${t.split('\n')[0]}`),
    );
    expect(result.ok ? 'opened' : result.refusals[0]?.code).toBe('damaged');
    expect(await wholeBook(target)).toEqual(before);
  });
});

describe('the check of the whole book', () => {
  test('finds nothing in the sample, and names what was changed behind the actions', async () => {
    const other = new BookDb('checked');
    await openArchive(other, bytes);
    expect(await checkBook(other)).toEqual([]);
    const [document] = await other.documents.toArray();
    await other.documents.update(document?.id ?? '', { customerName: 'Somebody else' });
    expect((await checkBook(other)).map(({ path }) => path)).toEqual([expect.stringContaining(document?.number ?? '')]);
  });
});

describe('a book that is there already', () => {
  const names = async (db: BookDb) => (await db.book.toArray()).map(({ business }) => business.name);

  test('is kept as a copy before it is replaced, and brought back as it was, the other kept in its place', async () => {
    const db = await newBook();
    const before = await wholeBook(db);
    const copies = `copies-of-${db.name}`;
    expect(await bringBack(db, AT, copies)).toMatchObject({ ok: false });
    await openArchive(db, bytes, { replace: true, copyAt: AT, copies });
    expect(await names(db)).toEqual(['Corran Point Instruments Ltd (sample)']);
    expect(await bringBack(db, AT, copies)).toMatchObject({ ok: true });
    expect(await wholeBook(db)).toEqual(before);
    expect((await keptCopy(copies))?.business).toBe('Corran Point Instruments Ltd (sample)');
  });

  test('is left alone by an opening that was not to replace any, as of two windows that open the sample', async () => {
    const db = new BookDb('two-windows');
    const replacing = { replace: false, copyAt: null };
    const both = await Promise.all([openArchive(db, bytes, replacing), openArchive(db, bytes, replacing)]);
    expect(both.map((result) => (result.ok ? 'opened' : result.refusals[0]?.code)).sort()).toEqual([
      'book-exists',
      'opened',
    ]);
    expect(await db.book.count()).toBe(1);
  });

  test('is not replaced while no copy of it can be kept', async () => {
    const db = await newBook();
    const before = await wholeBook(db);
    const put = jest.spyOn(IDBObjectStore.prototype, 'put').mockImplementation(() => {
      throw new DOMException('full', 'QuotaExceededError');
    });
    const result = await openArchive(db, bytes, { replace: true, copyAt: AT, copies: 'no-room' });
    put.mockRestore();
    expect(result.ok ? 'opened' : result.refusals[0]?.code).toBe('storage-full');
    expect(await wholeBook(db)).toEqual(before);
  });
});

test('packing is the same for the same content, whatever the order of rows', async () => {
  const result = unpackArchive(bytes);
  if (!result.ok) throw new Error('refused');
  const { content } = result.value;
  const reversed = { ...content, documents: [...content.documents].reverse() };
  expect(packArchive(reversed, AT)).toEqual(bytes);
});
