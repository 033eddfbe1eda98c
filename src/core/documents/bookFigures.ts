import { type Currency, exponentOf } from '@/core/kernel/currency';
import { type Decimal, ratioOf, tenTo } from '@/core/kernel/decimal';
import { type Minor, minor, minus, NOTHING, plus, readMoney, total } from '@/core/kernel/money';
import { ROUNDINGS, type Rounding } from '@/core/kernel/rounding';
import { share } from '@/core/kernel/share';
import type { CalcResult, Figures, HomeResult } from '@/core/tax/calcTypes';
import { calculate } from '@/core/tax/calculate';
import { type Computed, type Content, type CountedShare, calcInputOf } from './content';

/** A tax code's figures in some currency, with the tax of each of its components. */
export interface CountedGroup extends Figures {
  readonly tax: string;
  /** In the order of the code's components. */
  readonly components: readonly Minor[];
}

/** A document's figures in the currency that they count in, such as the home currency; not signed. */
export interface CountedFigures extends Figures {
  readonly currency: Currency;
  readonly groups: readonly CountedGroup[];
  /** Net of each line, in the order of the lines. */
  readonly lineNets: readonly Minor[];
  /** Net of each part of an allowance or charge, in the order of `CalcResult.adjustments`. */
  readonly adjustmentNets: readonly Minor[];
  /** Rounding to the smallest coin, and what is payable with it. */
  readonly rounding: Minor;
  readonly payable: Minor;
  /** Amount of each withholding, in their order. */
  readonly withheld: readonly Minor[];
}

/** The figures as they are, in the document's own currency. */
function asTheyAre(figures: CalcResult): CountedFigures {
  const { net, taxAmount, gross, rounding, payable } = figures.totals;
  return {
    currency: figures.currency,
    net,
    taxAmount,
    gross,
    groups: figures.groups.map(({ components, ...group }) => ({
      ...group,
      components: components.map((component) => component.amount),
    })),
    lineNets: figures.lines.map((line) => line.net),
    adjustmentNets: figures.adjustments.map((adjustment) => adjustment.net),
    rounding,
    payable,
    withheld: figures.withholding.map((part) => part.amount),
  };
}

/** A group's family taxes in another currency, split over its components as the document split them. */
function componentTaxes(
  group: CalcResult['groups'][number],
  families: readonly { readonly family: string; readonly amount: Minor }[],
): readonly Minor[] {
  const taxes = group.components.map(() => 0n);
  for (const { family, amount } of families) {
    const at = group.components.flatMap((component, i) => (component.family === family ? [i] : []));
    const parts = share(
      amount,
      at.map((i) => group.components[i]?.amount ?? 0n),
    );
    at.forEach((i, k) => {
      taxes[i] = parts[k] ?? 0n;
    });
  }
  return taxes.map(minor);
}

interface Rate {
  readonly currency: Currency;
  /** Its units for one unit of the document's currency. */
  readonly rate: Decimal;
}

/** Converts amounts of a document by a rate, rounded to the minor unit. */
function converter(figures: CalcResult, to: Rate, round: Rounding): (amount: Minor) => Minor {
  const rate = ratioOf(to.rate);
  return (amount) =>
    minor(
      round({
        n: amount * rate.n * tenTo(exponentOf(to.currency)),
        d: rate.d * tenTo(exponentOf(figures.currency)),
      }),
    );
}

/** Figures with what stage 13 of the engine made of them. */
function counted(figures: CalcResult, home: HomeResult, to: Rate, round: Rounding): CountedFigures {
  const convert = converter(figures, to, round);
  const groups = figures.groups.map((group): CountedGroup => {
    const found = home.groups.find((g) => g.tax === group.tax);
    const net = plus(
      total(figures.lines.flatMap((line, i) => (line.tax === group.tax ? (home.lineNets[i] ?? []) : []))),
      total(figures.adjustments.flatMap((a, i) => (a.tax === group.tax ? (home.adjustmentNets[i] ?? []) : []))),
    );
    const taxAmount = found?.taxAmount ?? minor(0n);
    const components = componentTaxes(group, found?.families ?? []);
    return { tax: group.tax, net, taxAmount, gross: plus(net, taxAmount), components };
  });
  const payable = figures.totals.payable === figures.totals.gross ? home.gross : convert(figures.totals.payable);
  return {
    currency: to.currency,
    net: home.net,
    taxAmount: home.taxAmount,
    gross: home.gross,
    groups,
    lineNets: home.lineNets,
    adjustmentNets: home.adjustmentNets,
    rounding: minus(payable, home.gross),
    payable,
    withheld: figures.withholding.map((part) => convert(part.amount)),
  };
}

