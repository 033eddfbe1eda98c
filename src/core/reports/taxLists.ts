import { bookFigures } from '@/core/documents/bookFigures';
import { signed } from '@/core/documents/content';
import type { IssuedDocument } from '@/core/documents/issued';
import type { Currency } from '@/core/kernel/currency';
import { grouped } from '@/core/kernel/grouped';
import { type Minor, NOTHING, plus, total } from '@/core/kernel/money';
import type { Certificate } from '@/core/parties/certificate';
import type { Customer } from '@/core/parties/customer';
import type { TaxEntry } from '@/core/returns/taxEntry';
import { inOneUnion } from '@/core/tax/unions';
import type { Report, ReportRow } from './report';
import type { ReportSpan } from './span';

export interface RecapitulativeMaterial extends ReportSpan {
  readonly home: Currency;
  /** Documents with tax points between the days, credit notes by their own. */
  readonly documents: readonly IssuedDocument[];
  readonly customers: ReadonlyMap<string, Pick<Customer, 'taxNumbers'>>;
}

interface Supplied {
  readonly number: string;
  readonly name: string;
  readonly customerId: string;
  goods: Minor;
  services: Minor;
}

/** What of a document goes to another country of the union without tax: goods by category K, services by reverse charge. */
function suppliedWithin({ content, figures }: IssuedDocument): { readonly goods: Minor; readonly services: Minor } {
  const { seller, buyer, taxPoint } = content;
  const [from, to] = [seller.address.country, buyer.address.country];
  if (from === to || !inOneUnion(from, to, taxPoint)) return { goods: NOTHING, services: NOTHING };
  const { groups } = bookFigures(content, figures);
  const netOf = (category: 'K' | 'AE') =>
    total(
      groups.flatMap((group) =>
        content.taxes.find(({ code }) => code === group.tax)?.category === category ? [signed(content, group.net)] : [],
      ),
    );
  return { goods: netOf('K'), services: netOf('AE') };
}

/**
 * The recapitulative list: supplies to other countries of the union by the number of the customer, goods and services apart
 * (Directive 2006/112/EC, art. 262 to 264). Numbers that were never verified are named.
 */
export function recapitulativeList({ from, until, home, documents, customers }: RecapitulativeMaterial): Report {
  const found = new Map<string, Supplied>();
  for (const document of documents) {
    const { goods, services } = suppliedWithin(document);
    if (document.cancelled !== null || (goods === NOTHING && services === NOTHING)) continue;
    const { content, customerId, customerName } = document;
    const number = content.buyer.taxNumber;
    const key = number || customerId;
    const sum = found.get(key) ?? { number, name: customerName, customerId, goods: NOTHING, services: NOTHING };
    sum.goods = plus(sum.goods, goods);
    sum.services = plus(sum.services, services);
    found.set(key, sum);
  }
  const all = [...found].sort(([a], [b]) => (a < b ? -1 : 1));
  const isVerified = ({ customerId, number }: Supplied): boolean =>
    customers.get(customerId)?.taxNumbers.some((one) => one.number === number && one.check?.result === 'valid') ??
    false;
  const money = (amount: Minor) => ({ amount, currency: home });
  const unverified = all.filter(([, one]) => one.number !== '' && !isVerified(one));
  const without = all.filter(([, { number }]) => number === '');
  const named = (rows: typeof all) =>
    rows.map(([, { name, number }]) => [name, number].filter(Boolean).join(' ')).join(', ');
  return {
    title: 'Recapitulative list',
    from,
    until,
    currency: home,
    tables: [
      {
        caption: 'Supplies inside the union',
        columns: [
          { head: 'Tax number', kind: 'words' },
          { head: 'Customer', kind: 'words' },
          { head: 'Goods', kind: 'amount' },
          { head: 'Services', kind: 'amount' },
        ],
        rows: all.map(
          ([key, { number, name, customerId, goods, services }]): ReportRow => ({
            key,
            cells: [number || 'no number', name, money(goods), money(services)],
            behind: { kind: 'customer', id: customerId },
          }),
        ),
        sums: [
          'Total',
          '',
          money(total(all.map(([, { goods }]) => goods))),
          money(total(all.map(([, { services }]) => services))),
        ],
        nothing: 'Nothing was supplied to other countries of the union.',
      },
    ],
    notes: [
      ...(without.length > 0 ? [`No tax number is known of ${named(without)}.`] : []),
      ...(unverified.length > 0 ? [`Never verified: ${named(unverified)}.`] : []),
    ],
  };
}

