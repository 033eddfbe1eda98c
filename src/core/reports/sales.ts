import { bookFigures } from '@/core/documents/bookFigures';
import { signed } from '@/core/documents/content';
import type { IssuedDocument } from '@/core/documents/issued';
import { KINDS } from '@/core/documents/kinds';
import type { Currency } from '@/core/kernel/currency';
import { type Minor, minus, NOTHING, plus, total } from '@/core/kernel/money';
import { halfUp } from '@/core/kernel/rounding';
import { share } from '@/core/kernel/share';
import type { Behind, Report } from './report';
import type { ReportSpan } from './span';

/** What sales are told apart by. */
export type SalesBy = 'customer' | 'item' | 'tag' | 'salesperson' | 'jurisdiction';

export interface SalesMaterial extends ReportSpan {
  readonly home: Currency;
  /** Documents that post, issued between the days; cancelled ones are passed over. */
  readonly documents: readonly IssuedDocument[];
  /** Those of as long a time before. */
  readonly before: readonly IssuedDocument[];
  /** Names of items by id. */
  readonly items: ReadonlyMap<string, string>;
}

/** What of a document counts for one of what sales are told apart by, in home currency, signed. */
export interface SalesPart {
  readonly key: string;
  readonly name: string;
  readonly base: Minor;
  readonly tax: Minor;
  readonly behind?: Behind;
}

const WITHOUT: Readonly<Record<SalesBy, string>> = {
  customer: 'no customer',
  item: 'no item',
  tag: 'no tag',
  salesperson: 'no salesperson',
  jurisdiction: 'no jurisdiction',
};

/** By item: the net of each line, and its share of the tax of its code; allowances and charges stand by themselves. */
function byItem({ content, figures }: IssuedDocument, items: SalesMaterial['items']): readonly SalesPart[] {
  const home = bookFigures(content, figures);
  const pieces = [
    ...content.lines.map((line, i) => ({ line, net: home.lineNets[i] ?? NOTHING, tax: line.tax })),
    ...figures.adjustments.map((part, i) => ({ line: null, net: home.adjustmentNets[i] ?? NOTHING, tax: part.tax })),
  ];
  return home.groups.flatMap((group) => {
    const own = pieces.filter(({ tax }) => tax === group.tax);
    const weights = own.map(({ net }) => (net < 0n ? -net : net));
    const taxes = weights.some((weight) => weight > 0n)
      ? share(group.taxAmount, weights)
      : own.map((_, i) => (i === 0 ? group.taxAmount : NOTHING));
    return own.map(({ line, net }, i): SalesPart => {
      const key = line === null ? '~' : (line.itemId ?? '');
      const name = line === null ? 'Discounts and charges on whole documents' : (items.get(key) ?? WITHOUT.item);
      return { key, name, base: signed(content, net), tax: signed(content, (taxes[i] ?? NOTHING) as Minor) };
    });
  });
}

/** By jurisdiction: the tax of each component there, and the base once for each. */
function byJurisdiction({ content, figures }: IssuedDocument): readonly SalesPart[] {
  const home = bookFigures(content, figures);
  return home.groups.flatMap((group): SalesPart[] => {
    const components = content.taxes.find(({ code }) => code === group.tax)?.components ?? [];
    const places = new Map<string, { name: string; tax: Minor }>();
    for (const [i, { jurisdictionId, jurisdictionName }] of components.entries()) {
      const known = places.get(jurisdictionId)?.tax ?? NOTHING;
      places.set(jurisdictionId, { name: jurisdictionName, tax: plus(known, group.components[i] ?? NOTHING) });
    }
    if (places.size === 0)
      return [
        { key: '', name: 'No tax charged', base: signed(content, group.net), tax: signed(content, group.taxAmount) },
      ];
    return [...places].map(([key, { name, tax }]) => ({
      key,
      name,
      base: signed(content, group.net),
      tax: signed(content, tax),
    }));
  });
}

function whole(document: IssuedDocument, key: string, name: string, behind?: Behind): SalesPart {
  const { content, figures } = document;
  const { net, taxAmount } = bookFigures(content, figures);
  return { key, name, base: signed(content, net), tax: signed(content, taxAmount), ...(behind && { behind }) };
}