/** Figures of a part credit: what it takes of its invoice, net shared over its lines and charges. */
function taken(
  figures: CalcResult,
  shareOf: (tax: string) => CountedShare | undefined,
  to: Rate,
  round: Rounding,
): CountedFigures {
  const read = (amount: Decimal) => readMoney(amount, to.currency) ?? NOTHING;
  const lineNets = figures.lines.map(() => NOTHING);
  const adjustmentNets = figures.adjustments.map(() => NOTHING);
  const groups = figures.groups.map((group): CountedGroup => {
    const part = shareOf(group.tax);
    const net = part === undefined ? NOTHING : read(part.net);
    const components = group.components.map((_, i) => read(part?.components[i] ?? ('0' as Decimal)));
    const lines = figures.lines.flatMap((line, i) => (line.tax === group.tax ? [i] : []));
    const charges = figures.adjustments.flatMap((one, i) => (one.tax === group.tax ? [i] : []));
    const nets = share(net, [
      ...lines.map((i) => figures.lines[i]?.net ?? 0n),
      ...charges.map((i) => figures.adjustments[i]?.net ?? 0n),
    ]).map(minor);
    lines.forEach((i, k) => {
      lineNets[i] = nets[k] ?? NOTHING;
    });
    charges.forEach((i, k) => {
      adjustmentNets[i] = nets[lines.length + k] ?? NOTHING;
    });
    const taxAmount = total(components);
    return { tax: group.tax, net, taxAmount, gross: plus(net, taxAmount), components };
  });
  const net = total(groups.map((group) => group.net));
  const taxAmount = total(groups.map((group) => group.taxAmount));
  const gross = plus(net, taxAmount);
  const convert = converter(figures, to, round);
  const rounding = convert(figures.totals.rounding);
  return {
    currency: to.currency,
    net,
    taxAmount,
    gross,
    groups,
    lineNets,
    adjustmentNets,
    rounding,
    payable: plus(gross, rounding),
    withheld: figures.withholding.map((part) => convert(part.amount)),
  };
}

const roundingOf = ({ rounding }: Pick<Computed, 'rounding'>): Rounding => ROUNDINGS[rounding?.mode ?? 'half-up'];

/**
 * A document's figures in the currency of its return, by stage 13 of the engine: gross and each
 * family's tax are converted and rounded, net is what is left. A part credit takes its share instead.
 */
export function filingFigures(content: Computed & Pick<Content, 'filing'>, figures: CalcResult): CountedFigures {
  const { filing: to, counted: parts } = content;
  if (to === undefined) return bookFigures(content, figures);
  if (to.currency === figures.currency) return asTheyAre(figures);
  const round = roundingOf(content);
  if (parts !== undefined) return taken(figures, (tax) => parts.find((part) => part.tax === tax)?.filing, to, round);
  const { home } = calculate({ ...calcInputOf(content), home: to });
  return home === undefined ? asTheyAre(figures) : counted(figures, home, to, round);
}

/** A document's figures as the books count them: in the home currency, by the rate it was issued with. */
export function bookFigures(
  content: Pick<Computed, 'home' | 'rounding' | 'counted' | 'withholding'>,
  figures: CalcResult,
): CountedFigures {
  const { home: to, counted: parts } = content;
  if (to === undefined || figures.home === undefined) return asTheyAre(figures);
  const round = roundingOf(content);
  if (parts === undefined) return counted(figures, figures.home, to, round);
  const own = taken(figures, (tax) => parts.find((part) => part.tax === tax)?.home, to, round);
  const withheld = own.withheld.map((amount, i) => {
    const given = content.withholding?.[i]?.amountHome;
    return given === undefined ? amount : (readMoney(given, to.currency) ?? amount);
  });
  return { ...own, withheld };
}

/** A part of a document's own amount as it counts in the books: the same part of its home amount, rounded. */
export function inStep(part: Minor, whole: Minor, counted: Minor): Minor {
  if (whole === 0n) return minor(0n);
  if (part === whole) return counted;
  const sign = whole < 0n ? -1n : 1n;
  return minor(ROUNDINGS['half-up']({ n: sign * counted * part, d: sign * whole }));
}
