import { strFromU8, strToU8, unzipSync, Zip, ZipDeflate } from 'fflate';
import { BOOK_TABLES, type BookContent, type BookTable, descriptorOf, sinceVersion } from '@/core/book/tables';
import { readCanonical, writeCanonical } from '@/core/kernel/canonical';
import { runningDigest } from '@/core/kernel/digest';
import { accept, type Refusal, type Result, refuse } from '@/core/kernel/result';
import { bookChecker, bookFaults } from './bookFaults';
import { damaged, READING_ORDER } from './gathering';
import { broughtUp, UPGRADES } from './upgrades';

/*
 * A book file is a zip of one list of rows for each table and a list of contents. A table is written in parts of a few
 * megabytes, so that a book of any size is written and read with one of them in memory.
 */

const FORMAT = 'able-ledger-book';
/** Raised with each change of the tables; older archives are brought up to date when read. */
export const ARCHIVE_VERSION = UPGRADES.length + 1;
const MANIFEST = 'manifest.json';
/** A stranger's file may not unpack to more than this: 8 GiB, and a part of a table to half of one. */
const LARGEST = 2 ** 33;
const LARGEST_PART = 2 ** 29;
/** The list of contents takes a few thousand bytes: 1 MiB. */
const LARGEST_MANIFEST = 2 ** 20;
/** Characters after which a part ends. */
const PART = 2 ** 22;
/** More parts than any book has. */
const MOST_PARTS = 10_000;

/** What an archive holds, so that it can be judged before any row is read. */
export interface Manifest {
  readonly format: typeof FORMAT;
  readonly version: number;
  readonly business: string;
  /** Instant of writing. */
  readonly writtenAt: string;
  /** Rows of each table, the digest of all its text, and in how many parts it stands where that is not one. */
  readonly tables: Readonly<
    Record<string, { readonly rows: number; readonly sha256: string; readonly parts?: number }>
  >;
}

const fileOf = (table: BookTable, part: number) => `tables/${table}${part === 1 ? '' : `-${part}`}.jsonl`;

/** Writes an archive table by table, in the order of `BOOK_TABLES`, rows in the order of their keys. */
export interface ArchiveWriter {
  /** Adds the next rows of a table; each table is begun once. */
  readonly add: (table: BookTable, rows: readonly unknown[]) => void;
  /** The whole archive, once every table was added. */
  readonly end: (business: string, writtenAt: string) => Uint8Array;
}

function joined(chunks: readonly Uint8Array[]): Uint8Array {
  const all = new Uint8Array(chunks.reduce((size, { length }) => size + length, 0));
  let at = 0;
  for (const chunk of chunks) {
    all.set(chunk, at);
    at += chunk.length;
  }
  return all;
}

/**
 * An archive on its way. The same rows and instant give the same bytes.
 * @param partSize characters after which a part of a table ends; that of all books unless a test asks for another.
 */
export function archiveWriter(partSize = PART): ArchiveWriter {
  const chunks: Uint8Array[] = [];
  const zip = new Zip((_, chunk) => chunks.push(chunk));
  const put = (name: string, text: string) => {
    const file = new ZipDeflate(name, { level: 6 });
    file.mtime = '2000-01-01';
    zip.add(file);
    file.push(strToU8(text), true);
  };
  const tables: Record<string, { rows: number; sha256: string; parts?: number }> = {};
  let table: BookTable | null = null;
  let part = 1;
  let rows = 0;
  let held: string[] = [];
  let size = 0;
  let hash = runningDigest();
  const endPart = (own: BookTable) => {
    put(fileOf(own, part), held.join('\n'));
    held = [];
    size = 0;
  };
  const endTable = () => {
    if (table === null) return;
    // A table that ended with a part has no empty one behind it.
    if (held.length > 0 || part === 1) endPart(table);
    else part--;
    tables[table] = { rows, sha256: hash.end(), ...(part > 1 && { parts: part }) };
  };
  return {
    add: (own, more) => {
      if (own !== table) {
        endTable();
        table = own;
        part = 1;
        rows = 0;
        hash = runningDigest();
      }
      for (const row of more) {
        const line = writeCanonical(row);
        hash.add(rows === 0 ? line : `\n${line}`);
        rows++;
        held.push(line);
        size += line.length;
        if (size < partSize) continue;
        endPart(own);
        part++;
      }
    },
    end: (business, writtenAt) => {
      endTable();
      const manifest: Manifest = { format: FORMAT, version: ARCHIVE_VERSION, business, writtenAt, tables };
      put(MANIFEST, writeCanonical(manifest));
      zip.end();
      return joined(chunks);
    },
  };
}

/** A whole book that is at hand as one zip file, whatever the order of its rows. */
export function packArchive(content: BookContent, writtenAt: string): Uint8Array {
  const writer = archiveWriter();
  for (const table of BOOK_TABLES) {
    const { key } = descriptorOf(table);
    const keyOf = (row: unknown) => (row as Readonly<Record<string, string>>)[key] ?? '';
    writer.add(
      table,
      content[table].toSorted((a, b) => (keyOf(a) < keyOf(b) ? -1 : 1)),
    );
  }
  return writer.end(content.book[0]?.business.name ?? '', writtenAt);
}

/** Looks at what an archive says it holds, before anything of it is unpacked. */
function listing(bytes: Uint8Array): Result<ReadonlySet<string>> {
  const seen = new Set<string>();
  let size = 0;
  let tooLarge = false;
  let twice = '';
  try {
    unzipSync(bytes, {
      filter: ({ name, originalSize }) => {
        if (name !== MANIFEST && !name.startsWith('tables/')) return false;
        if (seen.has(name)) twice = name;
        seen.add(name);
        size += originalSize;
        tooLarge ||= size > LARGEST || originalSize > (name === MANIFEST ? LARGEST_MANIFEST : LARGEST_PART);
        return false;
      },
    });
  } catch {
    const isZip = bytes[0] === 0x50 && bytes[1] === 0x4b;
    return refuse(isZip ? damaged('', 'a whole zip file') : { code: 'foreign', path: '' });
  }
  if (tooLarge) return refuse({ code: 'too-large', path: '', wanted: 'archive-of-8-gib' });
  return twice === '' ? accept(seen) : refuse(damaged(twice, 'to be in the archive once'));
}

