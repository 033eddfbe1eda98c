'use client';

import { useEffect, useState } from 'react';
import { Dialog } from '@/ui/Dialog';
import { isKey, KEY_MAP } from './keyMap';

function isWriting(target: EventTarget | null): boolean {
  return target instanceof HTMLElement && target.closest('input, textarea, select, [contenteditable]') !== null;
}

/** Lists the keys; opens on `?` outside a field. */
export function Keys() {
  const [open, setOpen] = useState(false);
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (isKey(event, 'help') && !isWriting(event.target)) setOpen(true);
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
        {Object.values(KEY_MAP).map(({ shown, does }) => (
          <div key={shown} className="contents">
            <dt className="text-soft">{shown}</dt>
            <dd>{does}</dd>
          </div>
        ))}
      </dl>
    </Dialog>
  );
}
