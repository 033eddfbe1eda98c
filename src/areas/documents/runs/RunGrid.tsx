'use client';

import { type ClipboardEvent, memo, useState } from 'react';
import { pastedFigures, type RunRow, type RunState } from '@/core/documents/run';
import { readCells } from '@/core/files/csv';
import { changeRunRows, dropFromRun } from '@/store/sales/actions/runs';
import type { RunReview } from '@/store/sales/queries/runs';
import { Button } from '@/ui/Button';
import Link from '@/ui/Link';
import { Mark, type MarkKind } from '@/ui/Mark';
import { Money } from '@/ui/Money';
import { TextButton } from '@/ui/TextButton';
import { act } from '../../shell/book';
import { routes } from '../../shell/routes';

interface RunGridProps {
  readonly rows: readonly RunRow[];
  readonly reviews: ReadonlyMap<string, RunReview>;
  readonly numbers: ReadonlyMap<string, string>;
  readonly states: Readonly<Record<RunState, readonly [MarkKind, string]>>;
  /** Makes the draft of one customer now, to be changed. */
  readonly onOpen: (row: RunRow) => void;
}

/** Customers that are shown together. */
const PAGE = 100;

const CELL = 'cell w-full border-rule border-b bg-transparent text-right tabular-nums';
const ROW_ACTION = 'text-soft text-sm';
const HEAD = 'border-ink border-b px-1.5 pb-1 text-left font-normal text-soft text-sm';

/**
 * The customers of a run with their own quantity and price, and what each will get. A block of cells copied from a
 * spreadsheet (customer, quantity, price) is pasted into any field.
 */
export const RunGrid = memo(function RunGrid({ rows, reviews, numbers, states, onOpen }: RunGridProps) {
  const [told, setTold] = useState('');
  const [shown, setShown] = useState(PAGE);
  const paste = (event: ClipboardEvent) => {
    const text = event.clipboardData.getData('text/plain');
    if (!text.includes('\t')) return;
    event.preventDefault();
    const { changed, unknown } = pastedFigures(rows, readCells(text));
    void act(changeRunRows, { rows: changed });
    setTold(
      `${changed.length} customers have new figures.${unknown.length === 0 ? '' : ` Not in the run: ${unknown.join(', ')}.`}`,
    );
  };
  const change = (row: RunRow, over: Partial<RunRow>) => void act(changeRunRows, { rows: [{ ...row, ...over }] });
  if (rows.length === 0) return null;
  return (
    <>
      <table className="w-full border-collapse" onPaste={paste}>
        <caption className="sr-only">Customers of the run</caption>
        <thead>
          <tr>
            <th scope="col" className={HEAD}>
              In
            </th>
            <th scope="col" className={HEAD}>
              Customer
            </th>
            <th scope="col" className={`${HEAD} w-[80px] text-right`}>
              Quantity
            </th>
            <th scope="col" className={`${HEAD} w-[90px] text-right`}>
              Price
            </th>
            <th scope="col" className={`${HEAD} w-[120px]`}>
              What it gets
            </th>
            <th scope="col" className={`${HEAD} text-right`}>
              Total
            </th>
          </tr>
        </thead>
        <tbody>
          {rows.slice(0, shown).map((row) => {
            const review = reviews.get(row.id);
            const number = numbers.get(row.documentId) ?? '';
            const [mark, word] = states[number === '' ? row.state : 'issued'];
            const isPlanned = row.state === 'planned';
            return (
              <tr key={row.id} className="border-rule border-b">
                <td className="px-1.5 py-1 align-top">
                  <input
                    type="checkbox"
                    className="accent-rust"
                    aria-label={`${row.customerName} is in`}
                    disabled={!isPlanned}
                    checked={!row.left}
                    onChange={({ target: { checked } }) => change(row, { left: !checked })}
                  />
                </td>
                <td className="px-1.5 py-1 align-top">
                  <span className="flex flex-wrap gap-x-2">
                    <span className="wrap-break-word min-w-0 grow basis-[160px]">{row.customerName}</span>
                    {isPlanned && (
                      <span className="flex gap-2">
                        <TextButton className={ROW_ACTION} onClick={() => onOpen(row)}>
                          Open<span className="sr-only"> the draft of {row.customerName}</span>
                        </TextButton>
                        <TextButton className={ROW_ACTION} onClick={() => void act(dropFromRun, { ids: [row.id] })}>
                          Remove<span className="sr-only"> {row.customerName}</span>
                        </TextButton>
                      </span>
                    )}
                  </span>
                  {isPlanned && review !== undefined && review.finding !== '' && (
                    <span className="block text-brick text-sm">
                      <Mark kind="warning" /> {review.finding}
                    </span>
                  )}
                  {!isPlanned && number === '' && row.why !== '' && (
                    <span className="block text-soft text-sm">{row.why}</span>
                  )}
                </td>
                {(['quantity', 'price'] as const).map((field) => (
                  <td key={field} className="px-1.5 align-top">
                    <Figure row={row} field={field} onChange={(value) => change(row, { [field]: value })} />
                  </td>
                ))}
                <td className="px-1.5 py-1 align-top text-sm">
                  {isPlanned && review !== undefined && `${review.due} · ${review.way} · ${review.taxes}`}
                  {!isPlanned && (
                    <>
                      <Mark kind={mark} />{' '}
                      <Link
                        href={number === '' ? routes.draft(row.documentId) : routes.document(row.documentId)}
                        className="underline decoration-rule underline-offset-4"
                      >
                        {number || word}
                      </Link>
                    </>
                  )}
                </td>
                <td className="px-1.5 py-1 text-right align-top tabular-nums">
                  {isPlanned && review !== undefined && <Money amount={review.total} currency={review.currency} />}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
      {rows.length > shown && (
        <Button weight="quiet" onClick={() => setShown(shown + PAGE)}>
          Show more: {rows.length - shown} are left
        </Button>
      )}
      <p role="status" className="min-h-[20px] text-soft text-sm">
        {told || 'Empty: what the content says. Paste customer, quantity and price from a spreadsheet into any field.'}
      </p>
    </>
  );
});

interface FigureProps {
  readonly row: RunRow;
  readonly field: 'quantity' | 'price';
  readonly onChange: (value: string) => void;
}

/** A figure of one customer, kept when its field is left. */
function Figure({ row, field, onChange }: FigureProps) {
  const [typed, setTyped] = useState<string | null>(null);
  return (
    <input
      className={CELL}
      inputMode="decimal"
      aria-label={`${field === 'quantity' ? 'Quantity' : 'Price'}, ${row.customerName}`}
      disabled={row.state !== 'planned'}
      value={typed ?? row[field]}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={() => {
        if (typed !== null && typed !== row[field]) onChange(typed.trim());
        setTyped(null);
      }}
    />
  );
}
