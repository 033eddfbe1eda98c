'use client';

import { useSortable } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { type KeyboardEvent, memo } from 'react';
import { flushSync } from 'react-dom';
import type { DraftLine } from '@/core/documents/draft';
import type { Currency } from '@/core/kernel/currency';
import { minor } from '@/core/kernel/money';
import { unitWord } from '@/core/kernel/unit';
import { FindBox, type FindOption } from '@/ui/FindBox';
import { Money } from '@/ui/Money';
import { isKey, type KeyName } from '../../shell/keyMap';
import type { DraftStore } from './draftStore';
import { focusField } from './moveOn';

interface LineRowProps {
  readonly store: DraftStore;
  readonly line: DraftLine;
  readonly index: number;
  /** Computed value; undefined while the line can't be computed. A bigint, so that equal figures are equal props. */
  readonly value: bigint | undefined;
  readonly currency: Currency;
  /** What it may be counted in: how it is held, and its word. */
  readonly units: readonly (readonly [string, string])[];
  /** What the line may carry: key and name. */
  readonly taxes: readonly (readonly [string, string])[];
  /** Names of fields with a problem, joined by blanks. */
  readonly wrong: string;
  readonly waiting: boolean;
  readonly options: readonly FindOption[];
  /** What fits the typed text is still looked up. */
  readonly pending: boolean;
  readonly onPickItem: (lineId: string, itemId: string) => void;
  readonly onNewItem: (lineId: string, name: string) => void;
  /** The line was left with a text before it was known which item begins with it. */
  readonly onHurry: (lineId: string, title: string) => void;
}

/**
 * Columns of the lines. Rows are grids, so that blocks of them need no table layout (see `LineBlock`). Where the page is
 * narrow, as at twice the size, what is sold stands above its figures.
 */
export const LINE_GRID =
  'grid grid-cols-[minmax(0,1fr)_54px_40px_76px_52px_120px_84px] max-[760px]:grid-cols-[54px_40px_76px_52px_minmax(0,1fr)_84px] max-[760px]:*:first:col-span-full';

const NUMBER = 'cell text-right tabular-nums';
const HEAD = /^[^\n]*/;

