import type { Finding } from '@/core/documents/finding';
import { type Currency, exponentOf } from '@/core/kernel/currency';
import { type Decimal, decimalsOf, ratioOf, trimmed } from '@/core/kernel/decimal';
import { inMinorUnits, minor, writeMoney } from '@/core/kernel/money';
import { divide, multiply, whole } from '@/core/kernel/ratio';
import { halfUp } from '@/core/kernel/rounding';
import { extensionOf } from './fromDocument';
import type { EInvoice } from './model';

type Checked = Omit<Finding, 'rule' | 'severity' | 'source'>;

/** One rule of the standard: what it looks at and what it says when it fails. */
interface Rule {
  readonly id: string;
  readonly severity: Finding['severity'];
  readonly source: string;
  /** Nothing when it holds; else one finding for each place where it fails. */
  readonly test: (invoice: EInvoice, units: (amount: Decimal) => bigint) => readonly Checked[];
}

const EN = 'EN 16931-1';
const PEPPOL = 'Peppol BIS Billing 3.0';

const unless = (holds: boolean, field: string, message: string): readonly Checked[] =>
  holds ? [] : [{ field, message }];

/** Fails with the sum shown when `stated` is not `computed`. */
function sum(
  invoice: EInvoice,
  what: string,
  stated: Decimal,
  computed: bigint,
  how: string,
  units: (amount: Decimal) => bigint,
): readonly Checked[] {
  const money = (amount: bigint) => writeMoney(minor(amount), invoice.currency as Currency);
  return unless(
    units(stated) === computed,
    'totals',
    `${what} is ${money(units(stated))}, but ${how} gives ${money(computed)}.`,
  );
}

const addUp = (amounts: readonly Decimal[], units: (a: Decimal) => bigint): bigint =>
  amounts.reduce((all, amount) => all + units(amount), 0n);

/** What the allowances, or the charges, of a document come to. */
const adjusted = (e: EInvoice, charges: boolean, units: (a: Decimal) => bigint): bigint =>
  addUp(
    e.adjustments.flatMap(({ charge, amount }) => (charge === charges ? amount : [])),
    units,
  );

