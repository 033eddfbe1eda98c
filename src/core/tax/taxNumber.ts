import { validate as australian } from 'stdnum/lib/cjs/au/abn';
import { validate as canadian } from 'stdnum/lib/cjs/ca/bn';
import { validate as swiss } from 'stdnum/lib/cjs/ch/uid';
import { validate as german } from 'stdnum/lib/cjs/de/vat';
import { validate as irish } from 'stdnum/lib/cjs/ie/vat';
import { validate as dutch } from 'stdnum/lib/cjs/nl/btw';
import { validate as norwegian } from 'stdnum/lib/cjs/no/orgnr';
import { validate as newZealand } from 'stdnum/lib/cjs/nz/ird';
import { luhn, weighted } from '@/core/kernel/checkDigits';
import type { IsoDate } from '@/core/kernel/date';
import type { Wanted } from '@/core/kernel/wanted';
import { unionOf } from './unions';

const SPANISH = 'TRWAGMYFPDXBNJZSQVHLCKE';
const BASE36 = '0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZ';

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

function indian(n: string): boolean {
  let sum = 0;
  for (let i = 0; i < 14; i++) {
    const product = BASE36.indexOf(n[i] ?? '') * (i % 2 === 0 ? 1 : 2);
    sum += Math.floor(product / 36) + (product % 36);
  }
  return BASE36[(36 - (sum % 36)) % 36] === n[14];
}

/** The check of the library. */
const by =
  (validate: (number: string) => { readonly isValid: boolean }) =>
  (number: string): boolean =>
    validate(number).isValid;

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
 * list of the VAT information exchange publish them. Check digits are those of a library where it says what their
 * authority does; it refuses numbers that are given out in FR (not every SIREN follows Luhn), ES, IT, GB (numbers of
 * both series) and IN, so that those are worked out here.
 */
const FORMS: Readonly<Record<string, NumberForm>> = {
  IE: { prefix: /^IE/, form: /^\d{7}[A-W][A-I]?$/, sample: 'IE7654321G', check: by(irish) },
  DE: { prefix: /^DE/, form: /^[1-9]\d{8}$/, sample: 'DE812345673', check: by(german) },
  FR: {
    prefix: /^FR/,
    form: /^\d{11}$/,
    sample: 'FR31000123455',
    check: (n) => (12 + 3 * (Number(n.slice(2)) % 97)) % 97 === Number(n.slice(0, 2)),
  },
  NL: {
    prefix: /^NL/,
    form: /^\d{9}B\d{2}$/,
    sample: 'NL000123456B01',
    check: by(dutch),
  },
  ES: { prefix: /^ES/, form: /^[A-Z\d]\d{7}[A-Z\d]$/, sample: 'ESB00123455', check: spanish },
  IT: { prefix: /^IT/, form: /^\d{11}$/, sample: 'IT00123450009', check: luhn },
  GB: { prefix: /^GB/, form: /^\d{9}(\d{3})?$/, sample: 'GB999000103', check: british },
  NO: {
    prefix: /^NO/,
    form: /^\d{9}(MVA)?$/,
    sample: 'NO123456785MVA',
    check: (n) => by(norwegian)(n.slice(0, 9)),
  },
  CH: {
    prefix: /^CHE/,
    form: /^\d{9}(MWST|TVA|IVA)?$/,
    sample: 'CHE-123.456.788 MWST',
    check: (n) => by(swiss)(`CHE${n.slice(0, 9)}`),
  },
  AU: { prefix: /^AU/, form: /^\d{11}$/, sample: '56 000 123 455', check: by(australian) },
  NZ: { prefix: /^NZ/, form: /^\d{8,9}$/, sample: '12-345-607', check: by(newZealand) },
  SG: { prefix: /^SG/, form: /^(M[R\d]\d{7}[A-Z\d]|\d{8,9}[A-Z])$/, sample: '200312345A' },
  IN: { prefix: /^$/, form: /^\d{2}[A-Z]{5}\d{4}[A-Z][A-Z\d]Z[A-Z\d]$/, sample: '27AAAAA0000A1Z2', check: indian },
  CA: {
    prefix: /^CA/,
    form: /^\d{9}(RT\d{4})?$/,
    sample: '123456782RT0001',
    check: (n) => by(canadian)(n.slice(0, 9)),
  },
  KE: { prefix: /^$/, form: /^[AP]\d{9}[A-Z]$/, sample: 'P051234567X' },
  ZA: { prefix: /^ZA/, form: /^4\d{9}$/, sample: '4123456789' },
};

/** A number without blanks, dots and dashes, in capitals: `CHE-123.456.788 MWST` → `CHE123456788MWST`. */
export function bareNumber(number: string): string {
  return number.replace(/[\s.\-/]/g, '').toUpperCase();
}

/** Numbers that have a name of their own, which is not translated. */
const OWN_NAMES: Readonly<Record<string, string>> = {
  AU: 'ABN',
  CA: 'GST/HST no.',
  CH: 'UID',
  IN: 'GSTIN',
  KE: 'PIN',
  NO: 'Org. no.',
  NZ: 'GST no.',
  SG: 'GST reg. no.',
};

/** Countries beside the union whose tax is called VAT. */
const VAT_ELSEWHERE = new Set(['GB', 'XI', 'ZA']);

/** What the tax numbers of a country are called: by a name of their own, as numbers of VAT, or just tax numbers. */
export function numberName(country: string, on: IsoDate): { readonly own: string } | 'vat' | 'tax' {
  const own = OWN_NAMES[country];
  if (own !== undefined) return { own };
  return unionOf(country, on) === 'EU' || VAT_ELSEWHERE.has(country) ? 'vat' : 'tax';
}

/** A number of the form that a country gives, for examples; of a country without a known form any. */
export function sampleNumber(country: string): string {
  return FORMS[country]?.sample ?? '000000';
}

/**
 * What is wrong with a tax number of a country, as what is asked for instead, or null. Numbers of countries without
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
