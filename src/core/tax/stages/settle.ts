import { type Currency, exponentOf } from '@/core/kernel/currency';
import { ratioOf, tenTo } from '@/core/kernel/decimal';
import { inMinorUnits, type Minor, minor, minus, NOTHING, plus, total } from '@/core/kernel/money';
import { divide, multiply, whole } from '@/core/kernel/ratio';
import { halfUp, type Rounding } from '@/core/kernel/rounding';
import { share } from '@/core/kernel/share';
import type { CalcInput, CalcWithholding, Figures, HomeResult } from '../calcTypes';
import { minorOf, percentOf } from './lineValue';

/** Stage 11: what rounding to the smallest coin adds to (or takes from) the amount due. */
export function cashRounding(due: Minor, input: CalcInput): Minor {
  const { cashStep: step, amount } = input.rounding;
  if (amount !== undefined) return minorOf(amount, input.currency);
  if (step === undefined) return NOTHING;
  const coin = inMinorUnits(ratioOf(step), input.currency);
  const coins = halfUp(divide(whole(due), coin));
  const { n, d } = multiply(whole(coins), coin);
  return minus(minor(n / d), due);
}

/** Stage 12: base and amount of one withholding; below the threshold the amount is nothing. */
export function withhold(
  withholding: CalcWithholding,
  figures: Figures,
  currency: Currency,
  round: Rounding,
): { id: string; base: Minor; amount: Minor } {
  const base = { net: figures.net, gross: figures.gross, tax: figures.taxAmount }[withholding.base];
  if (withholding.amount !== undefined)
    return { id: withholding.id, base, amount: minorOf(withholding.amount, currency) };
  const size = base < 0n ? -base : base;
  const below = withholding.threshold !== undefined && size < minorOf(withholding.threshold, currency);
  return { id: withholding.id, base, amount: below ? NOTHING : minor(round(percentOf(withholding.rate, base))) };
}

/** Document figures that stage 13 turns into the home currency. */
export interface HomeSource {
  readonly gross: Minor;
  readonly groups: readonly { readonly tax: string; readonly families: readonly { name: string; amount: bigint }[] }[];
  readonly lineNets: readonly Minor[];
  readonly adjustmentNets: readonly Minor[];
}

/** Stage 13: gross and each family's tax are converted and rounded; net is what is left, shared by nets. */
export function toHome(
  source: HomeSource,
  from: Currency,
  home: { readonly currency: Currency; readonly rate: NonNullable<CalcInput['home']>['rate'] },
  round: Rounding,
): HomeResult {
  const rate = ratioOf(home.rate);
  const convert = (amount: bigint): Minor =>
    minor(round({ n: amount * rate.n * tenTo(exponentOf(home.currency)), d: rate.d * tenTo(exponentOf(from)) }));
  const gross = convert(source.gross);
  const groups = source.groups.map((group) => {
    const families = group.families.map(({ name, amount }) => ({ family: name, amount: convert(amount) }));
    return { tax: group.tax, taxAmount: total(families.map((f) => f.amount)), families };
  });
  const taxAmount = groups.reduce((sum, group) => plus(sum, group.taxAmount), NOTHING);
  const net = minus(gross, taxAmount);
  const nets = share(net, [...source.lineNets, ...source.adjustmentNets]).map(minor);
  return {
    currency: home.currency,
    gross,
    taxAmount,
    net,
    groups,
    lineNets: nets.slice(0, source.lineNets.length),
    adjustmentNets: nets.slice(source.lineNets.length),
  };
}
