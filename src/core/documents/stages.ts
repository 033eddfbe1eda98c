import type { Currency } from '@/core/kernel/currency';
import { type Decimal, decimalOf, ratioOf } from '@/core/kernel/decimal';
import { inMinorUnits, type Minor, minor, minus, NOTHING, negated, plus, total, writeMoney } from '@/core/kernel/money';
import { add, compare, divide, multiply, type Ratio, subtract, whole, ZERO } from '@/core/kernel/ratio';
import { halfUp } from '@/core/kernel/rounding';
import { share } from '@/core/kernel/share';
import { showNumber } from '@/core/kernel/show';
import { unitWord } from '@/core/kernel/unit';
import type { CalcResult } from '@/core/tax/calcTypes';
import { priceFor } from '@/core/tax/convertPrice';
import { valueLine } from '@/core/tax/stages/lineValue';
import type { Content, ContentLine } from './content';
import type { Draft, DraftAdjustment, DraftLine } from './draft';
import { draftFrom, draftLineOf } from './draftFrom';
import type { IssuedDocument } from './issued';
import { calcLineOf } from './readLine';

/** A line, allowance or charge of a quote with what was invoiced of it. Allowances are negative. */
export interface QuotedPart {
  readonly id: string;
  readonly words: string;
  readonly quantity: Ratio;
  readonly billedQuantity: Ratio;
  readonly value: Minor;
  readonly billed: Minor;
}

/** What is still to bill of a part, below zero once more was billed than quoted. */
export function leftOf(part: Pick<QuotedPart, 'value' | 'billed'>): Minor {
  return minus(part.value, part.billed);
}

/** What documents of a quote's family bill of each of its parts; credit notes and cancelled ones give it back. */
function billedBy(
  quote: IssuedDocument,
  family: readonly IssuedDocument[],
): Map<string, { value: Minor; quantity: Ratio }> {
  const billed = new Map<string, { value: Minor; quantity: Ratio }>();
  const book = (id: string | undefined, value: Minor, quantity: Ratio) => {
    if (id === undefined) return;
    const before = billed.get(id) ?? { value: NOTHING, quantity: ZERO };
    billed.set(id, { value: plus(before.value, value), quantity: add(before.quantity, quantity) });
  };
  const stages = family.filter((d) => d.kind === 'invoice' && d.content.stage?.documentId === quote.id);
  for (const { content, figures, cancelled } of stages) {
    if (cancelled !== null) continue;
    content.lines.forEach((line, i) => {
      const quantity = content.stage?.by === 'quantity' ? ratioOf(line.quantity) : ZERO;
      book(line.of, figures.lines[i]?.value ?? NOTHING, quantity);
    });
    for (const part of figures.adjustments) book(part.id, part.value, ZERO);
  }
  const back = ({ n, d }: Ratio): Ratio => ({ n: -n, d });
  for (const invoice of stages) {
    const notes = family.filter((d) => d.kind === 'credit-note' && d.content.corrects?.documentId === invoice.id);
    const left = invoicedParts(invoice);
    const giveBack = (part: InvoicedPart, value: Minor, quantity: Ratio) => {
      part.left = minus(part.left, value);
      book(part.of, negated(value), quantity);
    };
    for (const { content, figures } of notes) {
      content.lines.forEach((line, i) => {
        const value = figures.lines[i]?.value ?? NOTHING;
        const part = left.find(({ id }) => id === line.of);
        if (part !== undefined)
          giveBack(part, value, invoice.content.stage?.by === 'quantity' ? back(ratioOf(line.quantity)) : ZERO);
        if (line.of !== undefined) return;
        // A sum of a tax code takes back its share of everything that was billed under the code.
        const under = left.filter(({ tax }) => tax === line.tax);
        share(
          value,
          under.map((one) => one.left),
        ).forEach((amount, k) => {
          const one = under[k];
          if (one !== undefined) giveBack(one, minor(amount), ZERO);
        });
      });
      for (const adjustment of figures.adjustments) {
        const of = content.adjustments?.find(({ id }) => id === adjustment.id)?.of ?? adjustment.id;
        const part = left.find(({ id, tax }) => id === of && tax === adjustment.tax);
        if (part !== undefined) giveBack(part, adjustment.value, ZERO);
      }
    }
  }
  return billed;
}

/** A line or a part of an allowance or charge of an invoice, with what credit notes have left of it. */
interface InvoicedPart {
  readonly id: string;
  readonly tax: string;
  /** Part of the quote that it bills. */
  readonly of: string | undefined;
  left: Minor;
}

