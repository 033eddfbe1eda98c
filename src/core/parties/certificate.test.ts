import { day } from 'tests/book';
import { validated } from '@/core/kernel/validate';
import { DEMO_CERTIFICATES, DEMO_CUSTOMERS } from '@/demo/setup';
import { type Certificate, certificateSchema, certificateState, isValidOn, reliefOf } from './certificate';
import { mainNumber, numberStateFor, type TaxNumber } from './customer';

const certificate = DEMO_CERTIFICATES[0] as Certificate;

describe('an exemption certificate', () => {
  const half = { from: day('2026-01-01'), until: day('2026-06-30') };
  test.each([
    ['2025-12-31', false, 'upcoming'],
    ['2026-01-01', true, 'valid'],
    ['2026-05-16', true, 'valid'],
    ['2026-05-17', true, 'lapses-soon'],
    ['2026-06-30', true, 'lapses-soon'],
    ['2026-07-01', false, 'lapsed'],
  ])('for half a year on %s: in force %s, %s', (on, valid, state) => {
    expect([isValidOn(half, day(on)), certificateState(half, day(on))]).toEqual([valid, state]);
  });
  test('without an end never lapses', () => {
    expect(certificateState({ ...half, until: '' }, day('2099-01-01'))).toBe('valid');
  });
  test.each<[string, object, string]>([
    ['without a number', { number: '' }, 'number'],
    ['without a reason', { reason: ' ' }, 'reason'],
    ['ending before it begins', { until: '2024-01-01' }, 'until'],
    ['with a file that is too large', { file: { name: 'a', type: 'b', base64: 'A'.repeat(2_800_000) } }, 'file.base64'],
  ])('%s is refused', (_, over, path) => {
    const result = validated(certificateSchema, { ...certificate, ...over });
    expect(result.ok ? [] : result.refusals.map((r) => r.path)).toEqual([path]);
  });
});

describe('where a customer is charged nothing', () => {
  const university = DEMO_CUSTOMERS.find((c) => c.id === 'salish') as (typeof DEMO_CUSTOMERS)[number];
  const on = day('2026-01-15');
  test('is where it holds a certificate of its own that is in force', () => {
    expect(reliefOf(university, [certificate], on)('US-WA')).toEqual({
      certificate: 'WA-R-000-SAMPLE',
      reason: 'research institution',
    });
    expect(reliefOf(university, [{ ...certificate, customerId: 'other' }], on)('US-WA')).toBeNull();
    expect(reliefOf(university, [certificate], day('2030-01-01'))('US-WA')).toBeNull();
  });
  test('is where it is not liable; a certificate says more and goes first', () => {
    const free = { ...university, notLiableIn: ['US-WA', 'IE'] };
    const relief = reliefOf(free, [certificate], on);
    expect([relief('US-WA')?.certificate, relief('IE')?.certificate, relief('DE')]).toEqual([
      'WA-R-000-SAMPLE',
      '',
      null,
    ]);
  });
  test('is nowhere for nobody', () => expect(reliefOf(null, [certificate], on)('US-WA')).toBeNull());
});

describe('what is known of a tax number', () => {
  const number = (country: string, result?: 'valid' | 'invalid' | 'unreachable'): TaxNumber => ({
    country,
    number: `${country}1`,
    check: result === undefined ? null : { result, on: day('2026-01-01'), reference: '' },
  });
  test.each([
    ['none at all', [], 'DE', 'none'],
    ['never asked', [number('DE')], 'DE', 'unverified'],
    ['the registry was down', [number('DE', 'unreachable')], 'DE', 'unverified'],
    ['found wrong', [number('DE', 'invalid')], 'DE', 'unverified'],
    ['found right', [number('DE', 'valid')], 'DE', 'verified'],
    ['only that of the destination counts', [number('FR', 'valid'), number('DE')], 'DE', 'unverified'],
    ['any, where the destination has none', [number('FR', 'valid')], 'DE', 'verified'],
  ])('%s', (_, taxNumbers, country, state) => expect(numberStateFor({ taxNumbers }, country)).toBe(state));
  test('the first one prints', () => {
    expect([mainNumber({ taxNumbers: [number('FR'), number('DE')] }), mainNumber({ taxNumbers: [] })]).toEqual([
      'FR1',
      '',
    ]);
  });
});
