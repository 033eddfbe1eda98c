import { addDays, addMonths, daysBetween, endOfMonth, type IsoDate, isIsoDate, laterOf } from '@/core/kernel/date';
import { type Decimal, isDecimal, ratioOf } from '@/core/kernel/decimal';
import { type Minor, minor } from '@/core/kernel/money';
import { compare, type Ratio, sumRatios, whole } from '@/core/kernel/ratio';
import { share } from '@/core/kernel/share';

/** Longest spread: fifty years of months, so that a slip of the pen does not write thousands of entries. */
export const MOST_MONTHS = 600;

/**
 * When the revenue of a line belongs: to the days of a span, to equal months from one on, or to days of its own with
 * percents. On a draft the fields hold what was typed.
 */
export type Deferral =
  | { readonly kind: 'days'; readonly from: string; readonly to: string }
  /** `first` is a month, `2026-01`. */
  | { readonly kind: 'months'; readonly months: number; readonly first: string }
  | { readonly kind: 'parts'; readonly parts: readonly { readonly date: string; readonly percent: string }[] };

/** A day on which revenue is earned, and how much of it goes there by weight. */
interface Earned {
  readonly date: IsoDate;
  readonly weight: bigint;
}

const MONTH = /^\d{4}-\d{2}$/;

function byDays(from: string, to: string): readonly Earned[] | null {
  if (!isIsoDate(from) || !isIsoDate(to) || to < from) return null;
  const earned: Earned[] = [];
  for (let day = from; day <= to && earned.length <= MOST_MONTHS; day = addDays(endOfMonth(day), 1)) {
    const end = endOfMonth(day);
    const last = end < to ? end : to;
    earned.push({ date: end, weight: BigInt(daysBetween(day, last) + 1) });
  }
  return earned.length > MOST_MONTHS ? null : earned;
}

function byMonths(months: number, first: string): readonly Earned[] | null {
  const begin = `${first}-01`;
  if (!MONTH.test(first) || !isIsoDate(begin) || !Number.isInteger(months) || months < 1 || months > MOST_MONTHS)
    return null;
  return Array.from({ length: months }, (_, i) => ({ date: endOfMonth(addMonths(begin, i)), weight: 1n }));
}

function byParts(parts: readonly { readonly date: string; readonly percent: string }[]): readonly Earned[] | null {
  const read: { date: IsoDate; percent: Ratio }[] = [];
  for (const { date, percent } of parts) {
    if (!isIsoDate(date) || !isDecimal(percent)) return null;
    const ratio = ratioOf(percent as Decimal);
    if (ratio.n <= 0n) return null;
    read.push({ date, percent: ratio });
  }
  if (read.length === 0 || read.length > MOST_MONTHS) return null;
  if (compare(sumRatios(read.map(({ percent }) => percent)), whole(100n)) !== 0) return null;
  const common = read.reduce((d, { percent }) => d * percent.d, 1n);
  return read.map(({ date, percent }) => ({ date, weight: (percent.n * common) / percent.d }));
}

/** The days of a deferral with their weights, as it is read; null while something of it is missing or wrong. */
function earnedOn(deferral: Deferral): readonly Earned[] | null {
  switch (deferral.kind) {
    case 'days':
      return byDays(deferral.from, deferral.to);
    case 'months':
      return byMonths(deferral.months, deferral.first);
    case 'parts':
      return byParts(deferral.parts);
  }
}

/** True for a deferral that can be issued. */
export function isDeferral(deferral: Deferral): boolean {
  return earnedOn(deferral) !== null;
}

/** What of a sum is earned on a day. */
export interface EarnedPart {
  readonly date: IsoDate;
  readonly amount: Minor;
}

/**
 * A line's net over the days of its deferral: share(net, weights), dated the last day of each month or the days given.
 * What was to be earned before the posting is earned on its day.
 * @returns parts of nothing left out; empty for a deferral that can't be read.
 */
export function earnedParts(net: Minor, deferral: Deferral, posted: IsoDate): readonly EarnedPart[] {
  const earned = earnedOn(deferral) ?? [];
  const amounts = share(
    net,
    earned.map(({ weight }) => weight),
  );
  return earned.flatMap(({ date }, i) => {
    const amount = minor(amounts[i] ?? 0n);
    return amount === 0n ? [] : [{ date: laterOf(date, posted), amount }];
  });
}
