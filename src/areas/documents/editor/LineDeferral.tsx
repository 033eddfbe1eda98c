'use client';

import type { Deferral } from '@/core/documents/deferral';
import { isDeferral } from '@/core/documents/deferral';
import type { DraftLine } from '@/core/documents/draft';
import { wordWanted } from '@/core/wording/wanted';
import { Button } from '@/ui/Button';
import { ChoiceField, TextField } from '@/ui/Field';
import { DateField } from '../../shared/DateField';
import { typedDay } from '../../shared/typedDay';
import { today } from '../../shell/book';
import type { DraftStore } from './draftStore';

const BLANK: Readonly<Record<Deferral['kind'], () => Deferral>> = {
  days: () => ({ kind: 'days', from: '', to: '' }),
  months: () => ({ kind: 'months', months: 12, first: today().slice(0, 7) }),
  parts: () => ({ kind: 'parts', parts: [{ date: '', percent: '100' }] }),
};

interface LineDeferralProps {
  readonly store: DraftStore;
  readonly line: DraftLine;
  readonly index: number;
}

/** When the revenue of a line belongs: with the invoice, or to other days. Its tax is due with the invoice all the same. */
export function LineDeferral({ store, line, index }: LineDeferralProps) {
  const { deferral } = line;
  const change = (next: Deferral | undefined) => store.changeDeferral(line.id, next);
  const kind = deferral?.kind ?? '';
  return (
    <fieldset data-field={`lines[${index}].deferral`} tabIndex={-1}>
      <ChoiceField
        label="Revenue belongs to"
        options={[
          ['', 'the invoice'],
          ['days', 'the days of a span'],
          ['months', 'equal months'],
          ['parts', 'dates with percents'],
        ]}
        value={kind}
        onChange={({ target: { value } }) => change(value === '' ? undefined : BLANK[value as Deferral['kind']]())}
      />
      {deferral?.kind === 'days' && (
        <div className="grid grid-cols-2 gap-x-3">
          {(['from', 'to'] as const).map((end) => (
            <DateField
              key={end}
              label={end === 'from' ? 'First day' : 'Last day'}
              value={deferral[end]}
              onChange={(event) => change({ ...deferral, [end]: typedDay(event.target.value) })}
            />
          ))}
        </div>
      )}
      {deferral?.kind === 'months' && (
        <div className="grid grid-cols-2 gap-x-3">
          <TextField
            label="Months"
            inputMode="numeric"
            value={deferral.months === 0 ? '' : String(deferral.months)}
            onChange={(event) => change({ ...deferral, months: Number(event.target.value.replaceAll(/\D/g, '')) })}
          />
          <TextField
            label="First month"
            placeholder="2026-01"
            value={deferral.first}
            onChange={(event) => change({ ...deferral, first: event.target.value.trim() })}
          />
        </div>
      )}
      {deferral?.kind === 'parts' && (
        <>
          {deferral.parts.map((part, i) => {
            const withPart = (patch: Partial<typeof part>) =>
              change({ ...deferral, parts: deferral.parts.map((one, k) => (k === i ? { ...one, ...patch } : one)) });
            return (
              <div key={i} className="grid grid-cols-[3fr_2fr_auto] gap-x-3">
                <DateField
                  label={`Date ${i + 1}`}
                  value={part.date}
                  onChange={(event) => withPart({ date: typedDay(event.target.value) })}
                />
                <TextField
                  label={`Percent ${i + 1}`}
                  inputMode="decimal"
                  value={part.percent}
                  onChange={(event) => withPart({ percent: event.target.value.trim() })}
                />
                <Button
                  weight="quiet"
                  className="mt-4"
                  aria-label={`Remove date ${i + 1}`}
                  onClick={() => change({ ...deferral, parts: deferral.parts.filter((_, k) => k !== i) })}
                >
                  ×
                </Button>
              </div>
            );
          })}
          <Button
            weight="quiet"
            onClick={() => change({ ...deferral, parts: [...deferral.parts, { date: '', percent: '' }] })}
          >
            Add date
          </Button>
        </>
      )}
      {deferral !== undefined && !isDeferral(deferral) && (
        <p className="mb-2 text-brick text-sm">▲ {wordWanted('give-deferral')}</p>
      )}
    </fieldset>
  );
}