export const RULES: readonly Rule[] = [
  {
    id: 'BR-CO-10',
    severity: 'must',
    source: EN,
    test: (e, u) =>
      sum(
        e,
        'The sum of line nets',
        e.totals.lineNet,
        addUp(
          e.lines.map((l) => l.net),
          u,
        ),
        'adding the lines',
        u,
      ),
  },
  {
    // Documents carry no allowances on document level yet: BG-20 is empty, its sum must be nothing.
    id: 'BR-CO-11',
    severity: 'must',
    source: EN,
    test: (e, u) =>
      sum(e, 'The sum of allowances', e.totals.allowances, adjusted(e, false, u), 'adding the allowances', u),
  },
  {
    id: 'BR-CO-12',
    severity: 'must',
    source: EN,
    test: (e, u) => sum(e, 'The sum of charges', e.totals.charges, adjusted(e, true, u), 'adding the charges', u),
  },
  {
    id: 'BR-CO-13',
    severity: 'must',
    source: EN,
    test: (e, u) =>
      sum(
        e,
        'The total without tax',
        e.totals.withoutTax,
        u(e.totals.lineNet) - u(e.totals.allowances) + u(e.totals.charges),
        'lines less allowances plus charges',
        u,
      ),
  },
  {
    id: 'BR-CO-14',
    severity: 'must',
    source: EN,
    test: (e, u) =>
      sum(
        e,
        'The total tax',
        e.totals.tax,
        addUp(
          e.breakdown.map((b) => b.tax),
          u,
        ),
        'adding the tax breakdown',
        u,
      ),
  },
  {
    id: 'BR-CO-15',
    severity: 'must',
    source: EN,
    test: (e, u) =>
      sum(e, 'The total with tax', e.totals.withTax, u(e.totals.withoutTax) + u(e.totals.tax), 'net plus tax', u),
  },
  {
    id: 'BR-CO-16',
    severity: 'must',
    source: EN,
    test: (e, u) =>
      sum(
        e,
        'The amount due',
        e.totals.payable,
        u(e.totals.withTax) - u(e.totals.prepaid) + u(e.totals.rounding),
        'the total less prepaid plus rounding',
        u,
      ),
  },
  {
    // The published rule artefacts allow less than one unit of the currency between the two, because
    // tax taken out of a price that holds it can lie a cent from base × rate.
    id: 'BR-CO-17',
    severity: 'must',
    source: EN,
    test: (e, u) =>
      e.breakdown.flatMap((row) => {
        const computed = halfUp(divide(multiply(whole(u(row.base)), ratioOf(row.percent)), whole(100n)));
        const apart = computed - u(row.tax);
        const unit = 10n ** BigInt(exponentOf(e.currency as Currency));
        return unless(
          apart < unit && apart > -unit,
          'totals',
          `Tax of ${row.tax} does not fit ${row.percent} % of ${row.base}.`,
        );
      }),
  },
  {
    id: 'BR-16',
    severity: 'must',
    source: EN,
    test: (e) => unless(e.lines.length > 0, 'lines', 'An invoice needs at least one line.'),
  },
  {
    id: 'BR-61',
    severity: 'should',
    source: EN,
    test: (e) =>
      unless(
        e.payment !== null,
        'business.iban',
        'A credit transfer needs an IBAN: give the payment account in Setup.',
      ),
  },
  {
    id: 'BR-AE-02',
    severity: 'must',
    source: EN,
    test: (e) => taxNumbersFor(e, 'AE', 'reverse charge'),
  },
  {
    id: 'BR-IC-02',
    severity: 'must',
    source: EN,
    test: (e) => taxNumbersFor(e, 'K', 'an intra-community supply'),
  },
  {
    id: 'PEPPOL-EN16931-R003',
    severity: 'should',
    source: PEPPOL,
    test: (e) =>
      unless(
        e.buyerReference !== '' || e.orderReference !== '',
        'buyerReference',
        'An e-invoice needs a buyer reference or an order number.',
      ),
  },
  {
    id: 'PEPPOL-EN16931-R010',
    severity: 'should',
    source: PEPPOL,
    test: (e) => unless(e.buyer.endpoint !== null, 'customer.endpoint', 'This customer has no e-invoice address yet.'),
  },
  {
    id: 'PEPPOL-EN16931-R020',
    severity: 'should',
    source: PEPPOL,
    test: (e) => unless(e.seller.endpoint !== null, 'business.endpoint', 'The business has no e-invoice address yet.'),
  },
  {
    id: 'PEPPOL-EN16931-R120',
    severity: 'must',
    source: PEPPOL,
    test: (e, u) =>
      e.lines.flatMap((line, i) => {
        const computed = extensionOf(line, e.currency as Currency) - (line.allowance === null ? 0n : u(line.allowance));
        return unless(
          computed === u(line.net),
          `lines[${i}].price`,
          `Line ${line.id} is ${line.net}, but quantity × price less discount gives ${writeMoney(minor(computed), e.currency as Currency)}.`,
        );
      }),
  },
  {
    id: 'BR-DEC-23',
    severity: 'must',
    source: EN,
    test: (e) =>
      e.lines.flatMap((line, i) =>
        unless(decimalsOf(trimmed(line.net)) <= 2, `lines[${i}].price`, `Line ${line.id} has more than two decimals.`),
      ),
  },
];

function taxNumbersFor(invoice: EInvoice, category: string, what: string): readonly Checked[] {
  if (!invoice.lines.some((line) => line.category === category)) return [];
  return [
    ...unless(invoice.seller.taxNumber !== '', 'registration.number', `With ${what} our tax number must be given.`),
    ...unless(
      invoice.buyer.taxNumber !== '',
      'customer.taxNumber',
      `With ${what} the customer's tax number must be given.`,
    ),
  ];
}

/** What the rules find on an e-invoice; empty when all hold. */
export function ruleFindings(invoice: EInvoice): readonly Finding[] {
  const currency = invoice.currency as Currency;
  const units = (amount: Decimal) => {
    const { n, d } = inMinorUnits(ratioOf(amount), currency);
    return n / d;
  };
  return RULES.flatMap((rule) =>
    rule.test(invoice, units).map(
      (finding): Finding => ({
        rule: rule.id,
        severity: rule.severity,
        source: rule.source,
        ...finding,
      }),
    ),
  );
}
