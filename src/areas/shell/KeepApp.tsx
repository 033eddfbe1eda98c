'use client';

import { useEffect } from 'react';
import { toast } from 'sonner';
import { keepApp } from './keepApp';

const NEW = 'new-version';

const offer = (words: string, take: () => void) =>
  toast(words, {
    id: NEW,
    duration: Number.POSITIVE_INFINITY,
    action: {
      label: 'Load it',
      onClick: () => {
        take();
        // The browser lets the earlier version finish what it is at.
        toast.loading('Loading the new version…', { id: NEW });
      },
    },
  });

/** Says when the app works without a connection, and offers a new version. The development server has none of it. */
export function KeepApp() {
  useEffect(() => {
    if (process.env.NODE_ENV !== 'production' || !('serviceWorker' in navigator)) return;
    return keepApp({
      onReady: () => toast('Ready to work without a connection'),
      onNew: (take) => offer('A new version is ready.', take),
      onTaken: (take) => offer('Another window has loaded the new version. Load it here too.', take),
    });
  }, []);
  return null;
}
