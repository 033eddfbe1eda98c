import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { day, newBook, wholeBook } from 'tests/book';
import { BOOK_TABLES } from '@/core/book/tables';
import { archiveFaults, archiveWriter, openedArchive, packArchive, rowsIn, unpackArchive } from '@/core/files/archive';
import { writeCanonical } from '@/core/kernel/canonical';
import { runningDigest } from '@/core/kernel/digest';
import { buildDemo } from '@/demo/buildDemo';
import { archiveBook, saveBook } from './archive';
import { openArchive } from './openArchive';
import { BookDb } from './schema';

/* A book file whose tables stand in many parts, as those of large books do. */

const AT = '2026-11-23T10:00:00.000Z';
/** So small that most tables of the sample have several. */
const PART = 2000;
let demo: BookDb;
let bytes: Uint8Array;

beforeAll(async () => {
  demo = new BookDb('parts-source');
  await buildDemo(demo, day('2026-11-23'));
  const writer = archiveWriter(PART);
  for (const table of BOOK_TABLES) {
    // Rows come a few at a time, as they do out of a database.
    const rows = await demo.table(table).orderBy(':id').toArray();
    writer.add(table, []);
    for (let from = 0; from < rows.length; from += 7) writer.add(table, rows.slice(from, from + 7));
  }
  bytes = writer.end('Corran Point Instruments Ltd (sample)', AT);
});

/** The archive with its files changed; the list of contents as text. */
function changed(
  change: (files: Record<string, Uint8Array>, manifest: { tables: Record<string, object> }) => void,
): Uint8Array {
  const files = unzipSync(bytes);
  const manifest = JSON.parse(strFromU8(files['manifest.json'] as Uint8Array));
  change(files, manifest);
  files['manifest.json'] = strToU8(JSON.stringify(manifest));
  return zipSync(files);
}

test('has several parts of its longer tables, none of them empty, and opens as the very same book', async () => {
  const files = unzipSync(bytes);
  expect(Object.keys(files).filter((name) => name.startsWith('tables/documents')).length).toBeGreaterThan(5);
  expect(Object.entries(files).filter(([name, file]) => /-\d+\.jsonl$/.test(name) && file.length === 0)).toEqual([]);
  const other = new BookDb('parts-target');
  const heard: number[] = [];
  const opened = await openArchive(other, bytes, { replace: true, copyAt: null }, (done, of) => heard.push(done / of));
  expect(opened).toMatchObject({ ok: true });
  const [a, b] = [await wholeBook(demo), await wholeBook(other)];
  for (const [name, rows] of Object.entries(a))
    expect([name, rows.map(writeCanonical).sort()]).toEqual([name, (b[name] ?? []).map(writeCanonical).sort()]);
  // It says how far it is, and ends with all of it.
  expect(heard.at(-1)).toBe(1);
  expect(heard).toEqual([...heard].sort((x, y) => x - y));
  // Written out again in parts of the usual size it is the file of any small book.
  expect(await archiveBook(other, AT)).toEqual(await archiveBook(demo, AT));
});

test('says of each table how many rows it has, and the digest of all its parts together', () => {
  const archive = openedArchive(bytes);
  if (!archive.ok) throw new Error('refused');
  const { manifest, tables, parts } = archive.value;
  let rows = 0;
  for (const table of tables) {
    const hash = runningDigest();
    const found = [...parts(table)].flatMap((part) => (part.ok ? part.value : []));
    hash.add(found.map(writeCanonical).join('\n'));
    expect([table, found.length, hash.end()]).toEqual([
      table,
      manifest.tables[table]?.rows,
      manifest.tables[table]?.sha256,
    ]);
    rows += found.length;
  }
  expect(rowsIn(archive.value)).toBe(rows);
  expect(archiveFaults(archive.value)).toEqual([]);
});

test('a part that ends with its table has no empty one behind it', () => {
  const writer = archiveWriter(1);
  for (const table of BOOK_TABLES) writer.add(table, table === 'audit' ? [{ id: 'a' }, { id: 'b' }] : []);
  const files = Object.keys(unzipSync(writer.end('', AT))).filter((name) => name.includes('/audit'));
  expect(files).toEqual(['tables/audit.jsonl', 'tables/audit-2.jsonl']);
});

test.each<[string, Parameters<typeof changed>[0], string]>([
  [
    'a part that is missing',
    (files) => {
      delete files['tables/documents-2.jsonl'];
    },
    'tables/documents-2.jsonl',
  ],
  [
    'two parts that changed places',
    (files) => {
      const [one, two] = [files['tables/journalLines-2.jsonl'], files['tables/journalLines-3.jsonl']];
      if (one === undefined || two === undefined) throw new Error('several parts');
      files['tables/journalLines-2.jsonl'] = two;
      files['tables/journalLines-3.jsonl'] = one;
    },
    'tables/journalLines.jsonl',
  ],
  [
    'fewer parts than it has',
    (_, { tables }) => Object.assign(tables.documents ?? {}, { parts: 2 }),
    'tables/documents.jsonl',
  ],
  [
    'no number of parts',
    (_, { tables }) => Object.assign(tables.documents ?? {}, { parts: 1.5 }),
    'tables/documents.jsonl',
  ],
  [
    'parts without end',
    (_, { tables }) => Object.assign(tables.documents ?? {}, { parts: 1e9 }),
    'tables/documents.jsonl',
  ],
  [
    'other rows than it says',
    (_, { tables }) => Object.assign(tables.documents ?? {}, { rows: 1 }),
    'tables/documents.jsonl',
  ],
  [
    'a row that is none in a later part',
    (files) => {
      files['tables/documents-3.jsonl'] = strToU8('{');
    },
    'tables/documents-3.jsonl, row 1',
  ],
])('with %s is refused where it lies, and the book stays as it was', async (_, change, path) => {
  const target = await newBook();
  const before = await wholeBook(target);
  const result = await openArchive(target, changed(change));
  expect(result.ok ? [] : result.refusals).toMatchObject([{ code: 'damaged', path }]);
  expect(await wholeBook(target)).toEqual(before);
});

test('the file of a book in memory is that of the same book in the database', async () => {
  const whole = await archiveBook(demo, AT);
  const read = unpackArchive(whole);
  if (!read.ok) throw new Error('refused');
  expect(packArchive(read.value.content, AT)).toEqual(whole);
});

test('saving checks the file again, and tells of both', async () => {
  const heard: (readonly [number, number])[] = [];
  const saved = await saveBook(demo, AT, (done, of) => heard.push([done, of]));
  expect(saved.refusals).toEqual([]);
  expect(heard.at(-1)?.[0]).toBe(heard.at(-1)?.[1]);
  expect(new Set(heard.map(([, of]) => of)).size).toBe(1);
});
