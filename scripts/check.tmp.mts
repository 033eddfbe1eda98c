import { readFileSync } from 'node:fs';
import { archiveFaults, openedArchive, rowsIn } from '../src/core/files/archive.ts';

const a = openedArchive(new Uint8Array(readFileSync(process.argv[2])));
if (!a.ok) throw new Error(JSON.stringify(a));
const t = performance.now();
console.log(
  archiveFaults(a.value),
  rowsIn(a.value),
  'rows',
  ((performance.now() - t) / 1000).toFixed(1),
  's',
  (process.resourceUsage().maxRSS / 1024).toFixed(0),
  'MiB',
);
