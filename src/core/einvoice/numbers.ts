import { isDecimal, tenTo } from '@/core/kernel/decimal';
import { type Group, termsOf, textOf } from './model';
import type { TermId } from './terms';

/** Numbers of files are kept as whole units of 10^−18, which holds every decimal the kernel knows exactly. */
export const SCALE = 18;
const ONE = tenTo(SCALE);

/** Numbers read before: rule after rule asks for the same ones. */
const known = new Map<string, bigint | null>();
const MOST_KNOWN = 4096;

/** A number of an XML file (xs:decimal: `+1`, `.5` and `5.` too) in units of 10^−18; null for any other text. */
export function scaled(text: string): bigint | null {
  const seen = known.get(text);
  if (seen !== undefined) return seen;
  if (known.size >= MOST_KNOWN) known.clear();
  const number = read(text);
  known.set(text, number);
  return number;
}

function read(text: string): bigint | null {
  let t = text.startsWith('+') ? text.slice(1) : text;
  if (!isDecimal(t)) {
    t = t.replace(/^(-?)\./, '$10.').replace(/\.$/, '');
    if (!isDecimal(t)) return null;
  }
  const point = t.indexOf('.');
  if (point < 0) return BigInt(t) * ONE;
  return BigInt(t.slice(0, point) + t.slice(point + 1)) * tenTo(SCALE - (t.length - point - 1));
}

/** The number of a term; null when it is missing or no number. */
export function numberOf(from: Group, id: TermId): bigint | null {
  const text = textOf(from, id);
  return text === '' ? null : scaled(text);
}

/** The number of a term, nothing where the term is missing, null where it is no number. */
export function numberOrNothing(from: Group, id: TermId): bigint | null {
  return textOf(from, id) === '' ? 0n : numberOf(from, id);
}

/** The sum of a term over groups, missing ones counting as nothing; null when one is no number. */
export function sumOf(groups: readonly Group[], id: TermId): bigint | null {
  let sum = 0n;
  for (const one of groups)
    for (const { value } of termsOf(one, id)) {
      const number = scaled(value);
      if (number === null) return null;
      sum += number;
    }
  return sum;
}

/** A product of two numbers, again in units of 10^−18; what lies below is cut off. */
export const product = (a: bigint, b: bigint): bigint => (a * b) / ONE;

const HALF_CENT = 5n * tenTo(SCALE - 3);
const CENT = tenTo(SCALE - 2);

/** Rounded half away from zero to two decimals, in units of 10^−18. */
export function toCents(number: bigint): bigint {
  const size = number < 0n ? -number : number;
  const rounded = ((size + HALF_CENT) / CENT) * CENT;
  return number < 0n ? -rounded : rounded;
}

export const unit = ONE;
export const hundredths = (count: bigint): bigint => count * CENT;
export const absolute = (number: bigint): bigint => (number < 0n ? -number : number);

/** As text with at least two decimals and no needless zeros behind: `1234.50`, `0.125`. */
export function show(number: bigint): string {
  const digits = absolute(number)
    .toString()
    .padStart(SCALE + 1, '0');
  const decimals = digits.slice(-SCALE).replace(/0+$/, '').padEnd(2, '0');
  return `${number < 0n ? '−' : ''}${digits.slice(0, -SCALE)}.${decimals}`;
}
