'use client';

import { closestCenter, DndContext, type DragEndEvent, PointerSensor, useSensor, useSensors } from '@dnd-kit/core';
import { SortableContext, verticalListSortingStrategy } from '@dnd-kit/sortable';
import { type ClipboardEvent, useMemo } from 'react';
import { toast } from 'sonner';
import { useStore } from 'zustand';
import { type Draft, isBlank } from '@/core/documents/draft';
import { linesFromCells } from '@/core/documents/pasteLines';
import type { Preview } from '@/core/documents/preview';
import { readCells } from '@/core/files/csv';
import type { Refusal } from '@/core/kernel/result';
import { findItems } from '@/store/queries/documents';
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
  readonly onHurry: (lineId: string, title: string) => void;
}

/** The lines of a draft. Items are looked up once, for the line that is written in. */
export function LinesTable({ store, draft, problems, shown, taxes, onPickItem, onNewItem, onHurry }: LinesTableProps) {
  const { currency } = shown;
  const focus = useStore(store, (state) => state.focus);
  const written = focus?.field === 'description' ? focus.lineId : '';
  const typed = draft.lines.find((line) => line.id === written)?.description.split('\n')[0] ?? '';
  const { rows: items, pending } = useFinder(findItems, typed, written !== '');
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
  const ids = draft.lines.map((line) => line.id).join(' ');
  const order = useMemo(() => ids.split(' '), [ids]);
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 4 } }));
  const drop = ({ active, over }: DragEndEvent) => {
    if (over === null) return;
    const to = order.indexOf(String(over.id));
    store.moveLine(String(active.id), to - order.indexOf(String(active.id)));
  };
  const paste = (event: ClipboardEvent) => {
    const text = event.clipboardData.getData('text/plain');
    const target = (event.target as HTMLElement).closest('[data-line]');
    // One cell of one line is ordinary text for the field that has the focus.
    if (target === null || !/\t|\n./.test(text.trim())) return;
    if (event.target instanceof HTMLTextAreaElement && !text.includes('\t')) return;
    const lines = linesFromCells(readCells(text));
    if (lines.length === 0) return;
    event.preventDefault();
    store.insertLines(target.getAttribute('data-line') ?? '', lines);
    toast(`${lines.length} ${lines.length === 1 ? 'line' : 'lines'} pasted`);
  };
  return (
    <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={drop}>
      <SortableContext items={order} strategy={verticalListSortingStrategy}>
        <table className="block" onPaste={paste}>
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
                pending={line.id === written && pending}
                onPickItem={onPickItem}
                onNewItem={onNewItem}
                onHurry={onHurry}
              />
            ))}
          </tbody>
        </table>
      </SortableContext>
    </DndContext>
  );
}
