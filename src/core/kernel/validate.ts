import * as yup from 'yup';
import { isCountry } from './country';
import { isIsoDate } from './date';
import { accept, type Refusal, type Result, refuse, shown } from './result';

/** Checks a record against its schema; every failing field gives one refusal at its path. */
export function validated<T>(schema: yup.Schema, value: unknown): Result<T> {
  try {
    return accept(schema.validateSync(value, { abortEarly: false, strict: true }) as T);
  } catch (error) {
    // Words about a value that holds an amount can't be put together by yup; the value is wrong all the same.
    if (error instanceof TypeError) return refuse({ code: 'invalid', path: '', expected: 'Give plain values.' });
    if (!(error instanceof yup.ValidationError)) throw error;
    const errors = error.inner.length > 0 ? error.inner : [error];
    return refuse(
      ...errors.map((e): Refusal => {
        const found: unknown = e.value;
        const empty = found === '' || found === undefined || found === null;
        return {
          code: empty ? 'missing' : 'invalid',
          path: e.path ?? '',
          expected: e.message,
          ...(!empty && { found: shown(found) }),
        };
      }),
    );
  }
}

const LONGEST_TEXT = 2000;

/** A text that may be empty. */
export const optionalText = (longest = LONGEST_TEXT) =>
  yup.string().defined().max(longest, `Keep this to ${longest} characters.`);

/** A text that must say something. `what` completes "Give …". */
export const neededText = (what: string, longest = 200) =>
  optionalText(longest).test('needed', `Give ${what}.`, (v) => v.trim() !== '');

export const countryCode = () =>
  yup
    .string()
    .defined()
    .test('country', 'Choose a country.', (v) => isCountry(v));

export const dateText = (message: string) =>
  yup
    .string()
    .defined()
    .test('date', message, (v) => isIsoDate(v));
