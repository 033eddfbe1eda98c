import { CODES, CURRENCY_CODES } from '../codes';
import { type Group, groupsOf, schemeOf, termsOf, textOf } from '../model';
import { absolute, hundredths, numberOf, numberOrNothing, product, show, sumOf, unit } from '../numbers';
import { type GroupId, type TermId, termName } from '../terms';
import { childOf, descend, type XmlNode } from '../xml/node';
import { type AskedFor, elementsIn } from './elements';
import { eachOf, type Fault, faultUnless, inList, peppol, type Rule, type Seen, says } from './rule';

/* Rules of the public Peppol BIS Billing 3.0 profile. */

export const SPECIFICATION = 'urn:cen.eu:en16931:2017#compliant#urn:fdc:peppol.eu:2017:poacc:billing:3.0';
const PROCESS = /^urn:fdc:peppol\.eu:2017:poacc:billing:\d{2}:1\.0$/;

const GERMAN = (seen: Seen) =>
  [groupsOf(seen.seller, 'BG-5'), groupsOf(seen.buyer, 'BG-8')].every((groups, i) =>
    groups.some((one) => textOf(one, i === 0 ? 'BT-40' : 'BT-55') === 'DE'),
  );

/** The profile compares sums within two hundredths. */
const SLACK = hundredths(2n);
const near = (a: bigint, b: bigint) => absolute(a - b) <= SLACK;

interface Adjusted {
  readonly groups: (seen: Seen) => readonly Group[];
  readonly amount: TermId;
  readonly base: TermId;
  readonly percent: TermId;
}

const ofLines = (id: GroupId) => (seen: Seen) => seen.lines.flatMap((line) => groupsOf(line, id));
const ADJUSTED: readonly Adjusted[] = [
  { groups: (seen) => seen.allowances, amount: 'BT-92', base: 'BT-93', percent: 'BT-94' },
  { groups: (seen) => seen.charges, amount: 'BT-99', base: 'BT-100', percent: 'BT-101' },
  { groups: ofLines('BG-27'), amount: 'BT-136', base: 'BT-137', percent: 'BT-138' },
  { groups: ofLines('BG-28'), amount: 'BT-141', base: 'BT-142', percent: 'BT-143' },
];

/** One look at every allowance and charge, of the document and of its lines. */
function adjusted(id: string, demands: string, fault: (one: Group, terms: Adjusted) => Fault | null): Rule {
  return peppol(id, {
    term: 'BT-92',
    demands,
    test: function* (seen) {
      for (const terms of ADJUSTED)
        for (const one of terms.groups(seen)) {
          const found = fault(one, terms);
          if (found !== null) yield { in: one, ...found };
        }
    },
  });
}

/** Elements of some names, anywhere in a file. */
function named({ file }: Seen, ...names: readonly AskedFor[]): readonly XmlNode[] {
  return file === null ? [] : names.flatMap((name) => elementsIn(file.root).named.get(name) ?? []);
}

const atMostOne = (id: string, term: TermId, groups: (seen: Seen) => readonly Group[], demands: string) =>
  peppol(id, {
    term,
    demands,
    test: function* (seen) {
      for (const one of groups(seen)) {
        const second = termsOf(one, term)[1];
        if (second !== undefined) yield { in: one, at: second.at, message: `Enter the ${termName(term)} once only.` };
      }
    },
  });

const withinPeriod = (id: string, day: 'BT-134' | 'BT-135') =>
  peppol(id, {
    term: day,
    demands: `The ${termName(day)} lies within the invoicing period.`,
    test: function* (seen) {
      const [period] = groupsOf(seen.invoice, 'BG-14');
      if (period === undefined) return;
      const [from, until] = [textOf(period, 'BT-73'), textOf(period, 'BT-74')];
      for (const one of ofLines('BG-26')(seen)) {
        const found = textOf(one, day);
        if (found !== '' && ((from !== '' && found < from) || (until !== '' && found > until)))
          yield {
            in: one,
            message: `${found} is outside the invoicing period ${from} to ${until}: correct one of the two.`,
          };
      }
    },
  });

