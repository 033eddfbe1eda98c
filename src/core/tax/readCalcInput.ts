import * as yup from 'yup';
import { type Currency, isCurrency } from '@/core/kernel/currency';
import { isDecimal, ratioOf } from '@/core/kernel/decimal';
import { readMoney } from '@/core/kernel/money';
import { accept, type Refusal, type Result, refuse, shown } from '@/core/kernel/result';
import { CATEGORIES, type CalcInput, MOST_COMPONENTS } from './calcTypes';
import { isPrice, PRICE_DECIMALS } from './price';

/** Enough for any document; keeps a stranger's file from running for minutes. */
const MOST_LINES = 100_000;
const text = () => yup.string().strict().required();
const decimalText = () =>
  yup
    .string()
    .strict()
    .typeError('must be a decimal written as text')
    .test('decimal', 'must be a decimal such as "12.50"', (v) => v === undefined || isDecimal(v));
const atLeastZero = () =>
  decimalText().test('sign', 'must not be negative', (v) => !isDecimal(v) || ratioOf(v).n >= 0n);
const aboveZero = () => decimalText().test('sign', 'must be more than zero', (v) => !isDecimal(v) || ratioOf(v).n > 0n);
const oneOf = (...values: readonly string[]) => text().oneOf(values, `must be one of ${values.join(', ')}`);
const list = <T extends yup.ISchema<unknown>>(of: T, most = MOST_LINES) =>
  yup.array().strict().of(of).max(most, `must hold at most ${most} entries`);
const shape = <T extends yup.ObjectShape>(of: T) => yup.object(of).strict().typeError('must be an object');

/** Exactly one of the two must be there. */
const either = (a: string, b: string) => ({
  name: 'either',
  message: `must hold either ${a} or ${b}`,
  test: (v: unknown) =>
    v === undefined || v === null || typeof v !== 'object' || Object.hasOwn(v, a) !== Object.hasOwn(v, b),
});

function schemaFor(currency: Currency, codes: ReadonlySet<string>) {
  const money = () =>
    decimalText().test('minor-unit', `must not have digits below the minor unit of ${currency}`, (v) =>
      isDecimal(v) ? readMoney(v, currency) !== null : true,
    );
  const price = () =>
    decimalText().test('price', `must have at most ${PRICE_DECIMALS} decimals`, (v) =>
      isDecimal(v) ? isPrice(v) : true,
    );
  const code = () => text().test('code', 'must be a code listed under taxes', (v) => codes.has(v));
  const component = shape({
    id: text(),
    family: yup.string().strict(),
    rate: atLeastZero(),
    perUnit: decimalText(),
    compound: yup.boolean().strict(),
  });
  return shape({
    priceMode: oneOf('net', 'gross'),
    rounding: shape({
      mode: oneOf('half-up', 'half-even'),
      level: oneOf('document', 'line'),
      cashStep: aboveZero().concat(money()),
    }).required(),
    taxes: yup.lazy((taxes: unknown) =>
      shape(
        Object.fromEntries(
          Object.keys(taxes !== null && typeof taxes === 'object' ? taxes : {}).map((name) => [
            name,
            shape({
              category: oneOf(...CATEGORIES),
              components: list(component.test(either('rate', 'perUnit')), MOST_COMPONENTS).required(),
            }).required(),
          ]),
        ),
      ).required(),
    ),
    lines: list(
      shape({
        id: text(),
        quantity: decimalText().required(),
        unitPrice: price().required(),
        baseQuantity: aboveZero(),
        discount: shape({ percent: decimalText(), amount: money() })
          .default(undefined)
          .test(either('percent', 'amount')),
        tax: code(),
      }).required(),
    ).required(),
    adjustments: list(
      shape({
        id: text(),
        kind: oneOf('allowance', 'charge'),
        percent: decimalText(),
        amount: money(),
        tax: yup
          .string()
          .strict()
          .test('code', 'must be a code listed under taxes', (v) => v === undefined || codes.has(v)),
      })
        .required()
        .test(either('percent', 'amount')),
    ),
    overrides: list(shape({ tax: code(), family: text(), amount: money().required(), reason: text() }).required()),
    prepaid: money(),
    withholding: list(
      shape({
        id: text(),
        base: oneOf('net', 'gross', 'tax'),
        rate: atLeastZero().required(),
        threshold: money(),
      }).required(),
    ),
    home: shape({
      currency: text().test('currency', 'must be an ISO 4217 code', (v) => isCurrency(v)),
      rate: aboveZero().required(),
    }).default(undefined),
  });
}