/** One line of the sheet, every cell written in place. */
export const LineRow = memo(function LineRow(props: LineRowProps) {
  const { store, line, index, value, currency, units, taxes, wrong, waiting, options } = props;
  const title = HEAD.exec(line.description)?.[0] ?? '';
  const detail = line.description.slice(title.length + 1);
  const hasDetail = line.description.includes('\n');
  const name = (field: string) => `lines[${index}].${field}`;
  const cell = (field: keyof DraftLine & string, label: string) => ({
    'aria-label': `${label}, line ${index + 1}`,
    'aria-invalid': wrong.split(' ').includes(field),
    'data-field': name(field),
    autoComplete: 'off',
    onFocus: () => store.setFocus({ lineId: line.id, field }),
  });
  const onKeyDown = (event: KeyboardEvent) => {
    // Enter before the list was there goes on at once; the item follows when it is found.
    const hurried = event.key === 'Enter' && props.pending && line.itemId === '' && title.trim() !== '';
    if (hurried && (event.target as HTMLElement).dataset.field === name('description')) props.onHurry(line.id, title);
    const { field = name('description') } = (event.target as HTMLElement).dataset;
    const changed = (change: () => void) => {
      flushSync(change);
      // The line may have gone to another place, or another line have come to its place: the cell keeps the focus.
      const at = store.getState().draft.lines.findIndex((one) => one.id === line.id);
      focusField(field.replace(/\d+/, String(at < 0 ? index : at)));
    };
    const is = (key: KeyName) => isKey(event.nativeEvent, key);
    if (is('lineUp')) changed(() => store.moveLine(line.id, -1));
    else if (is('lineDown')) changed(() => store.moveLine(line.id, 1));
    else if (is('takeOut')) changed(() => store.removeLine(line.id));
    else if (is('copyLine')) store.copyLine(line.id);
    else if (is('furtherText') && !hasDetail) store.changeLine(line.id, { description: `${title}\n` });
    else return;
    event.preventDefault();
  };
  const { setNodeRef, setActivatorNodeRef, listeners, transform, transition, isDragging } = useSortable({
    id: line.id,
    disabled: waiting,
  });
  return (
    <tr
      ref={setNodeRef}
      data-line={line.id}
      style={
        transform === null ? undefined : { transform: CSS.Translate.toString(transform), transition: transition ?? '' }
      }
      className={`${LINE_GRID} group relative ${isDragging ? 'z-10 bg-paper opacity-80' : ''} items-start border-rule border-b`}
      onKeyDown={onKeyDown}
    >
      <td className="relative">
        {!waiting && (
          <span
            ref={setActivatorNodeRef}
            {...listeners}
            aria-hidden="true"
            title="Drag to move; Alt+↑ and Alt+↓ do the same"
            className="absolute top-1 -left-4 w-4 cursor-grab touch-none text-soft opacity-0 group-focus-within:opacity-100 group-hover:opacity-100"
          >
            ⠿
          </span>
        )}
        <FindBox
          label={`Item or description, line ${index + 1}`}
          fieldName={name('description')}
          free
          value={title}
          options={options}
          invalid={wrong.split(' ').includes('description')}
          placeholder={waiting ? 'Item or description…' : ''}
          onFocus={() => store.setFocus({ lineId: line.id, field: 'description' })}
          onType={(text) => store.changeLine(line.id, { description: hasDetail ? `${text}\n${detail}` : text })}
          onPick={(option) => props.onPickItem(line.id, option.id)}
          {...(title.trim() !== '' &&
            line.itemId === '' && {
              create: { label: `New item “${title.trim()}”`, onCreate: () => props.onNewItem(line.id, title.trim()) },
            })}
        />
        {hasDetail && (
          <textarea
            aria-label={`Further text, line ${index + 1}`}
            rows={Math.max(1, detail.split('\n').length)}
            className="cell block resize-none pt-0 text-soft text-sm"
            value={detail}
            onFocus={() => store.setFocus({ lineId: line.id, field: 'description' })}
            onChange={(event) => store.changeLine(line.id, { description: `${title}\n${event.target.value}` })}
          />
        )}
      </td>
      <td>
        <input
          {...cell('quantity', 'Quantity')}
          className={NUMBER}
          inputMode="decimal"
          value={waiting ? '' : line.quantity}
          disabled={waiting}
          onChange={(event) => store.changeLine(line.id, { quantity: event.target.value })}
        />
      </td>
      <td>
        {!waiting && (
          <select
            aria-label={`Unit, line ${index + 1}`}
            className="cell cursor-pointer appearance-none px-0 text-soft text-sm"
            value={line.unit}
            onFocus={() => store.setFocus({ lineId: line.id, field: 'unit' })}
            onChange={(event) => store.changeLine(line.id, { unit: event.target.value })}
          >
            {!units.some(([unit]) => unit === line.unit) && <option value={line.unit}>{unitWord(line.unit)}</option>}
            {units.map(([unit, word]) => (
              <option key={unit} value={unit}>
                {word}
              </option>
            ))}
          </select>
        )}
      </td>
      <td>
        <input
          {...cell('price', 'Price')}
          className={NUMBER}
          inputMode="decimal"
          value={line.price}
          disabled={waiting}
          onChange={(event) => store.changeLine(line.id, { price: event.target.value, priceFrom: '' })}
        />
      </td>
      <td>
        <input
          {...cell('discount', 'Discount')}
          className={NUMBER}
          title="10% or an amount"
          value={line.discount}
          disabled={waiting}
          onChange={(event) => store.changeLine(line.id, { discount: event.target.value })}
        />
      </td>
      <td>
        {!waiting && (
          <select
            {...cell('taxCode', 'Tax')}
            className="cell cursor-pointer appearance-none truncate"
            title={taxes.find(([key]) => key === line.taxCode)?.[1]}
            value={line.taxCode}
            onChange={(event) => store.changeLine(line.id, { taxCode: event.target.value, taxByHand: true })}
          >
            <option value="">choose…</option>
            {taxes.map(([key, name]) => (
              <option key={key} value={key}>
                {name}
              </option>
            ))}
          </select>
        )}
      </td>
      {/* A figure too long for its column grows to the left: cut off it would read as another one. */}
      <td className="flex justify-end px-1.5 py-1">
        {value !== undefined && !waiting && <Money amount={minor(value)} currency={currency} />}
      </td>
    </tr>
  );
});
