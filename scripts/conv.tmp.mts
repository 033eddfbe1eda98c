import { readFileSync, writeFileSync } from 'node:fs';
import { BOOK_TABLES } from '../src/core/book/tables.ts';
import { archiveWriter, openedArchive } from '../src/core/files/archive.ts';

const a = openedArchive(new Uint8Array(readFileSync(process.argv[2])));
if (!a.ok) throw new Error(JSON.stringify(a));
const w = archiveWriter();
for (const t of BOOK_TABLES) {
  w.add(t, []);
  for (const p of a.value.parts(t)) {
    if (!p.ok) throw new Error(JSON.stringify(p.refusals));
    for (let i = 0; i < p.value.length; i += 1000) w.add(t, p.value.slice(i, i + 1000));
  }
}
writeFileSync(process.argv[3], w.end('Corran Point Instruments Ltd (sample)', '2026-11-01T09:00:00.000Z'));
