// Writes a large book as a file, to try screens and reports at size: npm run large-book -- 20000 large.able
import { writeFileSync } from 'node:fs';
import { register } from 'tsx/esm/api';
import { ensurePackages } from './lib/setup.mjs';

await ensurePackages();
register();
const [documents = '10000', file = `book-of-${documents}.able`] = process.argv.slice(2);
const count = Number(documents);
if (!Number.isInteger(count) || count < 1) {
  console.error('How many documents? npm run large-book -- 20000 large.able');
  process.exit(2);
}
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
