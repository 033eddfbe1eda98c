import { grouped } from '@/core/kernel/grouped';
import { type Group, groupsOf, textOf } from '../model';
import { absolute, numberOf, numberOrNothing, show, toCents, unit } from '../numbers';
import { type TermId, termName } from '../terms';
import { en, type Fault, faultUnless, type Rule, type Seen, says } from './rule';
import { fitsRate } from './sums';

/* The families of VAT categories: BR-S, BR-Z, BR-E, BR-AE, BR-IC, BR-G, BR-O, BR-IG, BR-IP of EN 16931-1. */

interface Category {
  /** Name of its rules: `S` in BR-S-01. */
  readonly family: string;
  /** UNTDID 5305. */
  readonly code: string;
  readonly name: string;
  /** What a rate must be. */
  readonly rate: 'above zero' | 'zero' | 'not negative' | 'none';
  /** Rows of the breakdown: one for each rate, or exactly one. */
  readonly rows: 'by rate' | 'one';
  /** Whether why no tax is charged has to be said, or must not be. */
  readonly reason: 'needed' | 'not allowed';
  readonly parties: (seen: Seen) => Fault | null;
}

const representatives = (seen: Seen) => groupsOf(seen.invoice, 'BG-11');
const represented = (seen: Seen) => representatives(seen).some((one) => says(one, 'BT-63'));

function sellerKnown(name: string) {
  return (seen: Seen): Fault | null =>
    says(seen.seller, 'BT-31') || says(seen.seller, 'BT-32') || represented(seen)
      ? null
      : {
          in: seen.seller,
          term: 'BT-31',
          message: `With ${name} give the seller's VAT number (BT-31), tax registration (BT-32) or tax representative (BT-63).`,
        };
}

function sellerVat(name: string) {
  return (seen: Seen): Fault | null =>
    says(seen.seller, 'BT-31') || represented(seen)
      ? null
      : {
          in: seen.seller,
          term: 'BT-31',
          message: `With ${name} give the seller's VAT number (BT-31) or tax representative (BT-63).`,
        };
}

const CATEGORIES: readonly Category[] = [
  {
    family: 'S',
    code: 'S',
    name: 'standard rated',
    rate: 'above zero',
    rows: 'by rate',
    reason: 'not allowed',
    parties: sellerKnown('a standard rate'),
  },
  {
    family: 'Z',
    code: 'Z',
    name: 'zero rated',
    rate: 'zero',
    rows: 'one',
    reason: 'not allowed',
    parties: sellerKnown('a zero rate'),
  },
  {
    family: 'E',
    code: 'E',
    name: 'exempt from VAT',
    rate: 'zero',
    rows: 'one',
    reason: 'needed',
    parties: sellerKnown('an exemption'),
  },
  {
    family: 'AE',
    code: 'AE',
    name: 'reverse charge',
    rate: 'zero',
    rows: 'one',
    reason: 'needed',
    parties: (seen) =>
      sellerKnown('reverse charge')(seen) ??
      (says(seen.buyer, 'BT-48') || says(seen.buyer, 'BT-47')
        ? null
        : {
            in: seen.buyer,
            term: 'BT-48',
            message: "With reverse charge give the buyer's VAT number (BT-48) or legal registration (BT-47).",
          }),
  },
  {
    family: 'IC',
    code: 'K',
    name: 'intra-community supply',
    rate: 'zero',
    rows: 'one',
    reason: 'needed',
    parties: (seen) =>
      sellerVat('an intra-community supply')(seen) ??
      (says(seen.buyer, 'BT-48')
        ? null
        : {
            in: seen.buyer,
            term: 'BT-48',
            message: "With an intra-community supply give the buyer's VAT number (BT-48).",
          }),
  },
  {
    family: 'G',
    code: 'G',
    name: 'export outside the EU',
    rate: 'zero',
    rows: 'one',
    reason: 'needed',
    parties: sellerVat('an export'),
  },
  {
    family: 'O',
    code: 'O',
    name: 'outside the scope of VAT',
    rate: 'none',
    rows: 'one',
    reason: 'needed',
    parties: (seen) =>
      says(seen.seller, 'BT-31') || represented(seen) || says(seen.buyer, 'BT-48')
        ? {
            term: 'BT-31',
            message: 'What is outside the scope of VAT names no VAT numbers: leave BT-31, BT-63 and BT-48 out.',
          }
        : null,
  },
  {
    family: 'IG',
    code: 'L',
    name: 'IGIC of the Canary Islands',
    rate: 'not negative',
    rows: 'by rate',
    reason: 'not allowed',
    parties: sellerKnown('IGIC'),
  },
  {
    family: 'IP',
    code: 'M',
    name: 'IPSI of Ceuta and Melilla',
    rate: 'not negative',
    rows: 'by rate',
    reason: 'not allowed',
    parties: sellerKnown('IPSI'),
  },
];

