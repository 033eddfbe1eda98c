import { recordsOf, registeredIn } from 'tests/taxSetup';
import { isoDate } from '@/core/kernel/date';
import type { DecisionRow } from '@/core/tax/decisionTable';
import { inTree, jurisdictionChoices } from '../../shared/choices';
import { conditionWords, resultWords } from './rowWords';

const records = recordsOf(['IE', 'US-WA', 'IN'], [registeredIn('IE')]);
const rowOf = (id: string) => records.rows.find((row) => row.id === id) as DecisionRow;

describe('a row in words', () => {
  test.each([
    [
      'IE-ic-goods',
      'registered in Ireland, goods, to a business or government, number verified, from inside the territory, to in the customs union',
    ],
    ['US-WA-stack', 'registered in Washington, to inside the territory'],
    [
      'IN-export',
      'registered in 36 territories, from inside the territory or elsewhere in the country, to in the customs union or outside',
    ],
  ])('%s', (id, words) => expect(conditionWords(rowOf(id), records)).toBe(words));
  test('that asks nothing always holds; days are said as days', () => {
    const always = { ...rowOf('US-WA-stack'), registeredIn: [], shipTo: [] };
    expect(conditionWords(always, records)).toBe('always');
    const dated = { ...always, from: isoDate('2026-01-01'), until: isoDate('2026-06-30') };
    expect(conditionWords(dated, records)).toBe('from 1 Jan 2026, until 30 Jun 2026');
  });
  test('says what it decides', () => {
    expect(resultWords(rowOf('IE-here-standard'), records)).toBe('IE-S Standard');
    expect(resultWords(rowOf('US-WA-stack'), records)).toBe('the stack of the destination');
    expect(resultWords(rowOf('IE-unverified'), records)).toMatch(/^asks: The tax number of this customer/);
    expect(resultWords({ ...rowOf('IE-ic-goods'), result: { kind: 'code', code: 'GONE' } }, records)).toBe('GONE');
  });
});

describe('jurisdictions to choose from', () => {
  test('stand below what they lie in, by name', () => {
    const tree = inTree(records.jurisdictions).map(({ jurisdiction, depth }) => `${depth} ${jurisdiction.name}`);
    const king = tree.indexOf('2 King County');
    expect(tree[king + 1]).toBe('3 Seattle');
    expect(tree.indexOf('1 Washington')).toBeLessThan(king);
    expect(tree.filter((line) => line.startsWith('0'))).toEqual(['0 India', '0 Ireland', '0 United States']);
  });
  test('whose parent is gone stand on top, and none is lost', () => {
    const orphans = records.jurisdictions.filter((j) => j.id !== 'US-WA');
    expect(inTree(orphans)).toHaveLength(orphans.length);
    expect(inTree(orphans).find(({ jurisdiction }) => jurisdiction.id === 'US-WA-KING')?.depth).toBe(0);
  });
  test('begin with none chosen', () => expect(jurisdictionChoices([])[0]).toEqual(['', 'choose…']));
});
