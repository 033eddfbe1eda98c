import * as yup from 'yup';
import { wordRefusal } from '@/core/wording/refusals';
import { neededText, validated } from './validate';
import { wanted } from './wanted';

const said = (schema: yup.Schema, value: unknown) => {
  const result = validated(schema, value);
  return result.ok ? [] : result.refusals.map((refusal) => [refusal.code, refusal.path, wordRefusal(refusal)]);
};

describe('what a schema says of a record', () => {
  const record = yup
    .object({ name: neededText('give-a-name'), until: yup.string().defined() })
    .test('order', wanted('end-not-before-begin'), function order() {
      return this.createError({ path: 'until' });
    });
  test('names a missing field, and what was found in a wrong one', () => {
    expect(
      said(yup.object({ name: neededText('give-a-name') }), { name: '' }).map(([code, path]) => [code, path]),
    ).toEqual([['missing', 'name']]);
    const short = yup.object({ name: yup.string().max(3, wanted({ what: 'shorter-text', most: 3 })) });
    expect(said(short, { name: 'Harbour' })[0]?.[2]).toContain('Harbour');
  });
  test('never shows the record itself, which nobody typed', () => {
    const [refusal] = said(record, { name: 'Pier', until: '2026-01-01' });
    expect(refusal?.slice(0, 2)).toEqual(['invalid', 'until']);
    expect(refusal?.[2]).not.toMatch(/[{}"]/);
  });
});
