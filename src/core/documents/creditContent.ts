import type { Currency } from '@/core/kernel/currency';
import type { IsoDate } from '@/core/kernel/date';
import { type Decimal, decimal, ratioOf } from '@/core/kernel/decimal';
import { inMinorUnits, type Minor, minor, minus, NOTHING, plus, total, writeMoney } from '@/core/kernel/money';
import { compare, divide, multiply, type Ratio, subtract } from '@/core/kernel/ratio';
import { accept, type Refusal, type Result, refuse } from '@/core/kernel/result';
import { halfUp } from '@/core/kernel/rounding';
import { share } from '@/core/kernel/share';
import type { CalcResult } from '@/core/tax/calcTypes';
import { priceFor } from '@/core/tax/convertPrice';
import { valueLine } from '@/core/tax/stages/lineValue';
import { bookFigures, inStep } from './bookFigures';
import {
  type Content,
  type ContentAdjustment,
  type ContentLine,
  type CountedPart,
  type CountedShare,
  type FrozenWithholding,
  figuresOf,
  type TaxOverride,
} from './content';
import { type Counts, type CreditLeft, creditLeft, fitted, type GroupCounts, isBeyond } from './creditLeft';
import type { IssuedDocument } from './issued';
import { netsByAccount } from './netsByAccount';

/**
 * What of an invoice is taken back: all that is left, quantities of its lines, or an amount with tax
 * that is spread over all it charged.
 */
export type CreditRequest =
  | { readonly kind: 'rest' }
  | { readonly kind: 'lines'; readonly quantities: ReadonlyMap<string, Decimal> }
  | { readonly kind: 'amount'; readonly amount: Minor };

/** What is left of a line's quantity. */
export function quantityToCredit(line: ContentLine, notes: readonly IssuedDocument[]): Ratio {
  const taken = notes.flatMap(({ content }) => content.lines.filter((l) => l.of === line.id));
  return taken.reduce((left, { quantity }) => subtract(left, ratioOf(quantity)), ratioOf(line.quantity));
}

