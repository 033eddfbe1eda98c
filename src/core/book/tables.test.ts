import { BOOK_TABLES, DERIVED_TABLES, descriptorOf, sinceVersion, tablesOfVersion } from './tables';

const LATEST = 11;

describe('the tables of the book', () => {
  test.each(BOOK_TABLES)('%s: its key leads its indexes, and what it names is there', (name) => {
    const { key, indexes, references = [], customers } = descriptorOf(name);
    for (const stated of Object.values(indexes)) expect(stated.split(', ')[0]).toBe(key);
    for (const { table } of references) expect(BOOK_TABLES).toContain(table);
    const found = customers?.found;
    if (found === undefined || !('index' in found)) return;
    const newest = indexes[Math.max(...Object.keys(indexes).map(Number))]?.split(', ');
    expect(newest).toContain(found.index);
    // Tables are gone through in their order: what leads to others stands before them.
    if (found.through !== undefined)
      expect(BOOK_TABLES.indexOf(found.through as never)).toBeLessThan(BOOK_TABLES.indexOf(name));
  });

  test('come with the version that states them first', () => {
    expect([sinceVersion('book'), sinceVersion('places'), sinceVersion('styles'), sinceVersion('looks')]).toEqual([
      1, 2, 3, 5,
    ]);
    const versions = Array.from({ length: LATEST }, (_, i) => tablesOfVersion(i + 1));
    const stated = new Set(versions.flatMap((tables) => Object.keys(tables)));
    expect([...stated].sort()).toEqual([...BOOK_TABLES, ...Object.keys(DERIVED_TABLES)].sort());
    expect(versions[1]).toMatchObject({ taxBalances: null, places: 'id, name, *keys' });
    expect(versions[4]).toEqual({ looks: 'id', journal: 'id, [date+id], sourceId, [kind+date]' });
    expect(Object.keys(versions[5] ?? {}).sort()).toEqual(['allocations', 'receipts', 'refunds']);
    expect(Object.keys(versions[6] ?? {}).sort()).toEqual([
      'receipts',
      'withheld',
      'withholdingCertificates',
      'withholdingClaims',
    ]);
    expect(Object.keys(versions[7] ?? {}).sort()).toEqual([
      'deferrals',
      'reopenedFilings',
      'revaluations',
      'taxPayments',
    ]);
  });
});
