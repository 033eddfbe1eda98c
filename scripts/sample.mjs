// Writes a sample book of any size as a file, to try screens and reports with: npm run sample -- --documents 20000 large.able
import { writeFileSync } from 'node:fs';
import { parseArgs } from 'node:util';
import { register } from 'tsx/esm/api';
import { ensurePackages } from './lib/setup.mjs';

await ensurePackages();
register();
const options = { documents: { type: 'string', default: '10000' } };
const { values, positionals } = parseArgs({ options, allowPositionals: true });
const count = Number(values.documents);
if (!Number.isInteger(count) || count < 1) {
  console.error('How many documents? npm run sample -- --documents 20000 large.able');
  process.exit(2);
}
const [file = `book-of-${count}.able`] = positionals;
const { largeBook } = await import('../src/demo/largeBook.ts');
const { packArchive } = await import('../src/core/files/archive.ts');
const { isoDate } = await import('../src/core/kernel/date.ts');
const content = largeBook(count, isoDate('2024-01-01'), isoDate('2026-10-31'), 1, (done) =>
  console.log(`${done} of ${count}`),
);
const bytes = packArchive(content, '2026-11-01T09:00:00.000Z');
writeFileSync(file, bytes);
console.log(
  `${file}: ${content.documents.length} invoices, ${content.receipts.length} receipts, ${bytes.length} bytes`,
);
