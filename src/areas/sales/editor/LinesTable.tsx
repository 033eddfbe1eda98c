'use client';

import { useMemo } from 'react';
import { useStore } from 'zustand';
import { type Draft, isBlank } from '@/core/documents/draft';
import type { Preview } from '@/core/documents/preview';
import type { Refusal } from '@/core/kernel/result';
import { findItems } from '@/store/queries/documents';
import { useOpenBook } from '../../shell/BookContext';
import { useFinder } from '../../shell/useFinder';
import type { DraftStore } from './draftStore';
import { LINE_GRID, LineRow } from './LineRow';

const NO_OPTIONS: readonly never[] = [];

interface LinesTableProps {
  readonly store: DraftStore;
  readonly draft: Draft;
  readonly problems: readonly Refusal[];
  readonly shown: Preview;
  /** What lines may carry, by key. */
  readonly taxes: readonly (readonly [string, string])[];
  readonly onPickItem: (lineId: string, itemId: string) => void;
  readonly onNewItem: (lineId: string, name: string) => void;
}

/** The lines of a draft. Items are looked up once, for the line that is written in. */
export function LinesTable({ store, draft, problems, shown, taxes, onPickItem, onNewItem }: LinesTableProps) {
  const { currency } = useOpenBook();
  const focus = useStore(store, (state) => state.focus);
  const written = focus?.field === 'description' ? focus.lineId : '';
  const typed = draft.lines.find((line) => line.id === written)?.description.split('\n')[0] ?? '';
  const { rows: items } = useFinder(findItems, typed, written !== '');
  const options = useMemo(() => items.map((item) => ({ id: item.id, label: item.name, detail: item.price })), [items]);
  const wrongOn = (index: number) =>
    problems
      .filter((problem) => problem.path.startsWith(`lines[${index}].`))
      .map((problem) => problem.path.split('.')[1])
      .join(' ');
  const heads: readonly (readonly [string, string])[] = [
    ['Item', 'px-1.5'],
    ['Quantity', 'px-1.5 text-right'],
    ['Unit', 'sr-only'],
    ['Price', 'px-1.5 text-right'],
    ['Less', 'px-1.5 text-right'],
    ['Tax', 'px-1.5'],
    [draft.priceMode === 'net' ? 'Net' : 'With tax', 'px-1.5 text-right'],
  ];
  return (
    <table className="block">
      <caption className="sr-only">Lines of the invoice</caption>
      <thead className="block">
        <tr className={`${LINE_GRID} border-ink border-b pb-1 text-left text-soft text-sm`}>
          {heads.map(([head, look]) => (
            <th key={head} scope="col" className="font-normal">
              <span className={`block ${look}`}>{head}</span>
            </th>
          ))}
        </tr>
      </thead>
      <tbody className="block">
        {draft.lines.map((line, index) => (
          <LineRow
            key={line.id}
            store={store}
            line={line}
            index={index}
            value={shown.byLine.get(line.id)?.value}
            currency={currency}
            taxes={taxes}
            wrong={wrongOn(index)}
            waiting={index === draft.lines.length - 1 && isBlank(line)}
            options={line.id === written ? options : NO_OPTIONS}
            onPickItem={onPickItem}
            onNewItem={onNewItem}
          />
        ))}
      </tbody>
    </table>
  );
}
