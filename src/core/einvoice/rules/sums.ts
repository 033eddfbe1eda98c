import { isCountry } from '@/core/kernel/country';
import { type Group, groupsOf, termsOf, textOf } from '../model';
import { absolute, numberOf, numberOrNothing, product, show, sumOf, toCents, unit } from '../numbers';
import { TERMS, type TermId, termName } from '../terms';
import { en, type Fault, faultUnless, needs, type Rule, type Seen, says, valuesOf } from './rule';

/* How figures and conditions hang together: BR-CO and BR-DEC of EN 16931-1. */

/** Fails, showing the sum, when a total is not what its parts come to. Nothing is said where a part is no number. */
function addsUp(id: string, term: TermId, demands: string, parts: (seen: Seen) => readonly (bigint | null)[]): Rule {
  return en(id, {
    term,
    demands,
    test: (seen) => {
      const stated = amountOf(seen, term);
      const given = parts(seen);
      if (stated === null || given.some((part) => part === null)) return [];
      const numbers = given as readonly bigint[];
      const sum = toCents(numbers.reduce((all, part) => all + part, 0n));
      return faultUnless(sum === stated, () => {
        const shown = numbers.map((part, i) =>
          i === 0 ? show(part) : part < 0n ? `− ${show(-part)}` : `+ ${show(part)}`,
        );
        return {
          message: `The ${termName(term)} is ${show(stated)}, but ${shown.join(' ')} = ${show(sum)}: correct the total or its parts.`,
        };
      });
    },
  });
}

const minus = (number: bigint | null): bigint | null => (number === null ? null : -number);
/** Totals that every invoice has; where one is missing BR-12 to BR-15 say so, and sums with it say nothing. */
const ALWAYS: ReadonlySet<TermId> = new Set<TermId>(['BT-106', 'BT-109', 'BT-112', 'BT-115']);

/** A total; nothing for an optional one that is missing, null for one that can't be reckoned with. */
function amountOf({ invoice }: Seen, id: TermId): bigint | null {
  return ALWAYS.has(id) ? numberOf(invoice, id) : numberOrNothing(invoice, id);
}

const ofInvoice = (id: TermId) => (seen: Seen) => amountOf(seen, id);

/** Not more than one of the currency apart, as the published artefacts of the standard compare a tax with base × rate. */
export function fitsRate(row: Group, base: TermId, rate: TermId, tax: TermId): boolean {
  const [b, r, t] = [numberOf(row, base), numberOrNothing(row, rate), numberOf(row, tax)];
  if (b === null || r === null || t === null) return true;
  const computed = toCents(product(absolute(b), r) / 100n);
  if (toCents(r) / unit === 0n && r < unit / 2n) return toCents(t) / unit === 0n && absolute(t) < unit / 2n;
  return absolute(t) - unit < computed && absolute(t) + unit > computed;
}

function periodSaysADay(id: string, periods: (seen: Seen) => readonly Group[], start: TermId, end: TermId): Rule {
  return en(id, {
    term: start,
    demands: 'A period has a first day, a last day or both.',
    test: (seen) =>
      periods(seen)
        .filter((period) => !says(period, start) && !says(period, end))
        .map((period) => ({
          in: period,
          message: 'Enter the first or the last day of the period, or leave the period out.',
        })),
  });
}

/** Greece writes EL in front of its VAT numbers. */
const prefixed = (number: string) => isCountry(number.slice(0, 2).toUpperCase()) || /^(EL|XI)/i.test(number);

/** BR-DEC rules by the amount that may have two decimals at most. */
const DECIMALS: readonly (readonly [string, TermId])[] = [
  ['BR-DEC-01', 'BT-92'],
  ['BR-DEC-02', 'BT-93'],
  ['BR-DEC-05', 'BT-99'],
  ['BR-DEC-06', 'BT-100'],
  ['BR-DEC-09', 'BT-106'],
  ['BR-DEC-10', 'BT-107'],
  ['BR-DEC-11', 'BT-108'],
  ['BR-DEC-12', 'BT-109'],
  ['BR-DEC-13', 'BT-110'],
  ['BR-DEC-14', 'BT-112'],
  ['BR-DEC-15', 'BT-111'],
  ['BR-DEC-16', 'BT-113'],
  ['BR-DEC-17', 'BT-114'],
  ['BR-DEC-18', 'BT-115'],
  ['BR-DEC-19', 'BT-116'],
  ['BR-DEC-20', 'BT-117'],
  ['BR-DEC-23', 'BT-131'],
  ['BR-DEC-24', 'BT-136'],
  ['BR-DEC-25', 'BT-137'],
  ['BR-DEC-27', 'BT-141'],
  ['BR-DEC-28', 'BT-142'],
];

/** Groups in which a term of BR-DEC stands. */
function groupsWith(seen: Seen, id: TermId): readonly Group[] {
  const number = Number(id.slice(3));
  if (number >= 92 && number <= 98) return seen.allowances;
  if (number >= 99 && number <= 105) return seen.charges;
  if (number >= 116 && number <= 121) return seen.breakdown;
  if (number === 131) return seen.lines;
  if (number >= 136) return seen.lines.flatMap((line) => groupsOf(line, number <= 140 ? 'BG-27' : 'BG-28'));
  return [seen.invoice];
}

function twoDecimals([id, term]: readonly [string, TermId]): Rule {
  return en(id, {
    term,
    demands: `The ${termName(term)} has two decimals at most.`,
    test: function* (seen) {
      for (const { in: group, one } of valuesOf(groupsWith(seen, term), term))
        if (/\.\d{3,}$/.test(one.value))
          yield {
            in: group,
            at: one.at,
            message: `The ${TERMS.get(term)?.name} is ${one.value}: round it to two decimals.`,
          };
    },
  });
}

