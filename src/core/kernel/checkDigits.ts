/** Sum of digits times weights. */
export function weighted(digits: string, weights: readonly number[]): number {
  return weights.reduce((sum, weight, i) => sum + weight * Number(digits[i]), 0);
}

/** Luhn check over all digits, the last one being the check digit (ISO/IEC 7812-1, annex B). */
export function luhn(digits: string): boolean {
  let sum = 0;
  for (let i = 0; i < digits.length; i++) {
    const d = Number(digits[digits.length - 1 - i]);
    sum += i % 2 === 0 ? d : d > 4 ? 2 * d - 9 : 2 * d;
  }
  return sum % 10 === 0;
}

/**
 * A check digit modulo 11 behind the digits that are weighted; a number whose check would be 10 is never given.
 * 123456785 with 3 2 7 6 5 4 3 2 passes.
 */
export function mod11(n: string, weights: readonly number[]): boolean {
  const rest = weighted(n, weights) % 11;
  const check = rest === 0 ? 0 : 11 - rest;
  return check < 10 && check === Number(n[weights.length]);
}

/** Eleven digits of an Australian business number: modulus 89, one taken from the first digit. */
export function australianNumber(n: string): boolean {
  const digits = String(Number(n[0]) - 1) + n.slice(1);
  return weighted(digits, [10, 1, 3, 5, 7, 9, 11, 13, 15, 17, 19]) % 89 === 0;
}

/** Check digit of GS1 (GLN, GTIN): digits weighted 3 and 1 from the right add up to a multiple of ten. */
export function gs1(digits: string): boolean {
  const last = digits.length - 1;
  let sum = 0;
  for (let i = 0; i <= last; i++) sum += Number(digits[i]) * ((last - i) % 2 === 0 ? 1 : 3);
  return sum % 10 === 0;
}