/** One line for what is taken back of a tax code, by its value. */
function groupLine(
  invoice: IssuedDocument,
  group: GroupCounts,
  value: Minor,
  taxes: readonly Minor[],
  words: string,
): ContentLine | null {
  const line = invoice.content.lines.find((l) => l.tax === group.tax);
  const tax = invoice.content.taxes.find((t) => t.code === group.tax);
  if (tax === undefined || [value, ...taxes].every((amount) => amount === 0n)) return null;
  return {
    id: `credit-${group.tax}`,
    description: `${words} ${invoice.number}, ${tax.name}`,
    quantity: decimal('1'),
    unit: 'C62',
    unitPrice: writeMoney(value, invoice.content.currency),
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

/** Value of an invoice's lines that credit notes have taken back, by line. */
function lineValuesBy(documents: readonly Pick<IssuedDocument, 'content' | 'figures'>[]): ReadonlyMap<string, bigint> {
  const values = new Map<string, bigint>();
  for (const { content, figures } of documents)
    content.lines.forEach(({ of }, i) => {
      if (of !== undefined) values.set(of, (values.get(of) ?? 0n) + (figures.lines[i]?.value ?? 0n));
    });
  return values;
}

/**
 * Allowances and charges go back in proportion to the lines that they lie on; with the last of these,
 * all that is left of them. Each part keeps the tax code that it fell on.
 */
function partOfAdjustments(
  invoice: IssuedDocument,
  notes: readonly IssuedDocument[],
  lines: readonly ContentLine[],
): readonly ContentAdjustment[] {
  const { content, figures } = invoice;
  const now = figuresOf({ ...content, lines, adjustments: [], overrides: [] });
  const takenBy = lineValuesBy([...notes, { content: { ...content, lines }, figures: now }]);
  return figures.adjustments.flatMap((part): readonly ContentAdjustment[] => {
    const adjustment = content.adjustments?.find(({ id }) => id === part.id);
    if (adjustment === undefined) return [];
    const under = figures.lines.flatMap((line) =>
      adjustment.tax !== undefined || line.tax === part.tax
        ? [{ value: line.value, taken: takenBy.get(line.id) ?? 0n }]
        : [],
    );
    const all = under.reduce((sum, { value }) => sum + value, 0n);
    const ended = under.every(({ value, taken }) => value === taken);
    const before = total(notes.flatMap((note) => adjustmentTaken(note, part)));
    const upTo = under.reduce((sum, { taken }) => sum + taken, 0n);
    const wanted =
      ended || all === 0n
        ? ended
          ? part.value
          : NOTHING
        : minor(halfUp({ n: part.value * upTo * (all < 0n ? -1n : 1n), d: all < 0n ? -all : all }));
    const value = minus(wanted, before);
    // An earlier note took more than its share: nothing is given back of it.
    if (value === 0n || value > 0n !== part.value > 0n) return [];
    const { percent: _, of: __, ...rest } = adjustment;
    return [
      {
        ...rest,
        id: `${part.id}-${part.tax}`,
        amount: writeMoney(value < 0n ? minor(-value) : value, content.currency),
        tax: part.tax,
        of: part.id,
      },
    ];
  });
}

/** What a note took of a part of an allowance or charge. */
function adjustmentTaken(note: IssuedDocument, part: { readonly id: string; readonly tax: string }): readonly Minor[] {
  return note.figures.adjustments.flatMap(({ id, tax, value }) => {
    const of = note.content.adjustments?.find((adjustment) => adjustment.id === id)?.of ?? id;
    return of === part.id && tax === part.tax ? [value] : [];
  });
}

/** A credit note's lines and charges, before its taxes are held within what is left. */
interface Taken {
  readonly lines: readonly ContentLine[];
  readonly adjustments: readonly ContentAdjustment[];
  /** Taxes of each code by component, where the request says what they are. */
  readonly taxes?: ReadonlyMap<string, readonly Minor[]>;
}

/** All that is left, or an amount that is shared over all that is left of net and taxes. */
function takenByAmount(invoice: IssuedDocument, left: CreditLeft, amount: Minor, words: string): Result<Taken> {
  const { currency, priceMode } = invoice.content;
  if (amount <= 0n) return refuse({ code: 'invalid', path: 'amount', wanted: 'amount-above-zero' });
  if (amount > left.gross)
    return refuse({
      code: 'over-credited',
      path: 'amount',
      left: left.gross,
      currency,
    });
  const parts = left.groups.flatMap(({ net, components }) => [net, ...components]);
  const shares = share(amount, parts).map(minor);
  const taxes = new Map<string, readonly Minor[]>();
  let at = 0;
  const lines = left.groups.flatMap((group) => {
    const [net = NOTHING, ...own] = shares.slice(at, at + 1 + group.components.length);
    at += 1 + group.components.length;
    taxes.set(group.tax, own);
    const value = priceMode === 'net' ? net : plus(net, total(own));
    return groupLine(invoice, group, value, own, words) ?? [];
  });
  return accept({ lines, adjustments: [], taxes });
}

/** Lines that take back quantities; rounding never takes more of a code than what is left of it. */
function takenByLine(
  invoice: IssuedDocument,
  notes: readonly IssuedDocument[],
  left: CreditLeft,
  quantities: ReadonlyMap<string, Decimal>,
): Result<Taken> {
  const { content, figures } = invoice;
  const refusals: Refusal[] = [];
  const lines = content.lines.flatMap((line, i) => {
    const quantity = quantities.get(line.id);
    if (quantity === undefined || ratioOf(quantity).n === 0n) return [];
    if (compare(ratioOf(quantity), quantityToCredit(line, notes)) > 0) {
      refusals.push({ code: 'over-credited', path: `quantities.${line.id}` });
      return [];
    }
    return [quantityLine(line, figures.lines[i]?.value ?? NOTHING, quantity, notes, content.currency)];
  });
  if (refusals.length > 0) return refuse(...refusals);
  if (lines.length === 0) return refuse({ code: 'missing', path: 'quantities', wanted: 'say-what-is-taken-back' });
  const adjustments = partOfAdjustments(invoice, notes, lines);
  return accept({ lines: eased(content, lines, adjustments, left), adjustments });
}

/** Where rounding of several parts goes beyond what is left of a code, its largest line gives way. */
function eased(
  content: Content,
  lines: readonly ContentLine[],
  adjustments: readonly ContentAdjustment[],
  left: CreditLeft,
): readonly ContentLine[] {
  const figures = figuresOf({ ...content, lines, adjustments, overrides: [] });
  let now = lines;
  for (const { tax, value } of left.groups) {
    const members = [...figures.lines, ...figures.adjustments].filter((member) => member.tax === tax);
    const beyond = minus(total(members.map((member) => member.value)), value);
    const size = beyond < 0n ? -beyond : beyond;
    if (!isBeyond(plus(value, beyond), value) || size > BigInt(members.length)) continue;
    const [largest] = figures.lines
      .filter((line) => line.tax === tax)
      .sort((a, b) => (a.value === b.value ? 0 : a.value > b.value ? -1 : 1));
    now = now.map((line) => {
      if (largest === undefined || line.id !== largest.id) return line;
      const price = priceFor(minus(largest.value, beyond), line.quantity, undefined, content.currency);
      const { discount: _, ...rest } = line;
      return price === null ? line : { ...rest, unitPrice: price };
    });
  }
  return now;
}

/** A code's taxes by component, held within what is left; what ends the code takes all of it. */
function heldTaxes(
  group: CalcResult['groups'][number],
  left: GroupCounts,
  mode: Content['priceMode'],
): readonly Minor[] {
  const value = mode === 'net' ? group.net : group.gross;
  if (value === left.value) return left.components;
  const families = [...new Set(left.families)];
  const sumOf = (amounts: readonly Minor[], family: string) =>
    total(amounts.filter((_, i) => left.families[i] === family));
  const own = group.components.map(({ amount }) => amount);
  const most = families.map((family) => sumOf(left.components, family));
  const wanted = families.map((family, i) => {
    const amount = sumOf(own, family);
    return isBeyond(amount, most[i] ?? 0n) ? (most[i] ?? NOTHING) : amount;
  });
  // Where prices include tax, too little tax would take more net than what is left.
  const net = minus(value, total(wanted));
  const taxes = mode === 'gross' && isBeyond(net, left.net) ? fitted(wanted, most, minus(value, left.net)) : wanted;
  const parts: Minor[] = own.map(() => NOTHING);
  families.forEach((family, f) => {
    const at = left.families.flatMap((name, i) => (name === family ? [i] : []));
    const weights = at.map((i) => left.components[i] ?? NOTHING);
    const given = total(weights) === 0n ? at.map((i) => own[i] ?? NOTHING) : share(taxes[f] ?? 0n, weights).map(minor);
    at.forEach((i, k) => {
      parts[i] = given[k] ?? NOTHING;
    });
  });
  return parts;
}

/** The taxes of a credit note as typed ones, where they are not what its lines come to. */
function overridesFor(
  figures: CalcResult,
  taxes: ReadonlyMap<string, readonly Minor[]>,
  invoice: IssuedDocument,
): readonly TaxOverride[] {
  const { currency } = invoice.content;
  return figures.groups.flatMap(({ tax, components }) => {
    const held = taxes.get(tax) ?? [];
    return [...new Set(components.map(({ family }) => family))].flatMap((family): readonly TaxOverride[] => {
      const at = components.flatMap((component, i) => (component.family === family ? [i] : []));
      const parts = at.map((i) => held[i] ?? NOTHING);
      if (at.every((i, k) => components[i]?.amount === parts[k])) return [];
      return [
        {
          tax,
          family,
          amount: writeMoney(total(parts), currency),
          reason: `so that what is credited adds up to ${invoice.number}`,
          ...(parts.length > 1 && { parts: parts.map((part) => writeMoney(part, currency)) }),
        },
      ];
    });
  });
}

/** The same part of figures in another currency as a note takes of the document's own. */
function shareIn(own: Counts, left: Counts, counted: Counts, ends: boolean): Counts {
  if (ends) return counted;
  return {
    net: inStep(own.net, left.net, counted.net),
    components: own.components.map((amount, i) =>
      inStep(amount, left.components[i] ?? NOTHING, counted.components[i] ?? NOTHING),
    ),
  };
}

const written = ({ net, components }: Counts, currency: Currency): CountedShare => ({
  net: writeMoney(net, currency),
  components: components.map((amount) => writeMoney(amount, currency)),
});

/** What a part credit takes of every figure that counts, code by code. */
function countedParts(
  content: Content,
  figures: CalcResult,
  left: CreditLeft,
  byLine: boolean,
): readonly CountedPart[] {
  const { currency, home, filing } = content;
  const nets = netsByAccount(content, figures, bookFigures(content, figures));
  return figures.groups.flatMap((group): readonly CountedPart[] => {
    const rest = left.groups.find(({ tax }) => tax === group.tax);
    if (rest === undefined) return [];
    const own: Counts = { net: group.net, components: group.components.map(({ amount }) => amount) };
    const ends = own.net === rest.net && own.components.every((amount, i) => amount === rest.components[i]);
    const leftOwn = rest.accounts.map((account) => account.own);
    const wanted = byLine
      ? rest.accounts.map(({ account }) =>
          total(nets.flatMap((net) => (net.tax === group.tax && net.account === account ? [net.own] : []))),
        )
      : share(own.net, leftOwn).map(minor);
    const accounts = ends ? leftOwn : fitted(wanted, leftOwn, own.net);
    const counted = shareIn(own, rest, rest.home, ends);
    const leftHome = rest.accounts.map((account) => account.home);
    const homes = ends
      ? leftHome
      : fitted(
          accounts.map((amount, i) => inStep(amount, leftOwn[i] ?? NOTHING, leftHome[i] ?? NOTHING)),
          leftHome,
          counted.net,
        );
    return [
      {
        tax: group.tax,
        accounts: rest.accounts.flatMap(({ account }, i) => {
          const [net, atHome] = [accounts[i] ?? NOTHING, homes[i] ?? NOTHING];
          if (net === 0n && atHome === 0n) return [];
          const amount = writeMoney(net, currency);
          return [{ account, net: amount, ...(home && { home: writeMoney(atHome, home.currency) }) }];
        }),
        ...(home && { home: written(counted, home.currency) }),
        ...(filing && { filing: written(shareIn(own, rest, rest.filing, ends), filing.currency) }),
      },
    ];
  });
}

/** What the customer withheld goes back in proportion to what is credited, with the last part all of it. */
function withheldParts(invoice: IssuedDocument, gross: Minor, left: CreditLeft): readonly FrozenWithholding[] {
  const { withholding = [], currency, home } = invoice.content;
  return withholding.flatMap((type) => {
    const rest = left.withheld.get(type.id) ?? { own: NOTHING, home: NOTHING };
    const amount = inStep(gross, left.gross, rest.own);
    const amountHome = inStep(amount, rest.own, rest.home);
    if (amount === 0n && amountHome === 0n) return [];
    return [
      {
        ...type,
        amount: writeMoney(amount, currency),
        ...(home && { amountHome: writeMoney(amountHome, home.currency) }),
      },
    ];
  });
}

/** What a credit note is dated and called. */
export interface CreditHead {
  readonly number: string;
  readonly date: IsoDate;
  readonly reason: string;
}

/**
 * The content of a credit note on an invoice. The first one that takes all mirrors the invoice line
 * by line. Later ones never take more of any figure that counts (net and taxes of a code in the
 * document's, home and filing currency, net by account, rounding, what was withheld) than what is
 * left of it, and the last takes exactly that. Rates, exchange rate included, are the invoice's.
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
  const cash = invoice.figures.totals.rounding;
  const rounded = (amount: Minor): Pick<Content, 'rounding'> =>
    content.rounding === undefined
      ? {}
      : {
          rounding: {
            ...content.rounding,
            cashStep: '',
            ...(cash !== 0n && { amount: writeMoney(amount, content.currency) }),
          },
        };
  if (request.kind === 'rest' && notes.length === 0)
    return accept({ ...head, ...rounded(cash), lines: head.lines.map((line) => ({ ...line, of: line.id })) });
  const left = creditLeft(invoice, notes);
  const read =
    request.kind === 'lines'
      ? takenByLine(invoice, notes, left, request.quantities)
      : request.kind === 'amount'
        ? takenByAmount(invoice, left, request.amount, 'Reduction of')
        : takenByAmount(invoice, left, left.gross, 'Rest of');
  if (!read.ok) return read;
  const { lines, adjustments, taxes } = read.value;
  const { adjustments: _a, overrides: _o, withholding: _w, ...plain } = head;
  const partial: Content = { ...plain, ...rounded(NOTHING), lines, ...(adjustments.length > 0 && { adjustments }) };
  const computed = figuresOf(partial);
  const beyond = computed.groups.filter((group) => {
    const rest = left.groups.find((g) => g.tax === group.tax)?.value ?? NOTHING;
    return isBeyond(content.priceMode === 'net' ? group.net : group.gross, rest);
  });
  if (beyond.length > 0)
    return refuse({
      code: 'over-credited',
      path: 'quantities',
      left: left.gross,
      currency: content.currency,
    });
  const held = new Map(
    computed.groups.map((group) => {
      const rest = left.groups.find((g) => g.tax === group.tax);
      const own = group.components.map(({ amount }) => amount);
      return [
        group.tax,
        taxes?.get(group.tax) ?? (rest === undefined ? own : heldTaxes(group, rest, content.priceMode)),
      ];
    }),
  );
  const overrides = overridesFor(computed, held, invoice);
  const taxed: Content = overrides.length > 0 ? { ...partial, overrides } : partial;
  const figures = figuresOf(taxed);
  const { gross } = figures.totals;
  const withholding = withheldParts(invoice, gross, left);
  return accept({
    ...taxed,
    ...rounded(inStep(gross, left.gross, left.rounding)),
    ...(withholding.length > 0 && { withholding }),
    counted: countedParts(taxed, figures, left, request.kind === 'lines'),
  });
}