export const SUMS: readonly Rule[] = [
  en('BR-CO-03', {
    term: 'BT-7',
    demands: 'The tax point is given as a date or as a code, not both.',
    test: ({ invoice }) =>
      faultUnless(!says(invoice, 'BT-7') || !says(invoice, 'BT-8'), () => ({
        message: 'Enter the tax point as a date (BT-7) or as a code (BT-8), not both.',
      })),
  }),
  needs('BR-CO-04', (seen) => seen.lines, 'A line', 'BT-151'),
  en('BR-CO-09', {
    term: 'BT-31',
    demands: 'VAT numbers begin with the code of the country that gave them.',
    test: function* (seen) {
      const numbers: readonly (readonly [readonly Group[], TermId])[] = [
        [[seen.seller], 'BT-31'],
        [groupsOf(seen.invoice, 'BG-11'), 'BT-63'],
        [[seen.buyer], 'BT-48'],
      ];
      for (const [groups, term] of numbers)
        for (const { in: group, one } of valuesOf(groups, term))
          if (!prefixed(one.value))
            yield {
              in: group,
              term,
              at: one.at,
              message: `“${one.value}” does not begin with a country code: write the ${termName(term)} as in IE1234567X.`,
            };
    },
  }),
  addsUp('BR-CO-10', 'BT-106', 'The sum of line net amounts is what the lines come to.', (seen) => [
    sumOf(seen.lines, 'BT-131'),
  ]),
  addsUp('BR-CO-11', 'BT-107', 'The sum of allowances is what the allowances come to.', (seen) => [
    sumOf(seen.allowances, 'BT-92'),
  ]),
  addsUp('BR-CO-12', 'BT-108', 'The sum of charges is what the charges come to.', (seen) => [
    sumOf(seen.charges, 'BT-99'),
  ]),
  addsUp('BR-CO-13', 'BT-109', 'The total without VAT is the lines less allowances plus charges.', (seen) => [
    ofInvoice('BT-106')(seen),
    minus(ofInvoice('BT-107')(seen)),
    ofInvoice('BT-108')(seen),
  ]),
  addsUp('BR-CO-14', 'BT-110', 'The total VAT is what the rows of the VAT breakdown come to.', (seen) => [
    sumOf(seen.breakdown, 'BT-117'),
  ]),
  addsUp('BR-CO-15', 'BT-112', 'The total with VAT is the total without it and the VAT.', (seen) => [
    ofInvoice('BT-109')(seen),
    ofInvoice('BT-110')(seen),
  ]),
  addsUp('BR-CO-16', 'BT-115', 'The amount due is the total with VAT less what is paid, plus rounding.', (seen) => [
    ofInvoice('BT-112')(seen),
    minus(ofInvoice('BT-113')(seen)),
    ofInvoice('BT-114')(seen),
  ]),
  en('BR-CO-17', {
    term: 'BT-117',
    demands: 'The tax of a row of the VAT breakdown is its base times its rate.',
    test: (seen) =>
      seen.breakdown
        .filter((row) => !fitsRate(row, 'BT-116', 'BT-119', 'BT-117'))
        .map((row): Fault => {
          const [base, rate] = [numberOf(row, 'BT-116') ?? 0n, numberOf(row, 'BT-119') ?? 0n];
          return {
            in: row,
            message: `The VAT is ${textOf(row, 'BT-117')}, but ${show(base)} × ${show(rate)} % = ${show(toCents(product(base, rate) / 100n))}: correct the tax, the base or the rate.`,
          };
        }),
  }),
  en('BR-CO-18', {
    term: 'BG-23',
    demands: 'An invoice has at least one row of the VAT breakdown.',
    test: (seen) => faultUnless(seen.breakdown.length > 0, () => ({ message: 'Enter the VAT breakdown (BG-23).' })),
  }),
  periodSaysADay('BR-CO-19', (seen) => groupsOf(seen.invoice, 'BG-14'), 'BT-73', 'BT-74'),
  periodSaysADay('BR-CO-20', (seen) => seen.lines.flatMap((line) => groupsOf(line, 'BG-26')), 'BT-134', 'BT-135'),
  needs('BR-CO-21', (seen) => seen.allowances, 'An allowance', 'BT-97', 'BT-98'),
  needs('BR-CO-22', (seen) => seen.charges, 'A charge', 'BT-104', 'BT-105'),
  needs(
    'BR-CO-23',
    (seen) => seen.lines.flatMap((l) => groupsOf(l, 'BG-27')),
    'An allowance of a line',
    'BT-139',
    'BT-140',
  ),
  needs(
    'BR-CO-24',
    (seen) => seen.lines.flatMap((l) => groupsOf(l, 'BG-28')),
    'A charge of a line',
    'BT-144',
    'BT-145',
  ),
  en('BR-CO-25', {
    term: 'BT-9',
    demands: 'When something is to be paid, there is a due date or there are payment terms.',
    test: ({ invoice }) =>
      faultUnless((numberOf(invoice, 'BT-115') ?? 0n) <= 0n || says(invoice, 'BT-9') || says(invoice, 'BT-20'), () => ({
        message: 'Enter the due date (BT-9) or the payment terms (BT-20).',
      })),
  }),
  en('BR-CO-26', {
    term: 'BT-29',
    demands: 'The seller can be told by an identifier, a legal registration or a VAT number.',
    test: ({ seller }) =>
      faultUnless(
        (['BT-29', 'BT-30', 'BT-31'] as const).some((id) => termsOf(seller, id).length > 0),
        () => ({
          in: seller,
          message: 'Enter an identifier (BT-29), a legal registration (BT-30) or the VAT number (BT-31) of the seller.',
        }),
      ),
  }),
  ...DECIMALS.map(twoDecimals),
];
