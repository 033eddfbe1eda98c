import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { day } from 'tests/book';
import { seeded } from 'tests/seeded';
import { NO_FILTER } from '@/core/documents/documentFilter';
import { ARCHIVE_VERSION, unpackArchive } from '@/core/files/archive';
import { digest } from '@/core/kernel/digest';
import { prove } from '@/core/returns/proof';
import { archiveBook } from './archive';
import { journalOf } from './ledger/queries/ledger';
import { openArchive } from './openArchive';
import { draftsFound, overdueInvoices } from './sales/queries/documents';
import { findDocuments } from './sales/queries/findDocuments';
import { BookDb } from './schema';
import { periodReturn, returnsToFile, ribbon } from './tax/queries/periods';
import { proofMaterial } from './tax/queries/proofMaterial';

/* Book files that somebody changed, with the hashes put right again: refused, or a book that every screen can read. */

const TODAY = day('2026-04-01');

const JUNK: readonly unknown[] = [
  null,
  '',
  'x',
  -1,
  1.5,
  2e9,
  true,
  [],
  {},
  [null],
  { minor: '7' },
  { minor: 'x' },
  '2026-02-31',
  '=1+1',
];

/** Changes one thing somewhere in a value: takes it away, puts junk in its place, doubles or moves it. */
function mutated(value: unknown, random: () => number): unknown {
  const deeper = value !== null && typeof value === 'object' && Object.keys(value).length > 0;
  if (!deeper || random() < 0.15) return JUNK[Math.floor(random() * JUNK.length)];
  const keys = Object.keys(value);
  const key = keys[Math.floor(random() * keys.length)] as string;
  const copy = (Array.isArray(value) ? [...value] : { ...value }) as Record<string, unknown>;
  const how = random();
  if (how < 0.15) delete copy[key];
  else if (how < 0.3) copy[key] = JUNK[Math.floor(random() * JUNK.length)];
  else if (how < 0.4 && Array.isArray(copy)) copy.push(copy[key]);
  else copy[key] = mutated(copy[key], random);
  return copy;
}

/** The files of a book in today's version, whose tables tests may change. */
async function filesOfToday(): Promise<Record<string, Uint8Array>> {
  const db = new BookDb('mutated-source');
  const fixture = readFileSync(join(process.cwd(), 'tests/fixtures/book-version-4.able'));
  expect(await openArchive(db, new Uint8Array(fixture))).toMatchObject({ ok: true });
  return unzipSync(await archiveBook(db, '2026-11-26T12:00:00.000Z'));
}

function bookWith(files: Record<string, Uint8Array>, name: string, rows: readonly unknown[]): Uint8Array {
  const text = rows.map((row) => JSON.stringify(row)).join('\n');
  const manifest = JSON.parse(strFromU8(files['manifest.json'] as Uint8Array));
  manifest.tables[name.slice('tables/'.length, -'.jsonl'.length)] = { rows: rows.length, sha256: digest(text) };
  return zipSync({ ...files, [name]: strToU8(text), 'manifest.json': strToU8(JSON.stringify(manifest)) }, { level: 0 });
}

/** What the screens ask of a book when they are opened. */
async function lookAround(db: BookDb): Promise<void> {
  const registrations = await db.registrations.toArray();
  for (const registration of registrations) {
    for (const { span } of await ribbon(db, registration, TODAY, 3)) {
      await periodReturn(db, registration, span.start);
      prove(await proofMaterial(db, registration, span.start));
      await journalOf(db, span, 50);
    }
  }
  await returnsToFile(db, registrations, TODAY);
  await overdueInvoices(db, TODAY, 20);
  await draftsFound(db, '', 20);
  await findDocuments(db, '', 50, NO_FILTER, TODAY);
  await findDocuments(db, 'cal', 50, NO_FILTER, TODAY);
  expect(unpackArchive(await archiveBook(db, '2026-11-26T12:00:00.000Z'))).toMatchObject({ ok: true });
}

test('of 500 changed books each is refused in words, or opens sound', async () => {
  const files = await filesOfToday();
  const tables = Object.keys(files).filter((name) => name.startsWith('tables/') && (files[name]?.length ?? 0) > 0);
  const rowsOf = new Map(
    tables.map((name) => [
      name,
      strFromU8(files[name] as Uint8Array)
        .split('\n')
        .map((line) => JSON.parse(line) as unknown),
    ]),
  );
  let refused = 0;
  const target = new BookDb('mutated-target');
  for (let seed = 1; seed <= 500; seed++) {
    const random = seeded(seed);
    const name = tables[Math.floor(random() * tables.length)] as string;
    const rows = rowsOf.get(name) ?? [];
    const at = Math.floor(random() * rows.length);
    const changed =
      random() < 0.1 ? rows.filter((_, i) => i !== at) : rows.map((row, i) => (i === at ? mutated(row, random) : row));
    const opened = await openArchive(target, bookWith(files, name, changed));
    if (opened.ok) {
      await lookAround(target);
      continue;
    }
    refused++;
    expect(opened.refusals.every(({ code, path }) => code === 'damaged' && path !== undefined)).toBe(true);
  }
  expect(ARCHIVE_VERSION).toBe(11);
  // Most changes are noticed; those that are not touch what is free, such as remarks, names and tags.
  expect(refused).toBeGreaterThan(250);
}, 300_000);
