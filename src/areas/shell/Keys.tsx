'use client';

import { useEffect, useState } from 'react';
import { Dialog } from '@/ui/Dialog';

const KEYS: readonly (readonly [string, string])[] = [
  ['Alt+1 … Alt+6', 'Go to an area'],
  ['Ctrl+K', 'Find anything, or do something'],
  ['Alt+N', 'Write an invoice (in Sales), record a receipt (in Receipts)'],
  ['Alt+Q', 'Write a quote (in Sales)'],
  ['Enter', 'On to the next cell of a sheet'],
  ['Alt+Enter', 'On to the next line, leaving the rest of this one'],
  ['Ctrl+Enter', 'Do the main thing of the sheet'],
  ['Alt+↑ Alt+↓', 'Move the line up or down'],
  ['Alt+Delete', 'Take the line out'],
  ['Alt+Insert', 'Put a copy of the line below it'],
  ['Shift+Enter', 'A further text line in a description'],
  ['Esc', 'Step back'],
  ['?', 'These keys'],
];

function isWriting(target: EventTarget | null): boolean {
  return target instanceof HTMLElement && target.closest('input, textarea, select, [contenteditable]') !== null;
}

/** Lists the keys; opens on `?` outside a field. */
export function Keys() {
  const [open, setOpen] = useState(false);
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.key === '?' && !isWriting(event.target)) setOpen(true);
    };
    addEventListener('keydown', onKey);
    return () => removeEventListener('keydown', onKey);
  }, []);
  return (
    <Dialog
      open={open}
      onClose={() => setOpen(false)}
      title="Keys"
      description="Everything can be done without the mouse."
    >
      <dl className="grid grid-cols-[140px_1fr] gap-y-1.5">
        {KEYS.map(([keys, what]) => (
          <div key={keys} className="contents">
            <dt className="text-soft">{keys}</dt>
            <dd>{what}</dd>
          </div>
        ))}
      </dl>
    </Dialog>
  );
}
