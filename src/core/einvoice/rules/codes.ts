import { CODES, COUNTRY_CODES, CURRENCY_CODES } from '../codes';
import { type Group, groupsOf, termsOf } from '../model';
import type { TermId } from '../terms';
import { elementsIn } from './elements';
import { atRoot, eachOf, en, inList, type Rule, type Seen } from './rule';

/* Codes of public lists: BR-CL of EN 16931-1. */

/** One rule over several terms, each in its own groups. */
function together(id: string, rules: readonly Rule[], demands: string): Rule {
  const [first] = rules as [Rule];
  return { ...first, id, demands, test: (seen) => rules.flatMap((rule) => [...rule.test(seen)]) };
}

const seller = (seen: Seen) => [seen.seller];
const buyer = (seen: Seen) => [seen.buyer];
const lines = (seen: Seen) => seen.lines;
const within = (outer: (seen: Seen) => readonly Group[], inner: Parameters<typeof groupsOf>[1]) => (seen: Seen) =>
  outer(seen).flatMap((one) => groupsOf(one, inner));

/** SEPA is no ICD, yet it stands among the identifiers of a party for BT-90. */
const icd = (id: string, term: TermId, groups: (seen: Seen) => Iterable<Group>) =>
  inList(id, en, CODES.icd, term, groups, 'scheme');

const countries: readonly (readonly [TermId, (seen: Seen) => Iterable<Group>])[] = [
  ['BT-40', within(seller, 'BG-5')],
  ['BT-55', within(buyer, 'BG-8')],
  ['BT-69', within(eachOf('BG-11'), 'BG-12')],
  ['BT-80', eachOf('BG-15')],
];

export const CODE_RULES: readonly Rule[] = [
  en('BR-CL-01', {
    term: 'BT-3',
    demands: 'The type of the document is a code of UNTDID 1001.',
    test: function* (seen) {
      const list = seen.creditNote ? CODES.creditNoteTypes : CODES.invoiceTypes;
      for (const { value, at } of termsOf(seen.invoice, 'BT-3'))
        if (!list.has(value))
          yield { at, message: `“${value}” is no code of ${list.name}: choose one, such as 380 or 381.` };
    },
  }),
  en('BR-CL-03', {
    term: 'BT-5',
    demands: 'The currency of every amount is a code of ISO 4217.',
    test: function* ({ file }) {
      if (file === null) return;
      for (const node of elementsIn(file.root).amounts) {
        const code = node.attributes.currencyID ?? '';
        if (!CURRENCY_CODES.has(code))
          yield { at: node, message: `“${code}” is no currency of ISO 4217: correct the currency of this amount.` };
      }
    },
  }),
  inList('BR-CL-04', en, CURRENCY_CODES, 'BT-5', atRoot),
  inList('BR-CL-05', en, CURRENCY_CODES, 'BT-6', atRoot),
  inList('BR-CL-06', en, CODES.taxPointCodes, 'BT-8', atRoot),
  together(
    'BR-CL-07',
    [
      inList('', en, CODES.objectSchemes, 'BT-18', atRoot, 'scheme'),
      inList('', en, CODES.objectSchemes, 'BT-128', lines, 'scheme'),
    ],
    `The scheme of an object's identifier is a code of ${CODES.objectSchemes.name}.`,
  ),
  together(
    'BR-CL-10',
    [icd('', 'BT-29', seller), icd('', 'BT-46', buyer), icd('', 'BT-60', eachOf('BG-10'))],
    `The scheme of an identifier of a party is a code of ${CODES.icd.name}.`,
  ),
  together(
    'BR-CL-11',
    [icd('', 'BT-30', seller), icd('', 'BT-47', buyer), icd('', 'BT-61', eachOf('BG-10'))],
    `The scheme of a legal registration is a code of ${CODES.icd.name}.`,
  ),
  inList('BR-CL-13', en, CODES.itemClassifications, 'BT-158', lines, 'scheme'),
  together(
    'BR-CL-14',
    countries.map(([term, groups]) => inList('', en, COUNTRY_CODES, term, groups)),
    `Countries are codes of ${COUNTRY_CODES.name}.`,
  ),
  inList('BR-CL-15', en, COUNTRY_CODES, 'BT-159', lines),
  inList('BR-CL-16', en, CODES.paymentMeans, 'BT-81', eachOf('BG-16')),
  together(
    'BR-CL-17',
    [
      inList('', en, CODES.taxCategories, 'BT-118', (seen) => seen.breakdown),
      inList('', en, CODES.taxCategories, 'BT-95', (seen) => seen.allowances),
      inList('', en, CODES.taxCategories, 'BT-102', (seen) => seen.charges),
    ],
    `The category of a row, an allowance or a charge is a code of ${CODES.taxCategories.name}.`,
  ),
  inList('BR-CL-18', en, CODES.taxCategories, 'BT-151', lines),
  together(
    'BR-CL-19',
    [
      inList('', en, CODES.allowanceReasons, 'BT-98', (seen) => seen.allowances),
      inList('', en, CODES.allowanceReasons, 'BT-140', within(lines, 'BG-27')),
    ],
    `The reason of an allowance is a code of ${CODES.allowanceReasons.name}.`,
  ),
  together(
    'BR-CL-20',
    [
      inList('', en, CODES.chargeReasons, 'BT-105', (seen) => seen.charges),
      inList('', en, CODES.chargeReasons, 'BT-145', within(lines, 'BG-28')),
    ],
    `The reason of a charge is a code of ${CODES.chargeReasons.name}.`,
  ),
  icd('BR-CL-21', 'BT-157', lines),
  inList('BR-CL-22', en, CODES.vatex, 'BT-121', (seen) => seen.breakdown),
  together(
    'BR-CL-23',
    [inList('', en, CODES.units, 'BT-130', lines), inList('', en, CODES.units, 'BT-150', lines)],
    `Units of measure are codes of ${CODES.units.name}.`,
  ),
  inList('BR-CL-24', en, CODES.mimeTypes, 'BT-125', eachOf('BG-24'), 'version'),
  together(
    'BR-CL-25',
    [inList('', en, CODES.eas, 'BT-34', seller, 'scheme'), inList('', en, CODES.eas, 'BT-49', buyer, 'scheme')],
    `The scheme of an electronic address is a code of ${CODES.eas.name}.`,
  ),
  icd('BR-CL-26', 'BT-71', atRoot),
];
