import type { KeyboardEvent } from 'react';
import { isKey } from '../../shell/keyMap';

/** Puts the focus into a field; what stands in it is selected, so that typing replaces it. */
function enter(field: HTMLElement | null | undefined): void {
  field?.focus();
  if (field instanceof HTMLInputElement) field.select();
}

/** Alt+Enter leaves the rest of a line as it is and goes on to the next one; from the head to the last. */
function nextLine(event: KeyboardEvent<HTMLElement>): void {
  const lines = [...event.currentTarget.querySelectorAll<HTMLElement>('[data-line]')];
  const at = lines.findIndex((line) => line.contains(event.target as Node));
  const next = at < 0 ? lines.at(-1) : lines[at + 1];
  event.preventDefault();
  enter(next?.querySelector<HTMLElement>('[data-field]'));
}

/** Enter goes on to the next cell of the sheet, in reading order; text areas keep it with Shift. */
export function moveOnEnter(event: KeyboardEvent<HTMLElement>): void {
  if (event.defaultPrevented) return;
  if (isKey(event.nativeEvent, 'nextLine')) {
    nextLine(event);
    return;
  }
  const target = event.target as HTMLElement;
  if (!isKey(event.nativeEvent, 'nextCell') || target.closest('[data-field]') === null) return;
  event.preventDefault();
  // Fields in a shut fold can't be written in, and choices that stand by themselves are passed over.
  const fields = [...event.currentTarget.querySelectorAll<HTMLElement>('[data-field]')].filter(
    (field) => field === target || (field.checkVisibility() && field.dataset.passOver === undefined),
  );
  enter(fields[fields.indexOf(target) + 1]);
}

/** Drawings of the page that an undrawn line is waited for. */
const PATIENCE = 60;

/** Brings the line of a path such as `lines[812].price` near, so that it is drawn. */
function bringNear(path: string): boolean {
  const at = Number(/^lines\[(\d+)\]/.exec(path)?.[1]);
  const room = [...document.querySelectorAll<HTMLElement>('[data-undrawn-from]')].find(
    ({ dataset }) => Number(dataset.undrawnFrom) <= at && at < Number(dataset.undrawnUntil),
  );
  room?.scrollIntoView({ block: 'center' });
  return room !== undefined;
}

/** Puts the focus on a field of the sheet by its path, such as `lines[0].price`. */
export function focusField(path: string, patience = PATIENCE): void {
  const field = document.querySelector<HTMLElement>(`[data-field="${CSS.escape(path)}"]`);
  if (field !== null) enter(field);
  else if (patience > 0 && bringNear(path)) requestAnimationFrame(() => focusField(path, patience - 1));
}