const invoicedParts = ({ content, figures }: IssuedDocument): InvoicedPart[] => [
  ...figures.lines.map(({ id, tax, value }, i) => ({ id, tax, of: content.lines[i]?.of, left: value })),
  ...figures.adjustments.map(({ id, tax, value }) => ({ id, tax, of: id, left: value })),
];

/** The parts of a quote with what its family has billed of each. */
export function quotedParts(quote: IssuedDocument, family: readonly IssuedDocument[]): readonly QuotedPart[] {
  const { content, figures } = quote;
  const billed = billedBy(quote, family);
  const partOf = (id: string, words: string, quantity: Ratio, value: Minor): QuotedPart => {
    const so = billed.get(id) ?? { value: NOTHING, quantity: ZERO };
    return { id, words, quantity, value, billed: so.value, billedQuantity: so.quantity };
  };
  return [
    ...content.lines.map((line, i) =>
      partOf(
        line.id,
        line.description.split('\n')[0] ?? '',
        ratioOf(line.quantity),
        figures.lines[i]?.value ?? NOTHING,
      ),
    ),
    ...(content.adjustments ?? []).map(({ id, text }) =>
      partOf(id, text, ZERO, total(figures.adjustments.flatMap((part) => (part.id === id ? part.value : [])))),
    ),
  ];
}

/** What of a quote is to be billed now. Amounts are line values: without tax where prices hold none. */
export type StageRequest =
  | { readonly kind: 'rest' }
  | { readonly kind: 'percent'; readonly percent: Decimal }
  | { readonly kind: 'amount'; readonly amount: Minor }
  | { readonly kind: 'quantities'; readonly quantities: ReadonlyMap<string, Decimal> };

/** What a stage is called: `30 %`, `rest`. */
export function stageWords(request: StageRequest, currency: Currency): string {
  if (request.kind === 'percent') return `${showNumber(request.percent)} %`;
  if (request.kind === 'amount') return `${writeMoney(request.amount, currency)} ${currency}`;
  return request.kind === 'rest' ? 'rest' : 'part delivery';
}

/**
 * Values of a stage by percent, amount or rest. A percentage is taken of each part; where that is more
 * than what is left of one, because parts were billed unevenly, the sum is shared over what is left.
 * Only a sum beyond all that is left overruns.
 */
function stageValues(parts: readonly QuotedPart[], request: StageRequest): readonly bigint[] {
  const left = parts.map(leftOf);
  if (request.kind === 'rest' || request.kind === 'quantities') return left;
  const values = parts.map((part) => part.value);
  if (request.kind === 'amount') return share(request.amount, request.amount <= total(left) ? left : values);
  const { n, d } = ratioOf(request.percent);
  const of = (value: bigint) => halfUp(multiply(whole(value), { n, d: d * 100n }));
  const own = values.map(of);
  const beyond = own.map((value, i) => (value < 0n ? (left[i] ?? 0n) - value : value - (left[i] ?? 0n)));
  // A cent too much is rounding: the part takes what is left of it.
  if (beyond.every((by) => by <= 1n)) return own.map((value, i) => ((beyond[i] ?? 0n) > 0n ? (left[i] ?? 0n) : value));
  const wanted = of(total(values));
  return wanted <= total(left) ? share(wanted, left) : own;
}

/** A line that bills a sum of a quoted line, saying what it is a part of. */
function sumLine(line: ContentLine, value: bigint, currency: Currency, words: string): DraftLine {
  const [title = '', ...more] = line.description.split('\n');
  const of = `${words} of ${showNumber(line.quantity)} ${unitWord(line.unit)}`;
  return {
    ...draftLineOf(line),
    description: [title, of, ...more].join('\n'),
    quantity: '1',
    unit: 'C62',
    price: writeMoney(minor(value), currency),
    discount: '',
    priceFrom: '',
    of: line.id,
  };
}

/** What a line comes to before tax is looked at. */
function lineValueOf(line: DraftLine, currency: Currency): bigint {
  const calc = calcLineOf(line, currency);
  return calc === null ? 0n : valueLine(calc, currency, halfUp).value;
}

