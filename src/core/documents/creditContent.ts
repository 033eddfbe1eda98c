import type { Currency } from '@/core/kernel/currency';
import type { IsoDate } from '@/core/kernel/date';
import { type Decimal, decimal, ratioOf } from '@/core/kernel/decimal';
import { inMinorUnits, type Minor, minor, minus, NOTHING, plus, total, writeMoney } from '@/core/kernel/money';
import { compare, divide, multiply, type Ratio, subtract } from '@/core/kernel/ratio';
import { accept, type Refusal, type Result, refuse } from '@/core/kernel/result';
import { halfUp } from '@/core/kernel/rounding';
import { share } from '@/core/kernel/share';
import { priceFor } from '@/core/tax/convertPrice';
import { valueLine } from '@/core/tax/stages/lineValue';
import { inStep } from './bookFigures';
import { type Content, type ContentAdjustment, type ContentLine, figuresOf, type TaxOverride } from './content';
import type { IssuedDocument } from './issued';

/**
 * What of an invoice is taken back: all that is left, quantities of its lines, or an amount with tax
 * that is spread over all it charged.
 */
export type CreditRequest =
  | { readonly kind: 'rest' }
  | { readonly kind: 'lines'; readonly quantities: ReadonlyMap<string, Decimal> }
  | { readonly kind: 'amount'; readonly amount: Minor };

/** What is left of one tax code of an invoice after its credit notes. */
interface LeftGroup {
  readonly tax: string;
  /** In the document's price mode. */
  readonly value: Minor;
  readonly gross: Minor;
  readonly families: ReadonlyMap<string, Minor>;
}

type Group = IssuedDocument['figures']['groups'][number];

function familyTaxes({ components }: Group): Map<string, Minor> {
  const taxes = new Map<string, Minor>();
  for (const { family, amount } of components) taxes.set(family, plus(taxes.get(family) ?? NOTHING, amount));
  return taxes;
}

const valueIn = (group: Group, mode: Content['priceMode']) => (mode === 'net' ? group.net : group.gross);

/** What is left to credit by tax code; never below what the credit notes have taken. */
function leftGroups(invoice: IssuedDocument, notes: readonly IssuedDocument[]): readonly LeftGroup[] {
  const mode = invoice.content.priceMode;
  return invoice.figures.groups.map((group) => {
    const taken = notes.flatMap((note) => note.figures.groups.filter((g) => g.tax === group.tax));
    const families = familyTaxes(group);
    for (const one of taken)
      for (const [family, amount] of familyTaxes(one))
        families.set(family, minus(families.get(family) ?? NOTHING, amount));
    return {
      tax: group.tax,
      value: minus(valueIn(group, mode), total(taken.map((g) => valueIn(g, mode)))),
      gross: minus(group.gross, total(taken.map((g) => g.gross))),
      families,
    };
  });
}

/** What can still be credited of an invoice, with tax, in its currency. */
export function leftToCredit(invoice: IssuedDocument, notes: readonly IssuedDocument[]): Minor {
  return total(leftGroups(invoice, notes).map((group) => group.gross));
}

/** What is left of a line's quantity. */
export function quantityToCredit(line: ContentLine, notes: readonly IssuedDocument[]): Ratio {
  const taken = notes.flatMap(({ content }) => content.lines.filter((l) => l.of === line.id));
  return taken.reduce((left, { quantity }) => subtract(left, ratioOf(quantity)), ratioOf(line.quantity));
}

/** One line for what is taken back of a tax code, by its value. */
function groupLine(invoice: IssuedDocument, group: LeftGroup, value: bigint, words: string): ContentLine | null {
  const line = invoice.content.lines.find((l) => l.tax === group.tax);
  const tax = invoice.content.taxes.find((t) => t.code === group.tax);
  if (value === 0n || tax === undefined) return null;
  return {
    id: `credit-${group.tax}`,
    description: `${words} ${invoice.number}, ${tax.name}`,
    quantity: decimal('1'),
    unit: 'C62',
    unitPrice: writeMoney(minor(value), invoice.content.currency),
    tax: group.tax,
    taxByHand: line?.taxByHand ?? true,
    account: line?.account ?? invoice.content.lines[0]?.account ?? '',
    ...(line?.taxClass !== undefined && { taxClass: line.taxClass }),
    ...(line?.supply !== undefined && { supply: line.supply }),
    trailOf: line?.trailOf ?? 0,
  };
}

