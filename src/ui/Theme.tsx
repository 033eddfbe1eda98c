'use client';

import { useLayoutEffect } from 'react';
import { Toaster } from 'sonner';
import { keepText, keptText } from './kept';

export type ThemeChoice = 'paper' | 'night' | 'system';

const KEY = 'able-ledger-theme';

/** The chosen theme; `system` until one was chosen. */
export function themeChoice(): ThemeChoice {
  const kept = keptText(KEY);
  return kept === 'paper' || kept === 'night' ? kept : 'system';
}

function apply(choice: ThemeChoice): void {
  const night = choice === 'night' || (choice === 'system' && matchMedia('(prefers-color-scheme: dark)').matches);
  document.documentElement.dataset.theme = night ? 'night' : 'paper';
}

export function chooseTheme(choice: ThemeChoice): void {
  keepText(KEY, choice);
  apply(choice);
}

/** Applies the theme before the first paint, and holds the place of short messages. */
export function Theme() {
  useLayoutEffect(() => {
    apply(themeChoice());
  }, []);
  return (
    <Toaster
      position="bottom-right"
      toastOptions={{
        style: {
          background: 'var(--sheet)',
          color: 'var(--ink)',
          border: '1px solid var(--rule)',
          borderRadius: 3,
          fontFamily: 'var(--font-sans)',
        },
      }}
    />
  );
}
