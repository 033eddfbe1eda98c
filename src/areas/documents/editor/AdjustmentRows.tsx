'use client';

import type { ReactNode } from 'react';
import { blankAdjustment, type Draft, type DraftAdjustment } from '@/core/documents/draft';
import type { Preview } from '@/core/documents/preview';
import { total } from '@/core/kernel/money';
import type { Refusal } from '@/core/kernel/result';
import { Money } from '@/ui/Money';
import { TextButton } from '@/ui/TextButton';
import { useOpenBook } from '../../shell/BookContext';
import type { DraftStore } from './draftStore';
import { focusField } from './moveOn';

interface AdjustmentRowsProps {
  readonly store: DraftStore;
  readonly draft: Draft;
  readonly shown: Preview;
  readonly problems: readonly Refusal[];
  readonly taxes: readonly (readonly [string, string])[];
  /** Stands behind what adds to them. */
  readonly children: ReactNode;
}

const SPREAD = ':spread';

/** Discounts and charges on the whole document, below its lines. */
export function AdjustmentRows({ store, draft, shown, problems, taxes, children }: AdjustmentRowsProps) {
  const { accounts, business } = useOpenBook();
  const surcharge = business.cards?.surcharge ?? '';
  const wrong = new Set(problems.map((problem) => problem.path));
  const add = (kind: DraftAdjustment['kind'], percent = '') => {
    const index = store.getState().draft.adjustments.length;
    const role = kind === 'allowance' ? 'discounts' : 'charges';
    const account = accounts.find((one) => one.role === role)?.code ?? '';
    const blank = blankAdjustment(crypto.randomUUID(), kind, account);
    store.addAdjustment(percent === '' ? blank : { ...blank, text: 'Card surcharge', amount: `${percent}%` });
    requestAnimationFrame(() => focusField(`adjustments[${index}].amount`));
  };
  return (
    <section aria-label="Discounts and charges" className="mt-1">
      {draft.adjustments.map((adjustment, index) => {
        const at = (field: string) => `adjustments[${index}].${field}`;
        const what = adjustment.kind === 'allowance' ? 'discount' : 'charge';
        const parts = shown.figures.adjustments.filter((part) => part.id === adjustment.id);
        const change = (patch: Partial<DraftAdjustment>) => store.changeAdjustment(adjustment.id, patch);
        return (
          <div
            key={adjustment.id}
            className="grid grid-cols-[64px_minmax(0,1fr)_92px_150px_84px_24px] items-center border-rule border-b"
          >
            <span className="px-1.5 text-soft">{what}</span>
            <input
              aria-label={`What the ${what} is for, ${index + 1}`}
              aria-invalid={wrong.has(at('text'))}
              data-field={at('text')}
              className="cell"
              value={adjustment.text}
              onChange={(event) => change({ text: event.target.value })}
            />
            <input
              aria-label={`Percent or amount of the ${what}, ${index + 1}`}
              aria-invalid={wrong.has(at('amount'))}
              data-field={at('amount')}
              className="cell text-right tabular-nums"
              placeholder="10% or 25.00"
              value={adjustment.amount}
              onChange={(event) => change({ amount: event.target.value })}
            />
            <select
              aria-label={`Tax of the ${what}, ${index + 1}`}
              aria-invalid={wrong.has(at('taxCode'))}
              data-field={at('taxCode')}
              className="cell cursor-pointer appearance-none"
              value={adjustment.spread ? SPREAD : adjustment.taxCode}
              onChange={({ target: { value } }) =>
                change(
                  value === SPREAD
                    ? { spread: true, taxCode: '', taxByHand: false }
                    : { spread: false, taxCode: value, taxByHand: value !== '' },
                )
              }
            >
              <option value={SPREAD}>as the lines</option>
              <option value="">by the decision table</option>
              {taxes.map(([key, name]) => (
                <option key={key} value={key}>
                  {name}
                </option>
              ))}
            </select>
            <span className="px-1.5 text-right">
              {parts.length > 0 && <Money amount={total(parts.map((part) => part.value))} currency={shown.currency} />}
            </span>
            <button
              type="button"
              aria-label={`Remove ${what} ${index + 1}`}
              title="Remove it"
              className="cursor-pointer text-soft hover:text-ink"
              onClick={() => store.removeAdjustment(adjustment.id)}
            >
              ×
            </button>
          </div>
        );
      })}
      <p className="flex gap-4 py-1 text-sm">
        <TextButton onClick={() => add('allowance')}>Add a discount</TextButton>
        <TextButton onClick={() => add('charge')}>Add a charge</TextButton>
        {surcharge !== '' && <TextButton onClick={() => add('charge', surcharge)}>Add the card surcharge</TextButton>}
        {children}
      </p>
    </section>
  );
}
