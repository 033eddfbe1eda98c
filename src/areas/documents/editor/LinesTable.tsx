'use client';

import { closestCenter, DndContext, type DragEndEvent, PointerSensor, useSensor, useSensors } from '@dnd-kit/core';
import { SortableContext, verticalListSortingStrategy } from '@dnd-kit/sortable';
import { type ClipboardEvent, useMemo, useState } from 'react';
import { toast } from 'sonner';
import { useStore } from 'zustand';
import type { Draft, DraftLine } from '@/core/documents/draft';
import { linesFromCells } from '@/core/documents/pasteLines';
import type { Preview } from '@/core/documents/preview';
import { readCells } from '@/core/files/csv';
import type { Refusal } from '@/core/kernel/result';
import { unitsOf } from '@/core/kernel/unit';
import { findItems } from '@/store/sales/queries/documents';
import { useOpenBook } from '../../shell/BookContext';
import { useFinder } from '../../shell/useFinder';
import type { DraftStore } from './draftStore';
import { BLOCK, LineBlock } from './LineBlock';
import { LINE_GRID } from './LineRow';

const NO_OPTIONS: readonly never[] = [];
/** The very same at each drawing: new ones would have every line drawn again. */
const DRAG = { activationConstraint: { distance: 4 } };

function inBlocks(lines: readonly DraftLine[]): readonly (readonly DraftLine[])[] {
  return Array.from({ length: Math.ceil(lines.length / BLOCK) }, (_, b) => lines.slice(b * BLOCK, (b + 1) * BLOCK));
}

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
  const own = useOpenBook().business.units;
  const units = useMemo(() => unitsOf(own), [own]);
  const focus = useStore(store, (state) => state.focus);
  const written = focus?.field === 'description' ? focus.lineId : '';
  const typed = draft.lines.find((line) => line.id === written)?.description.split('\n')[0] ?? '';
  const { rows: items, pending } = useFinder(findItems, typed, written !== '');
  const options = useMemo(() => items.map((item) => ({ id: item.id, label: item.name, detail: item.price })), [items]);
  const heads: readonly (readonly [string, string])[] = [
    ['Item', 'px-1.5'],
    ['Quantity', 'px-1.5 text-right'],
    ['Unit', 'sr-only'],
    ['Price', 'px-1.5 text-right'],
    ['Discount', 'px-1.5 text-right'],
    ['Tax', 'px-1.5'],
    [draft.priceMode === 'net' ? 'Net' : 'With tax', 'px-1.5 text-right'],
  ];
  const blocks = inBlocks(draft.lines);
  const ids = draft.lines.map((line) => line.id).join(' ');
  const order = useMemo(() => ids.split(' '), [ids]);
  const sensors = useSensors(useSensor(PointerSensor, DRAG));
  const [dragging, setDragging] = useState(false);
  const drop = ({ active, over }: DragEndEvent) => {
    setDragging(false);
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
    const lines = linesFromCells(readCells(text), own);
    if (lines.length === 0) return;
    event.preventDefault();
    store.insertLines(target.getAttribute('data-line') ?? '', lines);
    toast(`${lines.length} ${lines.length === 1 ? 'line' : 'lines'} pasted`);
  };
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={closestCenter}
      onDragStart={() => setDragging(true)}
      onDragCancel={() => setDragging(false)}
      onDragEnd={drop}
    >
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
          {blocks.map((lines, b) => {
            const here = lines.some((line) => line.id === written);
            return (
              <LineBlock
                key={b}
                store={store}
                lines={lines}
                from={b * BLOCK}
                last={b === blocks.length - 1}
                values={lines.map((line) => shown.byLine.get(line.id)?.value)}
                currency={currency}
                units={units}
                taxes={taxes}
                problems={problems}
                written={here ? written : ''}
                options={here ? options : NO_OPTIONS}
                pending={here && pending}
                dragging={dragging}
                onPickItem={onPickItem}
                onNewItem={onNewItem}
                onHurry={onHurry}
              />
            );
          })}
        </table>
      </SortableContext>
    </DndContext>
  );
}