/** A quantity of an invoiced line; what ends the line takes exactly what is left of it. */
function quantityLine(
  line: ContentLine,
  value: Minor,
  quantity: Decimal,
  notes: readonly IssuedDocument[],
  currency: Currency,
): ContentLine {
  const taken = total(
    notes.flatMap((note) =>
      note.content.lines.flatMap((l, i) => (l.of === line.id ? (note.figures.lines[i]?.value ?? []) : [])),
    ),
  );
  const left = minus(value, taken);
  const { discount, priceFrom: _, ...rest } = line;
  const parted =
    discount !== undefined && 'amount' in discount
      ? {
          amount: writeMoney(
            minor(
              halfUp(
                multiply(
                  inMinorUnits(ratioOf(discount.amount), currency),
                  divide(ratioOf(quantity), ratioOf(line.quantity)),
                ),
              ),
            ),
            currency,
          ),
        }
      : discount;
  const plain: ContentLine = { ...rest, quantity, ...(parted && { discount: parted }), of: line.id };
  const calc = { id: line.id, quantity, unitPrice: line.unitPrice, tax: line.tax, ...(parted && { discount: parted }) };
  const now = valueLine(calc, currency, halfUp).value;
  const ends = compare(quantityToCredit(line, notes), ratioOf(quantity)) === 0;
  if (now === left || (!ends && now < left)) return plain;
  const price = priceFor(left, quantity, undefined, currency);
  return price === null ? plain : { ...rest, quantity, unitPrice: price, of: line.id };
}

/** Allowances and charges go back in proportion to the lines. */
function partOfAdjustments(invoice: IssuedDocument, lines: readonly ContentLine[]): readonly ContentAdjustment[] {
  const { content, figures } = invoice;
  const all = figures.totals.lineValue;
  if (all === 0n) return [];
  const now = figuresOf({ ...content, lines, adjustments: [], overrides: [] }).totals.lineValue;
  return (content.adjustments ?? []).flatMap(({ percent: _, ...adjustment }) => {
    const value = total(figures.adjustments.flatMap((part) => (part.id === adjustment.id ? part.value : [])));
    const part = halfUp({ n: (value < 0n ? -value : value) * now, d: all });
    return part === 0n ? [] : [{ ...adjustment, amount: writeMoney(minor(part), content.currency) }];
  });
}

/**
 * Keeps the tax of a credit note within what is left of each tax: what ends a code takes exactly what
 * is left of its taxes, so that all credit notes of an invoice come to its own tax.
 */
function heldWithin(content: Content, left: readonly LeftGroup[], invoice: string): readonly TaxOverride[] {
  const { groups } = figuresOf(content);
  const mode = content.priceMode;
  return groups.flatMap((group) => {
    const rest = left.find((g) => g.tax === group.tax);
    const ends = rest !== undefined && valueIn(group, mode) === rest.value;
    return [...familyTaxes(group)].flatMap(([family, amount]): readonly TaxOverride[] => {
      const most = rest?.families.get(family) ?? NOTHING;
      const wanted = ends || (most >= 0n ? amount > most : amount < most) ? most : amount;
      if (wanted === amount) return [];
      const reason = `so that what is credited adds up to ${invoice}`;
      return [{ tax: group.tax, family, amount: writeMoney(wanted, content.currency), reason }];
    });
  });
}

