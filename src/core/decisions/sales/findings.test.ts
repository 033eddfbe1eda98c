import { day, draftOf, lineOf, settingOf } from 'tests/book';
import { freezeDraft } from '@/core/documents/freeze';
import { currency } from '@/core/kernel/currency';
import { decimal } from '@/core/kernel/decimal';
import { DEMO_CUSTOMERS } from '@/demo/setup';
import { findingsOn } from './findings';

/** What is found on an invoice of one line in dinars, which have three decimals (fils). */
function inDinars(price: string) {
  const rate = { currency: currency('KWD'), date: day('2026-01-15'), perHome: decimal('0.335'), source: 'bank' };
  const setting = settingOf({ rateOf: () => rate });
  const draft = draftOf({ currency: currency('KWD'), lines: [lineOf({ price })] });
  const frozen = freezeDraft(draft, 'INV-1', DEMO_CUSTOMERS[0] ?? null, setting);
  if (!frozen.ok) throw new Error(JSON.stringify(frozen.refusals));
  return findingsOn(frozen.value).filter(({ rule }) => rule.startsWith('BR-DEC'));
}

describe('an e-invoice in a currency of three decimals', () => {
  test('is told once why it cannot go, and the ways out, before it is issued', () => {
    // 10.005 KWD at 23 %: 2.301 of tax, 12.306 in all; BR-DEC-09 and those behind it take two decimals.
    expect(inDinars('10.005')).toEqual([
      expect.objectContaining({
        severity: 'must',
        field: 'totals',
        message: expect.stringMatching(/two decimals at most, and those in KWD have 3\. Set prices so that/),
      }),
    ]);
  });
  test('goes out where every amount ends in 0', () => {
    // 100.000 KWD, 23.000 of tax.
    expect(inDinars('100')).toEqual([]);
  });
});
