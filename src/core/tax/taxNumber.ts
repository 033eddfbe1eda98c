import { australianNumber, luhn, mod11, weighted } from '@/core/kernel/checkDigits';
import type { Wanted } from '@/core/kernel/wanted';

/** ISO/IEC 7064 MOD 11,10. */
function mod1110(digits: string): boolean {
  let product = 10;
  for (const d of digits.slice(0, -1)) {
    const sum = (Number(d) + product) % 10 || 10;
    product = (2 * sum) % 11;
  }
  return (11 - product) % 10 === Number(digits.at(-1));
}

/** ISO/IEC 7064 MOD 97-10 over letters and digits. */
function mod9710(text: string): boolean {
  let rest = 0;
  for (const c of text) {
    const value = Number.parseInt(c, 36);
    rest = (rest * (value > 9 ? 100 : 10) + value) % 97;
  }
  return rest === 1;
}

const IRISH = 'WABCDEFGHIJKLMNOPQRSTUV';
const SPANISH = 'TRWAGMYFPDXBNJZSQVHLCKE';
const BASE36 = '0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZ';

function irish(n: string): boolean {
  const second = n[8] === undefined ? 0 : IRISH.indexOf(n[8]);
  return IRISH[(weighted(n, [8, 7, 6, 5, 4, 3, 2]) + 9 * second) % 23] === n[7];
}

function spanish(n: string): boolean {
  const first = n[0] ?? '';
  if (/\d/.test(first) || 'XYZ'.includes(first)) {
    const number = Number(n.slice(0, 8).replace(first, /\d/.test(first) ? first : String('XYZ'.indexOf(first))));
    return SPANISH[number % 23] === n[8];
  }
  const digits = n.slice(1, 8);
  const doubled = (d: string | undefined) => (2 * Number(d) > 9 ? 2 * Number(d) - 9 : 2 * Number(d));
  let sum = 0;
  for (let i = 0; i < 7; i++) sum += i % 2 === 0 ? doubled(digits[i]) : Number(digits[i]);
  const control = (10 - (sum % 10)) % 10;
  return n[8] === String(control) || n[8] === 'JABCDEFGHI'[control];
}

function british(n: string): boolean {
  const sum = weighted(n, [8, 7, 6, 5, 4, 3, 2]) + Number(n.slice(7, 9));
  return sum % 97 === 0 || (sum + 55) % 97 === 0;
}

function newZealand(n: string): boolean {
  const digits = n.padStart(9, '0');
  for (const weights of [
    [3, 2, 7, 6, 5, 4, 3, 2],
    [7, 4, 3, 2, 5, 2, 7, 6],
  ]) {
    const rest = weighted(digits, weights) % 11;
    const check = rest === 0 ? 0 : 11 - rest;
    if (check < 10) return check === Number(digits[8]);
  }
  return false;
}

function indian(n: string): boolean {
  let sum = 0;
  for (let i = 0; i < 14; i++) {
    const product = BASE36.indexOf(n[i] ?? '') * (i % 2 === 0 ? 1 : 2);
    sum += Math.floor(product / 36) + (product % 36);
  }
  return BASE36[(36 - (sum % 36)) % 36] === n[14];
}

interface NumberForm {
  /** What stands before the number and may be left out. */
  readonly prefix: RegExp;
  readonly form: RegExp;
  readonly sample: string;
  /** Check digits of a number without its prefix; left out where the authority publishes none. */
  readonly check?: (number: string) => boolean;
}

/**
 * Forms and check digits of tax numbers by country, as their authorities and, for the EU, the format
 * list of the VAT information exchange publish them.
 */
const FORMS: Readonly<Record<string, NumberForm>> = {
  IE: { prefix: /^IE/, form: /^\d{7}[A-W][A-I]?$/, sample: 'IE7654321G', check: irish },
  DE: { prefix: /^DE/, form: /^[1-9]\d{8}$/, sample: 'DE812345673', check: mod1110 },
  FR: {
    prefix: /^FR/,
    form: /^\d{11}$/,
    sample: 'FR40303265045',
    check: (n) => (12 + 3 * (Number(n.slice(2)) % 97)) % 97 === Number(n.slice(0, 2)),
  },
  NL: {
    prefix: /^NL/,
    form: /^\d{9}B\d{2}$/,
    sample: 'NL000099998B57',
    check: (n) => mod9710(`NL${n}`) || weighted(n, [9, 8, 7, 6, 5, 4, 3, 2]) % 11 === Number(n[8]),
  },
  ES: { prefix: /^ES/, form: /^[A-Z\d]\d{7}[A-Z\d]$/, sample: 'ESA58818501', check: spanish },
  IT: { prefix: /^IT/, form: /^\d{11}$/, sample: 'IT00743110157', check: luhn },
  GB: { prefix: /^GB/, form: /^\d{9}(\d{3})?$/, sample: 'GB980780684', check: british },
  NO: {
    prefix: /^NO/,
    form: /^\d{9}(MVA)?$/,
    sample: 'NO123456785MVA',
    check: (n) => mod11(n, [3, 2, 7, 6, 5, 4, 3, 2]),
  },
  CH: {
    prefix: /^CHE/,
    form: /^\d{9}(MWST|TVA|IVA)?$/,
    sample: 'CHE-123.456.788 MWST',
    check: (n) => mod11(n, [5, 4, 3, 2, 7, 6, 5, 4]),
  },
  AU: { prefix: /^AU/, form: /^\d{11}$/, sample: '51 824 753 556', check: australianNumber },
  NZ: { prefix: /^NZ/, form: /^\d{8,9}$/, sample: '49-091-850', check: newZealand },
  SG: { prefix: /^SG/, form: /^(M[R\d]\d{7}[A-Z\d]|\d{8,9}[A-Z])$/, sample: '200312345A' },
  IN: { prefix: /^$/, form: /^\d{2}[A-Z]{5}\d{4}[A-Z][A-Z\d]Z[A-Z\d]$/, sample: '27AAPFU0939F1ZV', check: indian },
  CA: {
    prefix: /^CA/,
    form: /^\d{9}(RT\d{4})?$/,
    sample: '123456782RT0001',
    check: (n) => luhn(n.slice(0, 9)),
  },
  KE: { prefix: /^$/, form: /^[AP]\d{9}[A-Z]$/, sample: 'P051234567X' },
  ZA: { prefix: /^ZA/, form: /^4\d{9}$/, sample: '4123456789' },
};

/** A number without blanks, dots and dashes, in capitals: `CHE-123.456.788 MWST` → `CHE123456788MWST`. */
export function bareNumber(number: string): string {
  return number.replace(/[\s.\-/]/g, '').toUpperCase();
}

/**
 * What is wrong with a tax number of a country, as a sentence, or null. Numbers of countries without
 * a known form pass. `IE7654321G` passes, `IE7654321F` does not: its check letter is wrong.
 */
export function taxNumberFault(country: string, number: string): Wanted | null {
  const form = FORMS[country];
  if (form === undefined) return null;
  const bare = bareNumber(number).replace(form.prefix, '');
  if (!form.form.test(bare)) return { what: 'number-form', country, sample: form.sample };
  if (form.check?.(bare) === false) return 'number-of-letter';
  return null;
}
