'use client';

import { useEffect, useState } from 'react';
import { Dialog } from '@/ui/Dialog';
import { isKey, KEY_MAP } from './keyMap';

function isWriting(target: EventTarget | null): boolean {
  return target instanceof HTMLElement && target.closest('input, textarea, select, [contenteditable]') !== null;
}

/**
 * The main key in a form sends it, wherever the form stands; while a slip lies over a page, the main thing of the page is
 * not done by it. On the document, so that it comes before the keys of the page.
 */
function useMainKeyInForms(): void {
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.defaultPrevented || !isKey(event, 'main') || !(event.target instanceof HTMLElement)) return;
      const form = event.target.closest('form');
      const sends = form?.querySelector('button[type="submit"]:not(:disabled)') ?? null;
      const slip = document.querySelector('[role="dialog"]');
      if (sends === null && slip === null) return;
      event.preventDefault();
      if (sends !== null && (slip === null || slip.contains(sends))) form?.requestSubmit();
    };
    document.addEventListener('keydown', onKey);
    return () => document.removeEventListener('keydown', onKey);
  }, []);
}

/** Lists the keys; opens on `?` outside a field. */
export function Keys() {
  const [open, setOpen] = useState(false);
  useMainKeyInForms();
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
