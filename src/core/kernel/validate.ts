import * as yup from 'yup';
import { isCountry } from './country';
import { isIsoDate } from './date';
import { accept, type Refusal, type Result, refuse, shown } from './result';
import { type PlainWanted, type Wanted, wanted } from './wanted';

/** Messages of our schemas ask for something by name; what the library says by itself is about values of a wrong type. */
const wantedOf = (message: unknown): Wanted =>
  typeof message === 'string' && message.includes(' ') ? 'plain-values' : (message as Wanted);

/** Checks a record against its schema; every failing field gives one refusal at its path. */
export function validated<T>(schema: yup.Schema, value: unknown): Result<T> {
  try {
    return accept(schema.validateSync(value, { abortEarly: false, strict: true }) as T);
  } catch (error) {
    // Words about a value that holds an amount can't be put together by yup; the value is wrong all the same.
    if (error instanceof TypeError) return refuse({ code: 'invalid', path: '', wanted: 'plain-values' });
    if (!(error instanceof yup.ValidationError)) throw error;
    const errors = error.inner.length > 0 ? error.inner : [error];
    return refuse(
      ...errors.map((e): Refusal => {
        const found: unknown = e.value;
        const empty = found === '' || found === undefined || found === null;
        const about = { path: e.path ?? '', wanted: wantedOf(e.message) };
        if (empty) return { code: 'missing', ...about };
        // A record as a whole would be shown in the words of the program.
        return { code: 'invalid', ...about, ...(typeof found !== 'object' && { found: shown(found) }) };
      }),
    );
  }
}

const LONGEST_TEXT = 2000;

/** A text that may be empty. */
export const optionalText = (longest = LONGEST_TEXT) =>
  yup
    .string()
    .defined()
    .max(longest, wanted({ what: 'shorter-text', most: longest }));

/** A text that must say something; `what` asks for it. */
export const neededText = (what: PlainWanted, longest = 200) =>
  optionalText(longest).test('needed', wanted(what), (v) => v.trim() !== '');

export const countryCode = () =>
  yup
    .string()
    .defined()
    .test('country', wanted('choose-country'), (v) => isCountry(v));

export const dateText = (what: PlainWanted) =>
  yup
    .string()
    .defined()
    .test('date', wanted(what), (v) => isIsoDate(v));
