import type { Decision } from '@/core/book/changes';
import { newSeries, type Series, type SeriesKind, seriesSchema } from '@/core/documents/series';
import type { IsoDate } from '@/core/kernel/date';
import { accept, refuse } from '@/core/kernel/result';
import { validated } from '@/core/kernel/validate';

/** What of a series is set by the bookkeeper. */
export type SeriesInput = Pick<Series, 'id' | 'registrationId' | 'prefix' | 'digits' | 'yearly' | 'start'> & {
  readonly kind: SeriesKind;
};

/**
 * Keeps how documents are numbered. Once a series has numbered something its start and its yearly
 * reset stay, as anything else would leave a gap; a prefix belongs to one series alone.
 */
export function saveSeries(input: SeriesInput, all: readonly Series[], today: IsoDate): Decision<Series> {
  const checked = validated<SeriesInput>(seriesSchema, input);
  if (!checked.ok) return checked;
  const before = all.find((series) => series.id === input.id);
  const others = all.filter((series) => series.id !== input.id);
  const prefix = input.prefix.toUpperCase();
  if (others.some((series) => series.prefix.toUpperCase() === prefix))
    return refuse({ code: 'duplicate', path: 'prefix', found: input.prefix });
  if (others.some((series) => series.kind === input.kind && series.registrationId === input.registrationId))
    return refuse({ code: 'duplicate', path: 'registrationId', found: 'a series for this' });
  if (before !== undefined && before.count > 0) {
    if (before.start !== input.start)
      return refuse({ code: 'in-use', path: 'start', keep: `the start at ${before.start}` });
    if (before.yearly !== input.yearly) return refuse({ code: 'in-use', path: 'yearly', keep: 'the counting' });
    if (before.registrationId !== input.registrationId)
      return refuse({ code: 'in-use', path: 'registrationId', keep: 'the registration' });
  }
  const known = before ?? newSeries(input.kind, input.prefix);
  const startYear = before?.start === input.start ? known.startYear : today.slice(0, 4);
  const saved: Series = { ...known, ...input, ...(startYear !== undefined && { startYear }) };
  return accept({
    value: saved,
    changes: {
      put: { series: [saved] },
      audit: { subject: `Numbers ${saved.prefix}`, about: [saved.id], ...(before && { before }), after: saved },
    },
  });
}
