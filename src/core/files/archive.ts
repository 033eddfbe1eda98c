import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { BOOK_TABLES, type BookContent, type BookTable, sinceVersion } from '@/core/book/tables';
import { readCanonical, writeCanonical } from '@/core/kernel/canonical';
import { digest } from '@/core/kernel/digest';
import { accept, type Refusal, type Result, refuse } from '@/core/kernel/result';
import { bookFaults } from './bookFaults';
import { broughtUp, UPGRADES } from './upgrades';

const FORMAT = 'able-ledger-book';
/** Raised with each change of the tables; older archives are brought up to date when read. */
export const ARCHIVE_VERSION = UPGRADES.length + 1;
const MANIFEST = 'manifest.json';
/** A stranger's file may not unpack to more than this: 1 GiB, and a table to half of it. */
const LARGEST = 2 ** 30;
const LARGEST_TABLE = 2 ** 29;
/** The list of contents takes a few thousand bytes: 1 MiB. */
const LARGEST_MANIFEST = 2 ** 20;

/** What stands first in an archive, so that it can be judged before any row is read. */
export interface Manifest {
  readonly format: typeof FORMAT;
  readonly version: number;
  readonly business: string;
  /** Instant of writing. */
  readonly writtenAt: string;
  readonly tables: Readonly<Record<string, { readonly rows: number; readonly sha256: string }>>;
}

const fileOf = (table: BookTable) => `tables/${table}.jsonl`;

/** The whole book as one zip file. The same content and instant give the same bytes. */
export function packArchive(content: BookContent, writtenAt: string): Uint8Array {
  const files: Record<string, Uint8Array> = {};
  const tables: Record<string, { rows: number; sha256: string }> = {};
  for (const table of BOOK_TABLES) {
    const rows = content[table].map(writeCanonical).sort();
    const text = rows.join('\n');
    tables[table] = { rows: rows.length, sha256: digest(text) };
    files[fileOf(table)] = strToU8(text);
  }
  const manifest: Manifest = {
    format: FORMAT,
    version: ARCHIVE_VERSION,
    business: content.book[0]?.business.name ?? '',
    writtenAt,
    tables,
  };
  return zipSync({ [MANIFEST]: strToU8(writeCanonical(manifest)), ...files }, { mtime: '2000-01-01', level: 6 });
}

const damaged = (path: string, expected: string, found?: string): Refusal => ({
  code: 'damaged',
  path,
  expected,
  ...(found !== undefined && { found }),
});

function unzip(bytes: Uint8Array): Result<Record<string, Uint8Array>> {
  const wanted = new Set([MANIFEST, ...BOOK_TABLES.map(fileOf)]);
  const seen = new Set<string>();
  let size = 0;
  let tooLarge = false;
  let twice = '';
  try {
    // Looked at before anything is unpacked; what is stated too small is unpacked no further than stated.
    unzipSync(bytes, {
      filter: ({ name, originalSize }) => {
        if (!wanted.has(name)) return false;
        if (seen.has(name)) twice = name;
        seen.add(name);
        size += originalSize;
        tooLarge ||= size > LARGEST || originalSize > (name === MANIFEST ? LARGEST_MANIFEST : LARGEST_TABLE);
        return false;
      },
    });
    if (tooLarge)
      return refuse({
        code: 'too-large',
        path: '',
        wanted: 'archive-of-1-gib',
      });
    if (twice !== '') return refuse(damaged(twice, 'to be in the archive once'));
    return accept(unzipSync(bytes, { filter: ({ name }) => wanted.has(name) }));
  } catch {
    const isZip = bytes[0] === 0x50 && bytes[1] === 0x4b;
    return refuse(isZip ? damaged('', 'a whole zip file') : { code: 'foreign', path: '' });
  }
}

function readManifest(file: Uint8Array | undefined): Result<Manifest> {
  if (file === undefined) return refuse({ code: 'foreign', path: MANIFEST });
  try {
    const manifest = JSON.parse(strFromU8(file)) as Partial<Manifest> | null;
    if (manifest?.format !== FORMAT) return refuse({ code: 'foreign', path: MANIFEST });
    if (typeof manifest.version !== 'number' || typeof manifest.tables !== 'object' || manifest.tables === null)
      return refuse(damaged(MANIFEST, 'a version and a list of tables'));
    if (manifest.version > ARCHIVE_VERSION)
      return refuse({
        code: 'too-new',
        path: MANIFEST,
        version: manifest.version,
        reads: ARCHIVE_VERSION,
      });
    return accept(manifest as Manifest);
  } catch {
    return refuse(damaged(MANIFEST, 'a readable list of contents'));
  }
}

function readTable(table: BookTable, file: Uint8Array | undefined, manifest: Manifest): Result<unknown[]> {
  const path = fileOf(table);
  const stated = manifest.tables[table];
  if (file === undefined || stated === undefined) return refuse(damaged(path, 'to be in the archive'));
  const text = strFromU8(file);
  if (digest(text) !== stated.sha256) return refuse(damaged(path, 'the content that was written'));
  const rows: unknown[] = [];
  for (const [i, line] of (text === '' ? [] : text.split('\n')).entries()) {
    try {
      rows.push(readCanonical(line));
    } catch {
      return refuse(damaged(`${path}, row ${i + 1}`, 'a readable row'));
    }
  }
  if (rows.length !== stated.rows) return refuse(damaged(path, `${stated.rows} rows`, String(rows.length)));
  return accept(rows);
}

/** The content of an archive in today's shape. */
function inTodaysShape(content: Record<string, unknown[]>, version: number): Result<BookContent> {
  try {
    return accept(broughtUp(content, version));
  } catch {
    // Rows of a wrong shape make the upgrade stumble; to the reader that is damage like any other.
    return refuse(damaged('', `rows of a book of version ${version}`));
  }
}

/**
 * Reads an archive and checks all of it: format, version, hashes, counts, the shape of each row,
 * seals, figures and balanced entries. Nothing is accepted in part.
 */
export function unpackArchive(
  bytes: Uint8Array,
): Result<{ readonly manifest: Manifest; readonly content: BookContent }> {
  const files = unzip(bytes);
  if (!files.ok) return files;
  const manifest = readManifest(files.value[MANIFEST]);
  if (!manifest.ok) return manifest;
  const content: Record<string, unknown[]> = {};
  const since = manifest.value.version;
  for (const table of BOOK_TABLES) {
    if (sinceVersion(table) > since) {
      content[table] = [];
      continue;
    }
    const rows = readTable(table, files.value[fileOf(table)], manifest.value);
    if (!rows.ok) return rows;
    content[table] = rows.value;
  }
  const read = inTodaysShape(content, since);
  if (!read.ok) return read;
  const book = read.value;
  const faults = bookFaults(book);
  return faults.length > 0 ? refuse(...faults) : accept({ manifest: manifest.value, content: book });
}