/** What a document counts for; of several tags it counts for each. */
export function salesParts(document: IssuedDocument, by: SalesBy, items: SalesMaterial['items']): readonly SalesPart[] {
  const { customerId, customerName, content, tags } = document;
  if (document.cancelled !== null || !KINDS[document.kind].posts || document.kind === 'opening') return [];
  switch (by) {
    case 'customer':
      return [whole(document, customerId, customerName || WITHOUT.customer, { kind: 'customer', id: customerId })];
    case 'salesperson':
      return [whole(document, content.salesperson ?? '', content.salesperson || WITHOUT.salesperson)];
    case 'tag':
      return tags.length === 0 ? [whole(document, '', WITHOUT.tag)] : tags.map((tag) => whole(document, tag, tag));
    case 'item':
      return byItem(document, items);
    case 'jurisdiction':
      return byJurisdiction(document);
  }
}

interface Sum {
  readonly name: string;
  readonly behind?: Behind;
  base: Minor;
  tax: Minor;
  before: Minor;
}

/** Share of a whole in percent, to one decimal; empty where there is none. */
function shareOf(part: Minor, all: Minor): string {
  if (all === 0n) return '';
  const tenths = halfUp({ n: (all < 0n ? -part : part) * 1000n, d: all < 0n ? -all : all });
  const size = tenths < 0n ? -tenths : tenths;
  return `${tenths < 0n ? '−' : ''}${size / 10n}.${size % 10n} %`;
}

const HEADS: Readonly<Record<SalesBy, readonly [head: string, title: string]>> = {
  customer: ['Customer', 'Sales by customer'],
  item: ['Item', 'Sales by item'],
  tag: ['Tag', 'Sales by tag'],
  salesperson: ['Salesperson', 'Sales by salesperson'],
  jurisdiction: ['Jurisdiction', 'Sales by jurisdiction'],
};

/** As many are drawn; all stand in the table. */
const CHARTED = 10;

/** Sales between two days by what they are told apart by: net, tax, share, and the net of as long a time before. */
export function salesReport(material: SalesMaterial, by: SalesBy): Report {
  const { from, until, home, documents, before, items } = material;
  const sums = new Map<string, Sum>();
  const add = (document: IssuedDocument, into: (sum: Sum, part: SalesPart) => void) => {
    for (const part of salesParts(document, by, items)) {
      const { key, name, behind } = part;
      const sum = sums.get(key) ?? { name, ...(behind && { behind }), base: NOTHING, tax: NOTHING, before: NOTHING };
      into(sum, part);
      sums.set(key, sum);
    }
  };
  for (const document of documents)
    add(document, (sum, { base, tax }) => {
      sum.base = plus(sum.base, base);
      sum.tax = plus(sum.tax, tax);
    });
  for (const document of before)
    add(document, (sum, { base }) => {
      sum.before = plus(sum.before, base);
    });
  const rows = [...sums].sort(([, a], [, b]) =>
    a.base === b.base ? (a.name < b.name ? -1 : 1) : a.base > b.base ? -1 : 1,
  );
  const all = total(rows.map(([, { base }]) => base));
  const money = (amount: Minor) => ({ amount, currency: home });
  const [head, title] = HEADS[by];
  // What is counted for several of them has no sum of its own.
  const overlaps = by === 'tag' || by === 'jurisdiction';
  const largest = rows.slice(0, CHARTED).map(([, sum]) => sum);
  return {
    title,
    from,
    until,
    currency: home,
    ...(largest.length > 1 && {
      chart: {
        kind: 'bars' as const,
        caption: rows.length > CHARTED ? `The ${CHARTED} largest` : 'Net',
        names: largest.map(({ name }) => name),
        series: [
          { name: 'Net', amounts: largest.map((sum) => sum.base) },
          { name: 'Net before', amounts: largest.map((sum) => sum.before) },
        ],
      },
    }),
    tables: [
      {
        caption: 'Sales',
        columns: [
          { head, kind: 'words' },
          { head: 'Net', kind: 'amount' },
          { head: 'Tax', kind: 'amount' },
          ...(overlaps ? [] : [{ head: 'Share', kind: 'words' as const }]),
          { head: 'Net before', kind: 'amount' },
          { head: 'Change', kind: 'amount' },
        ],
        rows: rows.map(([key, sum]) => ({
          key,
          cells: [
            sum.name,
            money(sum.base),
            money(sum.tax),
            ...(overlaps ? [] : [shareOf(sum.base, all)]),
            money(sum.before),
            money(minus(sum.base, sum.before)),
          ],
          ...(sum.behind && { behind: sum.behind }),
        })),
        sums: overlaps
          ? null
          : [
              'Total',
              money(all),
              money(total(rows.map(([, { tax }]) => tax))),
              all === 0n ? '' : '100.0 %',
              money(total(rows.map(([, sum]) => sum.before))),
              money(total(rows.map(([, sum]) => minus(sum.base, sum.before)))),
            ],
        nothing: 'Nothing was sold between these days.',
      },
    ],
    notes: [],
  };
}