function linesOf(
  invoice: IssuedDocument,
  notes: readonly IssuedDocument[],
  request: CreditRequest,
  left: readonly LeftGroup[],
): Result<{ readonly lines: readonly ContentLine[]; readonly overrides?: readonly TaxOverride[] }> {
  const { content, figures } = invoice;
  const { currency, priceMode } = content;
  if (request.kind === 'rest') {
    const lines = left.flatMap((group) => groupLine(invoice, group, group.value, 'Rest of') ?? []);
    return accept({ lines });
  }
  if (request.kind === 'amount') {
    const most = total(left.map((group) => group.gross));
    if (request.amount <= 0n || request.amount > most)
      return refuse({
        code: request.amount <= 0n ? 'invalid' : 'over-credited',
        path: 'amount',
        expected: request.amount <= 0n ? 'Give an amount above zero.' : writeMoney(most, currency),
        found: writeMoney(request.amount, currency),
      });
    const parts = share(
      request.amount,
      left.map((group) => group.gross),
    );
    const overrides: TaxOverride[] = [];
    const lines = left.flatMap((group, i) => {
      const gross = minor(parts[i] ?? 0n);
      const taxes = [...group.families].map(([family, tax]) => [family, inStep(gross, group.gross, tax)] as const);
      for (const [family, tax] of taxes)
        overrides.push({
          tax: group.tax,
          family,
          amount: writeMoney(tax, currency),
          reason: `the tax in ${writeMoney(gross, currency)} of ${invoice.number}`,
        });
      const value = priceMode === 'gross' ? gross : minus(gross, total(taxes.map(([, tax]) => tax)));
      return groupLine(invoice, group, value, 'Reduction of') ?? [];
    });
    return accept({ lines, overrides });
  }
  const refusals: Refusal[] = [];
  const lines = content.lines.flatMap((line, i) => {
    const quantity = request.quantities.get(line.id);
    if (quantity === undefined || ratioOf(quantity).n === 0n) return [];
    if (compare(ratioOf(quantity), quantityToCredit(line, notes)) > 0) {
      refusals.push({ code: 'over-credited', path: `quantities.${line.id}`, found: quantity });
      return [];
    }
    return [quantityLine(line, figures.lines[i]?.value ?? NOTHING, quantity, notes, currency)];
  });
  if (refusals.length > 0) return refuse(...refusals);
  if (lines.length === 0)
    return refuse({ code: 'missing', path: 'quantities', expected: 'Say what is taken back of at least one line.' });
  return accept({ lines });
}

/** What a credit note is dated and called. */
export interface CreditHead {
  readonly number: string;
  readonly date: IsoDate;
  readonly reason: string;
}

/**
 * The content of a credit note on an invoice. The first one that takes all mirrors the invoice line
 * by line; later ones never take more of any tax code than what is left of it, and the last takes
 * exactly that. Rates, exchange rate included, are the invoice's.
 */
export function creditContent(
  invoice: IssuedDocument,
  notes: readonly IssuedDocument[],
  request: CreditRequest,
  { number, date, reason }: CreditHead,
): Result<Content> {
  const { instalments: _i, settlement: _s, paidBy: _p, conditions: _c, stage: _g, ...content } = invoice.content;
  const head: Content = {
    ...content,
    kind: 'credit-note',
    number,
    issueDate: date,
    taxPoint: date,
    dueDate: date,
    note: '',
    corrects: { documentId: invoice.id, number: invoice.number, issueDate: invoice.issueDate },
    reason,
  };
  if (request.kind === 'rest' && notes.length === 0)
    return accept({ ...head, lines: head.lines.map((line) => ({ ...line, of: line.id })) });
  const left = leftGroups(invoice, notes);
  const read = linesOf(invoice, notes, request, left);
  if (!read.ok) return read;
  const { lines, overrides } = read.value;
  const adjustments = request.kind === 'lines' ? partOfAdjustments(invoice, lines) : [];
  const { adjustments: _a, overrides: _o, withholding, ...plain } = head;
  const partial: Content = {
    ...plain,
    lines,
    ...(adjustments.length > 0 && { adjustments }),
    ...(withholding && { withholding: withholding.map((type) => ({ ...type, threshold: decimal('0') })) }),
  };
  const held = overrides ?? heldWithin(partial, left, invoice.number);
  const credited: Content = held.length > 0 ? { ...partial, overrides: held } : partial;
  const beyond = figuresOf(credited).groups.filter((group) => {
    const rest = left.find((g) => g.tax === group.tax)?.gross ?? NOTHING;
    return rest >= 0n ? group.gross > rest : group.gross < rest;
  });
  if (beyond.length === 0) return accept(credited);
  return refuse({
    code: 'over-credited',
    path: 'quantities',
    expected: writeMoney(leftToCredit(invoice, notes), content.currency),
  });
}
