import type { IssuedDocument } from '@/core/documents/issued';
import type { Currency } from '@/core/kernel/currency';
import { writeDate } from '@/core/kernel/date';
import { type Minor, NOTHING, plus } from '@/core/kernel/money';
import type { Customer } from '@/core/parties/customer';
import { type Span, spanName } from '@/core/returns/calendar';
import type { TaxEntry } from '@/core/returns/taxEntry';
import type { Category } from '@/core/tax/calcTypes';
import { goodsAndServices } from './goodsOf';
import type { Report } from './report';
import type { ReportSpan } from './span';
import { type ColumnOf, type Columns, tableOf } from './tableOf';

type Numbered = Pick<Customer, 'taxNumbers'>;

/** True where the registry of tax numbers has answered that the number is valid. */
export const isVerified = (customer: Numbered | undefined, number: string): boolean =>
  customer?.taxNumbers.some((one) => one.number === number && one.check?.result === 'valid') ?? false;

export interface EvidenceMaterial extends ReportSpan {
  readonly home: Currency;
  /** Documents with tax points between the days. */
  readonly documents: readonly IssuedDocument[];
  readonly customers: ReadonlyMap<string, Numbered>;
  /** Names of the files that are kept with a document, by its id. */
  readonly files: ReadonlyMap<string, readonly string[]>;
}

interface Untaxed {
  readonly document: IssuedDocument;
  readonly net: Minor;
}

function untaxedBy(
  documents: readonly IssuedDocument[],
  categories: readonly Category[],
  netOf: (parts: ReturnType<typeof goodsAndServices>) => Minor,
): readonly Untaxed[] {
  return documents.flatMap((document) => {
    const net = document.cancelled === null ? netOf(goodsAndServices(document, categories)) : NOTHING;
    return net === NOTHING ? [] : [{ document, net }];
  });
}

/** What the registry said of the number that a document states, in words. */
function checkWords(customer: Numbered | undefined, number: string): string {
  const check = customer?.taxNumbers.find((one) => one.number === number)?.check ?? null;
  if (check === null || check.result === 'unreachable') return 'not verified';
  const said = `${check.result} ${writeDate(check.on)}`;
  return check.reference === '' ? said : `${said}, ${check.reference}`;
}

const listed = (rows: readonly Untaxed[]): string => rows.map(({ document }) => document.number).join(', ');

/**
 * What sales without tax rest on: reverse charge on the customer's verified number, goods to other countries on papers of
 * their transport, which are kept as files with the document (Directive 2006/112/EC, art. 138, 146, 196). What is missing is
 * named.
 */
export function taxEvidence({ from, until, home, documents, customers, files }: EvidenceMaterial): Report {
  const reversed = untaxedBy(documents, ['AE'], ({ goods, services }) => plus(goods, services));
  const moved = untaxedBy(documents, ['K', 'G'], ({ goods }) => goods);
  const numberOf = ({ document }: Untaxed) => document.content.buyer.taxNumber;
  const customerOf = ({ document }: Untaxed) => customers.get(document.customerId);
  const filesOf = ({ document }: Untaxed) => files.get(document.id) ?? [];
  const parts = {
    keyOf: ({ document }: Untaxed) => document.id,
    behind: ({ document }: Untaxed) => ({ kind: 'document', id: document.id }) as const,
  };
  const first = ({ words, days }: Columns<Untaxed>): readonly ColumnOf<Untaxed>[] => [
    words('Document', ({ document }) => document.number),
    days('Tax point', ({ document }) => document.content.taxPoint),
    words('Customer', ({ document }) => document.customerName),
    words('Country', ({ document }) => document.content.buyer.address.country),
  ];
  const unverified = reversed.filter((one) => !isVerified(customerOf(one), numberOf(one)));
  // A credit note goes back to its invoice, which has the papers.
  const withoutPaper = moved.filter((one) => filesOf(one).length === 0 && one.document.kind !== 'credit-note');
  return {
    title: 'Reverse charge and export',
    from,
    until,
    currency: home,
    tables: [
      tableOf({
        caption: 'Reverse charge',
        rows: reversed,
        ...parts,
        columns: (make) => [
          ...first(make),
          make.words('Tax number', (one) => numberOf(one) || 'no number'),
          make.words('Registry', (one) => checkWords(customerOf(one), numberOf(one))),
          make.amounts('Net', home, ({ net }) => net),
        ],
        nothing: 'Nothing was sold with reverse charge.',
      }),
      tableOf({
        caption: 'Goods exported or supplied inside the union',
        rows: moved,
        ...parts,
        columns: (make) => [
          ...first(make),
          make.words('Evidence kept', (one) => filesOf(one).join(', ') || 'none'),
          make.amounts('Net', home, ({ net }) => net),
        ],
        nothing: 'No goods were exported or supplied to other countries of the union.',
      }),
    ],
    notes: [
      ...(unverified.length > 0 ? [`The customer’s number is not verified: ${listed(unverified)}.`] : []),
      ...(withoutPaper.length > 0
        ? [`No evidence of transport is kept with ${listed(withoutPaper)}. Attach it to the document.`]
        : []),
    ],
  };
}

/** A late entry with the period that reports it, and its own, which was filed before. */
export interface LateEntry {
  readonly entry: TaxEntry;
  readonly registration: string;
  readonly reportedIn: Span;
  readonly own: Span;
}

export interface LateMaterial extends ReportSpan {
  readonly home: Currency;
  /** Entries of periods that begin between the days. */
  readonly late: readonly LateEntry[];
}

/** Entries that a later return reports, because that of their own period was filed already, each with that reason. */
export function lateEntries({ from, until, home, late }: LateMaterial): Report {
  return {
    title: 'Late entries',
    from,
    until,
    currency: home,
    tables: [
      tableOf({
        caption: 'Reported later',
        rows: late,
        keyOf: ({ entry }) => entry.id,
        behind: ({ entry }) => ({ kind: 'document', id: entry.documentId }),
        columns: ({ words, days, amounts }) => [
          words('Document', ({ entry }) => entry.documentNumber),
          days('Tax point', ({ entry }) => entry.taxPoint),
          words('Customer', ({ entry }) => entry.customerName),
          words('Registration', ({ registration }) => registration),
          words('Reported in', ({ reportedIn }) => spanName(reportedIn)),
          words('Why', ({ own }) => `${spanName(own)} was filed`),
          amounts('Taxable amount', home, ({ entry }) => entry.base),
          amounts('Tax', home, ({ entry }) => entry.tax),
        ],
        nothing: 'Every entry is reported in its own period.',
      }),
    ],
    notes: [],
  };
}
