import { groupsOf, textOf } from '../model';
import { numberOf } from '../numbers';
import { type GroupId, type TermId, termName } from '../terms';
import { atRoot, eachOf, en, faultUnless, needs, needsGroup, type Rule, type Seen, says, valuesOf } from './rule';

/* What an invoice has to say: BR-01 to BR-65 of EN 16931-1. */

const sellers = (seen: Seen) => [seen.seller];
const buyers = (seen: Seen) => [seen.buyer];
const lines = (seen: Seen) => seen.lines;
const within = (outer: GroupId, inner: GroupId) => (seen: Seen) =>
  groupsOf(seen.invoice, outer).flatMap((one) => groupsOf(one, inner));
const ofLines = (inner: GroupId) => (seen: Seen) => seen.lines.flatMap((one) => groupsOf(one, inner));

/** A period may not end before it begins. Days are compared as text, which ISO days allow. */
const inOrder = (
  id: string,
  outer: (seen: Seen) => Iterable<ReturnType<typeof groupsOf>[number]>,
  start: TermId,
  end: TermId,
) =>
  en(id, {
    term: end,
    demands: `The ${termName(end)} is not before the ${termName(start)}.`,
    test: function* (seen) {
      for (const period of outer(seen)) {
        const [from, until] = [textOf(period, start), textOf(period, end)];
        if (from !== '' && until !== '' && until < from)
          yield {
            in: period,
            message: `The period ends on ${until}, before it begins on ${from}: correct one of the two.`,
          };
      }
    },
  });

const notNegative = (id: string, term: TermId) =>
  en(id, {
    term,
    demands: `The ${termName(term)} is not negative.`,
    test: function* (seen) {
      for (const line of seen.lines)
        if ((numberOf(line, term) ?? 0n) < 0n)
          yield {
            in: line,
            message: `The ${termName(term)} is ${textOf(line, term)}: give it without a minus and turn the quantity instead.`,
          };
    },
  });

const withScheme = (id: string, term: TermId, groups: (seen: Seen) => readonly ReturnType<typeof groupsOf>[number][]) =>
  en(id, {
    term,
    demands: `The ${termName(term)} names its scheme.`,
    test: function* (seen) {
      for (const { in: group, one } of valuesOf(groups(seen), term))
        if (one.scheme === '') yield { in: group, at: one.at, message: `Name the scheme of the ${termName(term)}.` };
    },
  });

/** UNTDID 4461: 30 credit transfer, 58 SEPA credit transfer. */
const CREDIT_TRANSFER = ['30', '58'];

