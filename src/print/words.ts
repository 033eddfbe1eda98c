import type { Content } from '@/core/documents/content';
import { unitWord } from '@/core/documents/item';
import { writeDate } from '@/core/kernel/date';
import { type Minor, negated } from '@/core/kernel/money';
import { showMoney, showNumber, showPrice } from '@/core/kernel/show';
import { addressLines } from '@/core/parties/address';
import { writeIban } from '@/core/parties/iban';
import type { CalcResult } from '@/core/tax/calcTypes';

/** One printed line, all as text. */
export interface PrintedLine {
  readonly title: string;
  readonly detail: string;
  readonly quantity: string;
  readonly price: string;
  readonly less: string;
  readonly tax: string;
  readonly value: string;
}

/** Everything a printed document says, as text; layout adds nothing to it. Screen and PDF share it. */
export interface PrintedDocument {
  readonly title: string;
  readonly number: string;
  readonly currency: string;
  readonly seller: readonly string[];
  readonly buyer: readonly string[];
  /** Label and value. */
  readonly facts: readonly (readonly [string, string])[];
  readonly valueHead: string;
  readonly hasDiscounts: boolean;
  readonly lines: readonly PrintedLine[];
  /** Label and amount; the last one is the total. */
  readonly totals: readonly (readonly [string, string])[];
  /** What the customer keeps back, and the money expected then; empty when it keeps nothing back. */
  readonly withheld: readonly (readonly [string, string])[];
  readonly legends: readonly string[];
  readonly payment: readonly (readonly [string, string])[];
  readonly note: string;
  readonly conditions: string;
}

/** The document's own title. */
export function titleOf(content: Pick<Content, 'kind'>): string {
  return {
    quote: 'Quote',
    invoice: 'Invoice',
    'credit-note': 'Credit note',
    takings: 'Takings',
    opening: 'Opening item',
  }[content.kind];
}

function withheldLines(
  content: Content,
  figures: CalcResult,
  money: (amount: Minor) => string,
): readonly (readonly [string, string])[] {
  if (figures.withholding.length === 0) return [];
  const nameOf = (id: string) => content.withholding?.find((type) => type.id === id)?.name ?? id;
  return [
    ...figures.withholding.map(
      (part) => [`${nameOf(part.id)} on ${money(part.base)}`, money(negated(part.amount))] as const,
    ),
    ['Money expected', money(figures.totals.expectedCash)],
  ];
}

/** A document in words and printed figures. */
export function printed(content: Content, figures: CalcResult): PrintedDocument {
  const { currency, seller, buyer, priceMode } = content;
  const money = (amount: Minor) => showMoney(amount, currency);
  const taxName = (code: string) => content.taxes.find((tax) => tax.code === code)?.name ?? code;
  const facts: [string, string][] = [
    ['Number', content.number],
    ['Issue date', writeDate(content.issueDate)],
    ['Tax point', writeDate(content.taxPoint)],
  ];
  if (content.kind === 'invoice') facts.push(['Due', writeDate(content.dueDate)]);
  if (content.corrects)
    facts.push(['Credits invoice', `${content.corrects.number} of ${writeDate(content.corrects.issueDate)}`]);
  if (content.reason) facts.push(['Reason', content.reason]);
  if (content.buyerReference) facts.push(['Your reference', content.buyerReference]);
  if (content.orderNumber) facts.push(['Order number', content.orderNumber]);

  const taxLines = figures.groups.map((group): [string, string] => [
    `${taxName(group.tax)} on ${money(group.net)}`,
    money(group.taxAmount),
  ]);
  const payment: [string, string][] = [];
  if (content.kind === 'invoice' && seller.iban !== '') {
    payment.push(['Pay to', seller.name], ['IBAN', writeIban(seller.iban)]);
    if (seller.bic !== '') payment.push(['BIC', seller.bic]);
    payment.push(['Reference', content.number], ['Due', writeDate(content.dueDate)]);
  }
  return {
    title: titleOf(content),
    number: content.number,
    currency,
    seller: [
      seller.name,
      ...addressLines(seller.address),
      `Tax number ${seller.taxNumber}`,
      ...(seller.legalId ? [`Company number ${seller.legalId}`] : []),
      ...[seller.phone, seller.email].filter(Boolean),
    ],
    buyer: [buyer.name, ...addressLines(buyer.address), ...(buyer.taxNumber ? [`Tax number ${buyer.taxNumber}`] : [])],
    facts,
    valueHead: priceMode === 'net' ? 'Net' : 'With tax',
    hasDiscounts: figures.lines.some((line) => line.discount !== 0n),
    lines: content.lines.map((line, i): PrintedLine => {
      const [title = '', ...more] = line.description.split('\n');
      const { discount } = line;
      const less =
        discount === undefined
          ? ''
          : 'percent' in discount
            ? `${showNumber(discount.percent)} %`
            : showPrice(discount.amount, currency);
      const value = figures.lines[i]?.value;
      return {
        title,
        detail: more.join('\n'),
        quantity: `${showNumber(line.quantity)} ${unitWord(line.unit)}`,
        price: showPrice(line.unitPrice, currency),
        less,
        tax: taxName(line.tax),
        value: value === undefined ? '' : money(value),
      };
    }),
    totals: [
      ['Net', money(figures.totals.net)],
      ...taxLines,
      ...(figures.totals.rounding === 0n
        ? []
        : [['Rounded to the smallest coin', money(figures.totals.rounding)] as const]),
      ['Total', money(figures.totals.payable)],
    ],
    withheld: withheldLines(content, figures, money),
    legends: [...new Set(content.taxes.map((tax) => tax.legend).filter(Boolean))],
    payment,
    note: content.note,
    conditions: content.conditions ?? '',
  };
}

/** File name for downloads: `INV-2026-0142.pdf`. */
export function fileName(content: Pick<Content, 'number'>, extension: 'pdf' | 'xml'): string {
  return `${content.number.replace(/[^A-Za-z0-9._-]/g, '-')}.${extension}`;
}
