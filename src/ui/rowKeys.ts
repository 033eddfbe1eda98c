import type { KeyboardEvent } from 'react';

export type RowKeys = (event: KeyboardEvent<HTMLTableSectionElement>) => void;

const PAGE = 20;

const FOCUSABLE = 'a[href], button:not(:disabled), input:not(:disabled), select:not(:disabled)';

/** The row that a key leads to from one; null where the key is none of the table's. */
export function rowAfter(key: string, at: number, count: number): number | null {
  const to = {
    ArrowDown: at + 1,
    ArrowUp: at - 1,
    PageDown: at + PAGE,
    PageUp: at - PAGE,
    Home: 0,
    End: count - 1,
  }[key];
  return to === undefined ? null : Math.max(0, Math.min(count - 1, to));
}

/** Frames that a row may take to be drawn. */
const PATIENCE = 30;

function focusOnceDrawn(body: HTMLElement, row: number, place: number, frames = PATIENCE): void {
  const there = body.querySelectorAll<HTMLElement>(`tr[data-index="${row}"] :is(${FOCUSABLE})`);
  const target = there[place] ?? there[0];
  if (target !== undefined) target.focus();
  else if (frames > 0) requestAnimationFrame(() => focusOnceDrawn(body, row, place, frames - 1));
}

/**
 * Arrow keys, Page up and down, Home and End go from what has the focus in one row to the same in another; fields keep
 * their own keys. `bring` draws a row that is not there yet.
 */
export function rowKeys({
  count,
  bring,
}: {
  readonly count: number;
  readonly bring: (index: number) => unknown;
}): RowKeys {
  return (event) => {
    const { target, currentTarget: body, key } = event;
    if (!(target instanceof HTMLElement) || target.matches('input, select, textarea')) return;
    if (event.altKey || event.ctrlKey || event.metaKey) return;
    const row = target.closest('tr');
    const at = Number(row?.dataset.index);
    const to = row === null ? null : rowAfter(key, at, count);
    if (row === null || to === null || to === at) return;
    event.preventDefault();
    const place = [...row.querySelectorAll(FOCUSABLE)].indexOf(target);
    bring(to);
    focusOnceDrawn(body, to, place);
  };
}
