import type { Currency } from '@/core/kernel/currency';
import type { Decimal } from '@/core/kernel/decimal';
import { grouped } from '@/core/kernel/grouped';
import { type Minor, minor } from '@/core/kernel/money';
import { showMoney, showPrice } from '@/core/kernel/show';
import type { CalcLine, LineResult, PriceMode } from '@/core/tax/calcTypes';
import { calculate } from '@/core/tax/calculate';
import { priceFor, priceInMode, valueFor, type WantedFigure } from '@/core/tax/convertPrice';
import type { Draft, DraftLine } from './draft';
import type { Preview } from './preview';

/** What stays the same when a document's prices are switched between holding the tax and not. */
export type Keep = 'total' | 'prices';

/** A switched draft, and how far what the customer pays moved although it should stay. */
export interface Switched {
  readonly draft: Draft;
  /** In minor units; not 0 only where no price in net mode leads to the same total. */
  readonly moved: Minor;
}

const NEAR = [0n, 1n, -1n, 2n, -2n];

function pricedAs(line: CalcLine, value: bigint, currency: Currency): string | null {
  return priceFor(value, line.quantity, line.discount, currency);
}

/**
 * Switches a draft to the other price mode. `prices` leaves the unit prices as typed, so that the
 * total moves; `total` gives each line the price that leaves what the customer pays as it is.
 */
export function switchMode(draft: Draft, shown: Preview, to: PriceMode, keep: Keep): Switched {
  if (to === draft.priceMode) return { draft, moved: minor(0n) };
  if (keep === 'prices') return { draft: { ...draft, priceMode: to }, moved: minor(0n) };
  const { input, figures } = shown;
  const { currency } = input;
  const values = new Map<string, bigint>();
  for (const [code, lines] of grouped(figures.lines, (line) => line.tax)) {
    const wanted = lines.map((line) => (to === 'gross' ? line.gross : line.net) as bigint);
    const nudged = to === 'gross' ? wanted : nudge(shown, code, lines, wanted);
    lines.forEach((line, i) => {
      values.set(line.id, nudged[i] ?? 0n);
    });
  }
  const read = new Map(input.lines.map((line) => [line.id, line]));
  const priced = (line: DraftLine): DraftLine => {
    const value = values.get(line.id);
    const calc = read.get(line.id);
    if (value === undefined || calc === undefined) return line;
    const price = pricedAs(calc, value, currency);
    if (price === null) return line;
    const before = figures.lines.find((l) => l.id === line.id);
    const was = `${line.price} ${to === 'gross' ? 'without tax' : 'with tax'}`;
    return {
      ...line,
      price,
      priceFrom: `${was}; the line keeps ${showMoney(before?.gross ?? minor(0n), currency)} with tax`,
    };
  };
  const switched: Draft = { ...draft, priceMode: to, lines: draft.lines.map(priced) };
  const after = calculate({
    ...input,
    priceMode: to,
    lines: input.lines.map((line) => ({
      ...line,
      unitPrice: (pricedAs(line, values.get(line.id) ?? 0n, currency) ?? line.unitPrice) as CalcLine['unitPrice'],
    })),
  });
  return { draft: switched, moved: minor(after.totals.gross - figures.totals.gross) };
}

/**
 * Net values of a group's lines whose tax, rounded once for the group, leads back to its gross. Taken
 * from the lines' own nets; where rounding lands a cent apart the largest line takes the difference.
 */
function nudge(shown: Preview, code: string, lines: readonly LineResult[], nets: readonly bigint[]): readonly bigint[] {
  const { input, figures } = shown;
  const gross = figures.groups.find((group) => group.tax === code)?.gross;
  const largest = nets.reduce((at, net, i) => (net > (nets[at] ?? 0n) ? i : at), 0);
  for (const by of NEAR) {
    const tried = nets.map((net, i) => (i === largest ? net + by : net));
    const result = calculate({
      ...input,
      priceMode: 'net',
      withholding: [],
      lines: lines.map((line, i): CalcLine => {
        const calc = input.lines.find((l) => l.id === line.id) as CalcLine;
        const price = priceFor(tried[i] ?? 0n, calc.quantity, calc.discount, input.currency);
        return price === null ? calc : { ...calc, unitPrice: price };
      }),
    });
    if (result.groups[0]?.gross === gross) return tried;
  }
  return nets;
}

/**
 * The draft line whose own net, tax or gross is the typed amount, by changing its unit price. Null
 * when no price of ten decimals leads there.
 */
export function typeFigure(line: DraftLine, figure: WantedFigure, amount: Minor, shown: Preview): DraftLine | null {
  const { input } = shown;
  const calc = input.lines.find((l) => l.id === line.id);
  const components = calc === undefined ? undefined : input.taxes[calc.tax]?.components;
  if (calc === undefined || components === undefined) return null;
  const value = valueFor(figure, amount, input.priceMode, calc.quantity, components, input.currency);
  const price = value === null ? null : pricedAs(calc, value, input.currency);
  if (price === null) return null;
  const words = { net: 'net', tax: 'tax', gross: 'total with tax' }[figure];
  return { ...line, price, priceFrom: `from the typed ${words} of ${showMoney(amount, input.currency)}` };
}

/**
 * The draft line with a unit price that was typed in the other price mode than the document's: 123.00 with tax at 23 %
 * is 100.00 in a document whose prices exclude tax. Null while the line's tax is not known.
 */
export function typeOtherPrice(line: DraftLine, typed: Decimal, shown: Preview): DraftLine | null {
  const { taxes, priceMode, currency } = shown.input;
  const components = taxes[line.taxCode]?.components;
  if (components === undefined) return null;
  const other: PriceMode = priceMode === 'net' ? 'gross' : 'net';
  const words = other === 'net' ? 'without tax' : 'with tax';
  return {
    ...line,
    price: priceInMode(typed, other, priceMode, components, currency),
    priceFrom: `from the typed price of ${showPrice(typed, currency)} ${words}`,
  };
}