/** Categories that need their own exemption code, by rule. */
const EXEMPTION_CODES: readonly (readonly [string, string, string])[] = [
  ['P0104', 'G', 'VATEX-EU-G'],
  ['P0105', 'O', 'VATEX-EU-O'],
  ['P0106', 'K', 'VATEX-EU-IC'],
  ['P0107', 'AE', 'VATEX-EU-AE'],
];
/** Schemes for second-hand goods and the like, which stand in category E. */
const MARGIN_CODES: readonly (readonly [string, string])[] = [
  ['P0108', 'VATEX-EU-D'],
  ['P0109', 'VATEX-EU-F'],
  ['P0110', 'VATEX-EU-I'],
  ['P0111', 'VATEX-EU-J'],
];

const DAY = /^\d{4}-\d{2}-\d{2}$/;

export const PEPPOL_RULES: readonly Rule[] = [
  peppol('PEPPOL-EN16931-R001', {
    term: 'BT-23',
    demands: 'The business process is given.',
    test: ({ invoice }) =>
      faultUnless(says(invoice, 'BT-23'), () => ({
        message: 'Enter the business process (BT-23): urn:fdc:peppol.eu:2017:poacc:billing:01:1.0.',
      })),
  }),
  peppol('PEPPOL-EN16931-R002', {
    term: 'BG-1',
    demands: 'There is one note at most, but for documents within Germany.',
    test: (seen) =>
      faultUnless(groupsOf(seen.invoice, 'BG-1').length < 2 || GERMAN(seen), () => ({
        message: 'Put all notes into one (BT-22).',
      })),
  }),
  peppol('PEPPOL-EN16931-R003', {
    term: 'BT-10',
    demands: 'There is a buyer reference or an order reference.',
    test: ({ invoice }) =>
      faultUnless(says(invoice, 'BT-10') || says(invoice, 'BT-13'), () => ({
        message: 'An e-invoice needs a buyer reference (BT-10) or an order number (BT-13): ask the customer.',
      })),
  }),
  peppol('PEPPOL-EN16931-R004', {
    term: 'BT-24',
    demands: 'The specification identifier is that of the profile.',
    test: ({ invoice }) =>
      faultUnless(!says(invoice, 'BT-24') || textOf(invoice, 'BT-24').startsWith(SPECIFICATION), () => ({
        message: `Begin the specification identifier (BT-24) with ${SPECIFICATION}.`,
      })),
  }),
  peppol('PEPPOL-EN16931-R005', {
    term: 'BT-6',
    demands: 'The accounting currency for tax is another one than that of the document.',
    test: ({ invoice }) =>
      faultUnless(!says(invoice, 'BT-6') || textOf(invoice, 'BT-6') !== textOf(invoice, 'BT-5'), () => ({
        message: 'Leave the accounting currency for tax (BT-6) out: it is the currency of the document.',
      })),
  }),
  atMostOne('PEPPOL-EN16931-R006', 'BT-18', (seen) => [seen.invoice], 'There is one invoiced object at most.'),
  peppol('PEPPOL-EN16931-R007', {
    term: 'BT-23',
    demands: 'The business process is written as urn:fdc:peppol.eu:2017:poacc:billing:NN:1.0.',
    test: ({ invoice }) =>
      faultUnless(!says(invoice, 'BT-23') || PROCESS.test(textOf(invoice, 'BT-23')), () => ({
        message: 'Write the business process (BT-23) as urn:fdc:peppol.eu:2017:poacc:billing:01:1.0.',
      })),
  }),
  peppol('PEPPOL-EN16931-R008', {
    term: 'BT-1',
    demands: 'There are no empty elements.',
    test: function* ({ file }) {
      if (file === null) return;
      for (const node of elementsIn(file.root).empty)
        yield { at: node, message: 'This element is empty: fill it or leave it out.' };
    },
  }),
  peppol('PEPPOL-EN16931-R010', {
    term: 'BT-49',
    demands: "The buyer's electronic address is given.",
    test: ({ buyer }) =>
      faultUnless(says(buyer, 'BT-49'), () => ({
        in: buyer,
        message: 'This customer has no e-invoice address yet (BT-49).',
      })),
  }),
  peppol('PEPPOL-EN16931-R020', {
    term: 'BT-34',
    demands: "The seller's electronic address is given.",
    test: ({ seller }) =>
      faultUnless(says(seller, 'BT-34'), () => ({
        in: seller,
        message: 'The business has no e-invoice address yet (BT-34).',
      })),
  }),
  adjusted(
    'PEPPOL-EN16931-R040',
    'An allowance or charge by percentage is its base times the percentage.',
    (one, t) => {
      const [amount, base, percent] = [numberOf(one, t.amount), numberOf(one, t.base), numberOf(one, t.percent)];
      if (amount === null || base === null || percent === null) return null;
      const computed = product(base, percent) / 100n;
      return near(amount, computed)
        ? null
        : {
            term: t.amount,
            message: `The amount is ${show(amount)}, but ${show(base)} × ${show(percent)} % = ${show(computed)}: correct one of them.`,
          };
    },
  ),
  adjusted('PEPPOL-EN16931-R041', 'An allowance or charge by percentage names its base.', (one, t) =>
    says(one, t.percent) && !says(one, t.base) ? { term: t.base, message: `Enter the ${termName(t.base)}.` } : null,
  ),
  adjusted('PEPPOL-EN16931-R042', 'An allowance or charge with a base names its percentage.', (one, t) =>
    says(one, t.base) && !says(one, t.percent)
      ? { term: t.percent, message: `Enter the ${termName(t.percent)}.` }
      : null,
  ),
  peppol('PEPPOL-EN16931-R043', {
    term: 'BG-20',
    demands: 'Whether it is a charge is said by true or false.',
    test: (seen) =>
      named(seen, 'cbc:ChargeIndicator', 'udt:Indicator')
        .filter((node) => node.text !== 'true' && node.text !== 'false')
        .map((at) => ({ at, message: `Write true for a charge or false for an allowance instead of “${at.text}”.` })),
  }),
  peppol('PEPPOL-EN16931-R044', {
    term: 'BT-147',
    demands: 'A price has no charge.',
    test: (seen) =>
      [
        ...named(seen, 'cac:Price').map((price) => descend(price, 'cac:AllowanceCharge', 'cbc:ChargeIndicator')),
        ...named(seen, 'ram:AppliedTradeAllowanceCharge').map((one) =>
          descend(one, 'ram:ChargeIndicator', 'udt:Indicator'),
        ),
      ]
        .filter((node) => node?.text === 'true')
        .map((at) => ({ at, message: 'A price may be discounted, never charged for: put the charge on the line.' })),
  }),
  peppol('PEPPOL-EN16931-R046', {
    term: 'BT-146',
    demands: 'A net price is the gross price less its discount.',
    test: function* (seen) {
      for (const line of seen.lines) {
        const [net, gross, less] = [
          numberOf(line, 'BT-146'),
          numberOf(line, 'BT-148'),
          numberOrNothing(line, 'BT-147'),
        ];
        if (net !== null && gross !== null && less !== null && net !== gross - less)
          yield {
            in: line,
            message: `The net price is ${show(net)}, but ${show(gross)} − ${show(less)} = ${show(gross - less)}: correct one of them.`,
          };
      }
    },
  }),
  peppol('PEPPOL-EN16931-R051', {
    term: 'BT-5',
    demands: 'All amounts are in the currency of the document, but for the total tax in the accounting currency.',
    test: function* (seen) {
      if (seen.file === null) return;
      const currency = textOf(seen.invoice, 'BT-5');
      const inTax = new Set(termsOf(seen.invoice, 'BT-111').map(({ at }) => at));
      for (const node of elementsIn(seen.file.root).amounts) {
        const found = node.attributes.currencyID;
        if (found !== currency && !inTax.has(node))
          yield { at: node, message: `This amount is in ${found}, the document in ${currency}: correct the currency.` };
      }
    },
  }),
  peppol('PEPPOL-EN16931-R053', {
    term: 'BT-110',
    demands: 'One total of tax has the breakdown.',
    test: (seen) => {
      const totals = named(seen, 'cac:TaxTotal').filter((one) => childOf(one, 'cac:TaxSubtotal') !== undefined);
      return faultUnless(totals.length < 2, () => ({
        at: totals[1],
        message: 'Put the whole VAT breakdown into one total of tax.',
      }));
    },
  }),
  peppol('PEPPOL-EN16931-R054', {
    term: 'BT-111',
    demands:
      'One total of tax without a breakdown is there when, and only when, there is an accounting currency for tax.',
    test: (seen) => {
      if (seen.file === null || seen.file.syntax !== 'ubl') return [];
      const alone = named(seen, 'cac:TaxTotal').filter((one) => childOf(one, 'cac:TaxSubtotal') === undefined);
      const wanted = says(seen.invoice, 'BT-6') ? 1 : 0;
      const plain = seen.breakdown.length === 0 ? 1 : 0;
      return faultUnless(alone.length === wanted || alone.length === wanted + plain, () => ({
        at: alone.at(-1),
        message: `Give ${wanted === 1 ? 'one total of tax in the accounting currency' : 'no total of tax without a breakdown'}.`,
      }));
    },
  }),
  peppol('PEPPOL-EN16931-R055', {
    term: 'BT-111',
    demands: 'The total tax has the same sign in both currencies.',
    test: ({ invoice }) => {
      const [tax, home] = [numberOf(invoice, 'BT-110'), numberOf(invoice, 'BT-111')];
      const opposed = tax !== null && home !== null && ((tax < 0n && home > 0n) || (tax > 0n && home < 0n));
      return faultUnless(!opposed, () => ({
        message: 'Enter the tax in the accounting currency (BT-111) the sign of the tax (BT-110).',
      }));
    },
  }),
  peppol('PEPPOL-EN16931-R061', {
    term: 'BT-89',
    demands: 'A direct debit names its mandate.',
    test: ({ invoice }) =>
      groupsOf(invoice, 'BG-16')
        .filter((means) => ['49', '59'].includes(textOf(means, 'BT-81')) && !says(invoice, 'BT-89'))
        .map((means) => ({ in: means, message: 'Enter the mandate of the direct debit (BT-89).' })),
  }),
  atMostOne('PEPPOL-EN16931-R080', 'BT-11', (seen) => [seen.invoice], 'There is one project reference at most.'),
  atMostOne('PEPPOL-EN16931-R100', 'BT-128', (seen) => seen.lines, 'A line has one invoiced object at most.'),
  peppol('PEPPOL-EN16931-R101', {
    term: 'BT-128',
    demands: 'A reference of a line is to an invoiced object (130).',
    test: (seen) =>
      named(seen, 'cac:DocumentReference')
        .filter((node) => childOf(node, 'cbc:DocumentTypeCode')?.text !== '130')
        .map((at) => ({ at, message: 'Say 130 as the type of this reference, or leave it out.' })),
  }),
  withinPeriod('PEPPOL-EN16931-R110', 'BT-134'),
  withinPeriod('PEPPOL-EN16931-R111', 'BT-135'),
  peppol('PEPPOL-EN16931-R120', {
    term: 'BT-131',
    demands: 'A line is its quantity times its price, plus charges and less allowances.',
    test: function* (seen) {
      for (const line of seen.lines) {
        const [net, quantity, price] = [numberOf(line, 'BT-131'), numberOf(line, 'BT-129'), numberOf(line, 'BT-146')];
        const base = says(line, 'BT-149') ? numberOf(line, 'BT-149') : unit;
        const charges = sumOf(groupsOf(line, 'BG-28'), 'BT-141');
        const allowances = sumOf(groupsOf(line, 'BG-27'), 'BT-136');
        if (net === null || quantity === null || price === null || base === null || base === 0n) continue;
        if (charges === null || allowances === null) continue;
        const computed = (quantity * price) / base + charges - allowances;
        if (!near(net, computed))
          yield {
            in: line,
            message: `The line is ${show(net)}, but ${show(quantity)} × ${show(price)}${says(line, 'BT-149') ? ` ÷ ${show(base)}` : ''}${charges === 0n ? '' : ` + ${show(charges)}`}${allowances === 0n ? '' : ` − ${show(allowances)}`} = ${show(computed)}: correct one of them.`,
          };
      }
    },
  }),
  peppol('PEPPOL-EN16931-R121', {
    term: 'BT-149',
    demands: 'The quantity that a price is for is above zero.',
    test: function* (seen) {
      for (const line of seen.lines) {
        const base = numberOf(line, 'BT-149');
        if (base !== null && base <= 0n)
          yield { in: line, message: `A price for ${show(base)} means nothing: give a quantity above zero.` };
      }
    },
  }),
  peppol('PEPPOL-EN16931-R130', {
    term: 'BT-150',
    demands: 'The unit of a price is the unit of the line.',
    test: function* (seen) {
      for (const line of seen.lines)
        if (says(line, 'BT-150') && textOf(line, 'BT-150') !== textOf(line, 'BT-130'))
          yield {
            in: line,
            message: `The price is by ${textOf(line, 'BT-150')}, the line in ${textOf(line, 'BT-130')}: use one unit.`,
          };
    },
  }),
  peppol('PEPPOL-EN16931-F001', {
    term: 'BT-2',
    demands: 'Days are written as YYYY-MM-DD.',
    test: (seen) =>
      named(
        seen,
        'cbc:IssueDate',
        'cbc:DueDate',
        'cbc:TaxPointDate',
        'cbc:StartDate',
        'cbc:EndDate',
        'cbc:ActualDeliveryDate',
      )
        .filter((node) => node.text !== '' && !DAY.test(node.text))
        .map((at) => ({ at, message: `Write the day as 2026-11-23 instead of “${at.text}”.` })),
  }),
  inList('PEPPOL-EN16931-CL001', peppol, CODES.mimeTypes, 'BT-125', eachOf('BG-24'), 'version'),
  inList('PEPPOL-EN16931-CL002', peppol, CODES.allowanceReasons, 'BT-98', (seen) => seen.allowances),
  inList('PEPPOL-EN16931-CL003', peppol, CODES.chargeReasons, 'BT-105', (seen) => seen.charges),
  inList('PEPPOL-EN16931-CL006', peppol, CODES.taxPointCodes, 'BT-8', (seen) => [seen.invoice]),
  inList('PEPPOL-EN16931-CL007', peppol, CURRENCY_CODES, 'BT-5', (seen) => [seen.invoice]),
  peppol('PEPPOL-EN16931-CL008', {
    term: 'BT-34',
    demands: `The scheme of an electronic address is a code of ${CODES.eas.name}.`,
    test: function* ({ seller, buyer }) {
      for (const [party, term] of [
        [seller, 'BT-34'],
        [buyer, 'BT-49'],
      ] as const) {
        const scheme = schemeOf(party, term);
        if (says(party, term) && !CODES.eas.has(scheme))
          yield {
            in: party,
            term,
            message: `“${scheme}” is no code of ${CODES.eas.name}: choose one for the ${termName(term)}.`,
          };
      }
    },
  }),
  peppol('PEPPOL-EN16931-P0100', {
    term: 'BT-3',
    demands: `An invoice has a type of ${CODES.peppolInvoiceTypes.name}.`,
    test: (seen) =>
      faultUnless(
        seen.creditNote || !says(seen.invoice, 'BT-3') || CODES.peppolInvoiceTypes.has(textOf(seen.invoice, 'BT-3')),
        () => ({ message: `An invoice can't be of type ${textOf(seen.invoice, 'BT-3')} here: use 380.` }),
      ),
  }),
  peppol('PEPPOL-EN16931-P0101', {
    term: 'BT-3',
    demands: `A credit note has a type of ${CODES.peppolCreditNoteTypes.name}.`,
    test: (seen) =>
      faultUnless(
        !seen.creditNote ||
          !says(seen.invoice, 'BT-3') ||
          CODES.peppolCreditNoteTypes.has(textOf(seen.invoice, 'BT-3')),
        () => ({ message: `A credit note can't be of type ${textOf(seen.invoice, 'BT-3')} here: use 381.` }),
      ),
  }),
  ...EXEMPTION_CODES.map(([id, category, code]) =>
    peppol(`PEPPOL-EN16931-${id}`, {
      term: 'BT-121',
      demands: `An exemption code of category ${category} is ${code}.`,
      test: (seen) =>
        seen.breakdown
          .filter((row) => textOf(row, 'BT-118') === category)
          .filter((row) => says(row, 'BT-121') && textOf(row, 'BT-121').toUpperCase() !== code)
          .map((row) => ({ in: row, message: `The exemption code of category ${category} is ${code}.` })),
    }),
  ),
  ...MARGIN_CODES.map(([id, code]) =>
    peppol(`PEPPOL-EN16931-${id}`, {
      term: 'BT-118',
      demands: `What carries ${code} is of category E.`,
      test: (seen) =>
        seen.breakdown
          .filter((row) => textOf(row, 'BT-121').toUpperCase() === code && textOf(row, 'BT-118') !== 'E')
          .map((row) => ({ in: row, message: `${code} belongs to category E: correct the category (BT-118).` })),
    }),
  ),
  peppol('PEPPOL-EN16931-P0112', {
    term: 'BT-3',
    demands: 'Types 326 and 384 are for documents within Germany.',
    test: (seen) =>
      faultUnless(!['326', '384'].includes(textOf(seen.invoice, 'BT-3')) || GERMAN(seen), () => ({
        message: 'Use 380, or 381 for a credit note: this type is for German parties alone.',
      })),
  }),
];
