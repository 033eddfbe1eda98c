import type { Currency } from '@/core/kernel/currency';
import { type Minor, minus } from '@/core/kernel/money';
import type { Withheld } from '@/core/settlement/withholding';
import type { Report } from './report';
import type { ReportSpan } from './span';
import { tableOf } from './tableOf';

export interface WithheldMaterial extends ReportSpan {
  readonly home: Currency;
  /** What was kept back between the days and stands, oldest first. */
  readonly withheld: readonly Withheld[];
}

const lacking = ({ needsCertificate, home, certified }: Withheld): Minor =>
  needsCertificate ? minus(home, certified) : (0n as Minor);

/** Tax that customers kept back between two days: what certificates cover, and what is not yet claimed. */
export function withholdingReport({ from, until, home, withheld }: WithheldMaterial): Report {
  const missing = withheld.filter((one) => lacking(one) > 0n);
  return {
    title: 'Tax withheld by customers',
    from,
    until,
    currency: home,
    tables: [
      tableOf({
        caption: 'Withheld',
        rows: withheld,
        keyOf: ({ id }) => id,
        behind: ({ documentId }) => ({ kind: 'document', id: documentId }),
        columns: ({ words, days, amounts }) => [
          words('Document', ({ documentNumber }) => documentNumber),
          words('Receipt', ({ receiptNumber }) => receiptNumber),
          days('Date', ({ date }) => date),
          words('Customer', ({ customerName }) => customerName),
          words('Type', ({ typeName }) => typeName),
          amounts('Withheld', home, (one) => one.home),
          amounts('Certified', home, ({ certified }) => certified, { blank: true }),
          amounts('Claimed', home, ({ claimed }) => claimed, { blank: true }),
          amounts('Not yet claimed', home, (one) => minus(one.home, one.claimed), { blank: true }),
        ],
        nothing: 'No tax was withheld between these days.',
      }),
    ],
    notes:
      missing.length === 0
        ? []
        : [
            `Certificates are missing for ${[...new Set(missing.map(({ receiptNumber, documentNumber }) => receiptNumber || documentNumber))].join(', ')}.`,
          ],
  };
}