/** A line that bills a quantity of a quoted line; rounding never bills more than what is left. */
function quantityLine(line: ContentLine, part: QuotedPart, quantity: Decimal, currency: Currency): DraftLine {
  const whole = { ...draftLineOf(line), of: line.id };
  const { discount } = line;
  const share =
    discount !== undefined && 'amount' in discount && part.quantity.n !== 0n
      ? halfUp(multiply(inMinorUnits(ratioOf(discount.amount), currency), divide(ratioOf(quantity), part.quantity)))
      : null;
  const parted: DraftLine = {
    ...whole,
    quantity,
    ...(share !== null && { discount: writeMoney(minor(share), currency) }),
  };
  const left = leftOf(part);
  const value = lineValueOf(parted, currency);
  const beyond = compare(add(part.billedQuantity, ratioOf(quantity)), part.quantity) > 0;
  const ends = compare(add(part.billedQuantity, ratioOf(quantity)), part.quantity) === 0;
  if (beyond || value === left || (!ends && value < left)) return parted;
  const price = priceFor(left, quantity, undefined, currency);
  return price === null ? parted : { ...parted, price, discount: '' };
}

/** What an allowance or charge comes to in a stage. */
function stageAdjustment(adjustment: DraftAdjustment, value: bigint, currency: Currency): readonly DraftAdjustment[] {
  const size = adjustment.kind === 'allowance' ? -value : value;
  return size === 0n ? [] : [{ ...adjustment, amount: writeMoney(minor(size), currency) }];
}

/**
 * An invoice draft that bills a stage of a quote: by quantity with the quoted prices, else one sum for
 * each line. Allowances and charges go with the lines in proportion.
 */
export function stageDraft(
  quote: IssuedDocument,
  parts: readonly QuotedPart[],
  request: StageRequest,
  { id, issueDate, due }: { readonly id: string; readonly issueDate: string; readonly due: string },
): Draft {
  const { content } = quote;
  const { currency } = content;
  const words = stageWords(request, currency);
  const partOf = new Map(parts.map((part) => [part.id, part]));
  const untouched = parts.every((part) => part.billed === 0n);
  const by = request.kind === 'quantities' || (request.kind === 'rest' && untouched) ? 'quantity' : 'sum';
  const origin = { how: 'stage', documentId: quote.id, number: quote.number, words, by } as const;
  const draft = draftFrom(quote, { id, kind: 'invoice', origin, issueDate, due });
  if (request.kind === 'rest' && untouched)
    return { ...draft, lines: content.lines.map((line) => ({ ...draftLineOf(line), of: line.id })) };
  if (request.kind !== 'quantities') {
    const values = new Map(stageValues(parts, request).map((value, i) => [parts[i]?.id, value]));
    return {
      ...draft,
      lines: content.lines.flatMap((line) => {
        const value = values.get(line.id) ?? 0n;
        return value === 0n ? [] : [sumLine(line, value, currency, words)];
      }),
      adjustments: draft.adjustments.flatMap((a) => stageAdjustment(a, values.get(a.id) ?? 0n, currency)),
    };
  }
  const lines = content.lines.flatMap((line) => {
    const quantity = request.quantities.get(line.id);
    const part = partOf.get(line.id);
    return quantity === undefined || part === undefined || ratioOf(quantity).n === 0n
      ? []
      : [quantityLine(line, part, quantity, currency)];
  });
  const all = total(content.lines.map((line) => partOf.get(line.id)?.value ?? NOTHING));
  const now = lines.reduce((sum, line) => sum + lineValueOf(line, currency), 0n);
  return {
    ...draft,
    lines,
    adjustments: draft.adjustments.flatMap((adjustment) => {
      const part = partOf.get(adjustment.id);
      if (part === undefined || all === 0n) return [];
      return stageAdjustment(adjustment, halfUp({ n: part.value * now, d: all }), currency);
    }),
  };
}

/** Parts of a quote of which an invoice would bill more than is left, by their words. */
export function overrun(parts: readonly QuotedPart[], content: Content, figures: CalcResult): readonly string[] {
  const now = new Map<string, bigint>();
  content.lines.forEach((line, i) => {
    if (line.of !== undefined) now.set(line.of, (now.get(line.of) ?? 0n) + (figures.lines[i]?.value ?? 0n));
  });
  const beyond = parts.filter(({ id, value, billed }) => {
    const after = billed + (now.get(id) ?? 0n);
    return now.has(id) && value >= 0n && after > value;
  });
  return beyond.map((part) => part.words);
}

/** What is left of a quantity, as it is typed; null where it was measured in sums. */
export function quantityLeft(part: QuotedPart): Decimal | null {
  const left = subtract(part.quantity, part.billedQuantity);
  return left.n <= 0n ? null : decimalOf(left);
}