interface Carrier {
  readonly words: string;
  readonly groups: (seen: Seen) => readonly Group[];
  readonly category: TermId;
  readonly rate: TermId;
}

const LINES: Carrier = { words: 'line', groups: (seen) => seen.lines, category: 'BT-151', rate: 'BT-152' };
const ALLOWANCES: Carrier = { words: 'allowance', groups: (seen) => seen.allowances, category: 'BT-95', rate: 'BT-96' };
const CHARGES: Carrier = { words: 'charge', groups: (seen) => seen.charges, category: 'BT-102', rate: 'BT-103' };
const CARRIERS = [LINES, ALLOWANCES, CHARGES] as const;

type ByCode = ReadonlyMap<string, readonly Group[]>;
const carried = new WeakMap<Seen, ReadonlyMap<Carrier, ByCode>>();
const NONE: readonly Group[] = [];

/** What is of a category; sorted once for an invoice, as every rule of every family asks. */
function carriedBy(seen: Seen, carrier: Carrier, code: string): readonly Group[] {
  let sorted = carried.get(seen);
  if (sorted === undefined) {
    const byCode = ({ groups, category }: Carrier) => grouped(groups(seen), (one) => textOf(one, category));
    sorted = new Map(CARRIERS.map((one) => [one, byCode(one)]));
    carried.set(seen, sorted);
  }
  return sorted.get(carrier)?.get(code) ?? NONE;
}
const rowsOf = (seen: Seen, code: string) => seen.breakdown.filter((row) => textOf(row, 'BT-118') === code);

function rateFault(category: Category, one: Group, term: TermId): Fault | null {
  const text = textOf(one, term);
  if (category.rate === 'none')
    return text === ''
      ? null
      : { in: one, term, message: `What is ${category.name} has no rate: leave ${termName(term)} out.` };
  const rate = numberOf(one, term);
  if (text !== '' && rate === null) return null;
  const holds = {
    'above zero': rate !== null && rate > 0n,
    zero: rate === 0n,
    'not negative': rate !== null && rate >= 0n,
  }[category.rate];
  const found = text === '' ? 'is missing' : `is ${text}`;
  return holds
    ? null
    : { in: one, term, message: `The ${termName(term)} ${found}: for ${category.name} it is ${category.rate}.` };
}

/** Sums of one category by rate, and of all its rates. */
type Rate = bigint | null | 'all';
type Sums = ReadonlyMap<string, ReadonlyMap<Rate, bigint | null>>;
const known = new WeakMap<Seen, Sums>();

const AMOUNTS: Readonly<Record<string, TermId>> = { 'BT-151': 'BT-131', 'BT-95': 'BT-92', 'BT-102': 'BT-99' };

