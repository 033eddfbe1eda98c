import { isCurrency } from '@/core/kernel/currency';
import { isIsoDate } from '@/core/kernel/date';
import { isDecimal } from '@/core/kernel/decimal';

/** Where a value does not have a shape: a path such as `.lines[2].price`; null where it has. */
export type Shape = (value: unknown) => { readonly at: string; readonly expected: string } | null;

const plain =
  (expected: string, holds: (value: unknown) => boolean): Shape =>
  (value) =>
    holds(value) ? null : { at: '', expected };

/** A text that may be empty. */
export const words = plain('a text', (v) => typeof v === 'string');
/** A text that says something. */
export const text = plain('a text that is not empty', (v) => typeof v === 'string' && v !== '');
export const date = plain('a date', isIsoDate);
export const dateOrNothing = plain('a date or nothing', (v) => v === '' || isIsoDate(v));
/** Whole minor units. */
export const amount = plain('an amount', (v) => typeof v === 'bigint');
export const number = plain('a decimal number', isDecimal);
export const numberOrNothing = plain('a decimal number or nothing', (v) => v === '' || isDecimal(v));
export const flag = plain('yes or no', (v) => typeof v === 'boolean');
export const count = plain('a whole number', (v) => Number.isSafeInteger(v) && Number(v) >= 0);
export const instant = plain('an instant', (v) => typeof v === 'string' && !Number.isNaN(Date.parse(v)));
export const currency = plain('a currency', isCurrency);
export const anything: Shape = () => null;

export const oneOf = (...values: readonly unknown[]): Shape =>
  plain(`one of ${values.join(', ')}`, (v) => values.includes(v));

const isRecord = (value: unknown): value is Record<string, unknown> =>
  value !== null && typeof value === 'object' && !Array.isArray(value);

/** A record with these fields; others are left to whoever knows them. */
export function record(fields: Readonly<Record<string, Shape>>): Shape {
  const entries = Object.entries(fields);
  return (value) => {
    if (!isRecord(value)) return { at: '', expected: 'a record' };
    for (const [name, shape] of entries) {
      const fault = shape(value[name]);
      if (fault !== null) return { ...fault, at: `.${name}${fault.at}` };
    }
    return null;
  };
}

export function listOf(shape: Shape): Shape {
  return (value) => {
    if (!Array.isArray(value)) return { at: '', expected: 'a list' };
    for (const [i, one] of value.entries()) {
      const fault = shape(one);
      if (fault !== null) return { ...fault, at: `[${i}]${fault.at}` };
    }
    return null;
  };
}

/** A record whose members, whatever their names, all have a shape. */
export function byName(shape: Shape): Shape {
  return (value) => {
    if (!isRecord(value)) return { at: '', expected: 'a record' };
    for (const [name, one] of Object.entries(value)) {
      const fault = shape(one);
      if (fault !== null) return { ...fault, at: `.${name}${fault.at}` };
    }
    return null;
  };
}

export const orNull =
  (shape: Shape): Shape =>
  (value) =>
    value === null ? null : shape(value);

/** A field that may be missing. */
export const maybe =
  (shape: Shape): Shape =>
  (value) =>
    value === undefined ? null : shape(value);
