import { australianNumber, gs1, luhn, mod11 } from '@/core/kernel/checkDigits';
import { termName } from '../terms';
import { peppol, type Rule, type Seen, type Severity } from './rule';

/* Identifiers of parties by the check digits of their schemes: the common rules of the public Peppol profile. */

const ODD = [1, 0, 5, 7, 9, 13, 15, 17, 19, 21, 2, 4, 18, 20, 11, 3, 6, 8, 12, 14, 16, 10, 22, 25, 24, 23];

/** Italian tax code: eleven digits as a VAT number, or sixteen signs with a control letter (D.M. 23 Dec 1976). */
function italianTaxCode(id: string): boolean {
  if (/^\d{11}$/.test(id)) return luhn(id);
  if (!/^[A-Z]{6}[0-9LMNPQRSTUV]{2}[A-EHLMPRST][0-9LMNPQRSTUV]{2}[A-Z][0-9LMNPQRSTUV]{3}[A-Z]$/i.test(id)) return false;
  const signs = [...id.toUpperCase()];
  const worth = (sign: string) => (/\d/.test(sign) ? Number(sign) : sign.charCodeAt(0) - 65);
  const sum = signs
    .slice(0, 15)
    .reduce((all, sign, i) => all + (i % 2 === 0 ? (ODD[worth(sign)] ?? 0) : worth(sign)), 0);
  return String.fromCharCode(65 + (sum % 26)) === signs[15];
}

interface Scheme {
  readonly rule: string;
  readonly scheme: string;
  readonly name: string;
  readonly looks: string;
  readonly holds: (id: string) => boolean;
  readonly severity?: Severity;
}

/** Schemes of the EAS and ICD lists whose ids can be checked by themselves. */
const SCHEMES: readonly Scheme[] = [
  {
    rule: 'R040',
    scheme: '0088',
    name: 'GLN of GS1',
    looks: '13 digits, the last one their check digit',
    holds: (id) => /^\d{13}$/.test(id) && gs1(id),
  },
  {
    rule: 'R041',
    scheme: '0192',
    name: 'Norwegian organisation number',
    looks: '9 digits, the last one their check digit (modulus 11)',
    holds: (id) => /^\d{9}$/.test(id) && mod11(id, [3, 2, 7, 6, 5, 4, 3, 2]),
  },
  {
    rule: 'R042',
    scheme: '0184',
    name: 'Danish CVR number',
    looks: 'DK and 8 digits',
    holds: (id) => /^DK\d{8}$/.test(id),
  },
  {
    rule: 'R043',
    scheme: '0208',
    name: 'Belgian enterprise number',
    looks: '10 digits, the last two 97 less the rest of the others by 97',
    holds: (id) => /^\d{10}$/.test(id) && 97 - (Number(id.slice(0, 8)) % 97) === Number(id.slice(8)),
  },
  {
    rule: 'R044',
    scheme: '0201',
    name: 'Italian office code (IPA)',
    looks: '6 letters and digits',
    holds: (id) => /^[A-Z0-9]{6}$/i.test(id),
    severity: 'warning',
  },
  {
    rule: 'R045',
    scheme: '0210',
    name: 'Italian tax code',
    looks: '16 signs with their control letter, or 11 digits',
    holds: italianTaxCode,
    severity: 'warning',
  },
  {
    rule: 'R046',
    scheme: '9907',
    name: 'Italian tax code',
    looks: '16 signs with their control letter, or 11 digits',
    holds: italianTaxCode,
    severity: 'warning',
  },
  {
    rule: 'R047',
    scheme: '0211',
    name: 'Italian VAT number',
    looks: 'IT and 11 digits, the last one their check digit',
    holds: (id) => /^(?:IT)?\d{11}$/.test(id) && luhn(id.slice(-11)),
    severity: 'warning',
  },
  {
    rule: 'R049',
    scheme: '0007',
    name: 'Swedish organisation number',
    looks: '10 digits, the last one their check digit',
    holds: (id) => /^\d{10}$/.test(id) && luhn(id),
  },
  {
    rule: 'R050',
    scheme: '0151',
    name: 'Australian business number',
    looks: '11 digits with their check digits',
    holds: (id) => /^\d{11}$/.test(id) && australianNumber(id),
  },
];

function* faultsIn({ identifiers }: Seen, { scheme, name, looks, holds }: Scheme) {
  for (const { in: group, term, one } of identifiers) {
    const id = one.value.trim();
    if (one.scheme !== scheme || holds(id)) continue;
    yield {
      in: group,
      term,
      at: one.at,
      message: `“${id}” is no ${name} (scheme ${scheme}): it has ${looks}. Correct the ${termName(term)}.`,
    };
  }
}

export const IDENTIFIER_RULES: readonly Rule[] = SCHEMES.map((scheme) =>
  peppol(`PEPPOL-COMMON-${scheme.rule}`, {
    term: 'BT-34',
    demands: `An id of scheme ${scheme.scheme} is a ${scheme.name}: ${scheme.looks}.`,
    ...(scheme.severity && { severity: scheme.severity }),
    test: (seen) => faultsIn(seen, scheme),
  }),
);
