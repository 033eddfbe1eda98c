import * as yup from 'yup';
import { wanted } from '@/core/kernel/wanted';

/** How banks of a country without IBAN name an account: a code of the branch or bank, and a number. */
export type LocalKind = 'sort-code' | 'bsb' | 'routing' | 'transit' | 'ifsc' | 'bank-branch';

/** An account to pay into, by what a country's banks call it. */
export interface LocalAccount {
  readonly kind: LocalKind;
  readonly code: string;
  readonly number: string;
}

interface LocalForm {
  /** What its code is called. */
  readonly called: string;
  /** Countries whose banks use it, ISO 3166-1. */
  readonly countries: readonly string[];
  readonly code: RegExp;
  readonly number: RegExp;
  readonly sample: string;
  /** Check digits of the code, where it has any. */
  readonly check?: (code: string) => boolean;
}

/** American Bankers Association: weights 3, 7 and 1 over the nine digits add up to a multiple of ten. */
function routing(code: string): boolean {
  const sum = [...code].reduce((all, digit, i) => all + Number(digit) * ([3, 7, 1][i % 3] ?? 0), 0);
  return sum % 10 === 0;
}

/** Forms as the payment schemes of each country state them; branches and accounts are not looked up. */
export const LOCAL_FORMS: Readonly<Record<LocalKind, LocalForm>> = {
  'sort-code': {
    called: 'Sort code',
    countries: ['GB', 'IE'],
    code: /^\d{6}$/,
    number: /^\d{8}$/,
    sample: '00-00-00 and 12345678',
  },
  bsb: { called: 'BSB', countries: ['AU'], code: /^\d{6}$/, number: /^\d{5,9}$/, sample: '000-000 and 123456789' },
  routing: {
    called: 'Routing number',
    countries: ['US'],
    code: /^\d{9}$/,
    number: /^\d{4,17}$/,
    sample: '123456780 and 000123456789',
    check: routing,
  },
  transit: {
    called: 'Institution and transit number',
    countries: ['CA'],
    code: /^\d{8}$/,
    number: /^\d{7,12}$/,
    sample: '000-00000 and 1234567',
  },
  ifsc: {
    called: 'IFSC',
    countries: ['IN'],
    code: /^[A-Z]{4}0[A-Z0-9]{6}$/,
    number: /^\d{9,18}$/,
    sample: 'ABCD0123456 and 123456789012',
  },
  'bank-branch': {
    called: 'Bank and branch',
    countries: ['NZ'],
    code: /^\d{6}$/,
    number: /^\d{9,10}$/,
    sample: '00-0000 and 0000000-00',
  },
};

const bare = (text: string): string => text.replaceAll(/[\s-]/g, '').toUpperCase();

/** True where the code and the number have the form of their kind, and its check digits fit. */
export function isLocalAccount({ kind, code, number }: LocalAccount): boolean {
  const form = LOCAL_FORMS[kind];
  return form.code.test(bare(code)) && form.number.test(bare(number)) && form.check?.(bare(code)) !== false;
}

/** An account of a form; of nothing typed it is none. */
export const localAccountSchema = yup
  .object({
    kind: yup.string().defined(),
    code: yup.string().defined().max(20),
    number: yup.string().defined().max(24),
  })
  .test('form', 'form', function form(value) {
    const { code, number } = value;
    const kind = value.kind as LocalKind | '';
    if (kind === '') return true;
    const known = Object.hasOwn(LOCAL_FORMS, kind);
    if (known && isLocalAccount({ kind, code, number })) return true;
    return this.createError({
      path: `${this.path}.code`,
      message: wanted({ what: 'local-account', sample: known ? LOCAL_FORMS[kind].sample : '' }),
    });
  });

/** An account as it goes into documents; undefined where none is kept. */
export function localAccountOf(local: {
  readonly kind: LocalKind | '';
  readonly code: string;
  readonly number: string;
}): LocalAccount | undefined {
  if (local.kind === '') return undefined;
  return { kind: local.kind, code: local.code.trim(), number: local.number.trim() };
}