function valueAt(value: unknown, path: string): unknown {
  return path
    .split(/[.[\]]+/)
    .filter(Boolean)
    .reduce<unknown>(
      (v, key) => (v !== null && typeof v === 'object' ? (v as Record<string, unknown>)[key] : undefined),
      value,
    );
}

/** What yup's tests cannot see one field at a time. */
function crossChecks(input: CalcInput): Refusal[] {
  const refusals: Refusal[] = [];
  input.overrides.forEach((override, i) => {
    const components = input.taxes[override.tax]?.components ?? [];
    if (!components.some((c) => (c.family ?? c.id) === override.family))
      refusals.push({
        code: 'malformed',
        path: `overrides[${i}].family`,
        must: 'must be a family of the code',
        found: override.family,
      });
    const used =
      input.lines.some((l) => l.tax === override.tax) || input.adjustments.some((a) => a.tax === override.tax);
    if (!used)
      refusals.push({
        code: 'malformed',
        path: `overrides[${i}].tax`,
        must: 'must be a code the document uses',
        found: override.tax,
      });
  });
  const grouped = input.lines.length > 0 || input.adjustments.some((a) => a.tax !== undefined);
  input.adjustments.forEach((adjustment, i) => {
    if (adjustment.tax === undefined && !grouped)
      refusals.push({
        code: 'malformed',
        path: `adjustments[${i}].tax`,
        must: 'must name a tax code, as there are no lines to spread over',
      });
  });
  return refusals;
}

/**
 * Reads a calculation from foreign data (see `docs/calc-command.md` for the shape). Amounts are
 * decimals as text; nothing is rounded or guessed. Refusals carry the path and what must stand there.
 */
export function readCalcInput(data: unknown): Result<CalcInput> {
  if (data === null || typeof data !== 'object' || Array.isArray(data))
    return refuse({ code: 'malformed', path: '', must: 'must be an object', found: shown(data) });
  const source = data as Record<string, unknown>;
  const currency = source.currency;
  if (!isCurrency(currency))
    return refuse({
      code: 'malformed',
      path: 'currency',
      must: 'must be an ISO 4217 code such as "EUR"',
      found: shown(currency),
    });
  const taxes = source.taxes !== null && typeof source.taxes === 'object' ? Object.keys(source.taxes) : [];
  try {
    schemaFor(currency, new Set(taxes)).validateSync(source, { abortEarly: false, strict: true });
  } catch (error) {
    if (!(error instanceof yup.ValidationError)) throw error;
    const errors = error.inner.length > 0 ? error.inner : [error];
    return refuse(
      ...errors.slice(0, 20).map((e): Refusal => {
        const path: string = (e.path ?? '').replaceAll('["', '.').replaceAll('"]', '');
        const found = valueAt(source, path);
        return {
          code: 'malformed',
          path,
          must: e.message.includes(' is a required field')
            ? 'must be given'
            : e.message.replace(/^.*? must be a `/, 'must be a `'),
          ...(found !== undefined && { found: shown(found) }),
        };
      }),
    );
  }
  const input = {
    ...source,
    adjustments: source.adjustments ?? [],
    overrides: source.overrides ?? [],
    withholding: source.withholding ?? [],
  } as unknown as CalcInput;
  const refusals = crossChecks(input);
  return refusals.length > 0 ? refuse(...refusals) : accept(input);
}