/** What lines, allowances and charges come to by category and by category and rate, added up once for an invoice. */
function sumsOf(seen: Seen): Sums {
  const made = known.get(seen);
  if (made !== undefined) return made;
  const sums = new Map<string, Map<Rate, bigint | null>>();
  const add = (of: Map<Rate, bigint | null>, rate: Rate, amount: bigint | null) => {
    const before = of.has(rate) ? (of.get(rate) as bigint | null) : 0n;
    of.set(rate, before === null || amount === null ? null : before + amount);
  };
  for (const carrier of CARRIERS)
    for (const one of carrier.groups(seen)) {
      const code = textOf(one, carrier.category);
      const amount = numberOrNothing(one, AMOUNTS[carrier.category] as TermId);
      const signed = carrier === ALLOWANCES && amount !== null ? -amount : amount;
      const ofCode = sums.get(code) ?? new Map<Rate, bigint | null>();
      sums.set(code, ofCode);
      add(ofCode, 'all', signed);
      add(ofCode, numberOrNothing(one, carrier.rate), signed);
    }
  known.set(seen, sums);
  return sums;
}

/** What a category comes to, of one rate or of all; null where an amount is no number. */
function comesTo(seen: Seen, code: string, rate: Rate): bigint | null {
  const sum = sumsOf(seen).get(code)?.get(rate);
  return sum === undefined ? 0n : sum;
}

function baseFault(category: Category, seen: Seen, row: Group): Fault | null {
  const stated = numberOf(row, 'BT-116');
  const byRate = category.rows === 'by rate';
  const sum = comesTo(seen, category.code, byRate ? numberOrNothing(row, 'BT-119') : 'all');
  if (stated === null || sum === null) return null;
  // The published artefacts allow less than one of the currency where a base is summed by rate.
  const holds = byRate ? absolute(stated - sum) < unit : toCents(sum) === stated;
  return holds
    ? null
    : {
        in: row,
        message: `The base is ${show(stated)}, but what is ${category.name} comes to ${show(sum)}: correct the base (BT-116) or the lines.`,
      };
}

/** Looks at groups one by one, as far as anybody asks. */
function* faultsOf(groups: Iterable<Group>, look: (one: Group) => Fault | null): Generator<Fault> {
  for (const one of groups) {
    const fault = look(one);
    if (fault !== null) yield fault;
  }
}

function familyOf(category: Category): readonly Rule[] {
  const { family, code, name } = category;
  const id = (number: string) => `BR-${family}-${number}`;
  const reasonSaid = (row: Group) => says(row, 'BT-120') || says(row, 'BT-121');
  return [
    en(id('01'), {
      term: 'BG-23',
      demands: `What is ${name} has ${category.rows === 'one' ? 'exactly one row' : 'a row for its rate'} in the VAT breakdown.`,
      test: (seen) => {
        const used = CARRIERS.some((carrier) => carriedBy(seen, carrier, code).length > 0);
        const rows = rowsOf(seen, code).length;
        if (!used && rows === 0) return [];
        const holds = category.rows === 'one' ? rows === 1 : rows > 0;
        return faultUnless(holds, () => ({
          message:
            rows === 0
              ? `Add a row of category ${code} to the VAT breakdown.`
              : `Put all of category ${code} into one row of the VAT breakdown.`,
        }));
      },
    }),
    ...CARRIERS.map((carrier, i) =>
      en(id(`0${i + 2}`), {
        term: 'BT-31',
        demands: `With ${carrier.words}s that are ${name} the parties' tax numbers are ${code === 'O' ? 'left out' : 'given'}.`,
        test: function* (seen) {
          const fault = carriedBy(seen, carrier, code).length === 0 ? null : category.parties(seen);
          if (fault !== null) yield fault;
        },
      }),
    ),
    ...CARRIERS.map((carrier, i) =>
      en(id(`0${i + 5}`), {
        term: carrier.rate,
        demands:
          category.rate === 'none'
            ? `A ${carrier.words} that is ${name} has no rate.`
            : `The rate of a ${carrier.words} that is ${name} is ${category.rate}.`,
        test: (seen) => faultsOf(carriedBy(seen, carrier, code), (one) => rateFault(category, one, carrier.rate)),
      }),
    ),
    en(id('08'), {
      term: 'BT-116',
      demands: `The base of what is ${name} is its lines less allowances plus charges${category.rows === 'one' ? '' : ', rate by rate'}.`,
      test: (seen) => faultsOf(rowsOf(seen, code), (row) => baseFault(category, seen, row)),
    }),
    en(id('09'), {
      term: 'BT-117',
      demands:
        category.rows === 'one'
          ? `The tax of what is ${name} is zero.`
          : `The tax of what is ${name} is its base times its rate.`,
      test: (seen) =>
        faultsOf(rowsOf(seen, code), (row) => {
          if (category.rows === 'by rate')
            return fitsRate(row, 'BT-116', 'BT-119', 'BT-117')
              ? null
              : {
                  in: row,
                  message: `The VAT of ${textOf(row, 'BT-117')} is not ${textOf(row, 'BT-119')} % of ${textOf(row, 'BT-116')}: correct one of them.`,
                };
          const tax = numberOf(row, 'BT-117');
          return tax === null || tax === 0n
            ? null
            : { in: row, message: `What is ${name} has no tax: write 0 instead of ${textOf(row, 'BT-117')}.` };
        }),
    }),
    en(id('10'), {
      term: 'BT-120',
      demands: `The row of what is ${name} ${category.reason === 'needed' ? 'says why no VAT is charged, in words or by code' : 'gives no reason for an exemption'}.`,
      test: (seen) =>
        rowsOf(seen, code)
          .filter((row) => reasonSaid(row) !== (category.reason === 'needed'))
          .map((row) => ({
            in: row,
            message:
              category.reason === 'needed'
                ? 'Say why no VAT is charged: in words (BT-120) or by code (BT-121).'
                : 'Leave the reason for an exemption out (BT-120, BT-121).',
          })),
    }),
  ];
}