/** One file of an archive as text; what is stated too small is unpacked no further than stated. */
function textOf(bytes: Uint8Array, name: string): Result<string> {
  try {
    const file = unzipSync(bytes, { filter: (one) => one.name === name })[name];
    return file === undefined ? refuse(damaged(name, 'to be in the archive')) : accept(strFromU8(file));
  } catch {
    return refuse(damaged(name, 'a whole file'));
  }
}

function readManifest(text: string): Result<Manifest> {
  try {
    const manifest = JSON.parse(text) as Partial<Manifest> | null;
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

/** An archive whose list of contents was read, with its rows a part at a time. */
export interface OpenedArchive {
  readonly manifest: Manifest;
  /** Its tables in the order they are gone through: `READING_ORDER`, without those that its version had not. */
  readonly tables: readonly BookTable[];
  /**
   * Rows of a table, as they were written; the last is a refusal where something is not as the list of contents says.
   * `again` for one that was gone through before: its digest is not taken a second time.
   */
  readonly parts: (table: BookTable, again?: boolean) => Generator<Result<readonly unknown[]>>;
}

function* partsOf(bytes: Uint8Array, table: BookTable, stated: Manifest['tables'][string] | undefined, again: boolean) {
  const [first] = [fileOf(table, 1)];
  const parts = stated?.parts ?? 1;
  if (stated === undefined || !Number.isInteger(parts) || parts < 1 || parts > MOST_PARTS) {
    yield refuse(damaged(first, 'to be in the archive'));
    return;
  }
  const hash = again ? null : runningDigest();
  let count = 0;
  for (let part = 1; part <= parts; part++) {
    const path = fileOf(table, part);
    const text = textOf(bytes, path);
    if (!text.ok) {
      yield text;
      return;
    }
    const rows: unknown[] = [];
    hash?.add(part === 1 ? text.value : `\n${text.value}`);
    for (const line of text.value === '' ? [] : text.value.split('\n')) {
      try {
        rows.push(readCanonical(line));
        count++;
      } catch {
        yield refuse(damaged(`${path}, row ${rows.length + 1}`, 'a readable row'));
        return;
      }
    }
    yield accept(rows);
  }
  if (hash !== null && hash.end() !== stated.sha256) yield refuse(damaged(first, 'the content that was written'));
  else if (count !== stated.rows) yield refuse(damaged(first, `${stated.rows} rows`, String(count)));
}

/** Opens an archive: its format, version and list of contents. Rows are read by who asks for them. */
export function openedArchive(bytes: Uint8Array): Result<OpenedArchive> {
  const listed = listing(bytes);
  if (!listed.ok) return listed;
  if (!listed.value.has(MANIFEST)) return refuse({ code: 'foreign', path: MANIFEST });
  const text = textOf(bytes, MANIFEST);
  if (!text.ok) return text;
  const read = readManifest(text.value);
  if (!read.ok) return read;
  const manifest = read.value;
  const tables = READING_ORDER.filter((table) => sinceVersion(table) <= manifest.version);
  return accept({
    manifest,
    tables,
    parts: (table, again = false) => partsOf(bytes, table, manifest.tables[table], again),
  });
}

/** True for an archive of today's version, whose rows need no bringing up. */
export const isOfToday = ({ manifest }: OpenedArchive): boolean => manifest.version === ARCHIVE_VERSION;

/** Rows of all tables, so many as the archive says it has. */
export const rowsIn = ({ manifest, tables }: OpenedArchive): number =>
  tables.reduce((sum, table) => sum + (manifest.tables[table]?.rows ?? 0), 0);

/**
 * Checks an archive of today's version from beginning to end, a part at a time: hashes, counts, the shape of each row, seals,
 * figures and balanced entries. Empty when it can be trusted.
 */
export function archiveFaults(
  archive: OpenedArchive,
  onDone: (rows: number) => void = () => undefined,
): readonly Refusal[] {
  const checker = bookChecker();
  for (const table of archive.tables)
    for (const part of archive.parts(table)) {
      if (!part.ok) return part.refusals;
      for (const row of part.value) {
        const fault = checker.take(table, row);
        if (fault !== null) return [fault];
      }
      onDone(part.value.length);
    }
  return checker.finish();
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

/** The whole content of an archive, brought up to today and checked. Nothing is accepted in part. */
export function contentOf(archive: OpenedArchive): Result<BookContent> {
  const content: Record<string, unknown[]> = Object.fromEntries(BOOK_TABLES.map((table) => [table, []]));
  for (const table of archive.tables)
    for (const part of archive.parts(table)) {
      if (!part.ok) return part;
      for (const row of part.value) content[table]?.push(row);
    }
  const read = inTodaysShape(content, archive.manifest.version);
  if (!read.ok) return read;
  const faults = bookFaults(read.value);
  return faults.length > 0 ? refuse(...faults) : read;
}

/** Reads an archive as a whole. */
export function unpackArchive(
  bytes: Uint8Array,
): Result<{ readonly manifest: Manifest; readonly content: BookContent }> {
  const archive = openedArchive(bytes);
  if (!archive.ok) return archive;
  const content = contentOf(archive.value);
  return content.ok ? accept({ manifest: archive.value.manifest, content: content.value }) : content;
}