export const PRESENCE: readonly Rule[] = [
  needs('BR-01', atRoot, 'An invoice', 'BT-24'),
  needs('BR-02', atRoot, 'An invoice', 'BT-1'),
  needs('BR-03', atRoot, 'An invoice', 'BT-2'),
  needs('BR-04', atRoot, 'An invoice', 'BT-3'),
  needs('BR-05', atRoot, 'An invoice', 'BT-5'),
  needs('BR-06', sellers, 'The seller', 'BT-27'),
  needs('BR-07', buyers, 'The buyer', 'BT-44'),
  needsGroup('BR-08', sellers, 'The seller', 'BG-5'),
  needs('BR-09', (seen) => groupsOf(seen.seller, 'BG-5'), 'The address of the seller', 'BT-40'),
  needsGroup('BR-10', buyers, 'The buyer', 'BG-8'),
  needs('BR-11', (seen) => groupsOf(seen.buyer, 'BG-8'), 'The address of the buyer', 'BT-55'),
  needs('BR-12', atRoot, 'An invoice', 'BT-106'),
  needs('BR-13', atRoot, 'An invoice', 'BT-109'),
  needs('BR-14', atRoot, 'An invoice', 'BT-112'),
  needs('BR-15', atRoot, 'An invoice', 'BT-115'),
  needsGroup('BR-16', atRoot, 'An invoice', 'BG-25'),
  en('BR-17', {
    term: 'BT-59',
    demands: 'A payee has a name, and is another than the seller.',
    test: function* (seen) {
      for (const payee of groupsOf(seen.invoice, 'BG-10')) {
        const name = textOf(payee, 'BT-59');
        if (name === '') yield { in: payee, message: 'Enter the Payee name (BT-59).' };
        else if (name === textOf(seen.seller, 'BT-27'))
          yield { in: payee, message: 'The payee is the seller: leave the payee out, or name another one.' };
      }
    },
  }),
  needs('BR-18', eachOf('BG-11'), 'A tax representative', 'BT-62'),
  needsGroup('BR-19', eachOf('BG-11'), 'A tax representative', 'BG-12'),
  needs('BR-20', within('BG-11', 'BG-12'), 'The address of a tax representative', 'BT-69'),
  needs('BR-21', lines, 'A line', 'BT-126'),
  needs('BR-22', lines, 'A line', 'BT-129'),
  needs('BR-23', lines, 'A line', 'BT-130'),
  needs('BR-24', lines, 'A line', 'BT-131'),
  needs('BR-25', lines, 'A line', 'BT-153'),
  needs('BR-26', lines, 'A line', 'BT-146'),
  notNegative('BR-27', 'BT-146'),
  notNegative('BR-28', 'BT-148'),
  inOrder('BR-29', eachOf('BG-14'), 'BT-73', 'BT-74'),
  inOrder('BR-30', ofLines('BG-26'), 'BT-134', 'BT-135'),
  needs('BR-31', (seen) => seen.allowances, 'An allowance', 'BT-92'),
  needs('BR-32', (seen) => seen.allowances, 'An allowance', 'BT-95'),
  needs('BR-33', (seen) => seen.allowances, 'An allowance', 'BT-97', 'BT-98'),
  needs('BR-36', (seen) => seen.charges, 'A charge', 'BT-99'),
  needs('BR-37', (seen) => seen.charges, 'A charge', 'BT-102'),
  needs('BR-38', (seen) => seen.charges, 'A charge', 'BT-104', 'BT-105'),
  needs('BR-41', ofLines('BG-27'), 'An allowance of a line', 'BT-136'),
  needs('BR-42', ofLines('BG-27'), 'An allowance of a line', 'BT-139', 'BT-140'),
  needs('BR-43', ofLines('BG-28'), 'A charge of a line', 'BT-141'),
  needs('BR-44', ofLines('BG-28'), 'A charge of a line', 'BT-144', 'BT-145'),
  needs('BR-45', (seen) => seen.breakdown, 'A row of the VAT breakdown', 'BT-116'),
  needs('BR-46', (seen) => seen.breakdown, 'A row of the VAT breakdown', 'BT-117'),
  needs('BR-47', (seen) => seen.breakdown, 'A row of the VAT breakdown', 'BT-118'),
  needs(
    'BR-48',
    (seen) => seen.breakdown.filter((row) => textOf(row, 'BT-118') !== 'O'),
    'A row of the VAT breakdown other than one outside the scope of tax',
    'BT-119',
  ),
  needs('BR-49', eachOf('BG-16'), 'A payment instruction', 'BT-81'),
  needs('BR-50', within('BG-16', 'BG-17'), 'A credit transfer', 'BT-84'),
  en('BR-51', {
    term: 'BT-87',
    severity: 'warning',
    demands: 'The number of a payment card is given by its last four to six digits, never whole.',
    test: function* (seen) {
      for (const { in: card, one } of valuesOf(within('BG-16', 'BG-18')(seen), 'BT-87'))
        if (one.value.replace(/\s/g, '').length > 10)
          yield { in: card, at: one.at, message: 'Enter the last four to six digits of the card alone.' };
    },
  }),
  needs('BR-52', eachOf('BG-24'), 'A supporting document', 'BT-122'),
  en('BR-53', {
    term: 'BT-111',
    demands: 'With an accounting currency for tax, the total tax is given in it.',
    test: ({ invoice }) =>
      faultUnless(!says(invoice, 'BT-6') || says(invoice, 'BT-111'), () => ({
        message: `Enter the total tax in ${textOf(invoice, 'BT-6')} too (BT-111).`,
      })),
  }),
  en('BR-54', {
    term: 'BG-32',
    demands: 'An attribute of an item has a name and a value.',
    test: function* (seen) {
      for (const one of ofLines('BG-32')(seen))
        if (!says(one, 'BT-160') || !says(one, 'BT-161'))
          yield { in: one, message: 'Give both the name (BT-160) and the value (BT-161) of the attribute.' };
    },
  }),
  needs('BR-55', eachOf('BG-3'), 'A reference to a preceding invoice', 'BT-25'),
  needs('BR-56', eachOf('BG-11'), 'A tax representative', 'BT-63'),
  needs('BR-57', eachOf('BG-15'), 'The address delivered to', 'BT-80'),
  en('BR-61', {
    term: 'BT-84',
    demands: 'A credit transfer names the account to pay to.',
    test: function* (seen) {
      for (const means of groupsOf(seen.invoice, 'BG-16')) {
        const account = groupsOf(means, 'BG-17').some((one) => says(one, 'BT-84'));
        if (CREDIT_TRANSFER.includes(textOf(means, 'BT-81')) && !account)
          yield { in: means, message: 'Enter the account to pay to (BT-84), such as an IBAN.' };
      }
    },
  }),
  withScheme('BR-62', 'BT-34', sellers),
  withScheme('BR-63', 'BT-49', buyers),
  withScheme('BR-64', 'BT-157', lines),
  withScheme('BR-65', 'BT-158', lines),
];
