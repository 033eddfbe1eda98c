import type { IssuedDocument } from '@/core/documents/issued';
import type { Currency } from '@/core/kernel/currency';
import { grouped } from '@/core/kernel/grouped';
import { type Minor, NOTHING, plus, total } from '@/core/kernel/money';
import type { Certificate } from '@/core/parties/certificate';
import type { Customer } from '@/core/parties/customer';
import type { TaxEntry } from '@/core/returns/taxEntry';
import { inOneUnion } from '@/core/tax/unions';
import { goodsAndServices } from './goodsOf';
import type { Report } from './report';
import type { ReportSpan } from './span';
import { tableOf } from './tableOf';
import { isVerified } from './taxEvidence';

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
  triangular: Minor;
}

type Supplies = Pick<Supplied, 'goods' | 'services' | 'triangular'>;

/**
 * What of a document goes to another country of the union without tax: goods by category K, services by reverse charge, and
 * goods by reverse charge, which are those of a middleman in a triangular supply (Directive 2006/112/EC, art. 141 and 197).
 */
function suppliedWithin(document: IssuedDocument): Supplies | null {
  const { seller, buyer, taxPoint } = document.content;
  const [from, to] = [seller.address.country, buyer.address.country];
  if (from === to || !inOneUnion(from, to, taxPoint)) return null;
  const within = goodsAndServices(document, ['K']);
  const reversed = goodsAndServices(document, ['AE']);
  return {
    goods: plus(within.goods, within.services),
    services: reversed.services,
    triangular: reversed.goods,
  };
}

const NO_SUPPLIES: Supplies = { goods: NOTHING, services: NOTHING, triangular: NOTHING };

/**
 * The recapitulative list: supplies to other countries of the union by the number of the customer; goods, services and
 * triangular supplies apart (Directive 2006/112/EC, art. 262 to 264). Numbers that were never verified are named.
 */
export function recapitulativeList({ from, until, home, documents, customers }: RecapitulativeMaterial): Report {
  const found = new Map<string, Supplied>();
  for (const document of documents) {
    const supplies = suppliedWithin(document);
    if (document.cancelled !== null || supplies === null || Object.values(supplies).every((one) => one === NOTHING))
      continue;
    const { content, customerId, customerName } = document;
    const number = content.buyer.taxNumber;
    const key = number || customerId;
    const sum = found.get(key) ?? { number, name: customerName, customerId, ...NO_SUPPLIES };
    for (const kind of ['goods', 'services', 'triangular'] as const) sum[kind] = plus(sum[kind], supplies[kind]);
    found.set(key, sum);
  }
  const all = [...found].sort(([a], [b]) => (a < b ? -1 : 1));
  const unverified = all.filter(
    ([, one]) => one.number !== '' && !isVerified(customers.get(one.customerId), one.number),
  );
  const without = all.filter(([, { number }]) => number === '');
  const named = (rows: typeof all) =>
    rows.map(([, { name, number }]) => [name, number].filter(Boolean).join(' ')).join(', ');
  return {
    title: 'Recapitulative list',
    from,
    until,
    currency: home,
    tables: [
      tableOf({
        caption: 'Supplies inside the union',
        rows: all,
        keyOf: ([key]) => key,
        behind: ([, { customerId }]) => ({ kind: 'customer', id: customerId }),
        columns: ({ words, amounts }) => [
          words('Tax number', ([, { number }]) => number || 'no number'),
          words('Customer', ([, { name }]) => name),
          amounts('Goods', home, ([, { goods }]) => goods),
          amounts('Services', home, ([, { services }]) => services),
          amounts('Triangular', home, ([, { triangular }]) => triangular),
        ],
        nothing: 'Nothing was supplied to other countries of the union.',
      }),
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
      tableOf({
        caption: 'Sales exempt by certificate',
        rows: once,
        keyOf: ({ id }) => id,
        behind: ({ documentId }) => ({ kind: 'document', id: documentId }),
        columns: ({ words, days, amounts }) => [
          words('Document', ({ documentNumber }) => documentNumber),
          days('Tax point', ({ taxPoint }) => taxPoint),
          words('Customer', ({ customerName }) => customerName),
          words('Certificate', ({ certificate }) => certificate || 'none'),
          words('Reason', ({ certificate }) => byNumber.get(certificate)?.reason ?? ''),
          days('Valid until', ({ certificate }) => byNumber.get(certificate)?.until ?? ''),
          amounts('Net', home, ({ base }) => base),
        ],
        nothing: 'Nothing was sold exempt by certificate.',
      }),
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
  const rows = periods.flatMap(({ name, registration, rows: own }) =>
    own.map((row, i) => ({ ...row, name, registration, key: `${registration}|${name}|${i}` })),
  );
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
      tableOf({
        caption: 'By period and code',
        rows,
        keyOf: ({ key }) => key,
        columns: ({ words, amounts }) => [
          words('Period', ({ name }) => name),
          words('Registration', ({ registration }) => registration),
          words('Tax code', ({ codeName }) => codeName),
          words('Rate', ({ percent }) => `${percent} %`),
          amounts('Taxable amount', home, ({ base }) => base),
          amounts('Tax', home, ({ tax }) => tax),
        ],
        nothing: 'No tax fell due in these periods.',
      }),
    ],
    notes: [],
  };
}