export interface ExemptMaterial extends ReportSpan {
  readonly home: Currency;
  /** Entries of returns whose tax points lie between the days, and that say a customer was exempt. */
  readonly entries: readonly TaxEntry[];
  readonly certificates: readonly Certificate[];
}

/** Exempt sales with the certificate that each rests on, its reason and validity; missing paper is named. */
export function exemptSales({ from, until, home, entries, certificates }: ExemptMaterial): Report {
  const own = entries.filter(({ kind, partOfJurisdiction }) => kind === 'exempt' && partOfJurisdiction === 0);
  const byNumber = new Map(certificates.map((one) => [one.number, one]));
  // A document says it of each jurisdiction; its base counts once for each code.
  const once = [...grouped(own, ({ documentId, code }) => `${documentId}|${code}`).values()].flatMap(
    ([first]) => first ?? [],
  );
  const money = (amount: Minor) => ({ amount, currency: home });
  const lapsed = once.filter(({ certificate, taxPoint }) => {
    const known = byNumber.get(certificate);
    return known === undefined || (known.until !== '' && known.until < taxPoint);
  });
  return {
    title: 'Exempt sales',
    from,
    until,
    currency: home,
    tables: [
      {
        caption: 'Sales exempt by certificate',
        columns: [
          { head: 'Document', kind: 'words' },
          { head: 'Tax point', kind: 'date' },
          { head: 'Customer', kind: 'words' },
          { head: 'Certificate', kind: 'words' },
          { head: 'Reason', kind: 'words' },
          { head: 'Valid until', kind: 'date' },
          { head: 'Net', kind: 'amount' },
        ],
        rows: once.map((entry): ReportRow => {
          const known = byNumber.get(entry.certificate);
          return {
            key: entry.id,
            cells: [
              entry.documentNumber,
              entry.taxPoint,
              entry.customerName,
              entry.certificate || 'none',
              known?.reason ?? '',
              known?.until ?? '',
              money(entry.base),
            ],
            behind: { kind: 'document', id: entry.documentId },
          };
        }),
        sums: ['Total', '', '', '', '', '', money(total(once.map(({ base }) => base)))],
        nothing: 'Nothing was sold exempt by certificate.',
      },
    ],
    notes:
      lapsed.length === 0
        ? []
        : [`No valid certificate is on file for ${lapsed.map(({ documentNumber }) => documentNumber).join(', ')}.`],
  };
}

export interface OutputTaxMaterial extends ReportSpan {
  readonly home: Currency;
  /** Rows of returns by the name of their period, oldest first. */
  readonly periods: readonly {
    readonly name: string;
    readonly registration: string;
    readonly rows: readonly {
      readonly codeName: string;
      readonly percent: string;
      readonly base: Minor;
      readonly tax: Minor;
    }[];
  }[];
}

/** Output tax by period and code. */
export function outputTaxReport({ from, until, home, periods }: OutputTaxMaterial): Report {
  const money = (amount: Minor) => ({ amount, currency: home });
  const rows = periods.flatMap(({ name, registration, rows: own }) =>
    own.map(
      ({ codeName, percent, base, tax }, i): ReportRow => ({
        key: `${registration}|${name}|${i}`,
        cells: [name, registration, codeName, `${percent} %`, money(base), money(tax)],
      }),
    ),
  );
  const all = periods.flatMap((period) => period.rows);
  const names = [...new Set(periods.map(({ name }) => name))];
  const registrations = [...new Set(periods.map(({ registration }) => registration))];
  const taxOf = (name: string, registration: string) =>
    total(
      periods.flatMap((one) =>
        one.name === name && one.registration === registration ? one.rows.map(({ tax }) => tax) : [],
      ),
    );
  return {
    title: 'Output tax',
    from,
    until,
    currency: home,
    ...(names.length > 1 && {
      chart: {
        kind: 'bars' as const,
        caption: 'Tax by period',
        names,
        series: registrations.map((registration) => ({
          name: registration,
          amounts: names.map((name) => taxOf(name, registration)),
        })),
      },
    }),
    tables: [
      {
        caption: 'By period and code',
        columns: [
          { head: 'Period', kind: 'words' },
          { head: 'Registration', kind: 'words' },
          { head: 'Tax code', kind: 'words' },
          { head: 'Rate', kind: 'words' },
          { head: 'Taxable amount', kind: 'amount' },
          { head: 'Tax', kind: 'amount' },
        ],
        rows,
        sums: ['Total', '', '', '', money(total(all.map(({ base }) => base))), money(total(all.map(({ tax }) => tax)))],
        nothing: 'No tax fell due in these periods.',
      },
    ],
    notes: [],
  };
}
