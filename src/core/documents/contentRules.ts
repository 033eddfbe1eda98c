import { daysBetween } from '@/core/kernel/date';
import { needsReason } from '@/core/tax/taxCode';
import type { Content } from './content';
import type { Finding } from './finding';

type Said = Pick<Finding, 'field' | 'message'>;

interface ContentRule {
  readonly id: string;
  readonly severity: Finding['severity'];
  readonly source: string;
  readonly test: (content: Content) => readonly Said[];
}

const LAW = 'Directive 2006/112/EC, Art. 226';

const unless = (holds: boolean, field: string, message: string): readonly Said[] => (holds ? [] : [{ field, message }]);

/** Rules that hold for every EU VAT invoice. */
export const CONTENT_RULES: readonly ContentRule[] = [
  {
    id: 'EU-226-3',
    severity: 'must',
    source: `${LAW}(3)`,
    test: (c) => unless(c.seller.taxNumber !== '', 'registration.number', 'Our tax number must stand on the invoice.'),
  },
  {
    id: 'EU-226-5',
    severity: 'must',
    source: `${LAW}(5)`,
    test: (c) =>
      unless(
        c.buyer.name !== '' && c.buyer.address.city !== '',
        'customer.address',
        'The full name and address of the customer must stand on the invoice.',
      ),
  },
  {
    id: 'EU-226-7',
    severity: 'note',
    source: `${LAW}(7)`,
    test: (c) => {
      const days = daysBetween(c.taxPoint, c.issueDate);
      if (days === 0) return [];
      const apart = `${Math.abs(days)} ${Math.abs(days) === 1 ? 'day' : 'days'} ${days > 0 ? 'before' : 'after'}`;
      return unless(false, 'taxPoint', `Tax point is ${apart} the issue date: the tax point decides rate and period.`);
    },
  },
  {
    id: 'EU-226-11A',
    severity: 'must',
    source: `${LAW}(11), (11a)`,
    test: (c) =>
      c.taxes
        .filter((tax) => needsReason(tax.category) && tax.legend === '')
        .map((tax) => ({
          field: 'lines[0].taxCode',
          message: `${tax.name} charges no tax: the invoice must say why. Give the code its words in Setup.`,
        })),
  },
  {
    id: 'EU-222',
    severity: 'should',
    source: 'Directive 2006/112/EC, Art. 222',
    test: (c) =>
      unless(
        daysBetween(c.taxPoint, c.issueDate) <= 45,
        'issueDate',
        'An invoice is due by the 15th of the month after the tax point; this one is later.',
      ),
  },
];

/** What the content rules find; empty when all hold. */
export function contentFindings(content: Content): readonly Finding[] {
  return CONTENT_RULES.flatMap(({ id, severity, source, test }) =>
    test(content).map((said): Finding => ({ rule: id, severity, source, ...said })),
  );
}
