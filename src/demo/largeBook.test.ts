import { packArchive, unpackArchive } from '@/core/files/archive';
import { writeCanonical } from '@/core/kernel/canonical';
import { isoDate } from '@/core/kernel/date';
import { largeBook } from './largeBook';

const made = (seed: number) => largeBook(60, isoDate('2026-01-01'), isoDate('2026-06-30'), seed);

describe('a large book', () => {
  const content = made(7);

  test('opens through every check of a book file', () => {
    expect(unpackArchive(packArchive(content, '2026-07-01T09:00:00.000Z'))).toMatchObject({ ok: true });
  });
  test('holds what was asked for, most of it paid', () => {
    expect(content.documents.map(({ number }) => number).slice(-1)).toEqual(['INV-2026-0060']);
    expect(content.receipts.length).toBeGreaterThan(30);
    expect(content.documents.filter(({ open }) => open === 0n)).toHaveLength(content.receipts.length);
  });
  test('is the same for the same seed, and another one for another', () => {
    expect(writeCanonical(made(7))).toBe(writeCanonical(content));
    expect(writeCanonical(made(8))).not.toBe(writeCanonical(content));
  });
});
