import { iso31662 } from 'iso-3166';
import { isSameRegion, readRegion, regionsOf } from './region';

describe('a region', () => {
  test.each([
    ['IN', 'KA', 'KA'],
    ['IN', 'ka', 'KA'],
    ['IN', 'IN-KA', 'KA'],
    ['IN', 'Karnataka', 'KA'],
    ['IN', 'Karnātaka', 'KA'],
    ['IN', 'Pondicherry', 'PY'],
    ['CA', 'Québec', 'QC'],
    ['CA', 'quebec', 'QC'],
    ['US', 'Washington', 'WA'],
    ['US', ' new  york ', 'NY'],
    ['US', '', ''],
    // Where regions do not matter for tax, they stay as they are written.
    ['IE', 'Co. Galway', 'Co. Galway'],
  ])('of %s written “%s” is %s', (country, text, code) => expect(readRegion(country, text)).toBe(code));

  test.each([
    ['IN', 'Karnatka'],
    ['US', 'Galway'],
    ['CA', 'WA'],
  ])('of %s is not %s', (country, text) => expect(readRegion(country, text)).toBeNull());

  test('is the same by code and by name, and an unknown one is the same as none', () => {
    expect(isSameRegion('US', 'WA', 'Washington')).toBe(true);
    expect(isSameRegion('US', 'WA', 'Oregon')).toBe(false);
    expect(isSameRegion('US', 'Nowhere', 'Nowhere')).toBe(false);
  });

  test('stands in the list as the standard has it; in India without the marks of its transcription', () => {
    const unmarked = (name: string) => name.normalize('NFD').replace(/\p{Mn}/gu, '');
    for (const country of ['AU', 'BR', 'CA', 'IN', 'MX', 'US'])
      expect(regionsOf(country)).toEqual(
        iso31662
          .filter((r) => r.parent === country)
          .map((r) => [r.code.slice(3), country === 'IN' ? unmarked(r.name) : r.name]),
      );
  });
});
