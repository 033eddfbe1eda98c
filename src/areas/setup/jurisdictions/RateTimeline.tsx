import { daysBetween, type IsoDate, isIsoDate, writeDate } from '@/core/kernel/date';
import { showNumber } from '@/core/kernel/show';
import type { TaxRate } from '@/core/tax/tax';

interface RateTimelineProps {
  readonly rates: readonly TaxRate[];
  readonly day: IsoDate;
}

interface Stretch {
  readonly rate: TaxRate;
  readonly start: number;
  readonly width: number;
  readonly now: boolean;
}

function stretches(rates: readonly TaxRate[], first: IsoDate, end: number, day: IsoDate): readonly Stretch[] {
  return rates.map((rate, i) => {
    const next = rates[i + 1]?.from;
    const start = daysBetween(first, rate.from);
    const over = isIsoDate(rate.until) ? daysBetween(first, rate.until) + 1 : Number.POSITIVE_INFINITY;
    const stop = Math.min(over, next === undefined ? end : daysBetween(first, next));
    const today = daysBetween(first, day);
    return { rate, start, width: Math.max(0, stop - start), now: start <= today && today < stop };
  });
}

/** The history of each class's rate as a strip from its first day to a little beyond today. */
export function RateTimeline({ rates, day }: RateTimelineProps) {
  if (rates.length === 0) return null;
  const days = rates.map((rate) => rate.from).sort();
  const first = days[0] ?? day;
  const last = [...days, day].sort().at(-1) ?? day;
  const end = Math.max(daysBetween(first, last), 1) * 1.08 + 30;
  const classes = [...new Set(rates.map((rate) => rate.taxClass))];
  const share = (part: number) => `${(100 * part) / end}%`;
  return (
    <figure className="mb-3">
      <figcaption className="sr-only">History of the rates</figcaption>
      {classes.map((name) => (
        <div key={name} className="flex items-center gap-2 py-0.5 text-sm">
          <span className="w-[110px] shrink-0 truncate text-soft">{name === '' ? 'every class' : name}</span>
          <div className="relative h-5 flex-1 border-rule border-b">
            {stretches(
              rates.filter((rate) => rate.taxClass === name).sort((a, b) => (a.from < b.from ? -1 : 1)),
              first,
              end,
              day,
            ).map(({ rate, start, width, now }) => (
              <span
                key={rate.from}
                title={`from ${writeDate(rate.from)}${isIsoDate(rate.until) ? ` to ${writeDate(rate.until)}` : ''}`}
                style={{ left: share(start), width: share(width) }}
                className={`absolute inset-y-0 overflow-hidden whitespace-nowrap border-ink border-l pl-1 ${now ? 'bg-paper font-semibold' : 'text-soft'}`}
              >
                {rate.percent === '' ? rate.perUnit : `${showNumber(rate.percent)} %`}
              </span>
            ))}
            <span
              aria-hidden
              style={{ left: share(daysBetween(first, day)) }}
              className="absolute -inset-y-0.5 border-rust border-l-2"
            />
          </div>
        </div>
      ))}
    </figure>
  );
}