/** O stands alone: nothing else may be beside it. */
const ALONE: readonly Rule[] = [
  en('BR-O-11', {
    term: 'BG-23',
    demands: 'With a row outside the scope of VAT there is no other row in the VAT breakdown.',
    test: (seen) =>
      faultUnless(rowsOf(seen, 'O').length === 0 || seen.breakdown.length === rowsOf(seen, 'O').length, () => ({
        message: 'Put what is outside the scope of VAT on an invoice of its own.',
      })),
  }),
  ...CARRIERS.map((carrier, i) =>
    en(`BR-O-1${i + 2}`, {
      term: carrier.category,
      demands: `With a row outside the scope of VAT every ${carrier.words} is outside it.`,
      test: (seen) =>
        rowsOf(seen, 'O').length === 0
          ? []
          : carrier
              .groups(seen)
              .filter((one) => !['O', ''].includes(textOf(one, carrier.category)))
              .map((one) => ({ in: one, message: `This ${carrier.words} is taxed: put it on another invoice.` })),
    }),
  ),
];

const DELIVERED: readonly Rule[] = [
  en('BR-IC-11', {
    term: 'BT-72',
    demands: 'An intra-community supply says when it was delivered, or its invoicing period.',
    test: (seen) => {
      const period = groupsOf(seen.invoice, 'BG-14').some((one) => says(one, 'BT-73') || says(one, 'BT-74'));
      return faultUnless(rowsOf(seen, 'K').length === 0 || says(seen.invoice, 'BT-72') || period, () => ({
        message: 'Enter the date of delivery (BT-72) or the invoicing period (BG-14).',
      }));
    },
  }),
  en('BR-IC-12', {
    term: 'BT-80',
    demands: 'An intra-community supply says to which country it was delivered.',
    test: (seen) =>
      faultUnless(
        rowsOf(seen, 'K').length === 0 || groupsOf(seen.invoice, 'BG-15').some((one) => says(one, 'BT-80')),
        () => ({ message: 'Enter the country delivered to (BT-80).' }),
      ),
  }),
];

export const FAMILIES: readonly Rule[] = [...CATEGORIES.flatMap(familyOf), ...ALONE, ...DELIVERED];
